import { sql } from 'drizzle-orm'
import type { DecimalText } from '#core/base/decimal'
import { moneyOf } from '#core/base/money'
import type { BudgetStage } from '#core/budget/ledger'
import type { OpenStanding } from '#core/budget/year-end'
import type { Tx } from '../db/client'
import { UTC } from '../db/moments'
import { named, read } from '../db/read'
import { budgetBalance, budgetEntry, budgetLine, openingBalance, yearEndRun, type EndedLine } from '../db/schema/budget'
import { document } from '../db/schema/document'
import { orderLineSource } from '../db/schema/order'
import { department, person } from '../db/schema/people'
import { requisitionLine } from '../db/schema/requisition'

const b = named(budgetLine, 'b')
const n = named(budgetLine, 'n')
const d = named(department, 'd')
const e = named(budgetEntry, 'e')
const v = named(budgetBalance, 'v')
const c = named(document, 'c')
const w = named(openingBalance, 'w')
const y = named(yearEndRun, 'y')
const p = named(person, 'p')
const x = named(orderLineSource, 'x')
const l = named(requisitionLine, 'l')

/** What stands reserved or committed of a year's budget lines, coding by coding. */
export async function listOpen(tx: Tx, year: number, currency: string): Promise<OpenStanding[]> {
  const found = await read(
    tx,
    {
      stage: sql<OpenStanding['stage']>`${e.stage}`,
      documentKind: sql<OpenStanding['documentKind']>`${e.documentKind}`,
      documentId: e.documentId,
      lineId: e.lineId,
      budgetLineId: e.budgetLineId,
      codingAt: e.codingAt,
      period: e.period,
      amount: sql<DecimalText>`trim_scale(sum(${e.amount}))::text`,
    },
    sql`from ${e} join ${b} on ${b.id} = ${e.budgetLineId} where ${b.fiscalYear} = ${year} and ${e.stage} <> 'spent'
        and exists (select 1 from ${v} where ${v.budgetLineId} = ${b.id} and ${v.period} = ${e.period}
          and (${v.reserved} <> 0 or ${v.committed} <> 0))
      group by ${e.stage}, ${e.documentKind}, ${e.documentId}, ${e.lineId}, ${e.budgetLineId}, ${e.codingAt},
        ${e.period}
      having sum(${e.amount}) <> 0
      order by ${e.documentId}, ${e.lineId}, ${e.codingAt}, ${e.period}`,
  )
  return found.map((f) => ({ ...f, amount: moneyOf(f.amount, currency) }))
}

/** Budget lines by id with their department, and the line that pays for the same a year on, unless it is retired. */
export function listLinesWithNext(
  tx: Tx,
  ids: readonly string[],
): Promise<{ id: string; name: string; department: string; nextId: string | null }[]> {
  return read(
    tx,
    { id: b.id, name: b.name, department: d.name, nextId: sql<string | null>`${n.id}` },
    sql`from ${b} join ${d} on ${d.id} = ${b.departmentId}
      left join ${n} on ${n.departmentId} = ${b.departmentId} and ${n.accountCode} = ${b.accountCode}
        and ${n.projectCode} is not distinct from ${b.projectCode} and ${n.fiscalYear} = ${b.fiscalYear} + 1
        and not ${n.retired}
    where ${b.id} = any(${sql.param([...ids])}::uuid[]) order by ${d.name}, ${b.name}, ${b.id}`,
  )
}

/** The requisitions that orders serve. */
export async function listServed(tx: Tx, orderLineIds: readonly string[]): Promise<string[]> {
  const found = await read(
    tx,
    { id: l.requisitionId },
    sql`from ${x} join ${l} on ${l.id} = ${x.requisitionLineId}
      where ${x.orderLineId} = any(${sql.param([...orderLineIds])}::uuid[])`,
    { distinct: true },
  )
  return found.map((f) => f.id)
}

/** Takes the rows of documents for the rest of the transaction: requisitions before orders, as everywhere. */
export async function lockDocuments(tx: Tx, ids: readonly string[]): Promise<void> {
  await read(
    tx,
    { id: c.id },
    sql`from ${c} where ${c.id} = any(${sql.param([...ids])}::uuid[])
      order by (${c.kind} = 'order'), ${c.id} for update`,
  )
}

/** Of things from before Rekko those that the first period of the line a year on has already, by their names. */
export async function listCarriedTwice(tx: Tx, ids: readonly string[], to: number): Promise<string[]> {
  const o = named(openingBalance, 'o')
  const found = await read(
    tx,
    { number: w.number },
    sql`from ${w} join ${b} on ${b.id} = ${w.budgetLineId} join ${n} on ${n.departmentId} = ${b.departmentId}
        and ${n.accountCode} = ${b.accountCode} and ${n.projectCode} is not distinct from ${b.projectCode}
        and ${n.fiscalYear} = ${b.fiscalYear} + 1
      join ${o} on ${o.budgetLineId} = ${n.id} and ${o.period} = ${to} and ${o.stage} = ${w.stage}
        and ${o.number} = ${w.number}
    where ${w.id} = any(${sql.param([...ids])}::uuid[]) order by ${w.number}`,
  )
  return found.map((f) => f.number)
}

export interface RunRow {
  id: string
  at: string
  by: string
  withMoney: boolean
  lines: readonly EndedLine[]
}
/** The runs of the end of a year, the last first. */
export const listRuns = (tx: Tx, year: number): Promise<RunRow[]> =>
  read(
    tx,
    { id: y.id, at: UTC(y.at), by: p.name, withMoney: y.withMoney, lines: y.lines },
    sql`from ${y} join ${p} on ${p.id} = ${y.byId} where ${y.fiscalYear} = ${year} order by ${y.at} desc, ${y.id}`,
  )

export interface RunEntryRow {
  department: string
  line: string
  year: number
  period: number
  document: string
  title: string
  stage: BudgetStage
  cause: string
  amount: DecimalText
}
/** Every entry that a run of the end of a year made, budget line by budget line. */
export const listRunEntries = (tx: Tx, runId: string): Promise<RunEntryRow[]> =>
  read(
    tx,
    {
      department: d.name,
      line: b.name,
      year: b.fiscalYear,
      period: e.period,
      document: sql<string>`coalesce(${c.number}, nullif(${w.number}, ''), '')`,
      title: sql<string>`coalesce(${c.title}, ${w.name}, '')`,
      stage: e.stage,
      cause: e.cause,
      amount: sql<DecimalText>`trim_scale(${e.amount})::text`,
    },
    sql`from ${y} join ${e} on ${e.at} = ${y.at} and ${e.actorId} = ${y.byId} and ${e.cause} in ('carried', 'released')
      join ${b} on ${b.id} = ${e.budgetLineId} join ${d} on ${d.id} = ${b.departmentId}
      left join ${c} on ${c.id} = ${e.documentId}
      left join ${w} on ${w.id} = ${e.documentId} and ${e.documentKind} = 'opening'
    where ${y.id} = ${runId} order by ${d.name}, ${b.name}, ${b.fiscalYear}, ${e.seq}`,
  )
