import { and, eq, sql } from 'drizzle-orm'
import type { Values } from '#core/lists/list'
import { read } from '../db/read'
import { exchangeRate } from '../db/schema/settings'
import { inParts, together, type ListKeeper } from './keeper'

const x = exchangeRate
const idOf = (v: Values) => `${v.day ?? ''} ${v.currency ?? ''}`
const whereOf = (id: string) => {
  const [day = '', currency = ''] = id.split(' ')
  return and(eq(x.day, day), eq(x.currency, currency))
}

/** Exchange rates by day and currency: units of it for one of the base currency. */
export const rates: ListKeeper = {
  newId: idOf,
  async read(tx) {
    const rows = await read(
      tx,
      { day: x.day, currency: x.currency, rate: x.perBase },
      sql`from ${x} order by ${x.day} desc, ${x.currency}`,
    )
    return rows.map((r) => ({ id: idOf(r), values: r }))
  },
  insert: (tx, entries) =>
    inParts(entries, (some) =>
      tx
        .insert(x)
        .values(some.map(({ values: v }) => ({ day: v.day ?? '', currency: v.currency ?? '', perBase: v.rate ?? '' }))),
    ),
  async update(tx, entries) {
    await together(
      entries.map(({ id, values: v }) =>
        tx
          .update(x)
          .set({ perBase: v.rate ?? '' })
          .where(whereOf(id)),
      ),
    )
  },
  async remove(tx, id) {
    await tx.delete(x).where(whereOf(id))
  },
}
