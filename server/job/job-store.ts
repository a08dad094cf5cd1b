import { eq, inArray, notInArray, and } from 'drizzle-orm'
import type { Day } from '#core/base/day'
import type { Tx } from '../db/client'
import { jobPart, jobPartLine, jobPerson, jobPlan } from '../db/schema/job'
import type { PartRow } from './job-reads'

/** Makes room for what is planned for a job, so that it can be locked. */
export async function beginPlan(tx: Tx, jobId: string): Promise<void> {
  await tx.insert(jobPlan).values({ jobId }).onConflictDoNothing()
}

export async function setPlan(
  tx: Tx,
  jobId: string,
  plan: {
    readonly version: number
    readonly startsOn: Day | null
    readonly endsOn: Day | null
    readonly shipToId: string | null
    readonly budgetLineId: string | null
  },
): Promise<void> {
  await tx.update(jobPlan).set(plan).where(eq(jobPlan.jobId, jobId))
}

export async function writePeople(tx: Tx, jobId: string, personIds: readonly string[]): Promise<void> {
  await tx.delete(jobPerson).where(eq(jobPerson.jobId, jobId))
  if (personIds.length > 0)
    await tx.insert(jobPerson).values([...new Set(personIds)].map((personId) => ({ jobId, personId })))
}

/** Writes the parts of a job, over those that are kept under the same ids; what is not named goes. */
export async function writeParts(tx: Tx, jobId: string, parts: readonly PartRow[]): Promise<void> {
  const ids = parts.map((p) => p.id)
  await tx
    .delete(jobPart)
    .where(and(eq(jobPart.jobId, jobId), ids.length === 0 ? undefined : notInArray(jobPart.id, ids)))
  for (const [position, part] of parts.entries()) {
    const { id, ...columns } = { ...part, jobId, position }
    await tx
      .insert(jobPart)
      .values({ id, ...columns })
      .onConflictDoUpdate({ target: jobPart.id, set: columns, setWhere: eq(jobPart.jobId, jobId) })
  }
}

/** Says which lines ask for which parts. */
export async function linkLines(
  tx: Tx,
  links: readonly { readonly lineId: string; readonly partId: string }[],
): Promise<void> {
  if (links.length > 0) await tx.insert(jobPartLine).values([...links])
}

/** Ids among some that are parts of another job. */
export async function findForeignParts(tx: Tx, jobId: string, ids: readonly string[]): Promise<string[]> {
  if (ids.length === 0) return []
  const found = await tx
    .select({ id: jobPart.id, jobId: jobPart.jobId })
    .from(jobPart)
    .where(inArray(jobPart.id, [...ids]))
  return found.flatMap((f) => (f.jobId === jobId ? [] : [f.id]))
}
