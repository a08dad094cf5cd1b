import { compare, times, type Money } from '#core/base/money'
import { dec, type DecimalText } from '#core/base/decimal'

/** What makes somebody look twice before they approve. */
export const RISK_MARKS = ['over budget', 'new supplier', 'dearer', 'near a limit', 'may be a part'] as const
export type RiskMark = (typeof RISK_MARKS)[number]

export interface MarkFacts {
  readonly overBudget: boolean
  /** It names a supplier that was proposed and not approved yet. */
  readonly newSupplier: boolean
  /** What one costs now and cost the last time, for each line that was bought before in the same currency. */
  readonly prices: readonly { readonly now: DecimalText; readonly last: DecimalText }[]
  readonly amount: Money
  /** The amounts at which more people are asked: up to a limit, or below what a rule begins with. */
  readonly boundaries: readonly Money[]
  readonly isSplit: boolean
}

/** From 95 of 100 of a limit on an amount lies near it. Common practice, no source. */
const NEAR = { of: 100, from: 95 }

/** The marks of a document that somebody decides on, in the order in which they are said. */
export function marksOf(f: MarkFacts): RiskMark[] {
  const isNear = f.boundaries.some(
    (b) => compare(f.amount, b) <= 0 && compare(times(f.amount, NEAR.of), times(b, NEAR.from)) >= 0,
  )
  const found: Record<RiskMark, boolean> = {
    'over budget': f.overBudget,
    'new supplier': f.newSupplier,
    dearer: f.prices.some((p) => dec(p.now).gt(dec(p.last))),
    'near a limit': isNear,
    'may be a part': f.isSplit,
  }
  return RISK_MARKS.filter((m) => found[m])
}
