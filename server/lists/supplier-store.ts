import { eq, inArray, sql } from 'drizzle-orm'
import type { PaymentTerms } from '#core/base/day'
import type { Values } from '#core/lists/list'
import { read } from '../db/read'
import { supplier } from '../db/schema/supplier'
import { inParts, orNull, textOf, type ListKeeper, together } from './keeper'

const columnsOf = (v: Values) => ({
  number: v.number ?? '',
  name: v.name ?? '',
  address: v.address ?? '',
  town: v.town ?? '',
  email: orNull(v.email),
  telephone: v.telephone ?? '',
  currency: v.currency ?? '',
  termsKind: (v.terms ?? 'net') as PaymentTerms['kind'],
  termsDays: Number(v.termsDays ?? '30'),
  leadDays: Number(v.leadDays ?? '5'),
  taxNumber: orNull(v.taxNumber),
  freight: orNull(v.freight),
  freightFreeFrom: orNull(v.freightFree),
  warning: orNull(v.warning),
  standing: v.standing ?? 'active',
})

/** Suppliers that may be ordered from, and those on hold; what is proposed or refused is no entry yet. */
export const suppliers: ListKeeper = {
  async read(tx) {
    const s = supplier
    const rows = await read(
      tx,
      {
        id: s.id,
        number: s.number,
        name: s.name,
        address: s.address,
        town: s.town,
        email: s.email,
        telephone: s.telephone,
        currency: s.currency,
        terms: sql<string>`${s.termsKind}`,
        termsDays: s.termsDays,
        leadDays: s.leadDays,
        taxNumber: s.taxNumber,
        freight: s.freight,
        freightFree: sql<string | null>`${s.freightFreeFrom}`,
        warning: s.warning,
        standing: s.standing,
      },
      sql`from ${s} where ${inArray(s.standing, ['active', 'on hold'])} order by ${s.name}, ${s.number}`,
    )
    return rows.map(({ id, ...r }) => ({
      id,
      values: Object.fromEntries(Object.entries(r).map(([key, value]) => [key, textOf(value)])),
    }))
  },
  insert: (tx, entries) =>
    inParts(entries, (some) => tx.insert(supplier).values(some.map((e) => ({ id: e.id, ...columnsOf(e.values) })))),
  async update(tx, entries) {
    await together(entries.map((e) => tx.update(supplier).set(columnsOf(e.values)).where(eq(supplier.id, e.id))))
  },
  async remove(tx, id) {
    await tx.delete(supplier).where(eq(supplier.id, id))
  },
}
