import { eq, sql } from 'drizzle-orm'
import type { Values } from '#core/lists/list'
import { read } from '../db/read'
import { shipTo } from '../db/schema/people'
import { inParts, yesNo, type ListKeeper, together } from './keeper'

const columnsOf = (v: Values) => ({
  name: v.name ?? '',
  street: v.street ?? '',
  postcode: v.postcode ?? '',
  town: v.town ?? '',
  country: v.country ?? '',
  retired: v.retired === 'yes',
})

/** Ship-to addresses; those of one delivery alone are none. */
export const places: ListKeeper = {
  async read(tx) {
    const { id, name, street, postcode, town, country, retired } = shipTo
    const rows = await read(
      tx,
      { id, name, street, postcode, town, country, retired },
      sql`from ${shipTo} where not ${shipTo.isOnce} order by ${shipTo.name}`,
    )
    return rows.map(({ id: of, retired: is, ...values }) => ({ id: of, values: { ...values, retired: yesNo(is) } }))
  },
  insert: (tx, entries) =>
    inParts(entries, (some) => tx.insert(shipTo).values(some.map((e) => ({ id: e.id, ...columnsOf(e.values) })))),
  async update(tx, entries) {
    await together(entries.map((e) => tx.update(shipTo).set(columnsOf(e.values)).where(eq(shipTo.id, e.id))))
  },
  async remove(tx, id) {
    await tx.delete(shipTo).where(eq(shipTo.id, id))
  },
}
