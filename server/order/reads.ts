import { sql } from 'drizzle-orm'
import type { DecimalText } from '#core/base/decimal'
import type { OrderState } from '#core/order/moves'
import type { Tx } from '../db/client'
import { row, rows } from '../db/rows'
import type { DocumentHead } from '../document/kind'
import { lockDocument } from '../document/store'
import { ORDERS } from './visible'

/** An order with its supplier and ship-to; its owner is its buyer. */
export interface OrderRow extends DocumentHead {
  kind: 'order'
  state: OrderState
  buyer: string
  supplierId: string
  supplier: string
  supplierEmail: string | null
  supplierChannel: string
  supplierStanding: string
  supplierAddress: string
  supplierNumber: string
  freight: DecimalText | null
  freightFreeFrom: DecimalText | null
  shipToId: string
  shipTo: string
  shipToAddress: string
  currency: string
  termsKind: 'net' | 'month-end'
  termsDays: number
  note: string
  revision: number
  net: DecimalText | null
  tax: DecimalText | null
  issuedAt: string | null
}

const ORDER = sql`
  select o.id, o.kind, o.number, o.title, o.version, o.state, o.owner_id as "ownerId", b.name as buyer,
    o.supplier_id as "supplierId", s.name as supplier,
    s.email as "supplierEmail", s.channel as "supplierChannel", s.standing as "supplierStanding",
      s.address as "supplierAddress", s.number as "supplierNumber",
    s.freight, s.freight_free_from as "freightFreeFrom", o.ship_to_id as "shipToId", t.name as "shipTo",
    t.street || ', ' || t.postcode || ' ' || t.town || ', ' || t.country as "shipToAddress", o.currency,
      o.terms_kind as "termsKind",
    o.terms_days as "termsDays", o.note, o.revision, o.net, o.tax,
    to_char(o.sent_at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"') as "issuedAt"
  from ${ORDERS} o join supplier s on s.id = o.supplier_id join person b on b.id = o.owner_id
    join ship_to t on t.id = o.ship_to_id`

/** An order with its supplier and ship-to; `lock` takes its row. */
export async function findOrder(tx: Tx, id: string, lock = false): Promise<OrderRow | null> {
  if (lock) await lockDocument(tx, id)
  return row<OrderRow>(tx, sql`${ORDER} where o.id = ${id}`)
}

/** The trays of a buyer, oldest first. */
export function listTrays(tx: Tx, buyerId: string): Promise<OrderRow[]> {
  return rows<OrderRow>(
    tx,
    sql`${ORDER} where o.owner_id = ${buyerId} and o.state = 'draft' order by o.created_at, o.id`,
  )
}

/** Requisitions that an order serves. */
export async function listServed(tx: Tx, orderId: string): Promise<string[]> {
  const found = await rows<{ id: string }>(
    tx,
    sql`
    select distinct l.requisition_id as id from requisition_line l where l.id in (
      select x.requisition_line_id from order_line_source x join order_line o on o.id = x.order_line_id
        where o.order_id = ${orderId}
      union select requisition_line_id from tray_part where order_id = ${orderId}) order by 1`,
  )
  return found.map((f) => f.id)
}
