import { NOTHING, dec, type DecimalText } from '#core/base/decimal'
import type { RequisitionState } from './moves'

/** Line progress is quantities, never a state of its own. */
export interface LineProgress {
  readonly requested: DecimalText
  readonly ordered: DecimalText
  readonly cancelled: DecimalText
}

/** What is still to be ordered of a line. */
export function openQuantity(line: LineProgress): DecimalText {
  const open = dec(line.requested).minus(dec(line.ordered)).minus(dec(line.cancelled))
  return (open.isNegative() ? NOTHING : open).toFixed()
}

/** What of that lies on no tray either. */
export function leftToLay(line: LineProgress & { readonly onTray: DecimalText }): DecimalText {
  return dec(openQuantity(line)).minus(dec(line.onTray)).toFixed()
}

/** The state of an approved requisition, worked out anew from its quantities after every order. */
export function stateFromQuantities(lines: readonly LineProgress[]): RequisitionState {
  const somethingOrdered = lines.some((l) => dec(l.ordered).isPositive())
  const somethingOpen = lines.some((l) => dec(openQuantity(l)).isPositive())
  if (somethingOpen) return somethingOrdered ? 'part ordered' : 'approved'
  return somethingOrdered ? 'ordered' : 'cancelled'
}

/** A line with what its units are worth: the share of a request that is ordered is by worth. */
export interface WeighedLine {
  readonly quantity: DecimalText
  readonly ordered: DecimalText
  /** Null while it is not known, which counts as nothing. */
  readonly unitPrice: DecimalText | null
  readonly priceBase: DecimalText
  /** Units of its currency for one of the base; null before it was sent, when all are taken alike. */
  readonly perBase: DecimalText | null
}

/**
 * How much of what was asked is ordered, from 0 to 1, by worth in the base currency; where nothing has a price, line by
 * line. For drawing: never for money.
 */
export function orderedShare(lines: readonly WeighedLine[]): number {
  const worthOf = (l: WeighedLine, quantity: DecimalText) =>
    dec(quantity)
      .times(dec(l.unitPrice ?? '0'))
      .dividedBy(dec(l.priceBase).times(dec(l.perBase ?? '1')))
  const all = lines.reduce((s, l) => s.plus(worthOf(l, l.quantity)), NOTHING)
  if (!all.isZero())
    return lines
      .reduce((s, l) => s.plus(worthOf(l, l.ordered)), NOTHING)
      .dividedBy(all)
      .toNumber()
  const counted = lines.filter((l) => dec(l.quantity).isPositive())
  return counted.length === 0
    ? 0
    : counted.reduce((s, l) => s + dec(l.ordered).dividedBy(dec(l.quantity)).toNumber(), 0) / counted.length
}
