import type { AnswerReason } from '#core/order/answer'

/** The sentence for what stands in the way of an answer to an order. */
export function sayAnswerReason(r: AnswerReason): string {
  switch (r.code) {
    case 'order-state':
      return r.state === 'cancelled' ? 'This order is cancelled.' : `This order is ${r.state}; it cannot be answered.`
    case 'order-revised':
      return `This order was changed meanwhile: revision ${r.revision} holds. Read it and answer that.`
    case 'answer-holds':
      return 'This order is answered, and the answer holds. If something has changed, write to the buyer.'
    case 'unknown-line':
      return 'The answer names a line that is not ordered.'
    case 'day-is-past':
      return `The day for “${r.description}” lies in the past.`
  }
}
