import { dec, type DecimalText } from '#core/base/decimal'
import type { Day } from '#core/base/day'

/** A step of an item's price: from this quantity on, within these days (both inside; null is open). */
export interface PriceStep {
  readonly from: DecimalText
  readonly unitPrice: DecimalText
  readonly validFrom: Day | null
  readonly validUntil: Day | null
}

/** The step that applies to a quantity on a day, or null where no price is valid. */
export function priceFor(steps: readonly PriceStep[], quantity: DecimalText, day: Day): PriceStep | null {
  return best(steps, day, (s) => dec(s.from).lte(dec(quantity))) ?? lowestStep(steps, day)
}

/** The next step above a quantity: what is worth pointing out. */
export function nextStep(steps: readonly PriceStep[], quantity: DecimalText, day: Day): PriceStep | null {
  const above = steps.filter((s) => isValid(s, day) && dec(s.from).gt(dec(quantity)))
  return above.reduce<PriceStep | null>((a, b) => (a === null || dec(b.from).lt(dec(a.from)) ? b : a), null)
}

function isValid(step: PriceStep, day: Day): boolean {
  return (step.validFrom === null || step.validFrom <= day) && (step.validUntil === null || day <= step.validUntil)
}

function best(steps: readonly PriceStep[], day: Day, fits: (s: PriceStep) => boolean): PriceStep | null {
  return steps
    .filter((s) => isValid(s, day) && fits(s))
    .reduce<PriceStep | null>((a, b) => (a === null || dec(b.from).gt(dec(a.from)) ? b : a), null)
}

/** Below the smallest step the smallest step's price holds. */
function lowestStep(steps: readonly PriceStep[], day: Day): PriceStep | null {
  return steps
    .filter((s) => isValid(s, day))
    .reduce<PriceStep | null>((a, b) => (a === null || dec(b.from).lt(dec(a.from)) ? b : a), null)
}
