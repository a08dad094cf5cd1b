import type { DecimalText } from './decimal'
import type { Day } from './day'

/** Units of `currency` for one unit of the base currency, as reference rates are published. */
export interface Rate {
  readonly day: Day
  readonly currency: string
  readonly perBase: DecimalText
}

/** The newest rate on or before the day; null where there is none. */
export function findRate(rates: readonly Rate[], currency: string, day: Day): Rate | null {
  return rates.reduce<Rate | null>(
    (best, r) => (r.currency === currency && r.day <= day && (best === null || r.day > best.day) ? r : best),
    null,
  )
}
