import { moneyOf } from '#core/base/money'
import { isOrderMoveFrom, ORDER_MOVES } from '#core/order/moves'
import { sayOrderState } from '#shared/words/order'
import type { ApprovalOutcome, Decidable } from '../approval/decidable'
import { findRoute } from '../approval/reads'
import type { Context } from '../context'
import { setState } from '../document/store'
import { TAKE_BACK_SECONDS, tell } from '../document/tell'
import { enqueue } from '../queue/enqueue'
import { locksOf } from './buyers-document'
import { findOrder, type OrderRow } from './reads'
import { SEEN_ORDERS } from './visible'

/** Orders as documents: who sees them, how they are locked, and how approval knows them. */
export const ORDER: Decidable<OrderRow> = {
  name: 'order',
  called: 'This order',
  ...SEEN_ORDERS,
  find: async (tx, id, locked) => called(await findOrder(tx, id, locked)),
  ...locksOf<OrderRow>({
    called: 'This order',
    seen: SEEN_ORDERS,
    find: async (tx, id, locked) => called(await findOrder(tx, id, locked)),
    isFrom: isOrderMoveFrom,
    by: (move) => ORDER_MOVES[move].by,
    sayState: (o) => `This order is ${sayOrderState(o.state)}.`,
    whyNotRejected: 'An order is approved or sent back: what it is for was approved, and is still needed.',
  }),
  path: (id) => `/orders/${id}`,
  changePath: () => '/desk',
  whose: (o) => ({ raisedById: o.ownerId, departmentId: o.buyerDepartmentId }),
  takeOutcome,
  // What is done to an order that was sent is an event of its own.
  wasActedOn: () => null,
  tellApproved: ({ by, comment, amount, title }) => ({
    told: { code: 'order-approved', by, comment, amount, title },
  }),
}

/** An order that is not issued has no number: it is spoken of by its supplier. */
const called = (order: OrderRow | null): OrderRow | null =>
  order === null || order.number !== null ? order : { ...order, title: `order to ${order.supplier}` }

/** What follows once nobody is left to decide: its buyer hears of it, and it is issued by itself where they wished. */
async function goOn(ctx: Context, o: OrderRow, decisionId: string | null): Promise<void> {
  const route = await findRoute(ctx.tx, o.id)
  if (route === null) return
  // Whoever decided last tells of it themselves; where a step fell away, nobody did.
  if (decisionId === null) {
    const amount = moneyOf(route.amount, route.currency)
    const told = { code: 'order-approved', by: null, comment: '', amount, title: o.title } as const
    await tell(ctx, o.ownerId, o, told, { path: '/desk' })
  }
  if (!o.issuesItself) return
  const wait = decisionId === null ? 0 : TAKE_BACK_SECONDS + 1
  await enqueue(ctx.tx, 'issue-approved', { orderId: o.id, round: route.round, decisionId }, wait)
}

async function takeOutcome(ctx: Context, o: OrderRow, outcome: ApprovalOutcome): Promise<void> {
  switch (outcome.state) {
    case 'waiting':
    case 'reopened':
      await setState(ctx.tx, o.id, 'in approval', ctx.now)
      return
    case 'stopped':
      await setState(ctx.tx, o.id, 'draft', ctx.now)
      return
    case 'approved':
      await setState(ctx.tx, o.id, 'approved', ctx.now)
      await goOn(ctx, o, outcome.decisionId)
  }
}
