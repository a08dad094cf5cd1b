import { add, compare, negate, subtract, zero, type Money } from '#core/base/money'
import { figuresFor, type BudgetSpan } from '#core/budget/available'
import type { PayingLine } from '#core/requisition/draft-facts'
import type { BudgetBarView } from '#shared/contract/decide'

/**
 * A budget line without and with a document: what stands reserved for it already is told apart, and given back before
 * what it takes. `passed` where that is known otherwise than by what is left.
 */
export function barOf(
  line: PayingLine,
  period: number,
  { reserved: own, effect }: { readonly reserved: Money; readonly effect: Money },
  passed?: boolean,
): BudgetBarView {
  const f = figuresFor(line, period)
  const before = add(f.available, own)
  const after = subtract(before, effect)
  const left = (span: BudgetSpan) => subtract(add(figuresFor(line, period, span).available, own), effect)
  return {
    budgetLineId: line.id,
    name: line.name,
    code: line.code,
    budgeted: add(f.budgeted, f.adjustments),
    spent: f.spent,
    committed: f.committed,
    // A span may count other periods than the document stands in.
    reserved: compare(f.reserved, own) < 0 ? zero(own.currency) : subtract(f.reserved, own),
    effect,
    before,
    after,
    leftAfter: { period: left('period'), toDate: left('to date'), year: left('year') },
    passed: passed ?? compare(after, negate(line.mayFallBelow)) < 0,
  }
}
