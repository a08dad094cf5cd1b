import { eq, sql } from 'drizzle-orm'
import type { Values } from '#core/lists/list'
import { named, read } from '../db/read'
import { department } from '../db/schema/people'
import { job } from '../db/schema/request-form'
import { inParts, orNull, textOf, together, yesNo, type EntryIds, type ListKeeper } from './keeper'

const j = named(job, 'j')
const d = named(department, 'd')

const columnsOf = (v: Values, ids: EntryIds) => ({
  number: v.number ?? '',
  name: v.name ?? '',
  departmentId: ids('departments', v.department ?? ''),
  projectCode: orNull(v.project),
  isOpen: v.open !== 'no',
})

/** Jobs, those that are open first. */
export const jobs: ListKeeper = {
  async read(tx) {
    const rows = await read(
      tx,
      {
        id: j.id,
        number: j.number,
        name: j.name,
        department: sql<string | null>`${d.costCentre}`,
        project: j.projectCode,
        isOpen: j.isOpen,
      },
      sql`from ${j} left join ${d} on ${d.id} = ${j.departmentId} order by ${j.isOpen} desc, ${j.number}`,
    )
    return rows.map(({ id, isOpen, ...r }) => ({
      id,
      values: {
        ...Object.fromEntries(Object.entries(r).map(([key, value]) => [key, textOf(value)])),
        open: yesNo(isOpen),
      },
    }))
  },
  insert: (tx, entries, ids) =>
    inParts(entries, (some) => tx.insert(job).values(some.map((e) => ({ id: e.id, ...columnsOf(e.values, ids) })))),
  async update(tx, entries, ids) {
    await together(entries.map((e) => tx.update(job).set(columnsOf(e.values, ids)).where(eq(job.id, e.id))))
  },
  async remove(tx, id) {
    await tx.delete(job).where(eq(job.id, id))
  },
}
