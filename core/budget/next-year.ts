import { dec, type DecimalText } from '#core/base/decimal'
import { isZero, roundMoney, sum, type Money } from '#core/base/money'
import { divide } from '#core/base/split'

/** What the next year begins from: what was planned, or what was given with all that was moved. */
export const YEAR_BASES = ['planned', 'given'] as const
export type YearBase = (typeof YEAR_BASES)[number]

/**
 * What each period of the next year is given, from those of a year: the year times the factor, rounded once, and spread
 * as the year was; so that it comes to the year to the last cent. A year that was given less than nothing, or nothing,
 * begins with nothing.
 */
export function nextYear(periods: readonly Money[], factor: DecimalText, currency: string): Money[] {
  const year = sum(periods, currency)
  const none = roundMoney(dec('0'), currency)
  if (isZero(year) || year.amount.startsWith('-')) return periods.map(() => none)
  const next = roundMoney(dec(year.amount).times(dec(factor)), currency)
  const weights = periods.map((p) => (p.amount.startsWith('-') ? dec('0') : dec(p.amount)))
  return divide(next, weights)
}
