import { dec, type DecimalText } from '#core/base/decimal'
import { moneyOf, subtract } from '#core/base/money'
import type { OrderDifference } from '#core/order/compare'
import { sayDifference } from '#shared/words/order-change'
import { OUTWARD } from '#shared/words/ways'
import { sayTerms } from '#shared/words/terms'
import {
  aside,
  head,
  labelled,
  sender,
  space,
  title,
  WIDTH,
  words,
  type Block,
  type Paper,
  type SumRow,
} from '../files/paper'
import type { OrderSnapshot } from './snapshot'

/** An order on paper, as it was sent. */
export function paperOfOrder(order: OrderSnapshot): Paper {
  const { letterhead = '' } = order.organisation
  const { isCancelled = false, differences = [], changeNote = '' } = order
  const called = isCancelled
    ? `Cancellation of purchase order ${order.number}`
    : `Purchase order ${order.number}${order.revision === 0 ? '' : `, revision ${order.revision}`}`
  const sentOn = OUTWARD.date(order.changedOn ?? order.issuedOn, '')
  return {
    title: called,
    author: order.organisation.name,
    foot: order.revision === 0 ? order.number : `${order.number}, revision ${order.revision}`,
    at: new Date(`${order.changedOn ?? order.issuedOn}T12:00:00Z`),
    blocks: [
      sender(order.organisation.name),
      ...(letterhead === ''
        ? [aside(order.organisation.address, 9, 20)]
        : [aside(order.organisation.address, 9, 2), aside(letterhead, 9, 20)]),
      title(called),
      aside(
        order.revision === 0
          ? `${sentOn} · please quote this number on everything you send`
          : `${sentOn} · takes the place of what we sent before; first sent ${OUTWARD.date(order.issuedOn, '')}`,
        10,
        18,
      ),
      ...(order.revision === 0 ? [] : changedBlocks(isCancelled, differences, changeNote)),
      {
        is: 'sides',
        left: [
          labelled('To', `${order.supplier.name}\n${order.supplier.address}\n${order.supplier.email}`),
          labelled('Terms', sayTerms(order.terms)),
          ...(order.agreement === undefined ? [] : [labelled('Agreement', order.agreement)]),
        ],
        right: [
          labelled('Deliver to', [order.shipTo.name, order.shipTo.address, ...order.shipTo.details].join('\n')),
          labelled('Buyer', order.buyer),
        ],
      },
      space(10),
      linesOf(order),
      space(8),
      { is: 'sums', rows: sumsOf(order) },
      ...(order.note === '' ? [] : [space(14), words(order.note)]),
    ],
  }
}

/** What the supplier has to know first of a later revision. */
function changedBlocks(isCancelled: boolean, differences: readonly OrderDifference[], note: string): Block[] {
  const said = isCancelled
    ? ['Please deliver nothing of this order any more.']
    : differences.map((d) => sayDifference(d, OUTWARD))
  return [
    head(isCancelled ? 'It is cancelled' : 'What has changed'),
    ...said.map((s) => words(s)),
    ...(note === '' ? [] : [space(4), words(note)]),
    space(14),
  ]
}

const linesOf = (order: OrderSnapshot): Block => ({
  is: 'table',
  columns: [
    { name: 'What', x: 0, width: 225, align: 'left' },
    { name: 'How many', x: 225, width: 75, align: 'right' },
    { name: 'Price', x: 300, width: 75, align: 'right' },
    { name: 'Needed', x: 385, width: 45, align: 'left' },
    { name: `Amount, ${order.currency}`, x: 430, width: WIDTH - 430, align: 'right' },
  ],
  rows: order.lines.map((line) => [
    [line.description, ...(line.supplierPart === null ? [] : [line.supplierPart]), ...(line.more ?? [])].join('\n'),
    dec(line.quantity).isZero() ? 'cancelled' : OUTWARD.quantity(line.quantity, line.unit),
    `${OUTWARD.price(line.unitPrice, order.currency)}${line.priceBase === '1' ? '' : ` per ${line.priceBase}`}`,
    OUTWARD.tinyDate(line.needBy),
    OUTWARD.kept(line.net, order.currency),
  ]),
})

const sumsOf = (order: OrderSnapshot): SumRow[] => [
  ...(order.freight === undefined ? [] : freightRows(order, order.freight)),
  ['Without tax', OUTWARD.kept(order.net, order.currency), 'text'],
  ...order.taxes.map((t): SumRow => [
    `Tax ${OUTWARD.price(t.rate, 'JPY')} % on ${OUTWARD.kept(t.taxable, order.currency)}`,
    OUTWARD.kept(t.tax, order.currency),
    'text',
  ]),
  ['Total', `${order.currency} ${OUTWARD.kept(order.total, order.currency)}`, 'bold'],
]

/** What the goods come to and what bringing them costs, above the sum of both. */
function freightRows(order: OrderSnapshot, freight: DecimalText): SumRow[] {
  const goods = subtract(moneyOf(order.net, order.currency), moneyOf(freight, order.currency))
  return [
    ['Goods', OUTWARD.kept(goods.amount, order.currency), 'text'],
    ['Freight', OUTWARD.kept(freight, order.currency), 'text'],
  ]
}
