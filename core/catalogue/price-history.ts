import { addDays, type Day } from '#core/base/day'
import type { DecimalText } from '#core/base/decimal'
import { priceFor, type PriceStep } from './price'

/** A price from a day on; null where there is none from then on. */
export interface PriceFrom {
  readonly from: Day
  readonly unitPrice: DecimalText | null
}

/**
 * What a quantity costs from day to day, between two days (both inside): one entry for the first day and for each on
 * which the price is another than before.
 */
export function priceHistory(
  steps: readonly PriceStep[],
  quantity: DecimalText,
  from: Day,
  until: Day,
): readonly PriceFrom[] {
  const days = steps.flatMap((s) => [
    ...(s.validFrom === null ? [] : [s.validFrom]),
    ...(s.validUntil === null ? [] : [addDays(s.validUntil, 1)]),
  ])
  const turns = [from, ...new Set(days.filter((d) => d > from && d <= until))].sort()
  const prices = turns.map((day) => ({ from: day, unitPrice: priceFor(steps, quantity, day)?.unitPrice ?? null }))
  return prices.filter((p, i) => i === 0 || p.unitPrice !== prices[i - 1]?.unitPrice)
}
