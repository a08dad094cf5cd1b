import { sql } from 'drizzle-orm'
import type { BudgetStage } from '#core/budget/ledger'
import type { Context } from '../context'
import { bare, named } from '../db/read'
import { budgetBalance, budgetEntry } from '../db/schema/budget'

const b = named(budgetBalance, 'b')

/** An entry on its way into the ledger. */
export interface NewEntry {
  readonly stage: BudgetStage
  readonly budgetLineId: string
  readonly codingAt: number
  readonly amount: { readonly amount: string }
  readonly period: number
  readonly documentKind: 'requisition' | 'order'
  readonly documentId: string
  readonly lineId: string
  readonly cause: string
}

/**
 * Appends entries and moves the balances by the same amounts, in one statement each. The budget lines
 * must be locked already; every line has a balance for each period from the day it is made.
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
  const moves = entries.map((e) => ({ l: e.budgetLineId, p: e.period, s: e.stage, a: e.amount.amount }))
  const moved = await tx.execute(
    sql`
    update ${b} set ${bare(b.reserved)} = ${b.reserved} + d.kept, ${bare(b.committed)} = ${b.committed} + d.promised,
      ${bare(b.spent)} = ${b.spent} + d.paid
    from (select m.l, m.p, coalesce(sum(m.a) filter (where m.s = 'reserved'), 0) as kept,
        coalesce(sum(m.a) filter (where m.s = 'committed'), 0) as promised,
          coalesce(sum(m.a) filter (where m.s = 'spent'), 0) as paid
      from json_to_recordset(${JSON.stringify(moves)}::json) as m(l uuid, p int, s text, a numeric) group by m.l, m.p) d
    where ${b.budgetLineId} = d.l and ${b.period} = d.p returning 1 as one`,
  )
  if (moved.rows.length !== new Set(moves.map((m) => `${m.l} ${m.p}`)).size)
    throw new Error('a budget line has no row for a period')
}
