import { moneyOf } from '#core/base/money'
import { isOrderMoveFrom, ORDER_MOVES } from '#core/order/moves'
import { sayOrderState } from '#shared/words/order'
import type { ApprovalOutcome, Decidable } from '../approval/decidable'
import { findOpenSeat, findRoute } from '../approval/reads'
import type { Context } from '../context'
import type { SharedMove } from '../document/kind'
import { isAsked } from '../document/reads'
import { setState } from '../document/store'
import { TAKE_BACK_SECONDS, tell } from '../document/tell'
import { maySee } from '../document/visible'
import { forbidden, notFound, refused, stale } from '../http/problem'
import { enqueue } from '../queue/enqueue'
import { findOrder, type OrderRow } from './reads'
import { SEEN_ORDERS } from './visible'

/** Orders as documents: who sees them, how they are locked, and how approval knows them. */
export const ORDER: Decidable<OrderRow> = {
  name: 'order',
  called: 'This order',
  ...SEEN_ORDERS,
  find: async (tx, id, locked) => called(await findOrder(tx, id, locked)),
  lock,
  lockFor,
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

async function lock(ctx: Context, id: string, version: number | null): Promise<OrderRow> {
  const order = called(await findOrder(ctx.tx, id, true))
  if (order === null || !(await maySee(ctx, SEEN_ORDERS, id))) throw notFound('This order')
  if (version !== null && version !== order.version) throw stale('the order was changed in another window')
  return order
}

async function lockFor(ctx: Context, id: string, version: number | null, move: SharedMove): Promise<OrderRow> {
  const order = await lock(ctx, id, version)
  if (move === 'reject')
    throw refused(['An order is approved or sent back: what it is for was approved, and is still needed.'])
  const isTheirs = await allows(ctx, order, move)
  if (move === 'edit' || !isOrderMoveFrom(move, order.state))
    throw refused([`This order is ${sayOrderState(order.state)}.`], {}, 'wrong-state')
  if (!isTheirs) throw forbidden(move === 'answer' ? 'Nobody asked you about it.' : 'This does not wait for you.')
  return order
}

async function allows({ tx, actor }: Context, order: OrderRow, move: SharedMove): Promise<boolean> {
  if (move === 'edit' || move === 'reject') return false
  switch (ORDER_MOVES[move].by) {
    case 'step holder':
      return (await findOpenSeat(tx, order.id, actor.id)) !== null
    case 'buyer or asked':
      return order.ownerId === actor.id || (await isAsked(tx, order.id, actor.id))
  }
}

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
