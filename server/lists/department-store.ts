import { eq, sql } from 'drizzle-orm'
import type { Values } from '#core/lists/list'
import { named, read } from '../db/read'
import { department, shipTo } from '../db/schema/people'
import { inParts, textOf, yesNo, type EntryIds, type ListKeeper, together } from './keeper'

const d = named(department, 'd')
const up = named(department, 'up')
const s = named(shipTo, 's')

const columnsOf = (v: Values, ids: EntryIds) => ({
  costCentre: v.costCentre ?? '',
  name: v.name ?? '',
  reclaimable: v.reclaimable ?? '0',
  usualShipToId: ids('places', v.usualPlace ?? ''),
  retired: v.retired === 'yes',
})

/** Departments, each possibly part of another. */
export const departments: ListKeeper = {
  async read(tx) {
    const rows = await read(
      tx,
      {
        id: d.id,
        costCentre: d.costCentre,
        name: d.name,
        parent: sql<string | null>`${up.costCentre}`,
        reclaimable: d.reclaimable,
        usualPlace: sql<string | null>`${s.name}`,
        retired: d.retired,
      },
      sql`from ${d} left join ${up} on ${up.id} = ${d.parentId} left join ${s} on ${s.id} = ${d.usualShipToId}
        order by ${d.costCentre}`,
    )
    return rows.map(({ id, ...r }) => ({
      id,
      values: { ...r, parent: textOf(r.parent), usualPlace: textOf(r.usualPlace), retired: yesNo(r.retired) },
    }))
  },
  async insert(tx, entries, ids) {
    await inParts(entries, (some) =>
      tx.insert(department).values(some.map((e) => ({ id: e.id, ...columnsOf(e.values, ids) }))),
    )
    // What they are part of may come later in the same file.
    await together(
      entries
        .map((e) => ({ id: e.id, parentId: ids('departments', e.values.parent ?? '') }))
        .filter((e) => e.parentId !== null)
        .map(({ id, parentId }) => tx.update(department).set({ parentId }).where(eq(department.id, id))),
    )
  },
  async update(tx, entries, ids) {
    await together(
      entries.map((e) =>
        tx
          .update(department)
          .set({ ...columnsOf(e.values, ids), parentId: ids('departments', e.values.parent ?? '') })
          .where(eq(department.id, e.id)),
      ),
    )
  },
  async remove(tx, id) {
    await tx.delete(department).where(eq(department.id, id))
  },
}
