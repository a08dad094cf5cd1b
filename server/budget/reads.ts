import { sql, type SQL } from 'drizzle-orm'
import type { DecimalText } from '#core/base/decimal'
import { moneyOf } from '#core/base/money'
import type { BudgetControl, BudgetSpan } from '#core/budget/available'
import type { BudgetStage, Standing } from '#core/budget/ledger'
import type { PayingLine } from '#core/requisition/draft-facts'
import type { Tx } from '../db/client'
import { rows } from '../db/rows'

interface LineRow {
  id: string
  name: string
  code: string
  control: BudgetControl
  mayFallBelow: DecimalText
  span: BudgetSpan
  departmentId: string
  account: string
  project: string | null
  holderId: string | null
  reclaimable: DecimalText
  fiscalYear: number
}
interface BalanceRow {
  budgetLineId: string
  period: number
  budgeted: DecimalText
  adjustments: DecimalText
  reserved: DecimalText
  committed: DecimalText
  spent: DecimalText
}

const LINE = sql`b.id, b.name, d.cost_centre || '-' || b.account_code || coalesce('-' || b.project_code, '') as code,
  b.control,
  b.may_fall_below as "mayFallBelow", b.span, b.department_id as "departmentId", b.account_code as account,
    b.project_code as project,
  b.holder_id as "holderId", d.reclaimable, b.fiscal_year as "fiscalYear"`

async function withBalances(tx: Tx, lines: LineRow[], currency: string): Promise<PayingLine[]> {
  if (lines.length === 0) return []
  const balances = await rows<BalanceRow>(
    tx,
    sql`
    select budget_line_id as "budgetLineId", period, budgeted, adjustments, reserved, committed, spent
    from budget_balance where budget_line_id = any(${sql.param(lines.map((l) => l.id))}::uuid[]) order by period`,
  )
  const m = (amount: DecimalText) => moneyOf(amount, currency)
  return lines.map((l) => ({
    ...l,
    mayFallBelow: m(l.mayFallBelow),
    periods: balances
      .filter((b) => b.budgetLineId === l.id)
      .map((b) => ({
        period: b.period,
        budgeted: m(b.budgeted),
        adjustments: m(b.adjustments),
        reserved: m(b.reserved),
        committed: m(b.committed),
        spent: m(b.spent),
      })),
  }))
}

/** Budget lines by id, locked in the order of their ids: the one order in which everybody locks them. */
export async function lockBudgetLines(tx: Tx, ids: readonly string[], currency: string): Promise<PayingLine[]> {
  const found = await rows<LineRow>(
    tx,
    sql`
    select ${LINE} from budget_line b join department d on d.id = b.department_id
    where b.id = any(${sql.param(ids as string[])}::uuid[]) order by b.id for update of b`,
  )
  return withBalances(tx, found, currency)
}

async function listLines(tx: Tx, where: SQL, currency: string): Promise<PayingLine[]> {
  const found = await rows<LineRow>(
    tx,
    sql`
    select ${LINE} from budget_line b join department d on d.id = b.department_id where ${where} order by d.name,
      b.name`,
  )
  return withBalances(tx, found, currency)
}

/** What may pay for a requisition of a department in a fiscal year, and the lines it names already. */
export function listPayingLines(
  tx: Tx,
  departmentId: string | null,
  fiscalYear: number,
  ids: readonly string[],
  currency: string,
): Promise<PayingLine[]> {
  return listLines(
    tx,
    sql`(b.department_id = ${departmentId} and b.fiscal_year = ${fiscalYear})
      or b.id = any(${sql.param(ids as string[])}::uuid[])`,
    currency,
  )
}

/** The lines of a year that a person may look at: all, or those they hold and those of their departments. */
export function listVisibleLines(
  tx: Tx,
  personId: string,
  all: boolean,
  fiscalYear: number,
  currency: string,
): Promise<PayingLine[]> {
  const visible = all
    ? sql`true`
    : sql`(b.holder_id = ${personId}
    or b.department_id in (select department_id from department_member where person_id = ${personId})
    or b.department_id = (select department_id from person where id = ${personId}))`
  return listLines(tx, sql`b.fiscal_year = ${fiscalYear} and ${visible}`, currency)
}

/** What a stage of some document lines stands at, coding by coding: the sum of their entries. */
export async function readStandings(
  tx: Tx,
  stage: BudgetStage,
  lineIds: readonly string[],
  currency: string,
): Promise<Map<string, (Standing & { readonly period: number })[]>> {
  const found = await rows<{
    lineId: string
    budgetLineId: string
    codingAt: number
    period: number
    amount: DecimalText
  }>(
    tx,
    sql`
    select line_id as "lineId", budget_line_id as "budgetLineId", coding_at as "codingAt", period, sum(amount) as amount
    from budget_entry where stage = ${stage} and line_id = any(${sql.param(lineIds as string[])}::uuid[])
    group by line_id, budget_line_id, coding_at, period having sum(amount) <> 0 order by coding_at`,
  )
  const byLine = new Map<string, (Standing & { readonly period: number })[]>()
  for (const f of found) {
    const list = byLine.get(f.lineId) ?? []
    list.push({
      budgetLineId: f.budgetLineId,
      codingAt: f.codingAt,
      period: f.period,
      amount: moneyOf(f.amount, currency),
    })
    byLine.set(f.lineId, list)
  }
  return byLine
}

export interface EntryRow {
  seq: number
  at: string
  period: number
  stage: BudgetStage
  amount: DecimalText
  cause: string
  documentKind: string
  documentId: string
  number: string | null
  title: string
  person: string | null
}

/** Every entry behind a line's figures, newest first. */
export function listEntries(
  tx: Tx,
  budgetLineId: string,
  beforeSeq: number | null,
  limit: number,
): Promise<EntryRow[]> {
  return rows<EntryRow>(
    tx,
    sql`
    select e.seq::int as seq, to_char(e.at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS"Z"') as at, e.period, e.stage,
      e.amount, e.cause,
      e.document_kind as "documentKind", e.document_id as "documentId", d.number, coalesce(d.title, '') as title,
        p.name as person
    from budget_entry e left join document d on d.id = e.document_id left join person p on p.id = e.actor_id
    where e.budget_line_id = ${budgetLineId} ${beforeSeq === null ? sql`` : sql`and e.seq < ${beforeSeq}`}
    order by e.seq desc limit ${limit}`,
  )
}

/** The fiscal year of a budget line; null where there is none. */
export async function findLineYear(tx: Tx, id: string): Promise<number | null> {
  const [found] = await rows<{ year: number }>(tx, sql`select fiscal_year as year from budget_line where id = ${id}`)
  return found?.year ?? null
}

/** Whose budget lines are, and how many requests and orders stand behind their figures. */
export function listBehind(
  tx: Tx,
  ids: readonly string[],
): Promise<{ id: string; department: string; holder: string | null; requests: number; orders: number }[]> {
  const standing = (stage: BudgetStage) => sql`(
    select count(distinct x.document_id)::int from (
      select e.document_id from budget_entry e where e.budget_line_id = b.id and e.stage = ${stage}
      group by e.document_id having sum(e.amount) <> 0) x)`
  return rows(
    tx,
    sql`
    select b.id, d.name as department, p.name as holder, ${standing('reserved')} as requests,
      ${standing('committed')} as orders
    from budget_line b join department d on d.id = b.department_id left join person p on p.id = b.holder_id
    where b.id = any(${sql.param([...ids])}::uuid[])`,
  )
}
