import type { Tx } from '../db/client'
import { listCalled, type SupplierRow } from './reads'

/**
 * The one supplier that each text means: by its name or number, else by how its name begins; what is not clear is left
 * out.
 */
export async function matchSuppliers(
  tx: Tx,
  texts: readonly string[],
): Promise<{ typed: string; supplier: SupplierRow }[]> {
  const called = await listCalled(tx, texts)
  return texts.flatMap((typed) => {
    const begun = called.filter((c) => c.typed === typed)
    const whole = begun.filter((c) => c.isWhole)
    const [one, ...others] = whole.length > 0 ? whole : begun
    if (one === undefined || others.length > 0) return []
    const { isWhole: _, typed: __, ...supplier } = one
    return [{ typed, supplier }]
  })
}
