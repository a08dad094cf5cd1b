import { progressOf } from '#core/approval/progress'
import { newestEvent } from '../audit/reads'
import { appendEvent } from '../audit/store'
import type { Context } from '../context'
import type { DocumentHead } from '../document/kind'
import { deleteRemarksOf } from '../document/store'
import { TAKE_BACK_SECONDS } from '../document/tell'
import { forbidden, notFound, refused } from '../http/problem'
import { notifyChange } from '../live/notify'
import { cancelMailOf } from '../mail/store'
import { deleteNoticesOf } from '../people/store'
import type { Decidable } from './decidable'
import { findRoute, listApprovals, listDecisions } from './reads'
import { moveRoute } from './move-route'
import { markTakenBack } from './store'

/**
 * Takes a decision back within its ten seconds, unless somebody acted on it: the route stands where it stood, its mails
 * never leave, and the document takes back what it had released. The event stays and another says so.
 */
export async function takeBack<D extends DocumentHead>(
  ctx: Context,
  kind: Decidable<D>,
  id: string,
  decisionId: string,
): Promise<{ id: string; version: number }> {
  const document = await kind.lock(ctx, id, null)
  const decision = (await listDecisions(ctx.tx, id)).find((d) => d.id === decisionId)
  if (decision === undefined) throw notFound('This decision')
  if (decision.actorId !== ctx.actor.id) throw forbidden('Only whoever decided may take it back.')
  if (decision.takenBack) throw refused(['It was taken back already.'])
  if (ctx.now.getTime() - new Date(decision.at).getTime() > TAKE_BACK_SECONDS * 1000) {
    throw refused(
      [`A decision can be taken back for ${TAKE_BACK_SECONDS} seconds; that time has passed.`],
      {},
      'too-late',
    )
  }
  const last = await newestEvent(ctx.tx, id)
  if (last !== null && last.seq !== decision.eventSeq)
    throw refused([`${last.name ?? 'Somebody'} has acted on it since: ${last.type}.`], {}, 'acted-on')
  const actedOn = kind.wasActedOn(document)
  if (actedOn !== null) throw refused([actedOn], {}, 'acted-on')
  const route = await findRoute(ctx.tx, id)
  if (route === null) throw notFound('This decision')
  if (decision.round !== route.round) throw refused(['It was sent again since.'], {}, 'acted-on')

  await markTakenBack(ctx.tx, decisionId, ctx.now)
  await deleteRemarksOf(ctx.tx, decisionId)
  await cancelMailOf(ctx.tx, decisionId, ctx.now)
  await deleteNoticesOf(ctx.tx, decisionId)
  await moveRoute(ctx, document, route, progressOf(route.route, await listApprovals(ctx.tx, id)))
  await kind.takeOutcome(ctx, document, { state: 'reopened', undone: decision.outcome })
  if (decision.changedFrom !== null) await kind.restore?.(ctx, document, decision.changedFrom)
  await appendEvent(ctx, {
    type: 'decision taken back',
    subjectKind: kind.name,
    subjectId: id,
    before: { state: document.state, outcome: decision.outcome },
    after: { state: 'in approval' },
  })
  await notifyChange(ctx.tx, { kind: kind.name, id })
  return { id, version: document.version + 1 }
}
