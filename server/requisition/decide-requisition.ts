import { progressOf } from '#core/approval/progress'
import { REQUISITION_MOVES } from '#core/requisition/moves'
import { findOpenSeat, findRoute, listDecisions } from '../approval/reads'
import { dropSeats, insertDecision, updateRoute, writeSeats } from '../approval/store'
import { appendEvent } from '../audit/store'
import { appendEntries } from '../budget/store'
import { type Context } from '../context'
import { forbidden, invalid } from '../http/problem'
import { notifyChange } from '../live/notify'
import { requireOrganisation } from '../settings/reads'
import { type RequisitionRow } from './reads'
import { requireMove } from './require'
import { releaseReservation } from './release'
import { insertRemark, setState } from './store'
import { tell } from './tell'

export interface Decided {
  readonly id: string
  readonly decisionId: string
  readonly state: RequisitionRow['state']
  readonly version: number
}
export type Outcome = 'approve' | 'sendBack' | 'reject'

/**
 * Writes a decision at once. An approval goes on to the next who are asked, or approves the
 * requisition; sending back and rejecting end the route and release the money. A reason is needed for
 * anything but an approval. Its mails wait while it may be taken back.
 */
export async function decideRequisition(
  ctx: Context,
  id: string,
  version: number,
  outcome: Outcome,
  comment: string,
): Promise<Decided> {
  const kept = await requireMove(ctx, id, version, outcome)
  const said = comment.trim()
  if (outcome !== 'approve' && said === '') {
    throw invalid(outcome === 'reject' ? 'Say why it is rejected.' : 'Say what is to be changed.', [
      { field: 'comment', message: 'a reason is needed' },
    ])
  }
  const seat = await findOpenSeat(ctx.tx, id, ctx.actor.id)
  const route = await findRoute(ctx.tx, id)
  if (seat === null || route === null) throw forbidden('This does not wait for you.')
  const word = outcome === 'approve' ? 'approved' : outcome === 'reject' ? 'rejected' : 'sent back'
  const eventSeq = await appendEvent(ctx, {
    type: word,
    subjectKind: 'requisition',
    subjectId: id,
    forId: seat.forId,
    before: { state: kept.state },
    after: { comment: said },
  })
  const decisionId = await insertDecision(ctx.tx, {
    routeId: route.id,
    documentId: id,
    actorId: ctx.actor.id,
    forId: seat.forId,
    outcome: word,
    comment: said,
    at: ctx.now,
    eventSeq,
  })
  if (said !== '')
    await insertRemark(ctx.tx, {
      requisitionId: id,
      personId: ctx.actor.id,
      at: ctx.now,
      kind: 'reason',
      text: said,
      decisionId,
    })
  const state = outcome === 'approve' ? await goOn(ctx, kept, decisionId) : await stop(ctx, kept, route.id, outcome)
  await setState(ctx.tx, id, state, ctx.now)
  const quoted = said === '' ? '' : ` “${said}”`
  await tell(ctx, kept.ownerId, kept, {
    subject: `${kept.number ?? ''} ${word}: ${kept.draft.title}`,
    decisionId,
    sentence: `${ctx.actor.name} ${word === 'sent back' ? 'sent back' : word} ${kept.number ?? 'your request'}, ${kept.draft.title}.${quoted}`,
    path: outcome === 'sendBack' ? `/raise/${id}` : `/trail/${id}`,
  })
  await notifyChange(ctx.tx, { kind: 'requisition', id })
  return { id, decisionId, state, version: kept.version + 1 }
}

async function goOn(ctx: Context, kept: RequisitionRow, decisionId: string): Promise<RequisitionRow['state']> {
  const route = await findRoute(ctx.tx, kept.id)
  if (route === null) return kept.state
  const approvals = (await listDecisions(ctx.tx, kept.id)).filter((d) => d.outcome === 'approved' && !d.takenBack)
  const progress = progressOf(route.route, approvals)
  const asked = await writeSeats(ctx.tx, route.id, kept.id, progress, ctx.now)
  for (const { actorId } of asked) {
    await tell(ctx, actorId, kept, {
      subject: `For your decision: ${kept.draft.title}`,
      decisionId,
      path: `/decide/${kept.id}`,
      sentence: `${ctx.actor.name} approved ${kept.number ?? ''}, ${kept.draft.title}; now it waits for you.`,
    })
  }
  if (progress.state === 'approved') {
    await updateRoute(ctx.tx, route.id, { state: 'approved' })
    return 'approved'
  }
  return 'in approval'
}

async function stop(
  ctx: Context,
  kept: RequisitionRow,
  routeId: string,
  outcome: 'sendBack' | 'reject',
): Promise<RequisitionRow['state']> {
  await dropSeats(ctx.tx, routeId)
  await updateRoute(ctx.tx, routeId, { state: 'stopped' })
  const { baseCurrency } = await requireOrganisation(ctx.tx)
  await appendEntries(ctx, await releaseReservation(ctx, kept, REQUISITION_MOVES[outcome].to, baseCurrency))
  return REQUISITION_MOVES[outcome].to
}
