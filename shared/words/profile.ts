import type { ProfileReason } from '#core/budget/profile'
import { isNegative, negate } from '#core/base/money'
import type { Ways } from './ways'

/** The sentence for what is wrong with a year that was spread by hand. */
export function sayProfileReason(r: ProfileReason, ways: Ways): string {
  if (r.code === 'below-nothing') return 'No month is given less than nothing.'
  return isNegative(r.more)
    ? `The months come to ${ways.money(negate(r.more))} less than the year was given.`
    : `The months come to ${ways.money(r.more)} more than the year was given.`
}
