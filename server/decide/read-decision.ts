import type { DecisionView } from '#shared/contract/decide'
import type { Context } from '../context'
import { findKindName } from '../document/reads'
import { readOrderDecision } from './read-order-decision'
import { readRequestDecision } from './read-request-decision'

/** Everything that one decision needs, whatever it is on. */
export async function readDecision(ctx: Context, id: string): Promise<DecisionView> {
  return (await findKindName(ctx.tx, id)) === 'order' ? readOrderDecision(ctx, id) : readRequestDecision(ctx, id)
}
