import { and, eq, notInArray } from 'drizzle-orm'
import type { Tx } from '../db/client'
import { scheduledPause, scheduledRun } from '../db/schema/upkeep'

/** How many runs of each are kept. */
const MOST_RUNS = 20

/** Keeps a run, and no more than the last few of the same. */
export async function insertScheduledRun(tx: Tx, run: typeof scheduledRun.$inferInsert): Promise<void> {
  await tx.insert(scheduledRun).values(run)
  const last = tx
    .select({ id: scheduledRun.id })
    .from(scheduledRun)
    .where(eq(scheduledRun.task, run.task))
    .orderBy(scheduledRun.beganAt)
    .as('kept')
  const kept = await tx.select({ id: last.id }).from(last)
  const keep = kept.slice(-MOST_RUNS).map((k) => k.id)
  await tx.delete(scheduledRun).where(and(eq(scheduledRun.task, run.task), notInArray(scheduledRun.id, keep)))
}

export async function insertPause(tx: Tx, task: string, byId: string, at: Date): Promise<void> {
  await tx.insert(scheduledPause).values({ task, byId, at }).onConflictDoNothing()
}

export async function deletePause(tx: Tx, task: string): Promise<void> {
  await tx.delete(scheduledPause).where(eq(scheduledPause.task, task))
}
