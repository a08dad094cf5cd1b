import type { DecimalText } from '#core/base/decimal'
import { moneyOf, subtract } from '#core/base/money'
import { OUTWARD } from '#shared/words/ways'
import { sayTerms } from '#shared/words/terms'
import { INK, makePdf, MARGIN, SECOND, WIDTH, type Pen } from '../files/pdf'
import type { OrderSnapshot } from './snapshot'

/** Makes the PDF of an order as it was sent. `root` is where the packages lie. */
export function renderOrder(order: OrderSnapshot, root: string): Promise<Buffer> {
  const about = {
    title: `Purchase order ${order.number}`,
    author: order.organisation.name,
    foot: order.number,
    at: new Date(`${order.issuedOn}T12:00:00Z`),
    root,
  }
  return makePdf(about, (pen) => {
    drawOrder(pen, order)
  })
}

function drawOrder(pen: Pen, order: OrderSnapshot): void {
  pen.put('P', 'bold', 11, INK, order.organisation.name)
  pen.put('P', 'text', 9, SECOND, order.organisation.address, 20)
  pen.put('H1', 'title', 22, INK, `Purchase order ${order.number}`, 2)
  pen.put(
    'P',
    'text',
    10,
    SECOND,
    `${OUTWARD.date(order.issuedOn, '')} · please quote this number on everything you send`,
    18,
  )
  const half = WIDTH / 2 - 10
  const top = pen.y
  pen.labelled('To', `${order.supplier.name}\n${order.supplier.address}\n${order.supplier.email}`, MARGIN, half)
  pen.labelled('Terms', sayTerms(order.terms), MARGIN, half)
  const leftEnd = pen.y
  pen.y = top
  pen.labelled(
    'Deliver to',
    [order.shipTo.name, order.shipTo.address, ...order.shipTo.details].join('\n'),
    MARGIN + half + 20,
    half,
  )
  pen.labelled('Buyer', order.buyer, MARGIN + half + 20, half)
  pen.y = Math.max(pen.y, leftEnd) + 10
  pen.table(
    [
      { name: 'What', x: 0, width: 225, align: 'left' },
      { name: 'How many', x: 225, width: 75, align: 'right' },
      { name: 'Price', x: 300, width: 75, align: 'right' },
      { name: 'Needed', x: 385, width: 45, align: 'left' },
      { name: `Amount, ${order.currency}`, x: 430, width: WIDTH - 430, align: 'right' },
    ],
    order.lines.map((line) => [
      [line.description, ...(line.supplierPart === null ? [] : [line.supplierPart]), ...(line.more ?? [])].join('\n'),
      OUTWARD.quantity(line.quantity, line.unit),
      `${OUTWARD.price(line.unitPrice, order.currency)}${line.priceBase === '1' ? '' : ` per ${line.priceBase}`}`,
      OUTWARD.tinyDate(line.needBy),
      OUTWARD.kept(line.net, order.currency),
    ]),
  )
  pen.y += 8
  pen.sums([
    ...(order.freight === undefined ? [] : freightRows(order, order.freight)),
    ['Without tax', OUTWARD.kept(order.net, order.currency), 'text'],
    ...order.taxes.map(
      (t) =>
        [
          `Tax ${OUTWARD.price(t.rate, 'JPY')} % on ${OUTWARD.kept(t.taxable, order.currency)}`,
          OUTWARD.kept(t.tax, order.currency),
          'text',
        ] as const,
    ),
    ['Total', `${order.currency} ${OUTWARD.kept(order.total, order.currency)}`, 'bold'],
  ])
  if (order.note !== '') {
    pen.y += 14
    pen.put('P', 'text', 10, INK, order.note)
  }
}

/** What the goods come to and what bringing them costs, above the sum of both. */
function freightRows(order: OrderSnapshot, freight: DecimalText): (readonly [string, string, 'text'])[] {
  const goods = subtract(moneyOf(order.net, order.currency), moneyOf(freight, order.currency))
  return [
    ['Goods', OUTWARD.kept(goods.amount, order.currency), 'text'],
    ['Freight', OUTWARD.kept(freight, order.currency), 'text'],
  ]
}
