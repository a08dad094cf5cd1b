import { sql, type SQL } from 'drizzle-orm'
import { partOf } from '#core/people/rights'
import { isInvolved } from '../approval/involved-reads'
import type { SeenRows } from '../document/kind'
import type { Actor } from '../people/actor'
import { inPart, whatAsks, SEEN_REQUISITIONS } from '../requisition/visible'
import { document } from '../db/schema/document'
import { isThere, named, under } from '../db/read'
import { orderLine, orderLineSource, purchaseOrder } from '../db/schema/order'
import { requisitionLine } from '../db/schema/requisition'

/** Orders with what their documents hold, under a short name. */
export const orders = (name: string) =>
  under(name, sql`(${document} join ${purchaseOrder} using (id))`, document, purchaseOrder)

const o = orders('o')
const l = named(orderLine, 'l')
const x = named(orderLineSource, 'x')
const q = named(requisitionLine, 'q')
const r = whatAsks('r')

/** The requisitions `r` that an order `o` serves, a call-off those of its blanket order; then a condition follows. */
const SERVED = sql`from ${l} join ${x} on ${x.orderLineId} = ${l.id}
  join ${q} on ${q.id} = ${x.requisitionLineId} join ${r} on ${r.id} = ${q.requisitionId}
  where ${l.orderId} = coalesce(${o.blanketId}, ${o.id})`

/**
 * Who sees an issued order: its buyer, whoever sees all orders, buyers of a department or place that it serves, and
 * whoever sees a requisition that it serves. A tray is its buyer's alone, until it is sent: whoever decides on it, or
 * was asked about it, sees it too.
 */
export const SEEN_ORDERS: SeenRows = {
  row: o,
  visibleTo: (actor) =>
    sql`(${o.ownerId} = ${actor.id} or (${o.number} is not null and (${seesWhole(actor)}
      or ${isThere(sql`${SERVED} and ${SEEN_REQUISITIONS.visibleTo(actor)}`)}))
      or ${isInvolved(o.id, actor.id)})`,
}

/** The condition under which a person sees an order as buyers do, and not only their own part of it. */
export function seesWhole(actor: Actor): SQL {
  const part = partOf(actor.grants, 'see orders')
  if (part === 'all') return sql`true`
  const theirs = sql`${o.ownerId} = ${actor.id}`
  return part.departments.length + part.places.length === 0
    ? theirs
    : sql`(${theirs} or ${isThere(sql`${SERVED} and ${inPart(part)}`)})`
}
