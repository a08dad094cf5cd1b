import { eq, sql } from 'drizzle-orm'
import type { LimitName } from '#core/people/person'
import type { Values } from '#core/lists/list'
import { named, read } from '../db/read'
import { limitForDays, person } from '../db/schema/people'
import { inParts, orNull, textOf, together, type EntryIds, type ListKeeper } from './keeper'

const x = named(limitForDays, 'x')
const p = named(person, 'p')

const columnsOf = (v: Values, ids: EntryIds) => ({
  personId: ids('people', v.person ?? '') ?? '',
  of: (v.limit ?? 'own') as LimitName,
  amount: orNull(v.amount),
  fromDay: v.from ?? '',
  untilDay: orNull(v.until),
})

/** Limits that hold on some days, instead of what people always have. */
export const limits: ListKeeper = {
  async read(tx) {
    const rows = await read(
      tx,
      {
        id: x.id,
        person: sql<string>`lower(${p.email})`,
        limit: x.of,
        amount: x.amount,
        from: x.fromDay,
        until: x.untilDay,
      },
      sql`from ${x} join ${p} on ${p.id} = ${x.personId} order by ${p.name}, ${x.fromDay} desc, ${x.of}`,
    )
    return rows.map(({ id, ...r }) => ({
      id,
      values: { ...r, amount: textOf(r.amount), until: textOf(r.until) },
    }))
  },
  insert: (tx, entries, ids) =>
    inParts(entries, (some) =>
      tx.insert(limitForDays).values(some.map((e) => ({ id: e.id, ...columnsOf(e.values, ids) }))),
    ),
  update: (tx, entries, ids) =>
    together(
      entries.map((e) => tx.update(limitForDays).set(columnsOf(e.values, ids)).where(eq(limitForDays.id, e.id))),
    ),
  async remove(tx, id) {
    await tx.delete(limitForDays).where(eq(limitForDays.id, id))
  },
}
