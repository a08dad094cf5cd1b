import type { DecimalText } from '#core/base/decimal'
import { convert, sum, type Money } from '#core/base/money'
import { draftNet, type DraftLine } from './draft'

/**
 * What the lines of a draft come to without tax, in the base currency: line by line as an order would have it, each
 * converted and rounded. A line without a price, or whose currency has no rate, counts as nothing yet.
 */
export function draftWorth(
  lines: readonly Pick<DraftLine, 'quantity' | 'unitPrice' | 'priceBase' | 'discount' | 'currency'>[],
  perBase: ReadonlyMap<string, DecimalText>,
  baseCurrency: string,
): Money {
  const worth = lines.flatMap((line) => {
    const net = draftNet(line)
    const rate = perBase.get(line.currency)
    return net === null || rate === undefined ? [] : [convert(net, rate, baseCurrency)]
  })
  return sum(worth, baseCurrency)
}
