import { sql, type SQL } from 'drizzle-orm'
import { departmentsOf, may } from '#core/people/rights'
import { type Tx } from '../db/client'
import { row, rows } from '../db/rows'
import { type Actor } from '../people/actor'

/**
 * The condition under which a person sees a requisition `r`: its raiser and owner, those who decide or
 * decided on it, holders of the budget lines it touches, buyers of its part once it is approved, and
 * whoever sees all documents. A draft is seen by its author alone.
 */
export function visibleTo(actor: Actor): SQL {
  const buys = departmentsOf(actor.grants, 'see approved lines')
  const asBuyer =
    buys === 'all'
      ? sql`r.state in ('approved', 'part ordered', 'ordered', 'closed', 'cancelled')`
      : buys.length > 0
        ? sql`(r.state in ('approved', 'part ordered', 'ordered', 'closed', 'cancelled') and r.department_id = any(${sql.param([...buys])}::uuid[]))`
        : sql`false`
  const asAll = may(actor.grants, 'see all documents') ? sql`r.number is not null` : sql`false`
  return sql`(r.owner_id = ${actor.id} or r.raised_by_id = ${actor.id} or (r.number is not null and (
    ${asAll} or ${asBuyer}
    or exists (select 1 from approval_seat s where s.document_id = r.id and (s.actor_id = ${actor.id} or s.for_id = ${actor.id}))
    or exists (select 1 from approval_decision d where d.document_id = r.id and d.actor_id = ${actor.id})
    or exists (select 1 from requisition_line l join requisition_coding c on c.line_id = l.id join budget_line b on b.id = c.budget_line_id
      where l.requisition_id = r.id and b.holder_id = ${actor.id}))))`
}

export async function maySee(tx: Tx, actor: Actor, requisitionId: string): Promise<boolean> {
  return (
    (await row(tx, sql`select 1 as one from requisition r where r.id = ${requisitionId} and ${visibleTo(actor)}`)) !==
    null
  )
}

/** Everybody who sees a requisition by what they are to it: to tell their open pages, not to decide. */
export async function listWatchers(tx: Tx, requisitionId: string): Promise<string[]> {
  const found = await rows<{ id: string }>(
    tx,
    sql`
    select owner_id as id from requisition where id = ${requisitionId}
    union select raised_by_id from requisition where id = ${requisitionId}
    union select actor_id from approval_seat where document_id = ${requisitionId}
    union select for_id from approval_seat where document_id = ${requisitionId} and for_id is not null
    union select actor_id from approval_decision where document_id = ${requisitionId}
    union select b.holder_id from requisition_line l join requisition_coding c on c.line_id = l.id
      join budget_line b on b.id = c.budget_line_id where l.requisition_id = ${requisitionId} and b.holder_id is not null
    union select person_id from role_grant where role in ('buyer', 'finance', 'auditor')`,
  )
  return found.map((f) => f.id)
}
