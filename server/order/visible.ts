import { sql, type SQL } from 'drizzle-orm'
import { departmentsOf } from '#core/people/rights'
import type { SeenRows } from '../document/kind'
import type { Actor } from '../people/actor'
import { REQUISITIONS, SEEN_REQUISITIONS } from '../requisition/visible'

/** Orders with what their documents hold. */
export const ORDERS = sql`(document join purchase_order using (id))`

/** The requisitions `r` that an order `o` serves, to be followed by a condition. */
const SERVED = sql`select 1 from order_line l join order_line_source x on x.order_line_id = l.id
  join requisition_line q on q.id = x.requisition_line_id join ${REQUISITIONS} r on r.id = q.requisition_id
  where l.order_id = o.id`

/**
 * Who sees an issued order: its buyer, whoever sees all orders, buyers of a department that it serves, and whoever sees
 * a requisition that it serves. A tray is its buyer's alone.
 */
export const SEEN_ORDERS: SeenRows = {
  rows: sql`${ORDERS} o`,
  alias: sql`o`,
  visibleTo: (actor) =>
    sql`(o.owner_id = ${actor.id} or (o.number is not null and (${seesWhole(actor)}
      or exists (${SERVED} and ${SEEN_REQUISITIONS.visibleTo(actor)}))))`,
}

/** The condition under which a person sees an order as buyers do, and not only their own part of it. */
export function seesWhole(actor: Actor): SQL {
  const part = departmentsOf(actor.grants, 'see orders')
  if (part === 'all') return sql`true`
  const theirs = sql`o.owner_id = ${actor.id}`
  return part.length === 0
    ? theirs
    : sql`(${theirs} or exists (${SERVED} and r.department_id = any(${sql.param([...part])}::uuid[])))`
}
