import { sql, type SQL } from 'drizzle-orm'
import type { DecimalText } from '#core/base/decimal'
import { moneyOf } from '#core/base/money'
import type { BudgetControl, BudgetSpan } from '#core/budget/available'
import { standingsOf, type BudgetStage, type DocumentMove, type PeriodStanding } from '#core/budget/ledger'
import type { PayingLine } from '#core/requisition/draft-facts'
import type { Tx } from '../db/client'
import { named, read, type Row } from '../db/read'
import { budgetBalance, budgetEntry, budgetLine, openingBalance } from '../db/schema/budget'
import { department, departmentMember, person } from '../db/schema/people'
import { document } from '../db/schema/document'
import { SECONDS } from '../db/moments'

const b = named(budgetLine, 'b')
const d = named(department, 'd')
const e = named(budgetEntry, 'e')
const c = named(document, 'c')
const p = named(person, 'p')
const w = named(openingBalance, 'w')

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
const LINE = {
  id: b.id,
  name: b.name,
  code: sql<string>`${d.costCentre} || '-' || ${b.accountCode}
    || coalesce('-' || ${b.projectCode}, '')`,
  control: b.control,
  mayFallBelow: b.mayFallBelow,
  span: b.span,
  departmentId: b.departmentId,
  account: b.accountCode,
  project: b.projectCode,
  holderId: b.holderId,
  reclaimable: d.reclaimable,
  fiscalYear: b.fiscalYear,
}

const BALANCE = {
  budgetLineId: budgetBalance.budgetLineId,
  period: budgetBalance.period,
  budgeted: budgetBalance.budgeted,
  adjustments: budgetBalance.adjustments,
  reserved: budgetBalance.reserved,
  committed: budgetBalance.committed,
  spent: budgetBalance.spent,
}

function listBalances(tx: Tx, lineIds: readonly string[]): Promise<Row<typeof BALANCE>[]> {
  return read(
    tx,
    BALANCE,
    sql`from ${budgetBalance} where ${budgetBalance.budgetLineId} = any(${sql.param([...lineIds])}::uuid[])
      order by ${budgetBalance.period}`,
  )
}

/** Lines with what each of their periods holds. */
function withBalances(
  lines: readonly LineRow[],
  balances: readonly Row<typeof BALANCE>[],
  currency: string,
): PayingLine[] {
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
  const locked = read(
    tx,
    { ...LINE },
    sql`from ${b} join ${d} on ${d.id} = ${b.departmentId}
    where ${b.id} = any(${sql.param(ids as string[])}::uuid[]) order by ${b.id} for update of b`,
  )
  // Sent together, and answered in their order: balances are read after the lock.
  const [lines, balances] = await Promise.all([locked, listBalances(tx, ids)])
  return withBalances(lines, balances, currency)
}

async function listLines(tx: Tx, where: SQL, currency: string): Promise<PayingLine[]> {
  const found = await read(
    tx,
    { ...LINE },
    sql`from ${b} join ${d} on ${d.id} = ${b.departmentId} where ${where} order by ${d.name},
      ${b.name}`,
  )
  const ids = found.map((l) => l.id)
  return withBalances(found, ids.length === 0 ? [] : await listBalances(tx, ids), currency)
}

/** Budget lines by id, and with them those of a department in a fiscal year. */
export interface Payers {
  readonly departmentId: string | null
  readonly fiscalYear: number
  readonly ids: readonly string[]
}

const isPayer = ({ departmentId, fiscalYear, ids }: Payers) => sql`((${b.departmentId} = ${departmentId}::uuid
  and ${b.fiscalYear} = ${fiscalYear} and not ${b.retired}) or ${b.id} = any(${sql.param([...ids])}::uuid[]))`

/** What may pay for a requisition of a department in a fiscal year, and the lines it names already. */
export function listPayingLines(tx: Tx, of: Payers, currency: string): Promise<PayingLine[]> {
  return listLines(tx, isPayer(of), currency)
}

/** Selects who holds them. */
export const holdersOf = (of: Payers): SQL =>
  sql`select ${b.holderId} from ${b} where ${b.holderId} is not null and ${isPayer(of)}`

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
    : sql`(${b.holderId} = ${personId}
    or ${b.departmentId} in (select ${departmentMember.departmentId} from ${departmentMember}
    where ${departmentMember.personId} = ${personId})
    or ${b.departmentId} = (select ${person.departmentId} from ${person} where ${person.id} = ${personId}))`
  return listLines(tx, sql`${b.fiscalYear} = ${fiscalYear} and ${visible}`, currency)
}

/** The line that pays for the same in another year; null where there is none. */
export async function findSameLine(tx: Tx, id: string, yearsOn: number, currency: string): Promise<PayingLine | null> {
  const of = named(budgetLine, 'of_line')
  const same = sql`exists (select 1 from ${of} where ${of.id} = ${id} and ${of.departmentId} = ${b.departmentId}
    and ${of.accountCode} = ${b.accountCode} and ${of.projectCode} is not distinct from ${b.projectCode}
    and ${b.fiscalYear} = ${of.fiscalYear} + ${yearsOn})`
  return (await listLines(tx, same, currency))[0] ?? null
}

/** The lines of the year before that a year does not have yet, retired ones left out. */
export function listLinesToBegin(tx: Tx, year: number, currency: string): Promise<PayingLine[]> {
  const next = named(budgetLine, 'next_line')
  const isThereAlready = sql`exists (select 1 from ${next} where ${next.fiscalYear} = ${year}
    and ${next.departmentId} = ${b.departmentId} and ${next.accountCode} = ${b.accountCode}
    and ${next.projectCode} is not distinct from ${b.projectCode})`
  return listLines(tx, sql`${b.fiscalYear} = ${year - 1} and not ${b.retired} and not ${isThereAlready}`, currency)
}

/** What a stage of some document lines stands at, coding by coding, by the lines' ids. */
export async function readStandings(
  tx: Tx,
  stage: BudgetStage,
  lineIds: readonly string[],
  currency: string,
): Promise<Map<string, PeriodStanding[]>> {
  const found = await read(
    tx,
    {
      lineId: budgetEntry.lineId,
      budgetLineId: budgetEntry.budgetLineId,
      codingAt: budgetEntry.codingAt,
      period: budgetEntry.period,
      amount: budgetEntry.amount,
    },
    sql`from ${budgetEntry} where ${budgetEntry.stage} = ${stage}
    and ${budgetEntry.lineId} = any(${sql.param(lineIds as string[])}::uuid[]) order by ${budgetEntry.seq}`,
  )
  const byLine = new Map<string, PeriodStanding[]>()
  for (const { lineId, amount, ...f } of found)
    byLine.set(lineId, [...(byLine.get(lineId) ?? []), { ...f, amount: moneyOf(amount, currency) }])
  return new Map([...byLine].map(([lineId, entries]) => [lineId, standingsOf(entries)]))
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
  return read(
    tx,
    {
      seq: sql<EntryRow['seq']>`${e.seq}::int`,
      at: SECONDS(e.at),
      period: e.period,
      stage: e.stage,
      amount: e.amount,
      cause: e.cause,
      documentKind: e.documentKind,
      documentId: e.documentId,
      number: sql<string | null>`coalesce(${c.number}, nullif(${w.number}, ''))`,
      title: sql<EntryRow['title']>`coalesce(${c.title}, ${w.name}, '')`,
      person: p.name,
    },
    sql`from ${e} left join ${c} on ${c.id} = ${e.documentId} left join ${p} on ${p.id} = ${e.actorId}
      left join ${w} on ${w.id} = ${e.documentId} and ${e.documentKind} = 'opening'
    where ${e.budgetLineId} = ${budgetLineId} ${beforeSeq === null ? sql`` : sql`and ${e.seq} < ${beforeSeq}`}
    order by ${e.seq} desc limit ${limit}`,
  )
}

/** Who holds budget lines today, by the lines' ids. */
export async function findHolders(tx: Tx, ids: readonly string[]): Promise<Map<string, string | null>> {
  if (ids.length === 0) return new Map()
  const found = await read(
    tx,
    { id: b.id, holderId: b.holderId },
    sql`from ${b} where ${b.id} = any(${sql.param([...ids])}::uuid[])`,
  )
  return new Map(found.map((l) => [l.id, l.holderId]))
}

/** The lines of a year that tell at some share, or told of one, with their department's name. */
export async function listLinesToTell(
  tx: Tx,
  year: number,
  currency: string,
): Promise<(PayingLine & { tellAt: number[]; toldShare: number | null; department: string })[]> {
  const told = await read(
    tx,
    { id: b.id, tellAt: b.tellAt, toldShare: b.toldShare, department: d.name },
    sql`from ${b} join ${d} on ${d.id} = ${b.departmentId} where ${b.fiscalYear} = ${year} and not ${b.retired}
      and (cardinality(${b.tellAt}) > 0 or ${b.toldShare} is not null)`,
  )
  const of = new Map(told.map((t) => [t.id, t]))
  const lines = await listPayingLines(tx, { departmentId: null, fiscalYear: year, ids: [...of.keys()] }, currency)
  return lines.flatMap((l) => {
    const t = of.get(l.id)
    return t === undefined ? [] : [{ ...l, ...t }]
  })
}

/** The fiscal year of a budget line; null where there is none. */
export async function findLineYear(tx: Tx, id: string): Promise<number | null> {
  const [found] = await read(
    tx,
    { year: budgetLine.fiscalYear },
    sql`from ${budgetLine} where ${budgetLine.id} = ${id}`,
  )
  return found?.year ?? null
}

/** Everything that the ledger says of some documents. */
export async function listStanding(tx: Tx, documentIds: readonly string[], currency: string): Promise<DocumentMove[]> {
  const found = await read(
    tx,
    { budgetLineId: e.budgetLineId, stage: e.stage, documentId: e.documentId, amount: e.amount },
    sql`from ${e} where ${e.documentId} = any(${sql.param([...documentIds])}::uuid[])`,
  )
  return found.map((f) => ({ ...f, amount: moneyOf(f.amount, currency) }))
}

/** Whose budget lines are, and how many requests and orders stand behind their figures. */
export function listBehind(
  tx: Tx,
  ids: readonly string[],
): Promise<{ id: string; department: string; holder: string | null; requests: number; orders: number }[]> {
  return read(
    tx,
    { id: b.id, department: d.name, holder: p.name, requests: b.requestsBehind, orders: b.ordersBehind },
    sql`from ${b} join ${d} on ${d.id} = ${b.departmentId} left join ${p} on ${p.id} = ${b.holderId}
    where ${b.id} = any(${sql.param([...ids])}::uuid[])`,
  )
}
