import { isNegative, isZero, type Money } from '#core/base/money'
import { checkBudget, type BudgetLineFacts } from './available'

/** How far a transfer of money between budget lines came. */
export const TRANSFER_STATES = ['proposed', 'done', 'refused', 'taken back'] as const
export type TransferState = (typeof TRANSFER_STATES)[number]

/** What is known of a budget line that money is moved from, or to. */
export interface TransferLine {
  readonly id: string
  readonly name: string
  readonly fiscalYear: number
  readonly retired: boolean
  /** Null where nobody holds it, or whoever did has left. */
  readonly holderId: string | null
}

/** Whose yes a transfer needs besides the one of whoever proposes it. */
export type TransferDecider = { readonly by: 'person'; readonly personId: string } | { readonly by: 'finance' }

/**
 * Who decides on a transfer: proposing is the yes for one's own line, so that the holder of the other decides; finance
 * where one holds both, or nobody holds the other. Of finance, who holds neither, the line that gives is asked. Null
 * where whoever proposes it may not.
 */
export function whoDecides(
  from: TransferLine,
  to: TransferLine,
  proposer: { readonly id: string; readonly isFinance: boolean },
): TransferDecider | null {
  const holds = (line: TransferLine) => line.holderId === proposer.id
  const other = holds(to) ? from : holds(from) ? to : from
  if (!holds(from) && !holds(to) && !proposer.isFinance) return null
  if (other.holderId === null || holds(other)) return { by: 'finance' }
  return { by: 'person', personId: other.holderId }
}

export type TransferReason =
  | { readonly code: 'amount-missing' | 'reason-missing' | 'same-line' | 'other-year' }
  | { readonly code: 'retired'; readonly name: string }
  /** By how much the line that gives would be passed. */
  | { readonly code: 'not-there'; readonly name: string; readonly by: Money; readonly left: Money }

/** What stands in the way of a transfer: nothing moves that is not there, whatever the control of the line. */
export function checkTransfer(
  from: TransferLine & BudgetLineFacts,
  to: TransferLine,
  move: { readonly amount: Money; readonly period: number; readonly reason: string },
): TransferReason[] {
  const reasons: TransferReason[] = []
  if (isZero(move.amount) || isNegative(move.amount)) reasons.push({ code: 'amount-missing' })
  if (move.reason.trim() === '') reasons.push({ code: 'reason-missing' })
  if (from.id === to.id) reasons.push({ code: 'same-line' })
  if (from.fiscalYear !== to.fiscalYear) reasons.push({ code: 'other-year' })
  for (const line of [from, to]) if (line.retired) reasons.push({ code: 'retired', name: line.name })
  if (reasons.length > 0) return reasons
  const [outcome] = checkBudget(
    [{ budgetLineId: from.id, amount: move.amount }],
    new Map([[from.id, from]]),
    move.period,
  )
  if (outcome?.passedBy != null)
    reasons.push({ code: 'not-there', name: from.name, by: outcome.passedBy, left: outcome.before })
  return reasons
}
