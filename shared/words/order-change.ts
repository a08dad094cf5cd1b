import { dec, type DecimalText } from '#core/base/decimal'
import type { Money } from '#core/base/money'
import type { ChangeReason, Rest } from '#core/order/change'
import type { ChangeState } from '#core/order/change-moves'
import type { AdjustmentValue, OrderDifference } from '#core/order/compare'
import { sayAdjustmentReason } from './adjustment'
import { sayAfterTheEnd, sayBeyond, sayMuch } from './call-off'
import { sayIssueReason } from './order'
import type { Ways } from './ways'

/** How a change of an order stands, after “is”. */
export function sayChangeState(state: ChangeState): string {
  switch (state) {
    case 'draft':
      return 'with its buyer'
    case 'in approval':
      return 'with whoever decides on it'
    case 'approved':
      return 'approved already'
    case 'in force':
      return 'in force already'
    case 'cancelled':
      return 'thrown away'
  }
}

/** The sentence for what stands in the way of a change of an order. */
export function sayChangeReason(r: ChangeReason, ways: Ways): string {
  switch (r.code) {
    case 'change-waits':
      return 'Another change of this order waits to be decided on; take it back first.'
    case 'nothing-changes':
      return 'Nothing of it is changed yet.'
    case 'line-is-off':
      return `“${r.description}” was taken off this order; order it anew.`
    case 'day-is-past':
      return `The day by which “${r.description}” is needed lies in the past.`
    case 'more-than-asked':
      return `Of “${r.description}” ${ways.quantity(r.most, r.unit)} can be ordered: no more was asked for.`
    case 'below-done':
      return `Of “${r.description}” ${ways.quantity(r.done, r.unit)} came already.`
    case 'end-is-past':
      return `${ways.date(r.on, '')} lies in the past: it cannot end then.`
    case 'below-called-off':
      return (
        `Of “${r.description}” ${sayMuch(r.called, r.unit, r.currency, ways)} are called off already: ` +
        'cancel what was called off first, or leave that much.'
      )
    case 'beyond-blanket':
      return sayBeyond(r, ways)
    case 'after-the-end':
      return sayAfterTheEnd(r, ways)
    case 'adjustments-of-blanket':
      return 'What is taken off a call-off, or put on it, is what its blanket order says.'
    case 'adjustment-unnamed':
    case 'adjustment-twice':
    case 'adjustment-nothing':
    case 'adjustment-above-all':
    case 'adjustment-too-fine':
      return sayAdjustmentReason(r)
    case 'price-of-blanket':
      return `“${r.description}” costs what its blanket order says; change the price there.`
    case 'order-state':
      return `This order is ${r.state}; it cannot be changed any more.`
    default:
      return sayIssueReason(r, ways)
  }
}

/** What is otherwise between two states of an order: "Pump seal: 3 pieces instead of 10". */
export function sayDifference(d: OrderDifference, ways: Ways): string {
  switch (d.what) {
    case 'quantity':
      return dec(d.is).isZero()
        ? `${d.description}: not ordered any more (${ways.quantity(d.was, d.unit)} before)`
        : `${d.description}: ${ways.quantity(d.is, d.unit)} instead of ${ways.quantity(d.was, d.unit)}`
    case 'price':
      return `${d.description}: at ${ways.price(d.is, d.currency)} instead of ${ways.price(d.was, d.currency)}`
    case 'day':
      return `${d.description}: needed ${ways.day(d.is, '')} instead of ${ways.day(d.was, '')}`
    case 'ship-to':
      return `to be delivered to ${d.is} instead of ${d.was}`
    case 'end': {
      const before = d.was === null ? '' : ` instead of ${ways.date(d.was, '')}`
      return `it ends on ${ways.date(d.is, '')}${before}`
    }
    case 'adjustment':
      return `${d.name}: ${sayValue(d, d.is, ways)} instead of ${sayValue(d, d.was, ways)}`
    case 'freight':
      return `freight: ${freight(d.is, d.currency, ways)} instead of ${freight(d.was, d.currency, ways)}`
  }
}

/** "−5 %" of what is taken off, "6.00" of what is put on. */
export function sayValue(
  { kind, currency }: Pick<Extract<OrderDifference, { what: 'adjustment' }>, 'kind' | 'currency'>,
  value: AdjustmentValue | null,
  ways: Ways,
  none = 'nothing',
): string {
  if (value === null) return none
  const signed = (of: DecimalText) => (kind === 'discount' ? dec(of).negated().toFixed() : of)
  return value.percent === null ? ways.kept(signed(value.amount), currency) : `${ways.decimal(signed(value.percent))} %`
}

const freight = (amount: DecimalText, currency: string, ways: Ways): string =>
  dec(amount).isZero() ? 'none' : ways.kept(amount, currency)

/** What a change of an order brings with it. */
export type Consequence =
  | {
      readonly code: 'was-sent'
      readonly supplier: string
      readonly to: string | null
      /** The moment; null while it is on its way. */
      readonly at: string | null
    }
  | {
      readonly code: 'ordered-less'
      readonly number: string
      readonly description: string
      readonly quantity: DecimalText
      readonly unit: string
      readonly rest: Rest
    }
  | { readonly code: 'budget-passed'; readonly name: string; readonly by: Money }

/** The sentence for what a change of an order brings with it. */
export function sayConsequence(c: Consequence, ways: Ways): string {
  switch (c.code) {
    case 'was-sent':
      return c.at === null
        ? `What was sent before is still on its way to ${c.supplier}.`
        : `${c.supplier} has the order: it went to ${c.to ?? 'them'}.`
    case 'ordered-less':
      return (
        `${ways.quantity(c.quantity, c.unit)} of “${c.description}” for ${c.number} ` +
        (c.rest === 'returns' ? 'wait on the Desk to be ordered again.' : 'are not ordered again.')
      )
    case 'budget-passed':
      return `${c.name} would be ${ways.money(c.by)} over.`
  }
}
