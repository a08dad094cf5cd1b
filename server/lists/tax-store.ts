import { eq, sql } from 'drizzle-orm'
import { TAX_CATEGORIES } from '#core/lists/definitions'
import type { Values } from '#core/lists/list'
import { read } from '../db/read'
import { taxCode } from '../db/schema/settings'
import { inParts, together, yesNo, type ListKeeper } from './keeper'

const CODES: Readonly<Record<string, string>> = TAX_CATEGORIES
const kindOf = (code: string) => Object.keys(CODES).find((kind) => CODES[kind] === code) ?? 'taxed'

const columnsOf = (v: Values) => ({
  name: v.name ?? '',
  category: CODES[v.category ?? 'taxed'] ?? 'S',
  rate: v.rate ?? '0',
  retired: v.retired === 'yes',
})

/** Codes of tax; their code is what they are known by everywhere. */
export const taxes: ListKeeper = {
  newId: (v) => v.code ?? '',
  async read(tx) {
    const { code, name, category, rate, retired } = taxCode
    const rows = await read(
      tx,
      { code, name, category, rate, retired },
      sql`from ${taxCode} order by ${taxCode.rate} desc, ${taxCode.code}`,
    )
    return rows.map((r) => ({
      id: r.code,
      values: { ...r, category: kindOf(r.category), retired: yesNo(r.retired) },
    }))
  },
  insert: (tx, entries) =>
    inParts(entries, (some) => tx.insert(taxCode).values(some.map((e) => ({ code: e.id, ...columnsOf(e.values) })))),
  async update(tx, entries) {
    await together(entries.map((e) => tx.update(taxCode).set(columnsOf(e.values)).where(eq(taxCode.code, e.id))))
  },
  async remove(tx, id) {
    await tx.delete(taxCode).where(eq(taxCode.code, id))
  },
}
