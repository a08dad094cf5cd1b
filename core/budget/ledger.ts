import { isZero, subtract, zero, type Money } from '#core/base/money'
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
