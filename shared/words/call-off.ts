import type { DecimalText } from '#core/base/decimal'
import { moneyOf } from '#core/base/money'
import { isByAmount } from '#core/base/unit'
import type { AfterTheEnd, BeyondBlanket, CallReason } from '#core/order/call-off'
import { sayIssueReason } from './order'
import type { Ways } from './ways'

/** How much of a line, as the line counts it: "12 kg", or of a line by amount, "EUR 400.00". */
export const sayMuch = (much: DecimalText, unit: string, currency: string, ways: Ways): string =>
  isByAmount(unit) ? ways.money(moneyOf(much, currency)) : ways.quantity(much, unit)

/** That more is called off than is left. */
export const sayBeyond = (r: BeyondBlanket, ways: Ways): string =>
  /[1-9]/.test(r.most)
    ? `Of “${r.description}” ${sayMuch(r.most, r.unit, r.currency, ways)} can be called off.`
    : `Nothing is left of “${r.description}”.`

export const sayAfterTheEnd = (r: AfterTheEnd, ways: Ways): string =>
  `“${r.description}” is needed after ${ways.date(r.on, '')}, the last day of the blanket order.`

/** The sentence for what stands in the way of calling off. */
export function sayCallReason(r: CallReason, ways: Ways): string {
  switch (r.code) {
    case 'nothing-called':
      return 'Say how much is called off.'
    case 'beyond-blanket':
      return sayBeyond(r, ways)
    case 'after-the-end':
      return sayAfterTheEnd(r, ways)
    case 'day-is-past':
      return `The day by which “${r.description}” is needed lies in the past.`
    case 'order-state':
      return `This blanket order is ${r.state}; nothing is called off of it.`
    case 'order-expired':
      return `It was called off until ${ways.date(r.on, '')}, which is past.`
    default:
      return sayIssueReason(r, ways)
  }
}
