import { randomUUID } from 'node:crypto'
import { dayOf } from '#core/base/day'
import type { Context } from '../context'
import type { Db } from '../db/client'
import { notifyChange } from '../live/notify'
import { listHolders } from '../people/person-reads'
import { tellPeople } from '../people/tell-person'
import { isSetUp, requireOrganisation } from '../settings/reads'
import { listPauses, listScheduledRuns } from './scheduled-reads'
import { insertScheduledRun } from './scheduled-store'

/** As what live changes name the work that is done by itself. */
export const THE_SCHEDULE = '00000000-0000-4000-8000-000000000004'

/** Whether it is not to be done by itself just now; whoever asks for it has it done all the same. */
export async function isPaused(db: Db, task: string, byId: string | null): Promise<boolean> {
  return byId === null && (await listPauses(db)).some((p) => p.task === task)
}

/** Keeps how a run ended, and tells administrators of the first that failed after one that did not. */
export async function keepRun(
  ctx: Context,
  run: { readonly task: string; readonly beganAt: Date; readonly error: string | null; readonly byId: string | null },
): Promise<void> {
  const before = (await listScheduledRuns(ctx.tx)).find((r) => r.task === run.task)
  const id = randomUUID()
  await insertScheduledRun(ctx.tx, { id, ...run, endedAt: ctx.now })
  if (run.error !== null && (before === undefined || before.error === null) && (await isSetUp(ctx.tx))) {
    const { timeZone } = await requireOrganisation(ctx.tx)
    const administrators = await listHolders(ctx.tx, 'administrator', dayOf(ctx.now, timeZone))
    const told = { code: 'scheduled-failed', task: run.task, error: run.error.slice(0, 300) } as const
    await tellPeople(
      ctx,
      administrators.map((p) => ({
        ...{ personId: p.id, about: { kind: 'task', id }, told, path: '/set-up/scheduled' },
      })),
    )
  }
  // What is done each minute would have pages read anew all the time.
  if (run.byId !== null || run.error !== null) await notifyChange(ctx.tx, { kind: 'settings', id: THE_SCHEDULE })
}
