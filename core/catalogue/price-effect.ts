import { dec, type Decimal, type DecimalText } from '#core/base/decimal'
import { minorUnits } from '#core/base/currency'

interface Step {
  readonly from: DecimalText
  readonly unitPrice: DecimalText
}

/** What was bought of an item at one time. */
export interface Bought {
  readonly quantity: DecimalText
}

/**
 * By how much a change of prices makes what was bought dearer, were it bought once more in the same portions: each
 * quantity at its own step, before and after, for the price base `per`. Negative where it gets cheaper; null where
 * one of the two has no price. Common practice, no source.
 */
export function priceEffect(
  bought: readonly Bought[],
  before: readonly Step[],
  after: readonly Step[],
  per: DecimalText,
  currency: string,
): DecimalText | null {
  if (before.length === 0 || after.length === 0) return null
  const sum = bought.reduce<Decimal>((total, { quantity }) => {
    const worth = (steps: readonly Step[]) =>
      dec(quantity)
        .times(dec(stepAt(steps, quantity)))
        .dividedBy(dec(per))
        .toPlaces(minorUnits(currency))
    return total.plus(worth(after)).minus(worth(before))
  }, dec('0'))
  return sum.toFixed(minorUnits(currency))
}

/** The price of the step that a quantity reaches; below the smallest, that one's. */
function stepAt(steps: readonly Step[], quantity: DecimalText): DecimalText {
  const rising = [...steps].sort((a, b) => (dec(a.from).lt(dec(b.from)) ? -1 : 1))
  const reached = rising.filter((s) => dec(s.from).lte(dec(quantity))).at(-1)
  return (reached ?? rising[0])?.unitPrice ?? '0'
}
