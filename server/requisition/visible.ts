import { sql, type SQL, type SQLWrapper } from 'drizzle-orm'
import type { Day } from '#core/base/day'
import { may, partOf, type Part } from '#core/people/rights'
import { isInvolved } from '../approval/involved-reads'
import type { SeenRows } from '../document/kind'
import type { Actor } from '../people/actor'
import { isThere, named, under, type Named } from '../db/read'
import { document, remark } from '../db/schema/document'
import { requisition, requisitionCoding, requisitionLine } from '../db/schema/requisition'
import { budgetLine } from '../db/schema/budget'

/** Requisitions with what their documents hold, under a short name. */
export const requisitions = (name: string) =>
  under(
    name,
    sql`(select * from ${document} join ${requisition} using (id) where ${document.kind} = 'requisition')`,
    document,
    requisition,
  )

/** Requisitions, and direct orders, which ask for what they order themselves: whatever has lines that are ordered. */
export const whatAsks = (name: string) =>
  under(name, sql`(${document} join ${requisition} using (id))`, document, requisition)

const ask = named(remark, 'ask')

/** That a line has something left, not ordered, cancelled or on a tray; as the index `requisition_line_open` has it. */
export const isOpenLine = (line: Named<typeof requisitionLine>): SQL =>
  sql`${line.quantity} - ${line.ordered} - ${line.cancelled} - ${line.onTray} > 0`

/** That a buyer asked something about a line, and nobody has answered. */
export const isAskedAbout = (line: Named<typeof requisitionLine>): SQL =>
  sql`exists (select from ${ask} where ${ask.lineId} = ${line.id} and ${ask.kind} = 'question'
    and ${ask.answeredAt} is null)`

/** That something of a line is open, and neither put aside on a day nor waiting for an answer. */
export const waitsOn = (line: Named<typeof requisitionLine>, today: Day | SQL<Day>): SQL =>
  sql`(${isOpenLine(line)} and (${line.asideUntil} is null or ${line.asideUntil} <= ${today})
    and not ${isAskedAbout(line)})`

const r = requisitions('r')
const l = named(requisitionLine, 'l')
const c = named(requisitionCoding, 'c')
const b = named(budgetLine, 'b')

/**
 * Who sees a requisition: its raiser and owner, those who decide or decided, handed it on or were asked something about
 * it, holders of the budget lines it touches, buyers of its part once it is approved, and whoever sees all documents. A
 * draft is seen by its author alone.
 */
export const SEEN_REQUISITIONS: SeenRows = { row: r, visibleTo }

const OF_BUYERS = sql`${r.state} in ('approved', 'part ordered', 'ordered', 'closed', 'cancelled')`

/** That a requisition `r` lies in a part of the organisation: of its departments, or on its way to its places. */
export function inPart(part: Part): SQL {
  if (part === 'all') return sql`true`
  const ofSome = (column: SQLWrapper, ids: readonly string[]) =>
    ids.length === 0 ? [] : [sql`${column} = any(${sql.param([...ids])}::uuid[])`]
  const either = [...ofSome(r.departmentId, part.departments), ...ofSome(r.shipToId, part.places)]
  return either.length === 0 ? sql`false` : sql`(${sql.join(either, sql` or `)})`
}

function visibleTo(actor: Actor): SQL {
  const asBuyer = sql`(${OF_BUYERS} and ${inPart(partOf(actor.grants, 'see approved lines'))})`
  const asAll = may(actor.grants, 'see all documents') ? sql`true` : sql`false`
  return sql`(${r.ownerId} = ${actor.id} or ${r.raisedById} = ${actor.id} or (${r.number} is not null and (
    ${asAll} or ${asBuyer}
    or ${isInvolved(r.id, actor.id)}
    or ${isThere(sql`from ${l} join ${c} on ${c.lineId} = ${l.id}
      join ${b} on ${b.id} = ${c.budgetLineId}
      where ${l.requisitionId} = ${r.id} and ${b.holderId} = ${actor.id}`)})))`
}
