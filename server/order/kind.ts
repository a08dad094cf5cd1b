import { isOrderMoveFrom, ORDER_MOVES } from '#core/order/moves'
import { sayOrderState } from '#shared/words/order'
import type { Decidable } from '../approval/decidable'
import { enqueue } from '../queue/enqueue'
import { locksOf, outcomesOf } from './buyers-document'
import { findOrder, whoseOrder, type OrderRow } from './reads'
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
    whyNotRejected: 'An order is approved or sent back; its buyer puts it away where it is not needed.',
  }),
  path: (id) => `/orders/${id}`,
  changePath: () => '/desk',
  whose: whoseOrder,
  takeOutcome: outcomesOf<OrderRow>({
    pageFor: () => '/desk',
    // It is issued by itself where its buyer wished it.
    goOn: async ({ tx }, o, of, seconds) =>
      o.issuesItself ? enqueue(tx, 'issue-approved', { orderId: o.id, ...of }, seconds) : undefined,
  }),
  // What is done to an order that was sent is an event of its own.
  wasActedOn: () => null,
  tellApproved: ({ by, comment, amount, title }) => ({
    told: { code: 'order-approved', by, comment, amount, title },
  }),
}

/** An order that is not issued has no number: it is spoken of by its supplier. */
const called = (order: OrderRow | null): OrderRow | null =>
  order === null || order.number !== null ? order : { ...order, title: `order to ${order.supplier}` }
