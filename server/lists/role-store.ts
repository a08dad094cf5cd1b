import { eq, sql } from 'drizzle-orm'
import type { Values } from '#core/lists/list'
import { named, read } from '../db/read'
import { department, person, roleGrant, shipTo } from '../db/schema/people'
import { isForAll } from '../people/grant-reads'
import { inParts, orNull, textOf, together, type EntryIds, type ListKeeper } from './keeper'

const g = named(roleGrant, 'g')
const p = named(person, 'p')
const d = named(department, 'd')
const w = named(shipTo, 'w')

const columnsOf = (v: Values, ids: EntryIds) => ({
  personId: ids('people', v.person ?? '') ?? '',
  role: v.role ?? '',
  departmentId: ids('departments', v.department ?? ''),
  placeId: ids('places', v.place ?? ''),
  fromDay: orNull(v.from),
  untilDay: orNull(v.until),
})

/** Roles for single departments and places; those for the whole organisation stand in the list of people. */
export const roles: ListKeeper = {
  async read(tx) {
    const rows = await read(
      tx,
      {
        id: g.id,
        person: sql<string>`lower(${p.email})`,
        role: g.role,
        department: d.costCentre,
        place: w.name,
        from: g.fromDay,
        until: g.untilDay,
      },
      sql`from ${g} join ${p} on ${p.id} = ${g.personId} left join ${d} on ${d.id} = ${g.departmentId}
        left join ${w} on ${w.id} = ${g.placeId} where not (${isForAll(g)})
        order by ${p.name}, ${g.role}, ${d.costCentre}, ${w.name}`,
    )
    return rows.map(({ id, ...r }) => ({
      id,
      values: Object.fromEntries(Object.entries(r).map(([key, value]) => [key, textOf(value)])),
    }))
  },
  insert: (tx, entries, ids) =>
    inParts(entries, (some) =>
      tx.insert(roleGrant).values(some.map((e) => ({ id: e.id, ...columnsOf(e.values, ids) }))),
    ),
  update: (tx, entries, ids) =>
    together(entries.map((e) => tx.update(roleGrant).set(columnsOf(e.values, ids)).where(eq(roleGrant.id, e.id)))),
  async remove(tx, id) {
    await tx.delete(roleGrant).where(eq(roleGrant.id, id))
  },
}
