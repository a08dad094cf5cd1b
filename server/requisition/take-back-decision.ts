import { progressOf } from '#core/approval/progress'
import { findRoute, listDecisions } from '../approval/reads'
import { markTakenBack, updateRoute, writeSeats } from '../approval/store'
import { newestEvent } from '../audit/reads'
import { appendEvent } from '../audit/store'
import { appendEntries } from '../budget/store'
import { type Context } from '../context'
import { forbidden, notFound, refused } from '../http/problem'
import { notifyChange } from '../live/notify'
import { cancelMailOf } from '../mail/store'
import { deleteNoticesSince } from '../people/store'
import { requireOrganisation } from '../settings/reads'
import { reserveAgain } from './release'
import { requireRequisition } from './require'
import { deleteRemarksOf, setState } from './store'
import { TAKE_BACK_SECONDS } from './tell'

/**
 * Takes a decision back within its ten seconds, unless somebody acted on it: the route stands where it
 * stood, its mails never leave, what it released is reserved again. The event stays and another says so.
 */
export async function takeBackDecision(
  ctx: Context,
  id: string,
  decisionId: string,
): Promise<{ id: string; version: number }> {
  const kept = await requireRequisition(ctx, id, null)
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
  const route = await findRoute(ctx.tx, id)
  if (route === null || kept.lines.some((l) => Number(l.onTray) > 0))
    throw refused(['A buyer has begun to order it.'], {}, 'acted-on')

  await markTakenBack(ctx.tx, decisionId, ctx.now)
  await deleteRemarksOf(ctx.tx, decisionId)
  await cancelMailOf(ctx.tx, decisionId, ctx.now)
  await deleteNoticesSince(ctx.tx, id, new Date(decision.at))
  const approvals = (await listDecisions(ctx.tx, id)).filter((d) => d.outcome === 'approved' && !d.takenBack)
  await updateRoute(ctx.tx, route.id, { state: 'open' })
  await writeSeats(ctx.tx, route.id, id, progressOf(route.route, approvals), ctx.now)
  if (decision.outcome !== 'approved') {
    const { baseCurrency } = await requireOrganisation(ctx.tx)
    await appendEntries(ctx, await reserveAgain(ctx, kept, 'taken back', baseCurrency))
  }
  await setState(ctx.tx, id, 'in approval', ctx.now)
  await appendEvent(ctx, {
    type: 'decision taken back',
    subjectKind: 'requisition',
    subjectId: id,
    before: { state: kept.state, outcome: decision.outcome },
    after: { state: 'in approval' },
  })
  await notifyChange(ctx.tx, { kind: 'requisition', id })
  return { id, version: kept.version + 1 }
}
