import { may } from '#core/people/rights'
import type { Context } from '../context'
import { maySee } from '../document/visible'
import { forbidden, notFound, refused, stale } from '../http/problem'
import { findRequisitions, type RequisitionRow } from '../requisition/reads'
import { findChange, findUnderWay, type ChangeRow } from './change-reads'
import { findOrder, listServed, type OrderRow } from './reads'
import { SEEN_ORDERS } from './visible'

/** An issued order with what it serves and the change of it that is under way, all locked. */
export interface OrderToChange {
  readonly order: OrderRow
  readonly served: readonly RequisitionRow[]
  readonly underWay: ChangeRow | null
}

/**
 * Locks an issued order that is the actor's own, at the version they saw: requisitions before orders, everywhere, and
 * its change after it.
 */
export async function lockOrderToChange(ctx: Context, id: string, version: number | null): Promise<OrderToChange> {
  const served = await findRequisitions(ctx.tx, await listServed(ctx.tx, id), true)
  const order = await findOrder(ctx.tx, id, true)
  if (order === null || !(await maySee(ctx, SEEN_ORDERS, id))) throw notFound('This order')
  requireOwn(ctx, order)
  if (version !== null && version !== order.version) throw stale('the order was changed in another window')
  const found = await findUnderWay(ctx.tx, id)
  return { order, served, underWay: found === null ? null : await findChange(ctx.tx, found.id, true) }
}

/** Refuses whoever is not the buyer of an issued order. */
export function requireOwn(ctx: Context, order: OrderRow): void {
  if (order.number === null) throw refused(['This order is not issued yet.'], {}, 'wrong-state')
  if (!may(ctx.actor.grants, 'order')) throw forbidden('Buyers change orders.')
  if (order.ownerId !== ctx.actor.id)
    throw forbidden(`This order is ${order.buyer}’s: they change it, or hand it over.`)
}
