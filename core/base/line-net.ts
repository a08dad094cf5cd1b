import { ONE, dec, type DecimalText } from './decimal'
import { add, roundMoney, subtract, type Money } from './money'

/** An allowance (taken off) or a charge (put on): a percentage of the gross, or an amount. */
export interface Adjustment {
  readonly kind: 'allowance' | 'charge'
  readonly percent?: DecimalText
  readonly amount?: DecimalText
}

/** What a line costs before tax is worked out from: quantity at a price for so many units. */
export interface PricedLine {
  readonly quantity: DecimalText
  readonly unitPrice: DecimalText
  /** The price base quantity: 100 for a price per hundred. */
  readonly priceBase: DecimalText
  readonly currency: string
  readonly adjustments?: readonly Adjustment[]
}

/**
 * Line net = gross - allowances + charges, where gross = round(quantity x price / base) and a
 * percentage is of the gross, rounded by itself. Source: EN 16931-1, BT-131, BT-137, BT-142.
 */
export function lineNet(line: PricedLine): Money {
  const gross = lineGross(line)
  return (line.adjustments ?? []).reduce((net, a) => {
    const value =
      a.percent === undefined
        ? roundMoney(dec(a.amount ?? '0'), line.currency)
        : roundMoney(dec(gross.amount).times(dec(a.percent)).percent(), line.currency)
    return a.kind === 'allowance' ? subtract(net, value) : add(net, value)
  }, gross)
}

/** round(quantity x unit price / base quantity), in the line's currency. */
function lineGross(line: PricedLine): Money {
  return roundMoney(dec(line.quantity).times(dec(line.unitPrice)).dividedBy(dec(line.priceBase)), line.currency)
}

/** A unit price entered with tax, turned into a net one at 6 decimals. `rate` is a percentage. */
export function netUnitPrice(withTax: DecimalText, rate: DecimalText): DecimalText {
  const net = dec(withTax).dividedBy(dec(rate).percent().plus(ONE)).toPlaces(6)
  return net.toFixed()
}
