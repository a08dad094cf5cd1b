import { addDays, type Day } from '#core/base/day'
import { isExpired } from './conditions'
import type { OrderState } from './moves'

/** An order is due soon that is needed within so many days. */
const SOON_DAYS = 7
/** The states in which something of an order may still be on its way. */
export const OPEN_ORDER_STATES = ['issued', 'acknowledged'] as const satisfies readonly OrderState[]

/** The days by which what is needed is overdue (before `from`) or due soon (from `from` up to `until`, included). */
export const soonDays = (today: Day): { readonly from: Day; readonly until: Day } => ({
  from: today,
  until: addDays(today, SOON_DAYS),
})

/** What of an order says whether it is overdue. */
interface Awaited {
  readonly state: string
  readonly needBy: Day | null
  readonly expiresOn: Day | null
  /** Of a blanket order nothing is awaited itself: what is called off of it is. */
  readonly isBlanket: boolean
  /** Of a blanket order: all of it is called off. */
  readonly isUsedUp: boolean
}

/**
 * Whether an order with something needed on a day is overdue: past it or past its expiry, from the day after, while
 * something of it is open. Source: rules of calculation, ordering and after. Until receipts are booked, all of it is
 * open; a blanket order is open while something of it can still be called off.
 */
export const isOverdue = ({ state, needBy, expiresOn, isBlanket, isUsedUp }: Awaited, today: Day): boolean =>
  (OPEN_ORDER_STATES as readonly string[]).includes(state) &&
  ((!isBlanket && needBy !== null && needBy < soonDays(today).from) ||
    (!isUsedUp && expiresOn !== null && isExpired(expiresOn, today)))
