import { sql, type SQL } from 'drizzle-orm'
import { departmentsOf, may } from '#core/people/rights'
import type { SeenRows } from '../document/kind'
import type { Actor } from '../people/actor'
import { isThere, named, under, type Named } from '../db/read'
import { approvalDecision, approvalSeat } from '../db/schema/approval'
import { document } from '../db/schema/document'
import { requisition, requisitionCoding, requisitionLine } from '../db/schema/requisition'
import { budgetLine } from '../db/schema/budget'

/** Requisitions with what their documents hold, under a short name. */
export const requisitions = (name: string) =>
  under(name, sql`(${document} join ${requisition} using (id))`, document, requisition)

/** That a line has something left, not ordered, cancelled or on a tray; as the index `requisition_line_open` has it. */
export const isOpenLine = (line: Named<typeof requisitionLine>): SQL =>
  sql`${line.quantity} - ${line.ordered} - ${line.cancelled} - ${line.onTray} > 0`

const r = requisitions('r')
const s = named(approvalSeat, 's')
const d = named(approvalDecision, 'd')
const l = named(requisitionLine, 'l')
const c = named(requisitionCoding, 'c')
const b = named(budgetLine, 'b')

/**
 * Who sees a requisition: its raiser and owner, those who decide or decided on it, holders of the budget lines it
 * touches, buyers of its part once it is approved, and whoever sees all documents. A draft is seen by its author alone.
 */
export const SEEN_REQUISITIONS: SeenRows = { row: r, visibleTo }

const OF_BUYERS = sql`${r.state} in ('approved', 'part ordered', 'ordered', 'closed', 'cancelled')`

function visibleTo(actor: Actor): SQL {
  const buys = departmentsOf(actor.grants, 'see approved lines')
  const asBuyer =
    buys === 'all'
      ? OF_BUYERS
      : buys.length > 0
        ? sql`(${OF_BUYERS} and ${r.departmentId} = any(${sql.param([...buys])}::uuid[]))`
        : sql`false`
  const asAll = may(actor.grants, 'see all documents') ? sql`true` : sql`false`
  return sql`(${r.ownerId} = ${actor.id} or ${r.raisedById} = ${actor.id} or (${r.number} is not null and (
    ${asAll} or ${asBuyer}
    or ${isThere(sql`from ${s}
      where ${s.documentId} = ${r.id} and (${s.actorId} = ${actor.id} or ${s.forId} = ${actor.id})`)}
    or ${isThere(sql`from ${d} where ${d.documentId} = ${r.id} and ${d.actorId} = ${actor.id}`)}
    or ${isThere(sql`from ${l} join ${c} on ${c.lineId} = ${l.id}
      join ${b} on ${b.id} = ${c.budgetLineId}
      where ${l.requisitionId} = ${r.id} and ${b.holderId} = ${actor.id}`)})))`
}
