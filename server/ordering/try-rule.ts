import type { OrderingForm } from '#core/order/by-itself'
import type { ProposedOrder } from '#core/order/propose'
import { may } from '#core/people/rights'
import type { TriedRule } from '#shared/contract/ordering'
import type { Context } from '../context'
import type { RunLeft } from '../db/schema/ordering'
import { inPartOf, onTrial } from '../db/transaction'
import { seenAmong } from '../document/visible'
import { invalid, Problem } from '../http/problem'
import { findActor } from '../people/actor-reads'
import { SEEN_REQUISITIONS } from '../requisition/visible'
import { makeOrder, refusalOf } from './make-order'
import { leaveAll, proposeByRule, type RuleProposal } from './propose-by-rule'
import { viewLeft } from './view-left'

/** More orders are not tried at once: until the trial ends, others wait for what is tried. */
const MOST_TRIED = 60

/**
 * What a rule would order now: carried out as a run would, order by order, so that one takes from the other's budget
 * and agreement, and then all taken back. Whoever asks sees requests only as far as they may anyway.
 */
export async function tryRule(
  ctx: Context,
  { form, buyerId }: { readonly form: OrderingForm; readonly buyerId: string },
): Promise<TriedRule> {
  const buyer = await findActor(ctx.tx, buyerId, ctx.now)
  if (buyer === null || !may(buyer.grants, 'order'))
    throw invalid('Name a buyer in whose name it orders.', [{ field: 'buyerId', message: 'is no buyer' }])
  const as = { ...ctx, actor: buyer }
  const proposal = await proposeByRule(as, form)
  const tried = proposal.orders.slice(0, MOST_TRIED)
  const left: RunLeft[] = [...proposal.left]
  const made: ProposedOrder[] = []
  await onTrial(ctx.tx, async () => {
    for (const order of tried) {
      try {
        await inPartOf(ctx.tx, () => makeOrder(as, order, 'trial'))
        made.push(order)
      } catch (error) {
        if (!(error instanceof Problem)) throw error
        left.push(...leaveAll(order, refusalOf(error)))
      }
    }
  })
  return {
    orders: await viewOrders(ctx, made, proposal),
    left: await viewLeft(ctx, left, proposal.computed.today),
    untried: proposal.orders.length - tried.length,
  }
}

async function viewOrders(
  ctx: Context,
  orders: readonly ProposedOrder[],
  { computed: { rows } }: RuleProposal,
): Promise<TriedRule['orders']> {
  const all = [...new Set([...rows.values()].map((r) => r.requisitionId))]
  const seen = await seenAmong(ctx, SEEN_REQUISITIONS, all)
  return orders.map((o) => {
    const own = o.parts.flatMap((p) => rows.get(p.requisitionLineId) ?? [])
    const requests = new Map(own.map((r) => [r.requisitionId, r.number]))
    return {
      supplier: own[0]?.supplier ?? '',
      shipTo: own[0]?.shipTo ?? '',
      ...{ net: o.worth.net, saved: o.saved, lines: o.worth.lines.length },
      requests: [...requests].filter(([id]) => seen.has(id)).map(([id, number]) => ({ id, number })),
    }
  })
}
