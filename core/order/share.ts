import { dec, type DecimalText } from '#core/base/decimal'
import { add, sum, type Money } from '#core/base/money'
import { divide } from '#core/base/split'

/** An order line with how much of it belongs to which requisition. */
export interface ServedLine {
  readonly net: Money
  /** What it bears of the order's freight and adjustments. */
  readonly borne: Money
  readonly sources: readonly { readonly requisitionId: string; readonly quantity: DecimalText }[]
}

/** What of an order belongs to one requisition: its share by quantity of what each line costs and bears. */
export function shareOfOrder(lines: readonly ServedLine[], requisitionId: string, currency: string): Money {
  const shares = lines.flatMap((line) => {
    const parts = divide(
      add(line.net, line.borne),
      line.sources.map((s) => dec(s.quantity)),
    )
    return line.sources.flatMap((s, i) => {
      const part = parts[i]
      return s.requisitionId === requisitionId && part !== undefined ? [part] : []
    })
  })
  return sum(shares, currency)
}
