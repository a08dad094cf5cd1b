import type { DecimalText } from '#core/base/decimal'
import type { Day } from '#core/base/day'
import { lineNet } from '#core/base/line-net'
import { add, moneyOf, subtract } from '#core/base/money'
import { priceFor } from './price'

/** A price from a quantity on, on a day that both lists of prices are of. */
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
  const worth = (steps: readonly Step[], quantity: DecimalText) => {
    const open = steps.map((s) => ({ ...s, validFrom: null, validUntil: null }))
    const unitPrice = priceFor(open, quantity, ANY_DAY)?.unitPrice
    return unitPrice === undefined ? null : lineNet({ quantity, unitPrice, priceBase: per, currency })
  }
  let sum = moneyOf('0', currency)
  for (const { quantity } of bought) {
    const [was, is] = [worth(before, quantity), worth(after, quantity)]
    if (was === null || is === null) return null
    sum = add(sum, subtract(is, was))
  }
  return before.length === 0 || after.length === 0 ? null : sum.amount
}

/** Prices that hold on one day hold on any that is asked for here. */
const ANY_DAY: Day = '2000-01-01'
