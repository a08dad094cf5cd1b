import type { Day } from '#core/base/day'
import type { Context } from '../context'
import type { Tx } from '../db/client'
import { enqueue } from '../queue/enqueue'
import { inForce, readForm } from '../requisition/form-reads'

/** The kind that asks for parts by itself, where one does: the first, in the order of the form. */
export async function kindOfParts(tx: Tx, today: Day): Promise<{ code: string; name: string } | null> {
  return inForce((await readForm(tx, today)).kinds).find((k) => k.raisesParts === true) ?? null
}

/** Asks by itself for what somebody just added to a job, where a kind says so; a task carries it out. */
export async function askForAdded(
  { tx, actor }: Context,
  jobId: string,
  partIds: readonly string[],
  today: Day,
): Promise<void> {
  if (partIds.length === 0 || (await kindOfParts(tx, today)) === null) return
  await enqueue(tx, 'raise-parts', { jobId, partIds, personId: actor.id })
}
