import type { Context } from '../context'
import type { Kind } from '../document/kind'
import { maySee } from '../document/visible'
import { notFound, refused, stale } from '../http/problem'
import { findOrder, type OrderRow } from './reads'
import { SEEN_ORDERS } from './visible'

/** Orders as documents. */
export const ORDER: Kind<OrderRow> = {
  name: 'order',
  called: 'This order',
  ...SEEN_ORDERS,
  find: findOrder,
  lock,
  lockFor: async (ctx, id, version) => {
    const order = await lock(ctx, id, version)
    throw refused([`This order is ${order.state}; nothing of the kind can be done with it.`], {}, 'wrong-state')
  },
  path: (id) => `/orders/${id}`,
}

async function lock(ctx: Context, id: string, version: number | null): Promise<OrderRow> {
  const order = await findOrder(ctx.tx, id, true)
  if (order === null || !(await maySee(ctx, SEEN_ORDERS, id))) throw notFound('This order')
  if (version !== null && version !== order.version) throw stale('the order was changed in another window')
  return order
}
