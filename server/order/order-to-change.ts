import { may } from '#core/people/rights'
import { findAgreement } from '../agreement/reads'
import type { Context } from '../context'
import { lockDocument } from '../document/store'
import { maySee } from '../document/visible'
import { forbidden, notFound, refused, stale } from '../http/problem'
import { findRequisitions, type RequisitionRow } from '../requisition/reads'
import { findChange, findUnderWay, type ChangeRow } from './change-reads'
import { findOrder, listServed, type OrderRow } from './reads'
import { SEEN_ORDERS } from './visible'

/** An issued order with what it serves, the change of it that is under way and its agreement, all locked. */
export interface OrderToChange {
  readonly order: OrderRow
  readonly served: readonly RequisitionRow[]
  readonly underWay: ChangeRow | null
}

/**
 * Locks an issued order that is the actor's own, at the version they saw: requisitions before orders, everywhere, and
 * its change and its agreement after it.
 */
export async function lockOrderToChange(ctx: Context, id: string, version: number | null): Promise<OrderToChange> {
  const served = await findRequisitions(ctx.tx, await listServed(ctx.tx, id), true)
  const order = await lockWithBlanket(ctx, id)
  if (order === null || !(await maySee(ctx, SEEN_ORDERS, id))) throw notFound('This order')
  requireOwn(ctx, order)
  if (version !== null && version !== order.version) throw stale('the order was changed in another window')
  const found = await findUnderWay(ctx.tx, id)
  const underWay = found === null ? null : await findChange(ctx.tx, found.id, true)
  // What it draws on stands still until it is known whether there is room.
  if (order.agreementId !== null) await findAgreement(ctx.tx, order.agreementId, true)
  return { order, served, underWay }
}

/** Locks an order, and with a call-off its blanket order, of which it takes: in the order of their ids, everywhere. */
async function lockWithBlanket(ctx: Context, id: string): Promise<OrderRow | null> {
  const blanketId = (await findOrder(ctx.tx, id))?.blanketId ?? null
  if (blanketId !== null && blanketId < id) await lockDocument(ctx.tx, blanketId)
  await lockDocument(ctx.tx, id)
  if (blanketId !== null && blanketId > id) await lockDocument(ctx.tx, blanketId)
  return findOrder(ctx.tx, id)
}

/** Refuses whoever is not the buyer of an issued order. */
export function requireOwn(ctx: Context, order: OrderRow): void {
  if (order.number === null) throw refused(['This order is not issued yet.'], {}, 'wrong-state')
  if (!may(ctx.actor.grants, 'order')) throw forbidden('Buyers change orders.')
  if (order.ownerId !== ctx.actor.id)
    throw forbidden(`This order is ${order.buyer}’s: they change it, or hand it over.`)
}
