import type { ProposedOrder } from '#core/order/propose'
import type { ItselfReason } from '#core/order/by-itself'
import type { IssueReason } from '#core/order/issue'
import type { Context } from '../context'
import { notFound, type Problem } from '../http/problem'
import { issueOrder } from '../order/issue-order'
import { layOnTray } from '../order/lay-tray'
import { findOrder } from '../order/reads'
import { setMadeBy } from './store'

/** Lays a proposed order on a tray and issues it, as its buyer would, who is the actor; refused, it throws. */
export async function makeOrder(
  ctx: Context,
  order: ProposedOrder,
  by: { readonly runId: string; readonly rule: string } | 'trial',
): Promise<{ id: string; number: string }> {
  const parts = order.parts.map((p) => ({ lineId: p.requisitionLineId, quantity: p.quantity }))
  const { orderId } = await layOnTray(ctx, { orderId: null, supplierId: order.supplierId, parts })
  if (by !== 'trial') await setMadeBy(ctx.tx, orderId, by.runId, by.rule)
  const tray = await findOrder(ctx.tx, orderId)
  if (tray === null) throw notFound('This tray')
  return issueOrder(ctx, orderId, tray.version, by === 'trial' ? { isTrial: true } : { rule: by.rule })
}

/** Why an order was refused, so that it can be said to others than its buyer too. */
export function refusalOf({ more, detail }: Problem): ItselfReason {
  const reasons = (more.reasons ?? []) as readonly IssueReason[]
  const [first] = reasons
  if (reasons.length === 1 && first?.code === 'above-ordering-limit')
    return { code: 'above-limit', net: first.amount, limit: first.limit }
  if (reasons.length === 1 && first?.code === 'own-need-alone') return { code: 'own-need' }
  return { code: 'refused', why: detail }
}
