import { sql, type SQL } from 'drizzle-orm'
import { departmentsOf, may } from '#core/people/rights'
import type { SeenRows } from '../document/kind'
import type { Actor } from '../people/actor'

/** Requisitions with what their documents hold. */
export const REQUISITIONS = sql`(document join requisition using (id))`

/**
 * Who sees a requisition: its raiser and owner, those who decide or decided on it, holders of the budget lines it
 * touches, buyers of its part once it is approved, and whoever sees all documents. A draft is seen by its author alone.
 */
export const SEEN_REQUISITIONS: SeenRows = { rows: sql`${REQUISITIONS} r`, alias: sql`r`, visibleTo }

const OF_BUYERS = sql`r.state in ('approved', 'part ordered', 'ordered', 'closed', 'cancelled')`

function visibleTo(actor: Actor): SQL {
  const buys = departmentsOf(actor.grants, 'see approved lines')
  const asBuyer =
    buys === 'all'
      ? OF_BUYERS
      : buys.length > 0
        ? sql`(${OF_BUYERS} and r.department_id = any(${sql.param([...buys])}::uuid[]))`
        : sql`false`
  const asAll = may(actor.grants, 'see all documents') ? sql`true` : sql`false`
  return sql`(r.owner_id = ${actor.id} or r.raised_by_id = ${actor.id} or (r.number is not null and (
    ${asAll} or ${asBuyer}
    or exists (select 1 from approval_seat s
      where s.document_id = r.id and (s.actor_id = ${actor.id} or s.for_id = ${actor.id}))
    or exists (select 1 from approval_decision d where d.document_id = r.id and d.actor_id = ${actor.id})
    or exists (select 1 from requisition_line l join requisition_coding c on c.line_id = l.id
      join budget_line b on b.id = c.budget_line_id
      where l.requisition_id = r.id and b.holder_id = ${actor.id}))))`
}
