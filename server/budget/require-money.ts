import type { BudgetOutcome } from '#core/budget/available'
import type { Ways } from '#shared/words/ways'
import { refused } from '../http/problem'

/** Refuses what a budget line does not allow, with every one of them. */
export function requireMoney({ passed }: { readonly passed: readonly BudgetOutcome[] }, ways: Ways): void {
  const over = passed.flatMap((o) =>
    o.control === 'refuses' && o.passedBy !== null
      ? [`${o.name} does not allow it: it would be passed by ${ways.money(o.passedBy)}.`]
      : [],
  )
  if (over.length > 0) throw refused([...new Set(over)], {}, 'budget-refuses')
}
