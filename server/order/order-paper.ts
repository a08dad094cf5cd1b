import { dec, type DecimalText } from '#core/base/decimal'
import { moneyOf, negate, sum } from '#core/base/money'
import type { OrderDifference } from '#core/order/compare'
import { ORDER_PAPER, type OrderPaperWords } from '#shared/words/order-paper'
import { OUTWARD_IN, type Ways } from '#shared/words/ways'
import {
  aside,
  code,
  head,
  labelled,
  sender,
  space,
  title,
  WIDTH,
  words,
  type Block,
  type Labelled,
  type Paper,
  type SumRow,
} from '../files/paper'
import type { OrderSnapshot } from './snapshot'

/** A paper's words, and its numbers and dates, in its supplier's language. */
interface Said {
  readonly say: OrderPaperWords
  readonly ways: Ways
}

/** An order on paper, as it was sent, in its supplier's language; `page` is where its receiver finds it. */
export function paperOfOrder(order: OrderSnapshot, page: string): Paper {
  const { language = 'en' } = order
  const said: Said = { say: ORDER_PAPER[language], ways: OUTWARD_IN[language] }
  const { say, ways } = said
  const { letterhead = '' } = order.organisation
  const { isCancelled = false, differences = [], changeNote = '' } = order
  const revision = order.revision === 0 ? '' : say.revision(order.revision)
  const called = isCancelled ? say.cancellation(order.number) : `${sortOf(order, say)(order.number)}${revision}`
  const notes = isCancelled ? [] : toKnowFirst(order, said)
  const sentOn = ways.date(order.changedOn ?? order.issuedOn, '')
  return {
    title: called,
    language,
    author: order.organisation.name,
    foot: `${order.number}${revision}`,
    numbering: say.page,
    at: new Date(`${order.changedOn ?? order.issuedOn}T12:00:00Z`),
    blocks: [
      sender(order.organisation.name),
      ...(letterhead === ''
        ? [aside(order.organisation.address, 9, 20)]
        : [aside(order.organisation.address, 9, 2), aside(letterhead, 9, 20)]),
      title(called),
      aside(
        `${sentOn} · ${order.revision === 0 ? say.quoteIt : say.replaces(ways.date(order.issuedOn, ''))}`,
        10,
        notes.length === 0 ? 18 : 2,
      ),
      ...notes.map((note, i) => words(note, i === notes.length - 1 ? 18 : 2)),
      ...(order.revision === 0 ? [] : changedBlocks(isCancelled, differences, changeNote, said)),
      {
        is: 'sides',
        left: [
          labelled(say.to, `${order.supplier.name}\n${order.supplier.address}\n${order.supplier.email}`),
          labelled(say.terms, say.paid(order.terms)),
          ...(order.agreement === undefined ? [] : [labelled(say.agreement, order.agreement)]),
        ],
        right: [
          labelled(say.deliverTo, [order.shipTo.name, order.shipTo.address, ...order.shipTo.details].join('\n')),
          ...deliveryOf(order, said),
          labelled(say.buyer, order.buyer),
        ],
      },
      space(10),
      linesOf(order, said),
      space(8),
      { is: 'sums', rows: sumsOf(order, said) },
      ...(order.note === '' ? [] : [space(14), words(order.note)]),
      space(18),
      code(page, say.atArrival),
    ],
  }
}

/** What it is called, by which sort of order it is. */
const sortOf = (order: OrderSnapshot, say: OrderPaperWords): ((number: string) => string) =>
  order.calledFrom !== undefined ? say.callOff : order.isBlanket === true ? say.blanketOrder : say.order

/** What whoever receives it has to know before its lines. */
function toKnowFirst(order: OrderSnapshot, { say, ways }: Said): string[] {
  const { placedAs, isBlanket = false, expiresOn, calledFrom } = order
  return [
    ...(placedAs === undefined ? [] : [say.confirms(placedAs)]),
    ...(isBlanket && expiresOn !== undefined ? [say.isCalledOff(ways.date(expiresOn, ''))] : []),
    ...(calledFrom === undefined ? [] : [say.calledFrom(calledFrom)]),
  ]
}

/** By which term of delivery, and until when, where that was said. */
function deliveryOf({ delivery, expiresOn, isBlanket }: OrderSnapshot, { say, ways }: Said): Labelled[] {
  const parts = [
    ...(delivery === undefined ? [] : [`${delivery.term} ${delivery.place}`]),
    ...(expiresOn === undefined || isBlanket === true ? [] : [say.until(ways.date(expiresOn, ''))]),
  ]
  return parts.length === 0 ? [] : [labelled(say.delivered, parts.join('\n'))]
}

/** What the supplier has to know first of a later revision. */
function changedBlocks(
  isCancelled: boolean,
  differences: readonly OrderDifference[],
  note: string,
  { say }: Said,
): Block[] {
  const changes = isCancelled ? [say.nothingMore] : differences.map(say.difference)
  return [
    head(isCancelled ? say.isCancelled : say.hasChanged),
    ...changes.map((s) => words(s)),
    ...(note === '' ? [] : [space(4), words(note)]),
    space(14),
  ]
}

const linesOf = (order: OrderSnapshot, { say, ways }: Said): Block => ({
  is: 'table',
  columns: [
    { name: say.what, x: 0, width: 225, align: 'left' },
    { name: say.howMany, x: 225, width: 75, align: 'right' },
    { name: say.price, x: 300, width: 75, align: 'right' },
    { name: say.needed, x: 385, width: 45, align: 'left' },
    { name: `${say.amount}, ${order.currency}`, x: 430, width: WIDTH - 430, align: 'right' },
  ],
  rows: order.lines.map((line) => [
    [line.description, ...(line.supplierPart === null ? [] : [line.supplierPart]), ...(line.more ?? [])].join('\n'),
    dec(line.quantity).isZero() ? say.cancelled : ways.quantity(line.quantity, line.unit),
    `${ways.price(line.unitPrice, order.currency)}${line.priceBase === '1' ? '' : ` ${say.per(line.priceBase)}`}`,
    order.isBlanket === true ? say.whenCalled : ways.tinyDate(line.needBy),
    ways.kept(line.net, order.currency),
  ]),
})

const sumsOf = (order: OrderSnapshot, said: Said): SumRow[] => {
  const { say, ways } = said
  return [
    ...partRows(order, said),
    [say.withoutTax, ways.kept(order.net, order.currency), 'text'],
    ...order.taxes.map((t): SumRow => [
      say.tax(ways.price(t.rate, 'JPY'), ways.kept(t.taxable, order.currency)),
      ways.kept(t.tax, order.currency),
      'text',
    ]),
    [say.total, `${order.currency} ${ways.kept(order.total, order.currency)}`, 'bold'],
  ]
}

/** What the goods come to, what is taken off or put on, and what bringing them costs, above the sum of all. */
function partRows(order: OrderSnapshot, { say, ways }: Said): SumRow[] {
  const { currency, freight, adjustments = [] } = order
  if (freight === undefined && adjustments.length === 0) return []
  const goods = sum(
    order.lines.map((l) => moneyOf(l.net, currency)),
    currency,
  )
  const kept = (amount: DecimalText) => ways.kept(amount, currency)
  return [
    [say.goods, kept(goods.amount), 'text'],
    ...adjustments.map((a): SumRow => [
      a.percent === null ? a.name : `${a.name}, ${say.percentOf(ways.decimal(a.percent), kept(a.of))}`,
      kept(a.kind === 'discount' ? negate(moneyOf(a.amount, currency)).amount : a.amount),
      'text',
    ]),
    ...(freight === undefined ? [] : [[say.freight, kept(freight), 'text'] satisfies SumRow]),
  ]
}
