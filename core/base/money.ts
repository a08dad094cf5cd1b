import { NOTHING, dec, isDecimalText, type Decimal, type DecimalText } from './decimal'
import { minorUnits } from './currency'

/** An amount in one currency, always written with that currency's decimals ("1060.00", "EUR"). */
export interface Money {
  readonly amount: DecimalText
  readonly currency: string
}

/** Reads "1060.00 EUR"; refuses more decimals than the currency has. For tests and tables. */
export function money(text: string): Money {
  const [amount, currency] = text.split(' ')
  if (amount === undefined || currency === undefined || !isDecimalText(amount))
    throw new RangeError(`not money: ${text}`)
  if (dec(amount).places() > minorUnits(currency)) throw new RangeError(`too many decimals for ${currency}: ${amount}`)
  return roundMoney(dec(amount), currency)
}

/** Rounds half away from zero to the currency's minor units; there is no minus zero. */
export function roundMoney(value: Decimal, currency: string): Money {
  return { amount: value.toFixed(minorUnits(currency)), currency }
}

/** Nothing, in a currency. */
export function zero(currency: string): Money {
  return roundMoney(NOTHING, currency)
}

function together(a: Money, b: Money): string {
  if (a.currency !== b.currency) throw new TypeError(`currencies do not mix: ${a.currency} and ${b.currency}`)
  return a.currency
}

/** a + b; both must be of one currency. */
export function add(a: Money, b: Money): Money {
  return roundMoney(dec(a.amount).plus(dec(b.amount)), together(a, b))
}

/** An amount as often as it occurs: a whole count, so that nothing is rounded. */
export function times(a: Money, count: number): Money {
  return roundMoney(dec(a.amount).times(dec(String(count))), a.currency)
}

/** a - b; both must be of one currency. */
export function subtract(a: Money, b: Money): Money {
  return roundMoney(dec(a.amount).minus(dec(b.amount)), together(a, b))
}

/** The sum of amounts that all have `currency`; nothing where there are none. */
export function sum(amounts: readonly Money[], currency: string): Money {
  const nothing = zero(currency)
  // All have the currency's decimals already, so that one rounding at the end changes nothing.
  return roundMoney(
    amounts.reduce((s, a) => {
      together(nothing, a)
      return s.plus(dec(a.amount))
    }, NOTHING),
    currency,
  )
}

/** The mirror image. */
export function negate(a: Money): Money {
  return roundMoney(dec(a.amount).negated(), a.currency)
}

/** -1, 0 or 1; both must be of one currency. */
export function compare(a: Money, b: Money): -1 | 0 | 1 {
  together(a, b)
  return dec(a.amount).comparedTo(dec(b.amount))
}

export function isZero(a: Money): boolean {
  return dec(a.amount).isZero()
}

export function isNegative(a: Money): boolean {
  return dec(a.amount).isNegative()
}

/** Turns an amount into the base currency, of which one is `perBase` of a's; rounded once. */
export function convert(a: Money, perBase: DecimalText, base: string): Money {
  return exchange(a, { from: perBase, to: '1' }, base)
}

/**
 * An amount in another currency: through the base, rounded once at the end. Rates are units of a currency for one of
 * the base, as reference rates are published; the base's own is 1.
 */
export function exchange(
  a: Money,
  perBase: { readonly from: DecimalText; readonly to: DecimalText },
  to: string,
): Money {
  return a.currency === to ? a : roundMoney(dec(a.amount).times(dec(perBase.to)).dividedBy(dec(perBase.from)), to)
}

/** A limit covers up to and including itself; no limit covers nothing. */
export function covers(limit: Money | null, amount: Money): boolean {
  return limit !== null && compare(amount, limit) <= 0
}

/** An amount read from plain decimal text, rounded to the currency's minor units. */
export function moneyOf(amount: DecimalText, currency: string): Money {
  return roundMoney(dec(amount), currency)
}
