import type { DecimalText } from '#core/base/decimal'
import type { Day, PaymentTerms } from '#core/base/day'
import type { TaxKey } from '#core/base/document-sums'
import type { OrderConditions } from './conditions'

/** What an order document is: the order, a later revision of it, or its cancellation. */
export type MessageKind = 'order' | 'change' | 'cancellation'

/** Which sort of order it is: one that is delivered, one that is called off in parts, or such a part. */
export type MessageSort = 'order' | 'blanket order' | 'call-off'

export interface MessageParty {
  /** Its number with the other; "" where it has none. */
  readonly number: string
  readonly name: string
  readonly address: string
  readonly contact: { readonly name: string; readonly email: string }
}

/** What is taken off a line, as a percentage of its gross or as an amount. */
export interface MessageAllowance {
  readonly percent: DecimalText | null
  readonly amount: DecimalText
  /** What it is a percentage of. */
  readonly of: DecimalText
}

/** What is taken off the whole, or put on it, by one tax: as a percentage of the lines of that tax, or as an amount. */
export interface MessageAdjustment extends MessageAllowance {
  readonly kind: 'discount' | 'charge'
  readonly name: string
  readonly tax: TaxKey
}

export interface MessageLine {
  /** Its place on the order, from 1; a line keeps it through every revision. */
  readonly number: string
  /** Of a change: what became of it. */
  readonly status: 'as before' | 'changed' | 'cancelled'
  readonly name: string
  readonly description: string
  readonly note: string
  readonly sellersItem: string | null
  readonly quantity: DecimalText
  /** UN/ECE Recommendation 20. */
  readonly unit: string
  readonly unitPrice: DecimalText
  readonly priceBase: DecimalText
  readonly allowances: readonly MessageAllowance[]
  readonly net: DecimalText
  /** Null where nobody kept it. */
  readonly tax: TaxKey | null
  readonly needBy: Day
}

/**
 * An order document as every format says it, without any format in it: what is sent to a supplier as UBL, and later in
 * others, is written from this and read back to it. Amounts are in `currency`, with its minor units.
 */
export interface OrderMessage {
  readonly kind: MessageKind
  readonly sort: MessageSort
  /** The number of the blanket order of which this is a part; null of any other. */
  readonly calledFrom: string | null
  readonly number: string
  /** 0 for the order; then the number of the revision. */
  readonly revision: number
  /** The day of this message, and that of the order. */
  readonly day: Day
  readonly orderDay: Day
  readonly currency: string
  readonly note: string
  readonly buyer: MessageParty
  readonly seller: MessageParty
  readonly deliverTo: { readonly name: string; readonly address: string; readonly details: readonly string[] }
  readonly terms: PaymentTerms
  readonly delivery: OrderConditions['delivery']
  /** The last day on which it may be delivered; null: any. */
  readonly expiresOn: Day | null
  /** The number under which it was placed elsewhere already. */
  readonly placedAs: string | null
  /** The number of the framework agreement on which it draws; null: none. */
  readonly agreement: string | null
  readonly lines: readonly MessageLine[]
  /** Null where nothing is asked for bringing it. */
  readonly freight: { readonly amount: DecimalText; readonly tax: TaxKey | null } | null
  readonly adjustments: readonly MessageAdjustment[]
  readonly sums: {
    readonly lines: DecimalText
    /** What is taken off the whole; and put on it, freight included. */
    readonly allowances: DecimalText
    readonly charges: DecimalText
    readonly net: DecimalText
    readonly tax: DecimalText
    readonly total: DecimalText
  }
  readonly taxes: readonly (TaxKey & { readonly taxable: DecimalText; readonly tax: DecimalText })[]
}
