import { wasLongAgo } from '#core/requisition/remind'
import { dayOf } from '#core/base/day'
import type { Input } from '#shared/contract/all-routes'
import type { waitingRoutes } from '#shared/contract/waiting'
import { formatCount } from '#shared/words/format'
import { decidePath, ownersOf } from '../approval/decidable'
import { handPlace } from '../approval/hand-place'
import { findRoute, requireVersion } from '../approval/reads'
import { markWaiting } from '../approval/store'
import { appendEvent } from '../audit/store'
import type { Context } from '../context'
import type { DocumentHead } from '../document/kind'
import { tell } from '../document/tell'
import { Problem, refused } from '../http/problem'
import { DECIDABLES } from '../kinds'
import { requireHere } from '../people/find-people'
import { requireOrganisation } from '../settings/reads'
import { listSteps } from './waiting-reads'

type Moves = Input<(typeof waitingRoutes)['moveWaitingSteps'], 'body'>
type Step = Awaited<ReturnType<typeof listSteps>>[number]

/**
 * Reminds whoever lets steps wait, passes them on, or skips them, which asks whoever decides in the end and approves
 * nothing. All or none: the first that cannot be moved is named with its reason.
 */
export async function moveWaiting(ctx: Context, { seatIds, move, comment }: Moves): Promise<{ moved: number }> {
  const steps = await listSteps(ctx.tx, seatIds)
  if (steps.length < new Set(seatIds).size) {
    const gone = formatCount(new Set(seatIds).size - steps.length, 'step waits', 'steps wait')
    throw refused([`${gone} no longer; look at what waits now.`], {}, 'stale')
  }
  const to = await receiverOf(ctx, move)
  for (const step of steps) await moveOne(ctx, step, move.does, to, comment ?? '')
  return { moved: steps.length }
}

/** Who gets what is moved; null where it stays where it is. */
async function receiverOf(ctx: Context, move: Moves['move']): Promise<{ id: string; name: string } | null> {
  if (move.does === 'remind') return null
  if (move.does === 'pass on') {
    if (move.toId === ctx.actor.id) throw refused(['Nobody passes on to themselves what waits for others.'])
    return requireHere(ctx, move.toId)
  }
  const { timeZone } = await requireOrganisation(ctx.tx)
  const { form } = await requireVersion(ctx.tx, ctx.now, dayOf(ctx.now, timeZone))
  if (!form.maySkip) throw refused(['The approval policy has no step skipped; pass it on instead.'])
  if (form.fallbackId === null) throw refused(['The approval policy names nobody who decides in the end.'])
  return requireHere(ctx, form.fallbackId)
}

async function moveOne(
  ctx: Context,
  step: Step,
  does: Moves['move']['does'],
  to: { id: string; name: string } | null,
  comment: string,
): Promise<void> {
  const kind = DECIDABLES[step.documentKind]
  const document = kind === undefined ? null : await kind.find(ctx.tx, step.documentId, true)
  if (kind === undefined || document === null) throw refused(['A step waits on what is not there.'])
  const called = document.number ?? 'One of them'
  if (to === null) {
    await remindOne(ctx, step, document, called)
    return
  }
  const row = await findRoute(ctx.tx, step.documentId)
  if (row === null) throw refused([`${called} waits no longer.`], {}, 'stale')
  if (ownersOf(kind, document).includes(ctx.actor.id))
    throw refused([`${called} is your own; another administrator says who decides on it.`])
  const how = does === 'skip' ? 'skip' : 'on'
  const byId = step.forId ?? step.actorId
  try {
    await handPlace(ctx, kind, document, row, { how, byId, forId: null, to, comment })
  } catch (e) {
    throw e instanceof Problem ? refused([`${called}: ${e.detail}`]) : e
  }
}

async function remindOne(ctx: Context, step: Step, document: DocumentHead, called: string): Promise<void> {
  if (!wasLongAgo(step.remindedAt, ctx.now.toISOString()))
    throw refused([`${called}: they were reminded less than a day ago; once a day is enough.`], {}, 'reminded')
  await markWaiting(ctx.tx, step.id, 'remindedAt', ctx.now)
  await appendEvent(ctx, {
    type: 'reminded',
    subjectKind: document.kind,
    subjectId: document.id,
    after: { personId: step.actorId },
  })
  const { number, title } = document
  const told = { code: 'reminded', by: ctx.actor.name, number, title, of: 'decision' } as const
  await tell(ctx, step.actorId, document, told, { path: decidePath(document.id) })
}
