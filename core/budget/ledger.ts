import { add, isZero, subtract, zero, type Money } from '#core/base/money'
import type { Effect } from './effect'

/** The stages money passes through. */
export const BUDGET_STAGES = ['committed', 'reserved', 'spent'] as const
export type BudgetStage = (typeof BUDGET_STAGES)[number]

/** What a stage of one document line is worth to one coding. */
export interface Standing {
  readonly budgetLineId: string
  readonly codingAt: number
  readonly amount: Money
}

/** One entry of the append-only ledger: the difference to what stood before. */
export interface LedgerEntry {
  readonly stage: BudgetStage
  readonly budgetLineId: string
  readonly codingAt: number
  readonly amount: Money
}

/**
 * The entries that lead from what stands to what the remaining quantity is worth. A coding that no
 * longer appears is taken back whole. No difference, no entry.
 */
export function ledgerEntries(
  stage: BudgetStage,
  stands: readonly Standing[],
  worth: readonly Effect[],
): LedgerEntry[] {
  const key = (budgetLineId: string, codingAt: number) => `${budgetLineId} ${codingAt}`
  const now = new Map(worth.map((e, codingAt) => [key(e.budgetLineId, codingAt), { ...e, codingAt }]))
  const before = new Map(stands.map((s) => [key(s.budgetLineId, s.codingAt), s]))
  const entries: LedgerEntry[] = []
  for (const id of new Set([...before.keys(), ...now.keys()])) {
    const target = now.get(id)
    const stood = before.get(id)
    const at = target ?? stood
    if (at === undefined) continue
    const nothing = zero(at.amount.currency)
    const amount = subtract(target?.amount ?? nothing, stood?.amount ?? nothing)
    if (!isZero(amount)) entries.push({ stage, budgetLineId: at.budgetLineId, codingAt: at.codingAt, amount })
  }
  return entries
}

/** A standing that knows the period it stands in. */
export interface PeriodStanding extends Standing {
  readonly period: number
}

/** What entries of one stage of a document line leave standing, by coding and period, without what came to nothing. */
export function standingsOf(entries: readonly PeriodStanding[]): PeriodStanding[] {
  const found = new Map<string, PeriodStanding>()
  for (const e of entries) {
    const id = `${e.budgetLineId} ${e.codingAt} ${e.period}`
    const before = found.get(id)
    found.set(id, before === undefined ? e : { ...before, amount: add(before.amount, e.amount) })
  }
  return [...found.values()].filter((s) => !isZero(s.amount)).sort((a, b) => a.codingAt - b.codingAt)
}

/** By how much the stages of a budget line move in a period. */
export interface BalanceMove extends Readonly<Record<BudgetStage, Money>> {
  readonly budgetLineId: string
  readonly period: number
}

/** What entries move, once for each budget line and period they touch. */
export function balanceMoves(entries: readonly (LedgerEntry & { readonly period: number })[]): BalanceMove[] {
  const moves = new Map<string, BalanceMove>()
  for (const e of entries) {
    const id = `${e.budgetLineId} ${e.period}`
    const nothing = zero(e.amount.currency)
    const before = moves.get(id) ?? {
      budgetLineId: e.budgetLineId,
      period: e.period,
      reserved: nothing,
      committed: nothing,
      spent: nothing,
    }
    moves.set(id, { ...before, [e.stage]: add(before[e.stage], e.amount) })
  }
  return [...moves.values()]
}

/** What a document moves in a stage of a budget line. */
export interface DocumentMove {
  readonly budgetLineId: string
  readonly stage: BudgetStage
  readonly documentId: string
  readonly amount: Money
}

/** By how many the documents behind a budget line change, in a stage. */
export interface BehindMove {
  readonly budgetLineId: string
  readonly stage: BudgetStage
  readonly by: number
}

/**
 * By how many documents more, or fewer, something stands in a stage of a budget line: of each document what stood
 * before and what is added to it. A document counts once, however many of its lines stand there.
 */
export function behindMoves(before: readonly DocumentMove[], added: readonly DocumentMove[]): BehindMove[] {
  const key = (m: DocumentMove) => `${m.budgetLineId} ${m.stage} ${m.documentId}`
  const stood = new Map<string, Money>()
  for (const m of before) stood.set(key(m), plus(stood.get(key(m)), m.amount))
  const stands = new Map(stood)
  for (const m of added) stands.set(key(m), plus(stands.get(key(m)), m.amount))
  const counts = (m: Money | undefined) => (m === undefined || isZero(m) ? 0 : 1)
  const moves = new Map<string, BehindMove>()
  for (const m of new Map(added.map((a) => [key(a), a])).values()) {
    const by = counts(stands.get(key(m))) - counts(stood.get(key(m)))
    const id = `${m.budgetLineId} ${m.stage}`
    moves.set(id, { budgetLineId: m.budgetLineId, stage: m.stage, by: (moves.get(id)?.by ?? 0) + by })
  }
  return [...moves.values()].filter((m) => m.by !== 0)
}

const plus = (a: Money | undefined, b: Money): Money => (a === undefined ? b : add(a, b))
