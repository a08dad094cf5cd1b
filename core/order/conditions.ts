import type { Day, PaymentTerms } from '../base/day'
import { adjustmentReasons, type AdjustmentReason, type OrderAdjustment } from './adjustment'

/** The rules of Incoterms 2020 (International Chamber of Commerce), each of a named place. */
export const DELIVERY_TERMS = ['EXW', 'FCA', 'CPT', 'CIP', 'DAP', 'DPU', 'DDP', 'FAS', 'FOB', 'CFR', 'CIF'] as const
export type DeliveryTerm = (typeof DELIVERY_TERMS)[number]

/** On which conditions an order is placed, beside its lines. */
export interface OrderConditions {
  readonly terms: PaymentTerms
  readonly delivery: { readonly term: DeliveryTerm; readonly place: string } | null
  /** The last day on which the supplier may deliver on it. */
  readonly expiresOn: Day | null
  /** A blanket order: what it orders is called off a part at a time, until its last day. */
  readonly isBlanket: boolean
  /** The number under which it was placed elsewhere (an order book on paper, a shop); null: it is placed by this. */
  readonly placedAs: string | null
  /** It goes to its supplier; what was placed elsewhere need not. */
  readonly isSent: boolean
  /** What is taken off the whole of it, or put on it, besides freight. */
  readonly adjustments: readonly OrderAdjustment[]
}

export type ConditionReason =
  | AdjustmentReason
  | { readonly code: 'no-delivery-place' | 'number-says-nothing' | 'sent-nowhere' | 'blanket-without-end' }
  | { readonly code: 'expiry-is-past'; readonly on: Day }

/** The longest number given elsewhere. */
export const LONGEST_NUMBER = 60

/**
 * A number given elsewhere as it is compared: without case, spaces and punctuation. Empty where nothing of it is left.
 * Source: rules of calculation, numbers and kinds.
 */
export const comparedNumber = (number: string): string =>
  number
    .normalize('NFKC')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]/gu, '')

/** What is wrong with the conditions of an order in `currency` that is put together. */
export function conditionReasons(c: OrderConditions, currency: string, today: Day): ConditionReason[] {
  return [
    ...(c.delivery?.place.trim() === '' ? [{ code: 'no-delivery-place' as const }] : []),
    ...(c.isBlanket && c.expiresOn === null ? [{ code: 'blanket-without-end' as const }] : []),
    ...(c.expiresOn !== null && isExpired(c.expiresOn, today)
      ? [{ code: 'expiry-is-past' as const, on: c.expiresOn }]
      : []),
    ...(c.placedAs !== null && comparedNumber(c.placedAs) === '' ? [{ code: 'number-says-nothing' as const }] : []),
    ...adjustmentReasons(c.adjustments, currency),
    // An order that nobody placed and nobody sends would be none.
    ...(c.placedAs === null && !c.isSent ? [{ code: 'sent-nowhere' as const }] : []),
  ]
}

/** Whether an order expired: from the day after. Source: rules of calculation, money, quantity, dates. */
export const isExpired = (expiresOn: Day, today: Day): boolean => expiresOn < today
