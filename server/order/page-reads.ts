import { sql, type SQL } from 'drizzle-orm'
import type { DecimalText } from '#core/base/decimal'
import type { OrderHead } from '#shared/contract/order'
import type { Tx } from '../db/client'
import { UTC } from '../db/moments'
import { row, rows } from '../db/rows'
import { visible, type Reader } from '../document/visible'
import { REQUISITIONS, SEEN_REQUISITIONS } from '../requisition/visible'
import { ORDERS, seesWhole, SEEN_ORDERS } from './visible'

export interface OrderLineRow {
  id: string
  position: number
  itemId: string | null
  description: string
  secondDescription: string
  note: string
  discountPercent: DecimalText | null
  discountAmount: DecimalText | null
  supplierPart: string | null
  quantity: DecimalText
  unit: string
  unitPrice: DecimalText
  priceBase: DecimalText
  taxCode: string
  taxRate: DecimalText
  needBy: string
  net: DecimalText
  sources: { requisitionId: string; number: string; quantity: DecimalText }[]
}
export function listOrderLines(tx: Tx, orderId: string): Promise<OrderLineRow[]> {
  return rows<OrderLineRow>(
    tx,
    sql`
    select l.id, l.position, l.item_id as "itemId", l.description, l.second_description as "secondDescription",
      l.note, l.discount_percent as "discountPercent",
      l.discount_amount as "discountAmount", l.supplier_part as "supplierPart", l.quantity, l.unit,
      l.unit_price as "unitPrice", l.price_base as "priceBase", l.tax_code as "taxCode", l.tax_rate as "taxRate",
        l.need_by::text as "needBy", l.net,
      (select json_agg(json_build_object('requisitionId', r.id, 'number', r.number, 'quantity',
        trim_scale(x.quantity)::text) order by r.number)
       from order_line_source x join requisition_line q on q.id = x.requisition_line_id
         join ${REQUISITIONS} r on r.id = q.requisition_id
       where x.order_line_id = l.id) as sources
    from order_line l where l.order_id = ${orderId} order by l.position`,
  )
}

/** The requisitions `r` that an order serves and a person may know of: all where they see the order whole. */
const servedTo = (orderId: string, reader: Reader): SQL => sql`
  select distinct q.requisition_id from order_line ol join order_line_source x on x.order_line_id = ol.id
    join requisition_line q on q.id = x.requisition_line_id join ${REQUISITIONS} r on r.id = q.requisition_id
  where ol.order_id = ${orderId}
    and (exists (select 1 from ${ORDERS} o where o.id = ${orderId} and ${seesWhole(reader.actor)})
      or ${visible(SEEN_REQUISITIONS, reader)})`

/**
 * What colleagues wrote for colleagues alone on the requisitions that an order serves, as far as the reader sees
 * these.
 */
export function listInternalNotes(
  tx: Tx,
  orderId: string,
  reader: Reader,
): Promise<{ number: string; note: string }[]> {
  return rows(
    tx,
    sql`
    with seen as (${servedTo(orderId, reader)})
    select r.number, r.note_internal as note, 0 as at from ${REQUISITIONS} r
    where r.id in (select requisition_id from seen) and r.note_internal <> ''
    union all
    select r.number, q.description || ': ' || q.note_internal, q.position + 1
    from order_line ol join order_line_source x on x.order_line_id = ol.id
      join requisition_line q on q.id = x.requisition_line_id join ${REQUISITIONS} r on r.id = q.requisition_id
    where ol.order_id = ${orderId} and q.requisition_id in (select requisition_id from seen) and q.note_internal <> ''
    order by 1, 3`,
  )
}

export interface DeliveryRow {
  shipToDetail: string
  attention: string
  telephone: string
  instructions: string
}

/** What was asked of the delivery by the requisitions that an order serves, as far as the reader sees these. */
export function listDeliveries(tx: Tx, orderId: string, reader: Reader): Promise<DeliveryRow[]> {
  return rows<DeliveryRow>(
    tx,
    sql`
    select r.ship_to_detail as "shipToDetail", r.attention, r.telephone, r.instructions from ${REQUISITIONS} r
    where r.id in (${servedTo(orderId, reader)}) order by r.number`,
  )
}

/** Whether a person sees an order whole, or at least every requisition that it serves. */
export async function seesAllOf(tx: Tx, orderId: string, reader: Reader): Promise<boolean> {
  const found = await row<{ all: boolean }>(
    tx,
    sql`
    select not exists (
      select 1 from order_line ol join order_line_source x on x.order_line_id = ol.id
        join requisition_line q on q.id = x.requisition_line_id
      where ol.order_id = ${orderId} and q.requisition_id not in (${servedTo(orderId, reader)})) as all`,
  )
  return found?.all ?? false
}

/** Issued orders that a person sees, newest first; a page after the key of the one before. */
export async function listOrderPage(
  tx: Tx,
  reader: Reader,
  after: { readonly moment: string; readonly id: string } | null,
  limit: number,
): Promise<{ orders: OrderHead[]; next: string | null }> {
  const from = after === null ? sql`` : sql`and (o.sent_at, o.id) < (${after.moment}::timestamptz, ${after.id}::uuid)`
  const found = await rows<OrderHead & { key: string }>(
    tx,
    sql`
    select o.id, o.number, o.state, o.title as supplier, b.name as buyer, o.currency, o.net::text as net,
      ${UTC('o.sent_at')} as "issuedAt",
      coalesce((select g.outcome = 'sent' from order_sending g
        where g.order_id = o.id and g.revision = o.revision order by g.laid_at limit 1), false) as mailed,
      to_char(o.sent_at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.US"Z"') || '_' || o.id as key
    from ${ORDERS} o join person b on b.id = o.owner_id
    where o.kind = 'order' and o.sent_at is not null and ${visible(SEEN_ORDERS, reader)} ${from}
    order by o.sent_at desc, o.id desc limit ${limit + 1}`,
  )
  const page = found.slice(0, limit)
  return { orders: page.map(({ key: _, ...o }) => o), next: found.length > limit ? (page.at(-1)?.key ?? null) : null }
}
