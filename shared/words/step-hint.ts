import { dec } from '#core/base/decimal'
import type { StepHint } from '#core/catalogue/step-hint'
import type { Ways } from './ways'

/** What a few more would make of a quantity, where it is at least half way to the next step; else "". */
export function sayHint({ net, next }: StepHint, quantity: string, ways: Ways): string {
  if (next === null || dec(next.more).gt(dec(quantity))) return ''
  const price = ways.price(next.price, net.currency)
  return (
    `${ways.decimal(next.more)} more, and each costs ${price}: ${ways.decimal(next.at)} cost ` +
    `${ways.amount(next.net)} instead of ${ways.amount(net)} for ${ways.decimal(quantity)}.`
  )
}
