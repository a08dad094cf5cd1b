import { dec, NOTHING } from '../base/decimal'
import type { Day } from '../base/day'
import { priceFor, type PriceStep } from '../catalogue/price'
import { stepHint, type StepHint } from '../catalogue/step-hint'
import type { MergedLine } from './merge'

/** What an item costs on an order in all, and what its next step would make of it. */
export interface OrderHint extends StepHint {
  /** How many of it are ordered, over all its lines. */
  readonly quantity: string
}

/**
 * What the next price step of each item would make of an order, at the item's first line; null at other lines, and
 * where a price was written by hand or something is taken off. `prices` holds the steps of the items that have any.
 */
export function stepHints(
  lines: readonly MergedLine[],
  prices: ReadonlyMap<string, readonly PriceStep[]>,
  currency: string,
  today: Day,
): (OrderHint | null)[] {
  return lines.map((line, i) => {
    const own = lines.filter((l) => l.itemId !== null && l.itemId === line.itemId)
    const steps = line.itemId === null ? undefined : prices.get(line.itemId)
    if (steps === undefined || own[0] !== lines[i]) return null
    const quantity = own.reduce((sum, l) => sum.plus(dec(l.quantity)), NOTHING).toFixed()
    const price = priceFor(steps, quantity, today)?.unitPrice
    const isPlain = own.every(
      (l) => l.adjustments.length === 0 && price !== undefined && dec(l.unitPrice).eq(dec(price)),
    )
    const hint = isPlain ? stepHint({ prices: steps, priceBase: line.priceBase, currency }, quantity, today) : null
    return hint === null ? null : { ...hint, quantity }
  })
}
