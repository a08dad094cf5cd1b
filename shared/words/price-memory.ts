import { HUNDRED, dec, type DecimalText } from '#core/base/decimal'

/** A price beside the one that was paid last: "3.5 % more"; null where nothing was paid. */
export function sayBesideLast(unitPrice: DecimalText, last: DecimalText | null): string {
  if (last === null) return 'never bought'
  const before = dec(last)
  if (before.isZero()) return 'was free'
  const change = dec(unitPrice).minus(before).dividedBy(before).times(HUNDRED)
  return change.isZero()
    ? 'the same'
    : `${change.abs().toPlaces(1).toFixed()} % ${change.isNegative() ? 'less' : 'more'}`
}
