import type { SupplierFound } from '#shared/contract/catalogue'
import { sayError, useApi } from '~/composables/base/use-api'

/** What suppliers' cells of a table mean, by what is typed in them; null where none or several are called so. */
export function useTypedSuppliers(know: (supplier: SupplierFound) => void, complain: (sentence: string) => void) {
  const api = useApi()
  const suppliers = shallowRef<ReadonlyMap<string, string | null>>(new Map())
  /** Asks for what is not known yet; at most 500 at once. */
  async function find(typed: readonly string[]): Promise<void> {
    const texts = typed.filter((t) => !suppliers.value.has(t)).slice(0, 500)
    if (texts.length === 0) return
    try {
      const { found } = await api.post('/api/suppliers/match', { body: { texts } })
      for (const f of found) know(f.supplier)
      const ids = new Map(found.map((f) => [f.typed, f.supplier.id]))
      suppliers.value = new Map([...suppliers.value, ...texts.map((t) => [t, ids.get(t) ?? null] as const)])
    } catch (e) {
      complain(sayError(e))
    }
  }
  return { suppliers, find }
}
