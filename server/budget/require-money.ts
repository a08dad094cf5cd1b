import type { BudgetOutcome } from '#core/budget/available'
import type { Ways } from '#shared/words/ways'
import { refused } from '../http/problem'

/** What of what is passed a budget line does not allow, a sentence each. */
export function sayRefused({ passed }: { readonly passed: readonly BudgetOutcome[] }, ways: Ways): string[] {
  const over = passed.flatMap((o) =>
    o.control === 'refuses' && o.passedBy !== null
      ? [`${o.name} does not allow it: it would be passed by ${ways.money(o.passedBy)}.`]
      : [],
  )
  return [...new Set(over)]
}

/** Refuses what a budget line does not allow, with every one of them. */
export function requireMoney(planned: { readonly passed: readonly BudgetOutcome[] }, ways: Ways): void {
  const over = sayRefused(planned, ways)
  if (over.length > 0) throw refused(over, {}, 'budget-refuses')
}
