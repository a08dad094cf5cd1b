import { randomUUID } from 'node:crypto'
import { freezeSubject } from '#core/approval/policy'
import { makeRoute } from '#core/approval/route'
import { convert } from '#core/base/money'
import { tidyAdjustments } from '#core/order/adjustment'
import { cancelsWhole, type Rest } from '#core/order/change'
import { needsDecision } from '#core/order/issue'
import type { Reply } from '#shared/contract/all-routes'
import type { orderChangeRoutes } from '#shared/contract/order-change'
import { sayChangeReason } from '#shared/words/order-change'
import { waysOf } from '#shared/words/ways'
import { openRoute } from '../approval/open-route'
import { findRoute } from '../approval/reads'
import { appendEvent } from '../audit/store'
import { requireMoney } from '../budget/require-money'
import type { Context } from '../context'
import { forgetOwners, setState, touchDocument } from '../document/store'
import { refused } from '../http/problem'
import { notifyChange } from '../live/notify'
import { ORDER_CHANGE } from './change-kind'
import { findChange, type ChangeRow } from './change-reads'
import { insertChange, setWishes } from './change-store'
import { computeChange, type ComputedChange, type Wished } from './compute-change'
import { judgeOrder } from './judge-order'
import { makeChange } from './make-change'
import type { OrderRow } from './reads'
import { lockOrderToChange, type OrderToChange } from './order-to-change'
import { planChangeMoney, quantityMoves } from './plan-change-money'

/** An issued order once a change of it is made or sent, and how the change stands. */
export type ChangedOrder = Reply<(typeof orderChangeRoutes)['changeOrder']>

/** What an issued order is to be. */
export interface ChangeAsked extends Wished {
  readonly rest: Rest
  readonly reason: string
  readonly note: string
}

/** What becomes of what an order does not order any more: of a direct order it is over, since nobody asked for it. */
export const restOf = (order: Pick<OrderRow, 'directFor'>, wished: Rest): Rest =>
  order.directFor === null ? wished : 'ends'

/**
 * Changes an issued order, or cancels it: at once where its buyer may, else, if they ask for it, once whoever decides
 * has approved. Until then the order stands as it was sent. A change that came back is written anew.
 */
export async function changeOrder(
  ctx: Context,
  id: string,
  version: number,
  { asks, ...wished }: ChangeAsked & { readonly asks: boolean },
): Promise<ChangedOrder> {
  const locked = await lockOrderToChange(ctx, id, version)
  const rest = restOf(locked.order, wished.rest)
  const adjustments = wished.adjustments == null ? null : tidyAdjustments(wished.adjustments)
  const wishes = { ...wished, adjustments, rest, reason: wished.reason.trim(), note: wished.note.trim() }
  const { order, served, underWay } = locked
  const isOther = underWay !== null && underWay.state !== 'draft'
  const of = { buyerId: ctx.actor.id, underWay, isOther }
  const c = await computeChange(ctx.tx, order, served, wishes, of, ctx.now)
  const { reasons } = c.verdict
  const goesOn = reasons.length === 0 || (asks && needsDecision(reasons))
  if (!goesOn)
    throw refused(
      reasons.map((r) => sayChangeReason(r, waysOf(ctx.actor.locale))),
      { reasons },
      needsDecision(reasons) ? 'needs-decision' : 'refused',
    )
  const change = await keepChange(ctx, locked, wishes, c)
  if (reasons.length > 0) return sendChange(ctx, locked, change, c)
  const { revision } = await makeChange(ctx, locked, change, c)
  return { id, version: order.version + 1, number: order.number ?? '', revision, state: 'in force' }
}

async function keepChange(
  ctx: Context,
  { order, underWay }: OrderToChange,
  wishes: ChangeAsked,
  c: ComputedChange,
): Promise<ChangeRow> {
  const title = `${cancelsWhole(c.lines) ? 'cancellation' : 'change'} of ${order.number ?? ''} to ${order.supplier}`
  const id = underWay?.id ?? randomUUID()
  if (underWay === null)
    await insertChange(ctx.tx, { id, orderId: order.id, title, buyerId: ctx.actor.id, wishes, now: ctx.now })
  else {
    await setWishes(ctx.tx, id, wishes)
    await touchDocument(ctx.tx, id, ctx.now, title)
  }
  const kept = await findChange(ctx.tx, id)
  if (kept === null) throw new Error('a change was not kept')
  return kept
}

/** Sends a change to whoever decides on it, by the policy's rules for orders. */
async function sendChange(
  ctx: Context,
  { order, served }: OrderToChange,
  change: ChangeRow,
  c: ComputedChange,
): Promise<ChangedOrder> {
  const planned = await planChangeMoney(ctx, order, c, quantityMoves(c, change.rest), served, true)
  requireMoney(planned, waysOf(ctx.actor.locale))
  const base = c.organisation.baseCurrency
  const judged = await judgeOrder(ctx, order, {
    ...{ organisation: c.organisation, amount: convert(c.sums.net, c.perBase, base) },
    ...{ planned, served, lineIds: c.lines.flatMap((l) => l.sources.map((s) => s.requisitionLineId)) },
  })
  if (makeRoute(judged.subject, judged.policy, judged.people).held !== null)
    throw refused(['Nobody is found who may decide on this change; ask an administrator.'], {}, 'nobody-decides')
  const round = ((await findRoute(ctx.tx, change.id))?.round ?? 0) + 1
  await forgetOwners(ctx.tx, change.id)
  const progress = await openRoute(ctx, change, {
    round,
    keepsEarlier: false,
    ...judged,
    sent: {
      ...freezeSubject(judged.subject),
      barred: judged.subject.ownedBy,
      lines: c.lines.map((l) => convert(l.ordered, c.perBase, base)),
    },
  })
  const isApproved = progress.state === 'approved'
  await appendEvent(ctx, {
    type: round === 1 ? 'sent' : 'sent again',
    subjectKind: 'order change',
    subjectId: change.id,
    after: { orderId: order.id, number: order.number, amount: judged.subject.amount, text: change.reason },
  })
  if (isApproved) await ORDER_CHANGE.takeOutcome(ctx, change, { state: 'approved', decisionId: null })
  else await setState(ctx.tx, change.id, 'in approval', ctx.now)
  await touchDocument(ctx.tx, order.id, ctx.now)
  await notifyChange(ctx.tx, { kind: 'order change', id: change.id })
  await notifyChange(ctx.tx, { kind: 'order', id: order.id })
  const state = isApproved ? 'approved' : 'in approval'
  return { id: order.id, version: order.version + 1, number: order.number ?? '', revision: null, state }
}
