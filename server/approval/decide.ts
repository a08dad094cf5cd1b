import { moneyOf } from '#core/base/money'
import type { DecisionOutcome } from '#core/approval/progress'
import { progressOf } from '#core/approval/progress'
import type { RequestChange } from '#core/requisition/changes'
import { appendEventForSeq } from '../audit/store'
import type { Context } from '../context'
import type { DocumentHead } from '../document/kind'
import { insertRemark } from '../document/store'
import { tell } from '../document/tell'
import { forbidden, invalid } from '../http/problem'
import { notifyChange } from '../live/notify'
import { decidePath, type ApprovalOutcome, type Decidable } from './decidable'
import { findOpenSeat, findRoute, listApprovals, listOpenActors } from './reads'
import { moveRoute } from './move-route'
import { insertDecision } from './store'
import { stopRoute } from './stop-route'

export interface Decided {
  readonly id: string
  readonly decisionId: string
  readonly state: string
  readonly version: number
}
export type DecideMove = 'approve' | 'sendBack' | 'reject'
const OUTCOMES = { approve: 'approved', sendBack: 'sent back', reject: 'rejected' } as const satisfies Record<
  DecideMove,
  DecisionOutcome
>

/**
 * Writes a decision at once. An approval goes on to the next who are asked, or approves the document; sending back and
 * rejecting end the route. A reason is needed for anything but an approval. Its mails wait while it may be taken back.
 */
export async function decide<D extends DocumentHead>(
  ctx: Context,
  kind: Decidable<D>,
  id: string,
  version: number,
  move: DecideMove,
  comment: string,
): Promise<Decided> {
  const document = await kind.lockFor(ctx, id, version, move)
  const said = comment.trim()
  if (move !== 'approve' && said === '') {
    throw invalid(move === 'reject' ? 'Say why it is rejected.' : 'Say what is to be changed.', [
      { field: 'comment', message: 'a reason is needed' },
    ])
  }
  const seat = await findOpenSeat(ctx.tx, id, ctx.actor.id)
  const route = await findRoute(ctx.tx, id)
  if (seat === null || route === null) throw forbidden('This does not wait for you.')
  return writeDecision(ctx, kind, document, {
    id: crypto.randomUUID(),
    forId: seat.forId,
    outcome: OUTCOMES[move],
    said,
  })
}

/** A decision that may be made. */
export interface DecisionMade {
  readonly id: string
  readonly forId: string | null
  readonly outcome: DecisionOutcome
  readonly said: string
  /** What was changed of the document with it, and as it was before. */
  readonly changed?: { readonly changes: readonly RequestChange[]; readonly from: unknown }
}

/** Writes a decision on the newest route of a document, which is locked, and all that follows from it. */
export async function writeDecision<D extends DocumentHead>(
  ctx: Context,
  kind: Decidable<D>,
  document: D,
  { id: decisionId, forId, outcome, said, changed }: DecisionMade,
): Promise<Decided> {
  const { id } = document
  const route = await findRoute(ctx.tx, id)
  if (route === null) throw forbidden('This does not wait for you.')
  const changes = changed?.changes ?? []
  const eventSeq = await appendEventForSeq(ctx, {
    type: outcome,
    subjectKind: kind.name,
    subjectId: id,
    forId,
    before: { state: document.state },
    after: {
      comment: said,
      ...(ctx.actor.byMail === true ? { way: 'mail' } : {}),
      ...(changes.length > 0 ? { changes } : {}),
    },
  })
  await insertDecision(ctx.tx, {
    id: decisionId,
    routeId: route.id,
    documentId: id,
    actorId: ctx.actor.id,
    forId,
    outcome,
    byMail: ctx.actor.byMail === true,
    comment: said,
    policyId: route.policyId,
    at: ctx.now,
    eventSeq,
    changedFrom: changed?.from ?? null,
  })
  if (said !== '')
    await insertRemark(ctx.tx, {
      documentId: id,
      personId: ctx.actor.id,
      at: ctx.now,
      kind: 'reason',
      text: said,
      decisionId,
    })
  let became: ApprovalOutcome
  if (outcome === 'approved') became = await goOn(ctx, document, decisionId)
  else {
    await stopRoute(ctx, id)
    became = { state: 'stopped', by: outcome }
  }
  await kind.takeOutcome(ctx, document, became)
  const about = { by: ctx.actor.name, number: document.number, title: document.title, comment: said, changes }
  if (became.state === 'approved') {
    const { told, ...how } = kind.tellApproved({
      code: 'approved',
      amount: moneyOf(route.amount, route.currency),
      ...about,
    })
    await tell(ctx, document.ownerId, document, told, { path: kind.path(id), decisionId, ...how })
  } else {
    const next = (outcome === 'approved' ? await listOpenActors(ctx.tx, id) : []).map((p) => p.name)
    await tell(
      ctx,
      document.ownerId,
      document,
      { code: 'decided', outcome, next, ...about },
      { path: outcome === 'sent back' ? kind.changePath(id) : kind.path(id), decisionId },
    )
  }
  await notifyChange(ctx.tx, { kind: kind.name, id })
  const state = became.state === 'stopped' ? became.by : became.state === 'approved' ? 'approved' : 'in approval'
  return { id, decisionId, state, version: document.version + 1 }
}

/** Asks the next, or says that everybody approved. */
async function goOn(ctx: Context, document: DocumentHead, decisionId: string): Promise<ApprovalOutcome> {
  const route = await findRoute(ctx.tx, document.id)
  if (route === null) return { state: 'waiting' }
  const progress = progressOf(route.route, await listApprovals(ctx.tx, document.id))
  const asked = await moveRoute(ctx, document, route, progress)
  for (const { actorId } of asked) {
    await tell(
      ctx,
      actorId,
      document,
      { code: 'to-decide-next', by: ctx.actor.name, number: document.number, title: document.title },
      { path: decidePath(document.id), decisionId },
    )
  }
  if (progress.state !== 'approved') return { state: 'waiting' }
  return { state: 'approved', decisionId }
}
