import { nextAfter } from '#core/base/every'
import type { ScheduledView } from '#shared/contract/scheduled'
import { appendEvent } from '../audit/store'
import type { Context } from '../context'
import { notFound, refused } from '../http/problem'
import { notifyChange } from '../live/notify'
import { enqueue } from '../queue/enqueue'
import { isScheduled, SCHEDULE, SCHEDULED, type Scheduled } from '../queue/schedule'
import type { Task } from '../queue/tasks'
import { THE_SCHEDULE } from './run-scheduled'
import { listPauses, listScheduledRuns } from './scheduled-reads'
import { deletePause, insertPause } from './scheduled-store'

/** All that is done by itself: how often, how it last went, and when next. */
export async function readScheduled({ tx, now }: Context): Promise<{ work: ScheduledView[] }> {
  const runs = await listScheduledRuns(tx)
  const pauses = await listPauses(tx)
  return {
    work: SCHEDULED.map((task) => {
      const paused = pauses.find((p) => p.task === task)
      const { every, mayPause } = SCHEDULE[task]
      return {
        ...{ task, every, mayPause },
        paused: paused === undefined ? null : { by: paused.by, at: paused.at },
        next: paused === undefined ? nextAfter(every, now).toISOString() : null,
        runs: runs
          .filter((r) => r.task === task)
          .map((r) => ({
            ...{ beganAt: r.beganAt, error: r.error, by: r.by },
            milliseconds: Math.max(0, Date.parse(r.endedAt) - Date.parse(r.beganAt)),
          })),
      }
    }),
  }
}

function requireScheduled(task: string): Scheduled {
  if (!isScheduled(task as Task)) throw notFound('This work')
  return task as Scheduled
}

/** Has it done now, paused or not. */
export async function runNow(ctx: Context, named: string): Promise<{ task: string }> {
  const task = requireScheduled(named)
  await enqueue(ctx.tx, task, { byId: ctx.actor.id })
  await appendEvent(ctx, { type: 'run asked for', subjectKind: 'schedule', subjectId: THE_SCHEDULE, after: { task } })
  return { task }
}

/** Pauses it, or lets it go on. */
export async function setPaused(ctx: Context, named: string, paused: boolean): Promise<{ task: string }> {
  const task = requireScheduled(named)
  if (paused && !SCHEDULE[task].mayPause)
    throw refused(['It guards what is kept, or sends what waits, and is never paused.'])
  const isNow = (await listPauses(ctx.tx)).some((p) => p.task === task)
  if (isNow === paused) return { task }
  if (paused) await insertPause(ctx.tx, task, ctx.actor.id, ctx.now)
  else await deletePause(ctx.tx, task)
  await appendEvent(ctx, {
    type: paused ? 'paused' : 'let go on',
    subjectKind: 'schedule',
    subjectId: THE_SCHEDULE,
    after: { task },
  })
  await notifyChange(ctx.tx, { kind: 'settings', id: THE_SCHEDULE })
  return { task }
}
