import { NOTHING, dec, type DecimalText } from '#core/base/decimal'
import { lineNet } from '#core/base/line-net'
import { convert, sum, zero, type Money } from '#core/base/money'
import type { RequisitionState } from '#core/requisition/moves'

/** A line of a requisition that asks for a part. */
export interface AskingLine {
  readonly state: RequisitionState
  readonly quantity: DecimalText
  readonly cancelled: DecimalText
  readonly ordered: DecimalText
}
/** How far a part is, in its unit. What is asked for is ordered in the end, or was cancelled. */
export interface PartProgress {
  /** Written down and not sent. */
  readonly drafted: DecimalText
  /** Sent, what is ordered of it with it. */
  readonly asked: DecimalText
  readonly ordered: DecimalText
  /** Not yet asked for, nor written down. */
  readonly open: DecimalText
}

const DRAFTED: readonly RequisitionState[] = ['draft', 'sent back', 'withdrawn']
/** Nothing comes of these any more, besides what was ordered before. */
const OVER: readonly RequisitionState[] = ['rejected', 'cancelled']

/** How much of a part is asked for by its lines, and what is open: never less than nothing. */
export function partProgress(quantity: DecimalText, lines: readonly AskingLine[]): PartProgress {
  let [drafted, asked, ordered] = [NOTHING, NOTHING, NOTHING]
  for (const l of lines) {
    const wanted = OVER.includes(l.state) ? dec(l.ordered) : dec(l.quantity).minus(dec(l.cancelled))
    if (DRAFTED.includes(l.state)) drafted = drafted.plus(wanted)
    else asked = asked.plus(wanted)
    ordered = ordered.plus(dec(l.ordered))
  }
  const open = dec(quantity).minus(drafted).minus(asked)
  return {
    drafted: drafted.toFixed(),
    asked: asked.toFixed(),
    ordered: ordered.toFixed(),
    open: (open.isNegative() ? NOTHING : open).toFixed(),
  }
}

/** What parts are expected to cost together, net, in the base currency: each rounded by itself, as a line is. */
export function estimateOf(
  parts: readonly { readonly quantity: DecimalText; readonly estimate: DecimalText | null }[],
  base: string,
): Money {
  return sum(
    parts.map(({ quantity, estimate }) =>
      estimate === null ? zero(base) : lineNet({ quantity, unitPrice: estimate, priceBase: '1', currency: base }),
    ),
    base,
  )
}

/** A quantity at the price of the order it stands on, and units of its currency for one of the base. */
export interface OrderedPortion {
  readonly quantity: DecimalText
  readonly unitPrice: DecimalText
  readonly priceBase: DecimalText
  readonly currency: string
  readonly perBase: DecimalText
}
/** What was ordered for a job, net of goods, in the base currency; discounts of a line as the order has them. */
export function orderedOf(portions: readonly OrderedPortion[], base: string): Money {
  return sum(
    portions.map((p) => convert(lineNet(p), p.perBase, base)),
    base,
  )
}
