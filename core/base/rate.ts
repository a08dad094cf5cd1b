import { Decimal, dec, plain, type DecimalText } from './decimal'
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

/** The factor that turns one unit of `rate.currency` into the base currency, at 20 digits. */
export function toBaseFactor(rate: Rate): DecimalText {
  return plain(new Decimal(1).dividedBy(dec(rate.perBase)).toDecimalPlaces(20))
}
