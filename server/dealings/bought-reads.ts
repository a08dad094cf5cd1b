import { sql } from 'drizzle-orm'
import type { DecimalText } from '#core/base/decimal'
import type { Day } from '#core/base/day'
import type { Tx } from '../db/client'
import { UTC } from '../db/moments'
import { named, read } from '../db/read'
import { document } from '../db/schema/document'
import { orderLine, purchaseOrder } from '../db/schema/order'

const o = named(purchaseOrder, 'o')
const d = named(document, 'd')
const ol = named(orderLine, 'ol')

/** What is called off counts as its blanket order does. */
const ISSUED = sql`${d.state} in ('issued', 'acknowledged') and ${o.blanketId} is null`
const DAY = sql<Day>`to_char(${d.sentAt}, 'YYYY-MM-DD')`

/** What was ordered of a supplier, by calendar year and currency; net of lines and freight. */
export function sumByYear(
  tx: Tx,
  supplierId: string,
): Promise<{ year: number; currency: string; orders: number; net: DecimalText }[]> {
  return read(
    tx,
    {
      year: sql<number>`extract(year from ${d.sentAt})::int`,
      currency: o.currency,
      orders: sql<number>`count(*)::int`,
      net: sql<DecimalText>`sum(${o.net})::text`,
    },
    sql`from ${o} join ${d} on ${d.id} = ${o.id} where ${o.supplierId} = ${supplierId} and ${ISSUED}
      group by 1, 2 order by 1 desc, 2`,
  )
}

/** What was ordered of a supplier most, with the price that was paid last. */
export function listMostBought(
  tx: Tx,
  supplierId: string,
  most: number,
): Promise<
  {
    itemId: string | null
    name: string
    unit: string
    quantity: DecimalText
    times: number
    lastPrice: DecimalText
    priceBase: DecimalText
    currency: string
    lastDay: Day
  }[]
> {
  return read(
    tx,
    {
      itemId: sql<string | null>`max(${ol.itemId}::text)`,
      name: sql<string>`(array_agg(${ol.description} order by ${d.sentAt} desc))[1]`,
      unit: ol.unit,
      quantity: sql<DecimalText>`sum(${ol.quantity})::text`,
      times: sql<number>`count(*)::int`,
      lastPrice: sql<DecimalText>`(array_agg(${ol.unitPrice}::text order by ${d.sentAt} desc))[1]`,
      priceBase: sql<DecimalText>`(array_agg(${ol.priceBase}::text order by ${d.sentAt} desc))[1]`,
      currency: o.currency,
      lastDay: sql<Day>`to_char(max(${d.sentAt}), 'YYYY-MM-DD')`,
    },
    sql`from ${ol} join ${o} on ${o.id} = ${ol.orderId} join ${d} on ${d.id} = ${o.id}
      where ${o.supplierId} = ${supplierId} and ${ISSUED} and ${ol.quantity} > 0
      group by coalesce(${ol.itemId}::text, lower(${ol.description})), ${ol.unit}, ${o.currency}
      order by count(*) desc, sum(${ol.net}) desc limit ${most}`,
  )
}

/** The last orders to a supplier. */
export function listLastOrders(
  tx: Tx,
  supplierId: string,
  most: number,
): Promise<{ id: string; number: string | null; day: Day; net: DecimalText | null; currency: string }[]> {
  return read(
    tx,
    { id: o.id, number: d.number, day: DAY, net: o.net, currency: o.currency },
    sql`from ${o} join ${d} on ${d.id} = ${o.id} where ${o.supplierId} = ${supplierId} and ${ISSUED}
      order by ${UTC(d.sentAt)} desc limit ${most}`,
  )
}
