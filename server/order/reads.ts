import { sql } from 'drizzle-orm'
import { type DecimalText } from '#core/base/decimal'
import { type OrderState } from '#core/order/moves'
import { type LineDiscount } from '#core/requisition/draft'
import { type Tx } from '../db/client'
import { row, rows } from '../db/rows'
import { type OrderSnapshot } from './snapshot'

export interface OrderRow {
  id: string
  number: string | null
  version: number
  state: OrderState
  buyerId: string
  buyer: string
  supplierId: string
  supplier: string
  supplierEmail: string | null
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
  select o.id, o.number, o.version, o.state, o.buyer_id as "buyerId", b.name as buyer, o.supplier_id as "supplierId", s.name as supplier,
    s.email as "supplierEmail", s.standing as "supplierStanding", s.address as "supplierAddress", s.number as "supplierNumber",
    s.freight, s.freight_free_from as "freightFreeFrom", o.ship_to_id as "shipToId", t.name as "shipTo",
    t.street || ', ' || t.postcode || ' ' || t.town || ', ' || t.country as "shipToAddress", o.currency, o.terms_kind as "termsKind",
    o.terms_days as "termsDays", o.note, o.revision, o.net, o.tax,
    to_char(o.issued_at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"') as "issuedAt"
  from purchase_order o join supplier s on s.id = o.supplier_id join person b on b.id = o.buyer_id join ship_to t on t.id = o.ship_to_id`

/** An order with its supplier and ship-to; `lock` takes its row. */
export function findOrder(tx: Tx, id: string, lock = false): Promise<OrderRow | null> {
  return row<OrderRow>(tx, sql`${ORDER} where o.id = ${id} ${lock ? sql`for update of o` : sql``}`)
}

/** The trays of a buyer, oldest first. */
export function listTrays(tx: Tx, buyerId: string): Promise<OrderRow[]> {
  return rows<OrderRow>(
    tx,
    sql`${ORDER} where o.buyer_id = ${buyerId} and o.state = 'draft' order by o.created_at, o.id`,
  )
}

export interface PartRow {
  orderId: string
  requisitionLineId: string
  requisitionId: string
  requisitionNumber: string
  ownerId: string
  raisedById: string
  asker: string
  quantity: DecimalText
  agreedPrice: DecimalText | null
  itemId: string | null
  description: string
  secondDescription: string
  noteToSupplier: string
  unit: string
  unitPrice: DecimalText
  isByHand: boolean
  discountOf: LineDiscount['of'] | null
  discountValue: DecimalText | null
  requested: DecimalText
  priceBase: DecimalText
  currency: string
  taxCode: string
  taxRate: DecimalText
  supplierPart: string | null
  needBy: string
  shipToId: string
  shipToDetail: string
  attention: string
  telephone: string
  instructions: string
  documentNote: string
}

/** What lies on trays, in the order of the requisitions: oldest first by the day sent, then by number. */
export function listParts(tx: Tx, orderIds: readonly string[]): Promise<PartRow[]> {
  return rows<PartRow>(
    tx,
    sql`
    select p.order_id as "orderId", p.requisition_line_id as "requisitionLineId", r.id as "requisitionId", r.number as "requisitionNumber",
      r.owner_id as "ownerId", r.raised_by_id as "raisedById", w.name as asker, p.quantity, p.unit_price as "agreedPrice",
      l.item_id as "itemId", l.description, l.second_description as "secondDescription", l.note_to_supplier as "noteToSupplier", l.unit, l.unit_price as "unitPrice",
      coalesce(l.unit_price <> l.list_price, false) as "isByHand", l.discount_of as "discountOf", l.discount as "discountValue", l.quantity as requested,
      r.attention, r.telephone, r.instructions, r.note_to_supplier as "documentNote", l.price_base as "priceBase", l.currency,
      l.tax_code as "taxCode", l.tax_rate as "taxRate", l.supplier_part as "supplierPart", r.need_by::text as "needBy",
      r.ship_to_id as "shipToId", r.ship_to_detail as "shipToDetail"
    from tray_part p join requisition_line l on l.id = p.requisition_line_id join requisition r on r.id = l.requisition_id
      join person w on w.id = r.owner_id
    where p.order_id = any(${sql.param(orderIds as string[])}::uuid[])
    order by r.sent_at::date, r.number, l.position`,
  )
}

/** What colleagues wrote for colleagues alone on the requisitions that an order serves. */
export function listInternalNotes(tx: Tx, orderId: string): Promise<{ number: string; note: string }[]> {
  return rows(
    tx,
    sql`
    with served as (select distinct q.id, q.requisition_id from order_line ol join order_line_source x on x.order_line_id = ol.id
      join requisition_line q on q.id = x.requisition_line_id where ol.order_id = ${orderId})
    select r.number, r.note_internal as note, 0 as at from requisition r where r.id in (select requisition_id from served) and r.note_internal <> ''
    union all select r.number, q.description || ': ' || q.note_internal, q.position + 1 from served s join requisition_line q on q.id = s.id join requisition r on r.id = q.requisition_id
      where q.note_internal <> ''
    order by 1, 3`,
  )
}

/** Attachments that the supplier is to have with an order: those so marked on the requisitions it serves. */
export function listSupplierFiles(tx: Tx, orderId: string): Promise<{ hash: string; name: string }[]> {
  return rows(
    tx,
    sql`
    select distinct a.file_hash as hash, min(a.name) as name from attachment a where a.for_supplier and a.requisition_id in (
      select q.requisition_id from order_line ol join order_line_source x on x.order_line_id = ol.id join requisition_line q on q.id = x.requisition_line_id
      where ol.order_id = ${orderId}) group by a.file_hash order by 2`,
  )
}

export interface DeskLineRow {
  id: string
  requisitionId: string
  number: string
  asker: string
  description: string
  itemId: string | null
  open: DecimalText
  unit: string
  unitPrice: DecimalText
  priceBase: DecimalText
  currency: string
  supplierId: string | null
  supplier: string | null
  freightFreeFrom: DecimalText | null
  needBy: string
  shipToId: string
  shipTo: string
  sentAt: string
  discountOf: LineDiscount['of'] | null
  discountValue: DecimalText | null
  requested: DecimalText
  noteInternal: string
  supplierStanding: string | null
}

/** Approved lines with something open that lies on no tray, those of one supplier together, oldest first. */
export function listDeskLines(tx: Tx, departments: 'all' | readonly string[], limit: number): Promise<DeskLineRow[]> {
  const part = departments === 'all' ? sql`` : sql`and r.department_id = any(${sql.param([...departments])}::uuid[])`
  return rows<DeskLineRow>(
    tx,
    sql`
    with open_line as materialized (
      select r.id, r.number, r.owner_id, r.need_by, r.ship_to_id, r.sent_at from requisition r
      where r.state in ('approved', 'part ordered') ${part} order by r.sent_at, r.number limit ${limit})
    select l.id, r.id as "requisitionId", r.number, w.name as asker, l.description, l.item_id as "itemId",
      l.quantity - l.ordered - l.cancelled - l.on_tray as open, l.unit, l.unit_price as "unitPrice", l.price_base as "priceBase", l.currency,
      l.supplier_id as "supplierId", s.name as supplier, s.freight_free_from as "freightFreeFrom", r.need_by::text as "needBy",
      l.discount_of as "discountOf", l.discount as "discountValue", l.quantity as requested, l.note_internal as "noteInternal", s.standing as "supplierStanding",
      r.ship_to_id as "shipToId", t.name as "shipTo", to_char(r.sent_at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS"Z"') as "sentAt"
    from open_line r join requisition_line l on l.requisition_id = r.id join person w on w.id = r.owner_id
      join ship_to t on t.id = r.ship_to_id left join supplier s on s.id = l.supplier_id
    where l.quantity - l.ordered - l.cancelled - l.on_tray > 0
    order by s.name nulls last, r.sent_at, r.number, l.position limit ${limit}`,
  )
}

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
    select l.id, l.position, l.item_id as "itemId", l.description, l.second_description as "secondDescription", l.note, l.discount_percent as "discountPercent",
      l.discount_amount as "discountAmount", l.supplier_part as "supplierPart", l.quantity, l.unit,
      l.unit_price as "unitPrice", l.price_base as "priceBase", l.tax_code as "taxCode", l.tax_rate as "taxRate", l.need_by::text as "needBy", l.net,
      (select json_agg(json_build_object('requisitionId', r.id, 'number', r.number, 'quantity', trim_scale(x.quantity)::text) order by r.number)
       from order_line_source x join requisition_line q on q.id = x.requisition_line_id join requisition r on r.id = q.requisition_id
       where x.order_line_id = l.id) as sources
    from order_line l where l.order_id = ${orderId} order by l.position`,
  )
}

export interface RevisionRow {
  revision: number
  issuedAt: string
  issuedBy: string
  pdfHash: string | null
  mailSentAt: string | null
  mailError: string | null
  mailTo: string | null
}
export function listRevisions(tx: Tx, orderId: string): Promise<RevisionRow[]> {
  return rows<RevisionRow>(
    tx,
    sql`
    select v.revision, to_char(v.issued_at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"') as "issuedAt", p.name as "issuedBy",
      v.pdf_hash as "pdfHash", to_char(m.sent_at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"') as "mailSentAt",
      m.last_error as "mailError", m.to_address as "mailTo"
    from order_revision v join person p on p.id = v.issued_by_id left join outgoing_mail m on m.id = v.mail_id
    where v.order_id = ${orderId} order by v.revision desc`,
  )
}

/** An order as one of its sent states was kept. */
export async function findSnapshot(tx: Tx, orderId: string, revision: number): Promise<OrderSnapshot | null> {
  return (
    (
      await row<{ snapshot: OrderSnapshot }>(
        tx,
        sql`select snapshot from order_revision where order_id = ${orderId} and revision = ${revision}`,
      )
    )?.snapshot ?? null
  )
}

/** Requisitions that an order serves. */
export async function listServed(tx: Tx, orderId: string): Promise<string[]> {
  const found = await rows<{ id: string }>(
    tx,
    sql`
    select distinct l.requisition_id as id from requisition_line l where l.id in (
      select x.requisition_line_id from order_line_source x join order_line o on o.id = x.order_line_id where o.order_id = ${orderId}
      union select requisition_line_id from tray_part where order_id = ${orderId}) order by 1`,
  )
  return found.map((f) => f.id)
}
