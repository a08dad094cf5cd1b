import type { DecisionView } from '#shared/contract/decide'
import type { Context } from '../context'
import { findKindName } from '../document/reads'
import { readChangeDecision } from './read-change-decision'
import { readOrderDecision } from './read-order-decision'
import { readRequestDecision } from './read-request-decision'

/** Everything that one decision needs, whatever it is on. */
export async function readDecision(ctx: Context, id: string): Promise<DecisionView> {
  switch (await findKindName(ctx.tx, id)) {
    case 'order':
      return readOrderDecision(ctx, id)
    case 'order change':
      return readChangeDecision(ctx, id)
    default:
      return readRequestDecision(ctx, id)
  }
}
