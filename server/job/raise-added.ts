import type { Tx } from '../db/client'
import { Problem } from '../http/problem'
import { findActor } from '../people/actor-reads'
import { enqueue } from '../queue/enqueue'
import { findPlan } from './job-reads'
import { raiseParts } from './raise-parts'

/**
 * Writes what was added as a request of the person who added it, and lets it be sent. What somebody raised, took off or
 * closed meanwhile is left.
 */
export async function raiseAdded(
  tx: Tx,
  added: { readonly jobId: string; readonly partIds: readonly string[]; readonly personId: string },
  now: Date,
): Promise<void> {
  const actor = await findActor(tx, added.personId, now)
  // Under lock, so that what somebody keeps of the job at this moment does not make it another version.
  const plan = await findPlan(tx, added.jobId, true)
  if (actor === null || plan === null) return
  try {
    const { id } = await raiseParts({ tx, now, actor }, added.jobId, plan.version, added.partIds, true)
    await enqueue(tx, 'send-parts', { requisitionId: id })
  } catch (error) {
    if (!(error instanceof Problem)) throw error
  }
}
