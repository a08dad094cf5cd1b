import { dec, type DecimalText } from '#core/base/decimal'
import type { TaxKey } from '#core/base/document-sums'
import { lineNet, type Adjustment } from '#core/base/line-net'
import { roundMoney, type Money } from '#core/base/money'
import type { MessageAllowance } from '#core/order/message'
import { moreOf } from './more-of-line'
import type { OrderSnapshot } from './snapshot'

/** A line of an order as it is kept with a sent state. */
export function snapshotLine(
  l: {
    readonly description: string
    readonly secondDescription: string
    readonly notes: readonly string[]
    readonly adjustments: readonly Adjustment[]
    readonly supplierPart: string | null
    readonly quantity: DecimalText
    readonly unit: string
    readonly unitPrice: DecimalText
    readonly priceBase: DecimalText
    readonly needBy: string
    readonly net: Money
    readonly tax: TaxKey
  },
  currency: string,
): OrderSnapshot['lines'][number] {
  return {
    ...{ description: l.description, more: moreOf(l, currency), supplierPart: l.supplierPart },
    ...{ quantity: l.quantity, unit: l.unit, unitPrice: l.unitPrice, priceBase: l.priceBase },
    ...{ needBy: l.needBy, net: l.net.amount },
    ...{ secondDescription: l.secondDescription, notes: l.notes, tax: l.tax },
    allowances: allowancesOf(l, currency),
  }
}

/** What is taken off a line, each as a percentage of its gross or as an amount. */
function allowancesOf(line: Parameters<typeof snapshotLine>[0], currency: string): MessageAllowance[] {
  const { amount: of } = lineNet({ ...line, adjustments: [], currency })
  return line.adjustments
    .map(({ percent, amount }): MessageAllowance => {
      const value = percent === undefined ? dec(amount ?? '0') : dec(of).times(dec(percent)).percent()
      return { percent: percent ?? null, amount: roundMoney(value, currency).amount, of }
    })
    .filter((a) => !dec(a.amount).isZero())
}
