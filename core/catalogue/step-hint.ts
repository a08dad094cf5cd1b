import { dec, type DecimalText } from '#core/base/decimal'
import type { Day } from '#core/base/day'
import { lineNet } from '#core/base/line-net'
import type { Money } from '#core/base/money'
import { nextStep, priceFor, type PriceStep } from './price'

/** What a quantity costs, and what the next step would make of it. */
export interface StepHint {
  readonly net: Money
  /** How many more reach the next step, which price that is, and what all of them cost then; null at the last. */
  readonly next: {
    readonly more: DecimalText
    readonly at: DecimalText
    readonly price: DecimalText
    readonly net: Money
  } | null
}

/** What a quantity of an item costs on a day, and what its next step costs; null where no price holds. */
export function stepHint(
  item: { readonly prices: readonly PriceStep[]; readonly priceBase: DecimalText; readonly currency: string },
  quantity: DecimalText,
  day: Day,
): StepHint | null {
  const now = priceFor(item.prices, quantity, day)
  if (now === null) return null
  const { priceBase, currency } = item
  const net = (q: DecimalText, unitPrice: DecimalText) => lineNet({ quantity: q, unitPrice, priceBase, currency })
  const step = nextStep(item.prices, quantity, day)
  return {
    net: net(quantity, now.unitPrice),
    next:
      step === null
        ? null
        : {
            more: dec(step.from).minus(dec(quantity)).toFixed(),
            at: dec(step.from).toFixed(),
            price: step.unitPrice,
            net: net(step.from, step.unitPrice),
          },
  }
}
