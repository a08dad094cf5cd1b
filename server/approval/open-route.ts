import { type Approved, type Progress, progressOf } from '#core/approval/progress'
import type { Route } from '#core/approval/route'
import type { Money } from '#core/base/money'
import type { Context } from '../context'
import type { DocumentHead } from '../document/kind'
import { tell } from '../document/tell'
import { decidePath } from './decidable'
import { stopRoute } from './stop-route'
import { insertRoute, insertSeats } from './store'

/**
 * Opens the route of a document that was sent: whoever comes first is asked and told. What was asked before it was sent
 * again is over. Approvals that stay (`earlier`) count as given.
 */
export async function openRoute(
  ctx: Context,
  document: Pick<DocumentHead, 'id' | 'kind' | 'number' | 'title'>,
  sent: {
    readonly round: number
    readonly route: Route
    readonly amount: Money
    readonly earlier: readonly Approved[]
  },
): Promise<Progress> {
  const progress = progressOf(sent.route, sent.earlier)
  if (sent.round > 1) await stopRoute(ctx, document.id)
  const routeId = await insertRoute(ctx.tx, {
    documentKind: document.kind,
    documentId: document.id,
    round: sent.round,
    state: routeStateOf(progress),
    amount: sent.amount.amount,
    currency: sent.amount.currency,
    route: sent.route,
    now: ctx.now,
  })
  for (const { actorId } of await insertSeats(ctx.tx, routeId, document.id, progress, ctx.now)) {
    await tell(
      ctx,
      actorId,
      document,
      { code: 'to-decide', by: ctx.actor.name, number: document.number, title: document.title, amount: sent.amount },
      { path: decidePath(document.id) },
    )
  }
  return progress
}

/** How a route is kept, by where it stands. */
export function routeStateOf(progress: Progress): 'open' | 'held' | 'approved' {
  return progress.state === 'waiting' ? 'open' : progress.state
}
