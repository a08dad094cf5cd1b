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

/** The state of an approved requisition, worked out anew from its quantities after every order. */
export function stateFromQuantities(lines: readonly LineProgress[]): RequisitionState {
  const somethingOrdered = lines.some((l) => dec(l.ordered).isPositive())
  const somethingOpen = lines.some((l) => dec(openQuantity(l)).isPositive())
  if (somethingOpen) return somethingOrdered ? 'part ordered' : 'approved'
  return somethingOrdered ? 'ordered' : 'cancelled'
}
