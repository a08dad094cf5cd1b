import { gte, inArray, isNull, or, sql } from 'drizzle-orm'
import type { Day } from '#core/base/day'
import type { DecimalText } from '#core/base/decimal'
import { balanceMoves, behindMoves, type BehindMove, type BudgetStage, type LedgerEntry } from '#core/budget/ledger'
import type { Money } from '#core/base/money'
import type { Context } from '../context'
import type { Tx } from '../db/client'
import { sendAlong } from '../db/transaction'
import { bare, named } from '../db/read'
import { budgetBalance, budgetEntry, budgetLine } from '../db/schema/budget'
import { person } from '../db/schema/people'
import { listStanding } from './reads'

const b = named(budgetBalance, 'b')
const l = named(budgetLine, 'l')

/** An entry on its way into the ledger. */
export interface NewEntry extends LedgerEntry {
  readonly period: number
  readonly documentKind: 'requisition' | 'order' | 'opening'
  readonly documentId: string
  readonly lineId: string
  readonly cause: string
}

/**
 * Appends entries, moves the balances by the same amounts and the counts of documents behind the lines, all of which
 * the core adds up. The budget lines must be locked already; every line has a balance for each period from the day it
 * is made. `isFirst`: nothing stands of these documents yet.
 */
export async function appendEntries(
  { tx, now, actor }: Context,
  entries: readonly NewEntry[],
  isFirst = false,
): Promise<void> {
  if (entries.length === 0) return
  const currency = entries[0]?.amount.currency ?? ''
  const stood = isFirst ? [] : await listStanding(tx, [...new Set(entries.map((e) => e.documentId))], currency)
  await sendAlong(
    tx,
    tx.insert(budgetEntry).values(
      entries.map((e) => ({
        at: now,
        budgetLineId: e.budgetLineId,
        period: e.period,
        stage: e.stage,
        amount: e.amount.amount,
        documentKind: e.documentKind,
        documentId: e.documentId,
        lineId: e.lineId,
        codingAt: e.codingAt,
        cause: e.cause,
        actorId: actor.id === '' ? null : actor.id,
      })),
    ),
  )
  const moves = balanceMoves(entries)
  await sendAlong(
    tx,
    tx.execute(
      sql`
    with counted as (
      update ${l} set ${bare(l.requestsBehind)} = ${l.requestsBehind} + c.requests,
        ${bare(l.ordersBehind)} = ${l.ordersBehind} + c.orders
      from json_to_recordset(${JSON.stringify(countedBehind(behindMoves(stood, entries)))}::json)
        as c(l uuid, requests int, orders int)
      where ${l.id} = c.l)
    update ${b} set ${bare(b.reserved)} = ${b.reserved} + d.kept, ${bare(b.committed)} = ${b.committed} + d.promised,
      ${bare(b.spent)} = ${b.spent} + d.paid
    from json_to_recordset(${JSON.stringify(
      moves.map((m) => ({
        l: m.budgetLineId,
        p: m.period,
        kept: m.reserved.amount,
        promised: m.committed.amount,
        paid: m.spent.amount,
      })),
    )}::json) as d(l uuid, p int, kept numeric, promised numeric, paid numeric)
    where ${b.budgetLineId} = d.l and ${b.period} = d.p`,
    ),
  )
}

/**
 * Copies budget lines into another year, each with what its periods are given there; whoever held one and has left
 * holds the new one no more.
 */
export async function copyLines(
  tx: Tx,
  lines: readonly { readonly fromId: string; readonly amounts: readonly DecimalText[] }[],
  year: number,
  today: Day,
): Promise<void> {
  const from = lines.map((l) => l.fromId)
  const rows = await tx.select().from(budgetLine).where(inArray(budgetLine.id, from))
  const here = await tx
    .select({ id: person.id })
    .from(person)
    .where(or(isNull(person.leftOn), gte(person.leftOn, today)))
  const ids = new Set(here.map((p) => p.id))
  const copies = rows.map(({ id, requestsBehind: _, ordersBehind: __, toldShare: ___, ...row }) => ({
    from: id,
    row: {
      ...row,
      id: crypto.randomUUID(),
      fiscalYear: year,
      holderId: row.holderId !== null && ids.has(row.holderId) ? row.holderId : null,
    },
  }))
  await tx.insert(budgetLine).values(copies.map((c) => c.row))
  const amounts = new Map(lines.map((l) => [l.fromId, l.amounts]))
  await tx
    .insert(budgetBalance)
    .values(
      copies.flatMap((c) =>
        (amounts.get(c.from) ?? []).map((budgeted, i) => ({ budgetLineId: c.row.id, period: i + 1, budgeted })),
      ),
    )
}

/** The shares that whoever holds budget lines was told of. */
export async function setToldShares(
  tx: Tx,
  told: readonly { readonly id: string; readonly told: number | null }[],
): Promise<void> {
  if (told.length === 0) return
  const rows = JSON.stringify(told.map((t) => ({ l: t.id, s: t.told })))
  await tx.execute(sql`update ${l} set ${bare(l.toldShare)} = f.s
    from json_to_recordset(${rows}::json) as f(l uuid, s int) where ${l.id} = f.l`)
}

/** What the periods of a budget line are given by plan. The line is locked. */
export async function setBudgeted(
  tx: Tx,
  budgetLineId: string,
  to: readonly { readonly period: number; readonly amount: Money }[],
): Promise<void> {
  const rows = JSON.stringify(to.map(({ period, amount }) => ({ p: period, given: amount.amount })))
  await tx.execute(sql`update ${b} set ${bare(b.budgeted)} = f.given
    from json_to_recordset(${rows}::json) as f(p int, given numeric)
    where ${b.budgetLineId} = ${budgetLineId} and ${b.period} = f.p`)
}

/** Requests stand behind what is reserved, orders behind what is committed; what is spent is counted by nobody yet. */
function countedBehind(moves: readonly BehindMove[]): { l: string; requests: number; orders: number }[] {
  const by = (line: string, stage: BudgetStage) =>
    moves.find((m) => m.budgetLineId === line && m.stage === stage)?.by ?? 0
  return [...new Set(moves.map((m) => m.budgetLineId))].map((line) => ({
    l: line,
    requests: by(line, 'reserved'),
    orders: by(line, 'committed'),
  }))
}
