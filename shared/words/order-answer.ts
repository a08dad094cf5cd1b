import { dec } from '#core/base/decimal'
import type { AnswerReason } from '#core/order/answer'
import type { OrderDifference } from '#core/order/compare'
import type { ResponseReason } from '#core/order/response'
import { sayDifference } from './order-change'
import type { Ways } from './ways'

/** What of an answer is not as ordered: "Pump seal: 4 pieces come instead of 10". */
export function sayAnswered(d: OrderDifference, ways: Ways): string {
  if (d.what === 'quantity')
    return dec(d.is).isZero()
      ? `${d.description}: does not come (${ways.quantity(d.was, d.unit)} ordered)`
      : `${d.description}: ${ways.quantity(d.is, d.unit)} instead of ${ways.quantity(d.was, d.unit)}`
  if (d.what === 'day') return `${d.description}: comes ${ways.day(d.is, '')} instead of ${ways.day(d.was, '')}`
  return sayDifference(d, ways)
}

/** The sentence for what stands in the way of an answer to an order. */
export function sayAnswerReason(r: AnswerReason): string {
  switch (r.code) {
    case 'order-state':
      return r.state === 'cancelled' ? 'This order is cancelled.' : `This order is ${r.state}; it cannot be answered.`
    case 'order-revised':
      return `This order was changed meanwhile: revision ${r.revision} holds. Read it and answer that.`
    case 'answer-holds':
      return 'This order is answered, and the answer holds. If something has changed, write to the buyer.'
    case 'answered-too-often':
      return 'This order was answered too often; write to the buyer.'
    case 'unknown-line':
      return 'The answer names a line that is not ordered.'
    case 'day-is-past':
      return `The day for “${r.description}” lies in the past.`
  }
}

/** The sentence for what stands in the way of taking in what a supplier's program answered. */
export function sayResponseReason(r: ResponseReason): string {
  switch (r.code) {
    case 'other-order':
      return `It answers ${r.names}, and not this order.`
    case 'other-currency':
      return `It is in ${r.names}, and the order is not.`
    case 'only-arrived':
      return 'It says only that the order arrived, and does not answer it yet.'
    case 'line-added':
      return `It adds line ${r.line}, which was not ordered.`
    case 'other-unit':
      return `Line ${r.line} is in another unit than it was ordered.`
    case 'unknown-line':
      return `The order has no line ${r.line}.`
    case 'unreadable':
      return r.line === '' ? `“${r.text}” is no day.` : `“${r.text}” of line ${r.line} cannot be read.`
  }
}
