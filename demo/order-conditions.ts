import { addDays, type Day } from '#core/base/day'
import type { OrderConditions } from '#core/order/conditions'

/** What is said of orders to some suppliers, beside what follows from their lines; `nth` counts them. */
const SAID: Readonly<Record<string, (nth: number, today: Day) => Partial<OrderConditions>>> = {
  // Fetched over the counter, and entered afterwards under the number in the counter's book.
  'Quillon Signs': (nth) => ({ placedAs: `Counter book ${117 + nth}`, isSent: false }),
  'Mistral Chandlery': (_, today) => ({
    delivery: { term: 'DAP', place: 'Hallamere, east quay' },
    expiresOn: addDays(today, 28),
    adjustments: [{ kind: 'discount', of: 'percent', value: '3', name: 'Winter account' }],
  }),
}
const counted = new Map<string, number>()

/** The conditions of the next order to a supplier, where something is said of them; null where nothing is. */
export function conditionsFor(supplier: string, follow: OrderConditions, today: Day): OrderConditions | null {
  const said = SAID[supplier]
  if (said === undefined) return null
  const nth = (counted.get(supplier) ?? 0) + 1
  counted.set(supplier, nth)
  return { ...follow, ...said(nth, today) }
}
