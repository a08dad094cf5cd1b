import type { ReadRow } from '#core/requisition/line-table'
import type { SupplierFound } from '#shared/contract/catalogue'
import { sayError, useApi } from '~/composables/base/use-api'

/** A table that was pasted or given as a file, before its rows become lines. */
export interface OfferedTable {
  readonly rows: readonly (readonly string[])[]
  readonly source: string
  readonly notes: readonly string[]
}

/** A file of lines rather than one to be attached. */
export const isLineFile = (file: File) => /\.(csv|tsv|txt|xlsx)$/i.test(file.name)

/**
 * Takes tables from the clipboard and from files, and offers them to be looked at; `take` makes lines of what was
 * agreed to.
 */
export function useOfferedTable(o: {
  readonly take: (rows: readonly ReadRow[]) => Promise<void>
  /** A supplier that a cell means. */
  readonly know: (supplier: SupplierFound) => void
  readonly complain: (sentence: string) => void
  readonly focusAddField: () => void
}) {
  const api = useApi()
  const offered = shallowRef<OfferedTable | null>(null)
  /** What suppliers' cells mean; null where none or several are called so. */
  const suppliers = shallowRef<ReadonlyMap<string, string | null>>(new Map())

  /** A range of cells is shown as lines first; a text without tabs or breaks is pasted as ever. */
  async function paste(event: ClipboardEvent): Promise<void> {
    const text = event.clipboardData?.getData('text/plain') ?? ''
    if (!/[\t\n]/.test(text.trim())) return
    event.preventDefault()
    const { parse } = await import('csv-parse/browser/esm/sync')
    const quote = text.includes('\t"') || text.startsWith('"') ? '"' : null
    let rows: string[][]
    try {
      rows = parse(text, { delimiter: '\t', relax_quotes: true, relax_column_count: true, quote })
    } catch {
      rows = text.split(/\r?\n/).map((r) => r.split('\t'))
    }
    offered.value = { rows, source: 'what you pasted', notes: [] }
  }

  /** Asks for the suppliers that cells mean; what was asked already is not asked again. */
  async function findSuppliers(typed: readonly string[]): Promise<void> {
    const texts = typed.filter((t) => !suppliers.value.has(t)).slice(0, 500)
    if (texts.length === 0) return
    try {
      const { found } = await api.post('/api/suppliers/match', { body: { texts } })
      for (const f of found) o.know(f.supplier)
      const ids = new Map(found.map((f) => [f.typed, f.supplier.id]))
      suppliers.value = new Map([...suppliers.value, ...texts.map((t) => [t, ids.get(t) ?? null] as const)])
    } catch (e) {
      o.complain(sayError(e))
    }
  }
  async function readFile(file: File): Promise<void> {
    o.complain('')
    try {
      offered.value = {
        ...(await api.post('/api/line-files', { raw: file })),
        source: file.name,
      }
    } catch (e) {
      o.complain(`${file.name}: ${sayError(e)}`)
    }
  }
  function choose(event: Event): void {
    const box = event.target as HTMLInputElement
    const [file] = box.files ?? []
    if (file !== undefined) void readFile(file)
    box.value = ''
  }

  /** A dialog gives the focus back where it was before; the add field is where one goes on. */
  function leave(): void {
    offered.value = null
    setTimeout(o.focusAddField, 50)
  }
  async function take(rows: readonly ReadRow[]): Promise<void> {
    try {
      await o.take(rows)
    } catch (e) {
      o.complain(sayError(e))
    } finally {
      leave()
    }
  }

  return { offered, suppliers, findSuppliers, paste, readFile, choose, leave, take }
}
