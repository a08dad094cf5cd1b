import { sql } from 'drizzle-orm'
import type { IntegrityCheck, IntegrityFound } from '#core/audit/integrity'
import type { Tx } from '../db/client'
import { UTC } from '../db/moments'
import { named, read } from '../db/read'
import { approvalRoute } from '../db/schema/approval'
import { integrityRun } from '../db/schema/audit'
import { budgetBalance, budgetEntry, budgetLine, budgetTransfer } from '../db/schema/budget'
import { document } from '../db/schema/document'
import { orderLine, purchaseOrder } from '../db/schema/order'
import { person } from '../db/schema/people'
import { requestKind } from '../db/schema/request-form'
import { requisition, requisitionCoding, requisitionLine } from '../db/schema/requisition'
import { numberSeries } from '../db/schema/settings'

const b = named(budgetBalance, 'b')
const e = named(budgetEntry, 'e')
const m = named(budgetTransfer, 'm')
const bl = named(budgetLine, 'bl')
const d = named(document, 'd')
const r = named(requisition, 'r')
const c = named(requisitionCoding, 'c')
const l = named(requisitionLine, 'l')
const t = named(approvalRoute, 't')
const o = named(purchaseOrder, 'o')
const ol = named(orderLine, 'ol')
const s = named(numberSeries, 's')
const k = named(requestKind, 'k')
const i = named(integrityRun, 'i')
const p = named(person, 'p')

/** Things that break a rule, by what they are called. */
type Broken = { name: string }[]
const stage = (of: 'reserved' | 'committed' | 'spent') =>
  sql`coalesce((select sum(${e.amount}) from ${e} where ${e.budgetLineId} = ${b.budgetLineId}
    and ${e.period} = ${b.period} and ${e.stage} = ${of}), 0)`

/** What moved into a period of a line, less what moved out of it. */
const moved = sql`coalesce((select sum(case when ${m.toLineId} = ${b.budgetLineId} then ${m.amount}
    else -${m.amount} end) from ${m} where ${m.state} = 'done' and ${m.period} = ${b.period}
    and ${b.budgetLineId} in (${m.toLineId}, ${m.fromLineId})), 0)`

/** Periods of budget lines whose balances are not the sum of their entries, or of what was moved. */
const unbalanced = (tx: Tx): Promise<Broken> =>
  read(
    tx,
    { name: sql<string>`${bl.name} || ', ' || ${bl.fiscalYear} || ' period ' || ${b.period}` },
    sql`from ${b} join ${bl} on ${bl.id} = ${b.budgetLineId} where ${b.reserved} <> ${stage('reserved')}
      or ${b.committed} <> ${stage('committed')} or ${b.spent} <> ${stage('spent')}
      or ${b.adjustments} <> ${moved} order by 1`,
  )

const standing = (of: 'reserved' | 'committed') =>
  sql`coalesce((select sum(${e.amount}) from ${e} where ${e.documentId} = ${d.id} and ${e.stage} = ${of}), 0)`

/** A year end released something that a requisition had reserved. */
const isReleased = sql`exists (select 1 from ${c} join ${l} on ${l.id} = ${c.lineId}
  where ${l.requisitionId} = ${d.id} and ${c.released})`

/**
 * Documents that stand in a stage with another amount than their state says: what was sent and is not ordered yet
 * reserves what was decided on, unless a year end released some of
 * it, and what ended holds nothing.
 */
const misplaced = (tx: Tx): Promise<Broken> =>
  read(
    tx,
    { name: sql<string>`coalesce(${d.number}, ${d.title})` },
    sql`from ${d} left join ${r} on ${r.id} = ${d.id}
        left join ${t} on ${t.documentId} = ${d.id} and ${t.round} = ${r.round}
      where (${d.kind} = 'requisition' and ${d.state} = 'in approval' and ${standing('reserved')} <> ${t.amount}
          and not ${isReleased})
        or (${d.kind} = 'requisition' and ${d.state} in ('draft', 'sent back', 'rejected', 'withdrawn', 'cancelled')
          and ${standing('reserved')} <> 0)
        or (${d.kind} = 'order' and ${d.state} in ('draft', 'cancelled') and ${standing('committed')} <> 0) order by 1`,
  )

/** Orders that come to another amount than their lines with what these bear. */
const uneven = (tx: Tx): Promise<Broken> =>
  read(
    tx,
    { name: sql<string>`coalesce(${d.number}, ${d.title})` },
    sql`from ${o} join ${d} on ${d.id} = ${o.id} join ${ol} on ${ol.orderId} = ${o.id} where ${o.net} is not null
      group by ${o.id}, ${o.net}, ${d.number}, ${d.title} having ${o.net} <> sum(${ol.net} + ${ol.borne}) order by 1`,
  )

/** Series whose numbers were not all given to something that is there. */
const gapped = (tx: Tx): Promise<Broken> =>
  read(
    tx,
    { name: sql<string>`${s.series} || ' ' || ${s.fiscalYear}` },
    sql`from ${s} where (${s.series} = 'P' or ${s.series} in (select ${k.series} from ${k})) and ${s.last} <> (
        select count(*) from ${d}
        where ${d.number} like ${s.series} || '-' || lpad((${s.fiscalYear} % 100)::text, 2, '0') || '-%') order by 1`,
  )

/** What is looked at besides the chain. */
export const LOOKS = {
  balances: unbalanced,
  stages: misplaced,
  orders: uneven,
  numbers: gapped,
} as const satisfies Partial<Record<IntegrityCheck, (tx: Tx) => Promise<Broken>>>

export interface RunRow {
  id: string
  at: string
  by: string | null
  found: IntegrityFound
}
/** The newest looks, the last first. */
export const listRuns = (tx: Tx, most: number): Promise<RunRow[]> =>
  read(
    tx,
    { id: i.id, at: UTC(i.at), by: sql<string | null>`${p.name}`, found: i.found },
    sql`from ${i} left join ${p} on ${p.id} = ${i.byId} order by ${i.at} desc, ${i.id} limit ${most}`,
  )
