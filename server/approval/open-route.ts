import { freezeSubject, type SentSubject } from '#core/approval/policy'
import { type Progress, progressOf } from '#core/approval/progress'
import { makeRoute } from '#core/approval/route'
import type { Context } from '../context'
import type { DocumentHead } from '../document/kind'
import { tell } from '../document/tell'
import { decidePath } from './decidable'
import { listHandings } from './handing-reads'
import type { Judged } from './judge-again'
import { reachHanded } from './reach-handed'
import { listApprovals } from './reads'
import { stopRoute } from './stop-route'
import { insertRoute, insertSeats } from './store'

/**
 * Opens the route of a document that was sent: whoever comes first is asked and told. What was asked before it was sent
 * again is over; with `keepsEarlier` it came back with no more, and the approvals that stood go on to stand.
 */
export async function openRoute(
  ctx: Context,
  document: Pick<DocumentHead, 'id' | 'kind' | 'number' | 'title'>,
  sent: {
    readonly round: number
    readonly keepsEarlier: boolean
    /** The approval by which it came to be: nobody who is asked hears of it while that may be taken back. */
    readonly by?: { readonly decisionId: string; readonly actorId: string }
    /** What is frozen of it, where that is more than its subject. */
    readonly sent?: SentSubject
  } & Judged,
): Promise<Progress> {
  const { round, subject, keepsEarlier } = sent
  // A sending that begins anew has no approvals yet.
  const next = { round, keepsEarlier }
  const approvals = keepsEarlier ? await listApprovals(ctx.tx, document.id, next) : []
  const handed = keepsEarlier ? await listHandings(ctx.tx, document.id, next) : []
  const people = await reachHanded(ctx, sent.people, handed, subject.amount.currency)
  const route = makeRoute(subject, sent.policy, people, approvals, { handed })
  const progress = progressOf(route, approvals)
  if (round > 1) await stopRoute(ctx, document.id)
  const routeId = await insertRoute(ctx.tx, {
    documentKind: document.kind,
    documentId: document.id,
    round,
    state: routeStateOf(progress),
    amount: subject.amount.amount,
    currency: subject.amount.currency,
    route,
    sent: sent.sent ?? freezeSubject(subject),
    keepsEarlier,
    policyId: sent.policy.id,
    now: ctx.now,
  })
  for (const { actorId } of await insertSeats(ctx.tx, routeId, document.id, progress, ctx.now)) {
    if (actorId === sent.by?.actorId) continue
    await tell(
      ctx,
      actorId,
      document,
      { code: 'to-decide', by: ctx.actor.name, number: document.number, title: document.title, amount: subject.amount },
      { path: decidePath(document.id), ...(sent.by === undefined ? {} : { decisionId: sent.by.decisionId }) },
    )
  }
  return progress
}

/** How a route is kept, by where it stands. */
export function routeStateOf(progress: Progress): 'open' | 'held' | 'approved' {
  return progress.state === 'waiting' ? 'open' : progress.state
}
