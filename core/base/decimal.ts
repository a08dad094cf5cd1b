import { Decimal as DecimalLibrary } from 'decimal.js'

/**
 * Exact decimals for all of the core: 60 digits, rounded half away from zero.
 * A clone, because the library's own default of 20 digits rounds silently.
 */
export const Decimal = DecimalLibrary.clone({
  precision: 60,
  rounding: DecimalLibrary.ROUND_HALF_UP,
  toExpNeg: -60,
  toExpPos: 60,
})
export type Decimal = InstanceType<typeof DecimalLibrary>

/** A decimal as it crosses JSON and the database: plain digits, a point, perhaps a minus. */
export type DecimalText = string

const DECIMAL_TEXT = /^-?\d{1,30}(\.\d{1,20})?$/

/** True for plain decimal text; exponents, blanks and signs other than a leading minus are not. */
export function isDecimalText(text: string): boolean {
  return DECIMAL_TEXT.test(text)
}

/** Reads decimal text. Throws on anything else: callers at the border have checked already. */
export function dec(text: DecimalText): Decimal {
  if (!isDecimalText(text)) throw new RangeError(`not a decimal: ${text.slice(0, 40)}`)
  return new Decimal(text)
}

/** Writes a decimal plainly, without an exponent, trailing zeros or a minus zero. */
export function plain(value: Decimal): DecimalText {
  return value.isZero() ? '0' : value.toFixed()
}

/** Digits after the point, trailing zeros not counted. */
export function decimalPlaces(text: DecimalText): number {
  return dec(text).decimalPlaces()
}
