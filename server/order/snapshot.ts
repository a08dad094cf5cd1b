import type { DecimalText } from '#core/base/decimal'
import type { TaxKey } from '#core/base/document-sums'
import { isZero } from '#core/base/money'
import type { OrderConditions } from '#core/order/conditions'
import type { OrderDifference, OrderStand } from '#core/order/compare'
import type { OrderSums } from '#core/order/order-sums'
import type { MessageAdjustment, MessageAllowance } from '#core/order/message'
import type { Language } from '#core/supplier/language'

/** An order as it stood when it was sent: all that its PDF shows, so that it can be made again alike. */
export interface OrderSnapshot {
  readonly number: string
  readonly revision: number
  readonly issuedOn: string
  /** Papers sent before there was a letterhead have none. */
  readonly organisation: { readonly name: string; readonly address: string; readonly letterhead?: string }
  readonly supplier: {
    readonly number: string
    readonly name: string
    readonly address: string
    readonly email: string
  }
  /** In which it is written; orders sent before it was asked for are in English. */
  readonly language?: Language
  /** Where whoever answers it writes to. */
  readonly replyTo?: string
  readonly shipTo: { readonly name: string; readonly address: string; readonly details: readonly string[] }
  readonly buyer: string
  readonly terms: { readonly kind: 'net' | 'month-end'; readonly days: number }
  /** What of its conditions was said. */
  readonly delivery?: NonNullable<OrderConditions['delivery']>
  readonly expiresOn?: string
  /** The number under which it was placed elsewhere already. */
  readonly placedAs?: string
  /** It is called off a part at a time; or it is such a part, of a blanket order with a number. */
  readonly isBlanket?: boolean
  readonly calledFrom?: string
  /** The number of the agreement on which it draws, the supplier's own where it is known. */
  readonly agreement?: string
  readonly currency: string
  readonly note: string
  readonly lines: readonly {
    readonly description: string
    /**
     * Second description, what is taken off, and notes to the supplier, a line each; orders sent before these existed
     * have none.
     */
    readonly more?: readonly string[]
    readonly supplierPart: string | null
    readonly quantity: DecimalText
    readonly unit: string
    readonly unitPrice: DecimalText
    readonly priceBase: DecimalText
    readonly needBy: string
    readonly net: DecimalText
    /** What `more` is made of, and the tax; orders sent before they were kept by themselves have none. */
    readonly secondDescription?: string
    readonly notes?: readonly string[]
    readonly allowances?: readonly MessageAllowance[]
    readonly tax?: TaxKey
  }[]
  /** Orders sent before it was asked for have none. */
  readonly freight?: DecimalText
  readonly freightTax?: TaxKey
  /** What is put on the whole of it, or taken off. */
  readonly adjustments?: readonly MessageAdjustment[]
  readonly net: DecimalText
  readonly taxes: readonly {
    readonly category: string
    readonly rate: DecimalText
    readonly taxable: DecimalText
    readonly tax: DecimalText
  }[]
  readonly total: DecimalText
  /** Of a later revision: the day of it, what the supplier is told with it, and what it says otherwise than before. */
  readonly changedOn?: string
  readonly isCancelled?: boolean
  readonly changeNote?: string
  readonly differences?: readonly OrderDifference[]
}

/** A sent state as it is compared with another. */
export const standOf = (s: OrderSnapshot): OrderStand => ({
  lines: s.lines,
  ...{ shipTo: s.shipTo.name, expiresOn: s.expiresOn ?? null },
  freight: s.freight ?? '0',
  adjustments: s.adjustments ?? [],
  net: s.net,
  currency: s.currency,
})

/** What of a sent state is its freight, and what else is put on it or taken off it, if there is any. */
export const addedOnPaper = ({
  freight,
  freightTax: tax,
  adjustments,
}: Pick<OrderSums, 'freight' | 'freightTax' | 'adjustments'>): Pick<
  OrderSnapshot,
  'freight' | 'freightTax' | 'adjustments'
> => ({
  ...(isZero(freight) ? {} : { freight: freight.amount, ...(tax === null ? {} : { freightTax: tax }) }),
  ...(adjustments.length === 0
    ? {}
    : {
        adjustments: adjustments.map(({ kind, name, percent, base, amount, tax: key }) => ({
          ...{ kind, name, percent, of: base.amount, amount: amount.amount, tax: key },
        })),
      }),
})

/** What of a sent state are conditions that were said, and what sort of order it is. */
export const conditionsOnPaper = ({
  delivery,
  expiresOn,
  placedAs,
  isBlanket,
  blanket,
}: Pick<OrderConditions, 'delivery' | 'expiresOn' | 'placedAs' | 'isBlanket'> & {
  readonly blanket: string | null
}): Pick<OrderSnapshot, 'delivery' | 'expiresOn' | 'placedAs' | 'isBlanket' | 'calledFrom'> => ({
  ...(delivery === null ? {} : { delivery }),
  ...(expiresOn === null ? {} : { expiresOn }),
  ...(placedAs === null ? {} : { placedAs }),
  ...(isBlanket ? { isBlanket } : {}),
  ...(blanket === null ? {} : { calledFrom: blanket }),
})

/** What of a sent state is the agreement on which it draws, if it does. */
export const agreementOnPaper = (order: {
  readonly agreement: string | null
  readonly theirAgreement: string | null
}): Pick<OrderSnapshot, 'agreement'> =>
  order.agreement === null ? {} : { agreement: order.theirAgreement ?? order.agreement }

/** What a sent state is kept as, without what its file ends in: a later revision does not write over the first. */
export const sentName = ({ number, revision }: { readonly number: string; readonly revision: number }): string =>
  revision === 0 ? number : `${number}-revision-${revision}`
