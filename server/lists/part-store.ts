import { eq, inArray, sql } from 'drizzle-orm'
import type { Values } from '#core/lists/list'
import type { Tx } from '../db/client'
import { named, read } from '../db/read'
import { item } from '../db/schema/catalogue'
import { jobPart, jobPlan } from '../db/schema/job'
import { job } from '../db/schema/request-form'
import { inParts, orNull, textOf, together, type EntryIds, type ListKeeper } from './keeper'

const a = named(jobPart, 'a')
const j = named(job, 'j')
const i = named(item, 'i')

const columnsOf = (v: Values, ids: EntryIds) => ({
  jobId: ids('jobs', v.job ?? '') ?? '',
  number: v.part ?? '',
  itemId: v.item === '' ? null : ids('items', v.item ?? ''),
  description: v.name ?? '',
  quantity: v.quantity ?? '1',
  unit: v.unit ?? 'H87',
  estimate: orNull(v.estimate),
})

/** The parts of all jobs, job by job. */
export const parts: ListKeeper = {
  async read(tx) {
    const rows = await read(
      tx,
      {
        id: a.id,
        job: j.number,
        part: a.number,
        item: i.number,
        name: a.description,
        quantity: sql<string>`trim_scale(${a.quantity})::text`,
        unit: a.unit,
        estimate: sql<string | null>`trim_scale(${a.estimate})::text`,
      },
      sql`from ${a} join ${j} on ${j.id} = ${a.jobId} left join ${i} on ${i.id} = ${a.itemId}
        order by ${j.number}, ${a.position}, ${a.number}`,
    )
    return rows.map(({ id, ...r }) => ({
      id,
      values: Object.fromEntries(Object.entries(r).map(([key, value]) => [key, textOf(value)])),
    }))
  },
  async insert(tx, entries, ids) {
    await inParts(entries, (some) =>
      // Behind those that are there, in the order of the file.
      tx.insert(jobPart).values(
        some.map((e, at) => ({
          id: e.id,
          position: sql<number>`100000 + ${at}`,
          ...columnsOf(e.values, ids),
        })),
      ),
    )
    await tellOpenPages(tx, jobsOf(entries, ids))
  },
  async update(tx, entries, ids) {
    await together(entries.map((e) => tx.update(jobPart).set(columnsOf(e.values, ids)).where(eq(jobPart.id, e.id))))
    await tellOpenPages(tx, jobsOf(entries, ids))
  },
  async remove(tx, id) {
    await tx.delete(jobPart).where(eq(jobPart.id, id))
  },
}

const jobsOf = (entries: readonly { readonly values: Values }[], ids: EntryIds): string[] => [
  ...new Set(entries.flatMap((e) => ids('jobs', e.values.job ?? '') ?? [])),
]
/** Whoever has the page of one of these jobs open does not write over what came by the list. */
async function tellOpenPages(tx: Tx, jobIds: readonly string[]): Promise<void> {
  if (jobIds.length === 0) return
  await tx
    .update(jobPlan)
    .set({ version: sql`${jobPlan.version} + 1` })
    .where(inArray(jobPlan.jobId, [...jobIds]))
}
