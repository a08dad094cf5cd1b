import { sql, type SQL } from 'drizzle-orm'
import { may } from '#core/people/rights'
import { type Actor } from '../people/actor'
import { visibleTo } from '../requisition/visible'

/** The condition under which a person sees an issued order `o`: whoever sees orders sees all, others those that serve what they see. */
export function orderVisibleTo(actor: Actor): SQL {
  return may(actor.grants, 'see orders')
    ? sql`true`
    : sql`exists (
    select 1 from order_line l join order_line_source x on x.order_line_id = l.id join requisition_line q on q.id = x.requisition_line_id
      join requisition r on r.id = q.requisition_id where l.order_id = o.id and ${visibleTo(actor)})`
}
