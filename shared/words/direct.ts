import type { DirectReason } from '#core/order/direct'
import type { Ways } from './ways'

/** Why something cannot be ordered without a request. */
export function sayDirectReason(r: DirectReason, ways: Ways): string {
  switch (r.code) {
    case 'direct-forbidden':
      return 'The policy has nothing ordered without a request: send it as one.'
    case 'direct-beyond-policy':
      return (
        `Without a request orders are made up to ${ways.money(r.upTo)}; this comes to ${ways.amount(r.amount)}: ` +
        'it needs a request.'
      )
    case 'direct-sent-before':
      return 'It was sent as a request already: it is decided on as one.'
    case 'direct-own-need':
      return 'Nobody orders for their own need alone: say for whom it is, or send it as a request.'
    case 'direct-no-supplier':
      return (
        `Say who delivers ${r.description === '' ? 'each line' : `“${r.description}”`}: ` +
        'an order goes to a supplier.'
      )
    case 'direct-several-suppliers':
      return 'These lines come from several suppliers; one order goes to one.'
    case 'direct-several-currencies':
      return 'These lines are in several currencies; one order is in one.'
  }
}
