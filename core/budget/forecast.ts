import { dec, Decimal } from '#core/base/decimal'
import { add, compare, moneyOf, roundMoney, sum, type Money } from '#core/base/money'

/** What stands in a period of a budget line, whatever its stage. */
export interface SpokenFor {
  readonly period: number
  readonly amount: Money
}

/** What a budget line will have taken by the end of its year: at least, and at most, by the ways it can be reckoned. */
export interface Forecast {
  readonly least: Money
  readonly most: Money
  /** By which ways: the pace of this year, and the course of the last. */
  readonly by: readonly ('pace' | 'last year')[]
}

/** From so many days of a year on its pace says something. Common practice, no source. */
const FORECAST_FROM_DAYS = 30

/**
 * What will stand on a line at the end of its year. By the pace: what stood until now, for the days that are left as
 * for those that are gone. By the last year: what stood until now, grown as the same line grew then from this period
 * on. Never less than what stands already, in periods to come too. Null while the year is too young to say, and once
 * it is over. Common practice, no source.
 */
export function forecast(
  year: {
    readonly daysGone: number
    readonly days: number
    readonly period: number
  },
  spoken: readonly SpokenFor[],
  lastYear: readonly SpokenFor[],
  currency: string,
): Forecast | null {
  const { daysGone, days, period } = year
  if (daysGone < FORECAST_FROM_DAYS || daysGone >= days) return null
  const until = (of: readonly SpokenFor[]) =>
    total(
      of.filter((s) => s.period <= period),
      currency,
    )
  const now = until(spoken)
  const stands = total(spoken, currency)
  const atPace = scaled(now, days, daysGone)
  const before = { now: until(lastYear), all: total(lastYear, currency) }
  const grown =
    compare(before.now, moneyOf('0', currency)) > 0
      ? roundMoney(dec(now.amount).times(dec(before.all.amount)).dividedBy(dec(before.now.amount)), currency)
      : null
  const found = [atPace, ...(grown === null ? [] : [grown])].map((m) => (compare(m, stands) < 0 ? stands : m))
  return {
    least: found.reduce((a, b) => (compare(b, a) < 0 ? b : a)),
    most: found.reduce((a, b) => (compare(b, a) > 0 ? b : a)),
    by: grown === null ? ['pace'] : ['pace', 'last year'],
  }
}

const total = (of: readonly SpokenFor[], currency: string): Money =>
  sum(
    of.map((s) => s.amount),
    currency,
  )
const scaled = (m: Money, times: number, by: number): Money =>
  roundMoney(
    dec(m.amount)
      .times(Decimal.ofUnits(BigInt(times), 0))
      .dividedBy(Decimal.ofUnits(BigInt(by), 0)),
    m.currency,
  )

/** All that stands in a period: billed, ordered and asked for. */
export const spokenFor = (p: {
  readonly period: number
  readonly reserved: Money
  readonly committed: Money
  readonly spent: Money
}): SpokenFor => ({ period: p.period, amount: add(add(p.reserved, p.committed), p.spent) })
