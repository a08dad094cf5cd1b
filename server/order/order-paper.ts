import type { DecimalText } from '#core/base/decimal'
import { moneyOf, subtract } from '#core/base/money'
import { OUTWARD } from '#shared/words/ways'
import { sayTerms } from '#shared/words/terms'
import {
  aside,
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
  return {
    title: `Purchase order ${order.number}`,
    author: order.organisation.name,
    foot: order.number,
    at: new Date(`${order.issuedOn}T12:00:00Z`),
    blocks: [
      sender(order.organisation.name),
      ...(letterhead === ''
        ? [aside(order.organisation.address, 9, 20)]
        : [aside(order.organisation.address, 9, 2), aside(letterhead, 9, 20)]),
      title(`Purchase order ${order.number}`),
      aside(`${OUTWARD.date(order.issuedOn, '')} · please quote this number on everything you send`, 10, 18),
      {
        is: 'sides',
        left: [
          labelled('To', `${order.supplier.name}\n${order.supplier.address}\n${order.supplier.email}`),
          labelled('Terms', sayTerms(order.terms)),
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
    OUTWARD.quantity(line.quantity, line.unit),
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
