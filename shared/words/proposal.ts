import type { Day } from '#core/base/day'
import type { LeftReason } from '#core/order/propose'
import type { Ways } from './ways'

/** Why lines are in no proposed order. */
export function sayLeft(r: LeftReason, today: Day, ways: Ways): string {
  switch (r.code) {
    case 'no-supplier':
      return 'No supplier is known yet: choose one on the Desk.'
    case 'supplier-not-active':
      return r.standing === 'proposed'
        ? 'The supplier waits for finance.'
        : `The supplier is ${r.standing} and cannot be ordered from now.`
    case 'no-rate':
      return `There is no exchange rate for ${r.currency}.`
    case 'waits-for-more':
      return (
        `${ways.money(r.goods)} so far: waits for more until it comes to ${ways.money(r.value)}, ` +
        `at most until ${ways.date(r.until, today)}.`
      )
  }
}
