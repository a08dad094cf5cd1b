import { dec, type DecimalText } from '#core/base/decimal'
import { moneyOf, subtract, sum } from '#core/base/money'
import type { MessageAdjustment, MessageLine, OrderMessage } from '#core/order/message'
import type { OrderSnapshot } from './snapshot'

/** A sent state of an order as the message that it is, whatever the format it goes out in. */
export function messageOf(s: OrderSnapshot): OrderMessage {
  const kind = s.revision === 0 ? 'order' : s.isCancelled === true ? 'cancellation' : 'change'
  const { currency, freight, adjustments = [] } = s
  const total = (of: readonly DecimalText[]) =>
    sum(
      of.map((amount) => moneyOf(amount, currency)),
      currency,
    ).amount
  const amounts = (kind: MessageAdjustment['kind']) => adjustments.filter((a) => a.kind === kind).map((a) => a.amount)
  const tax = subtract(moneyOf(s.total, currency), moneyOf(s.net, currency)).amount
  const touched = new Set((s.differences ?? []).flatMap((d) => ('line' in d ? [d.line] : [])))
  // Before a line kept its tax, an order with one tax alone says it for all.
  const [only, ...others] = s.taxes
  const theTax = only === undefined || others.length > 0 ? null : { category: only.category, rate: only.rate }
  return {
    sort: s.calledFrom !== undefined ? 'call-off' : s.isBlanket === true ? 'blanket order' : 'order',
    calledFrom: s.calledFrom ?? null,
    ...{ kind, number: s.number, revision: s.revision, currency },
    ...{ day: s.changedOn ?? s.issuedOn, orderDay: s.issuedOn },
    note: s.revision === 0 ? s.note : [s.changeNote ?? '', s.note].filter((n) => n !== '').join('\n'),
    buyer: {
      ...{ number: '', name: s.organisation.name, address: s.organisation.address },
      contact: { name: s.buyer, email: s.replyTo ?? '' },
    },
    seller: {
      ...{ number: s.supplier.number, name: s.supplier.name, address: s.supplier.address },
      contact: { name: '', email: s.supplier.email },
    },
    ...{ deliverTo: s.shipTo, terms: s.terms, agreement: s.agreement ?? null },
    ...{ delivery: s.delivery ?? null, expiresOn: s.expiresOn ?? null, placedAs: s.placedAs ?? null },
    lines: s.lines.map((l, i): MessageLine => {
      const isOff = dec(l.quantity).isZero()
      return {
        number: String(i + 1),
        status: isOff ? 'cancelled' : touched.has(i + 1) ? 'changed' : 'as before',
        ...{ name: l.description, description: l.secondDescription ?? '', note: (l.notes ?? []).join('\n') },
        ...{ sellersItem: l.supplierPart, quantity: l.quantity, unit: l.unit, unitPrice: l.unitPrice },
        ...{ priceBase: l.priceBase, allowances: l.allowances ?? [], net: l.net, tax: l.tax ?? theTax },
        needBy: l.needBy,
      }
    }),
    freight: freight === undefined ? null : { amount: freight, tax: s.freightTax ?? theTax },
    adjustments,
    sums: {
      lines: total(s.lines.map((l) => l.net)),
      ...{ allowances: total(amounts('discount')), charges: total([...amounts('charge'), freight ?? '0']) },
      ...{ net: s.net, tax, total: s.total },
    },
    taxes: s.taxes,
  }
}
