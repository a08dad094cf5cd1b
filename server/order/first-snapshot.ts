import type { Day } from '#core/base/day'
import type { OrderSums } from '#core/order/order-sums'
import type { Organisation } from '../settings/reads'
import type { OrderRow } from './reads'
import { agreementOnPaper, conditionsOnPaper, addedOnPaper, type OrderSnapshot } from './snapshot'

/** An order as it is sent first. */
export const firstSnapshot = (
  order: OrderRow,
  of: {
    readonly number: string
    readonly today: Day
    readonly organisation: Organisation
    /** Room, attention, telephone and instructions of the delivery. */
    readonly details: readonly string[]
    readonly note: string
    readonly lines: OrderSnapshot['lines']
    readonly of: Pick<OrderSums, 'sums' | 'freight' | 'freightTax' | 'adjustments'>
  },
): OrderSnapshot => ({
  ...{ number: of.number, revision: 0, issuedOn: of.today },
  organisation: {
    ...{ name: of.organisation.name, address: of.organisation.address, letterhead: of.organisation.letterhead },
  },
  supplier: {
    ...{ number: order.supplierNumber, name: order.supplier, address: order.supplierAddress },
    email: order.supplierEmail ?? '',
  },
  shipTo: { name: order.shipTo, address: order.shipToAddress, details: of.details },
  ...{ replyTo: of.organisation.mailFrom, language: order.supplierLanguage, buyer: order.buyer },
  terms: { kind: order.termsKind, days: order.termsDays },
  ...conditionsOnPaper(order),
  ...agreementOnPaper(order),
  ...{ currency: order.currency, note: of.note, lines: of.lines },
  ...addedOnPaper(of.of),
  ...{ net: of.of.sums.net.amount, total: of.of.sums.total.amount },
  taxes: of.of.sums.byTax.map((t) => ({
    ...{ category: t.category, rate: t.rate, taxable: t.taxable.amount, tax: t.tax.amount },
  })),
})
