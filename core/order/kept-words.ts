import type { Day, PaymentTerms } from '#core/base/day'
import { isExpired, type OrderConditions } from './conditions'

/** What a buyer said of a direct order besides its lines, kept while it is written on. */
export interface OrderWords extends Omit<OrderConditions, 'terms'> {
  /** To whom it was said, and in which currency the order was. */
  readonly supplierId: string
  readonly currency: string
  /** How it is paid, where the buyer said so; null: as its agreement or its supplier has it. */
  readonly terms: PaymentTerms | null
  /** What the supplier is told on it. */
  readonly note: string
}

/**
 * What of it still holds for the order that is made of what was written: all of it for the same supplier, and nothing
 * for another. A last day that is past is said no more, and a blanket order is none without one; a number under which
 * another order was placed meanwhile is that one's; amounts of another currency are not carried over.
 */
export function wordsThatHold(
  words: OrderWords,
  to: { readonly supplierId: string; readonly currency: string; readonly today: Day; readonly isPlaced: boolean },
): OrderWords | null {
  if (words.supplierId !== to.supplierId) return null
  const isOver = words.expiresOn !== null && isExpired(words.expiresOn, to.today)
  return {
    ...words,
    currency: to.currency,
    ...(isOver ? { expiresOn: null, isBlanket: false } : {}),
    ...(to.isPlaced ? { placedAs: null, isSent: true } : {}),
    adjustments: words.adjustments.filter((a) => a.of === 'percent' || words.currency === to.currency),
  }
}
