import { sql } from 'drizzle-orm'
import { balanceMoves, type LedgerEntry } from '#core/budget/ledger'
import type { Context } from '../context'
import { bare, named } from '../db/read'
import { budgetBalance, budgetEntry } from '../db/schema/budget'

const b = named(budgetBalance, 'b')

/** An entry on its way into the ledger. */
export interface NewEntry extends LedgerEntry {
  readonly period: number
  readonly documentKind: 'requisition' | 'order'
  readonly documentId: string
  readonly lineId: string
  readonly cause: string
}

/**
 * Appends entries and moves the balances by the same amounts, which the core adds up, in one statement each. The budget
 * lines must be locked already; every line has a balance for each period from the day it is made.
 */
export async function appendEntries({ tx, now, actor }: Context, entries: readonly NewEntry[]): Promise<void> {
  if (entries.length === 0) return
  await tx.insert(budgetEntry).values(
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
  )
  const moves = balanceMoves(entries)
  const moved = await tx.execute(
    sql`
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
    where ${b.budgetLineId} = d.l and ${b.period} = d.p returning 1 as one`,
  )
  if (moved.rows.length !== moves.length) throw new Error('a budget line has no row for a period')
}
