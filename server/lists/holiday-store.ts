import { eq, sql } from 'drizzle-orm'
import { read } from '../db/read'
import { holiday } from '../db/schema/settings'
import { inParts, together, yesNo, type ListKeeper } from './keeper'

/** Days on which nobody works, and those that are worked after all. */
export const holidays: ListKeeper = {
  newId: (v) => v.day ?? '',
  async read(tx) {
    const { day, name, isOff } = holiday
    const rows = await read(tx, { day, name, isOff }, sql`from ${holiday} order by ${holiday.day} desc`)
    return rows.map((r) => ({ id: r.day, values: { day: r.day, name: r.name, isOff: yesNo(r.isOff) } }))
  },
  insert: (tx, entries) =>
    inParts(entries, (some) =>
      tx
        .insert(holiday)
        .values(some.map(({ id, values: v }) => ({ day: id, name: v.name ?? '', isOff: v.isOff === 'yes' }))),
    ),
  async update(tx, entries) {
    await together(
      entries.map(({ id, values: v }) =>
        tx
          .update(holiday)
          .set({ name: v.name ?? '', isOff: v.isOff === 'yes' })
          .where(eq(holiday.day, id)),
      ),
    )
  },
  async remove(tx, id) {
    await tx.delete(holiday).where(eq(holiday.day, id))
  },
}
