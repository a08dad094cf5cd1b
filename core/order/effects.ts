import { HUNDRED, dec, type DecimalText } from '#core/base/decimal'
import { add, convert, roundMoney, zero, type Money } from '#core/base/money'
import { lineNet, type PricedLine } from '#core/base/line-net'
import { divide, splitAmount, type Split } from '#core/base/split'
import type { Coding, Effect } from '#core/budget/effect'

/** The part of an order line that belongs to one requisition line, with that line's coding. */
export interface OrderSource {
  readonly quantity: DecimalText
  readonly split: Split
  readonly codings: readonly Coding[]
  /** The whole net of the requisition line: amounts of its split are weights of it. */
  readonly whole: Money
}

/**
 * What an order line commits, coding by coding, in the order of its sources: its net, with what it bears of freight and
 * adjustments, is divided over the sources by quantity, each share over that source's codings, tax is felt as the
 * department feels it.
 */
export function orderLineEffects(
  line: PricedLine & {
    readonly taxRate: DecimalText
    /** What of the order's freight and adjustments this line bears. */
    readonly borne: Money
    readonly perBase: DecimalText
    readonly baseCurrency: string
  },
  sources: readonly OrderSource[],
): Effect[] {
  const shares = divide(
    add(lineNet(line), line.borne),
    sources.map((s) => dec(s.quantity)),
  )
  return sources.flatMap((source, i) => {
    const share = shares[i] ?? zero(line.currency)
    const parts = splitAmount(share, source.split, { whole: source.whole })
    return source.codings.map((coding, at) => {
      const net = parts[at] ?? zero(line.currency)
      const kept = HUNDRED.minus(dec(coding.reclaimable)).percent()
      const tax = roundMoney(dec(net.amount).times(dec(line.taxRate)).percent().times(kept), line.currency)
      return { budgetLineId: coding.budgetLineId, amount: convert(add(net, tax), line.perBase, line.baseCurrency) }
    })
  })
}
