import { sql } from 'drizzle-orm'
import type { DecimalText } from '#core/base/decimal'
import type { LineDiscount } from '#core/requisition/draft'
import type { Tx } from '../db/client'
import { rows } from '../db/rows'
import { REQUISITIONS } from '../requisition/visible'

/** The requisition of each line. */
export async function findRequisitionsOfLines(tx: Tx, lineIds: readonly string[]): Promise<Map<string, string>> {
  const found = await rows<{ id: string; requisitionId: string }>(
    tx,
    sql`
    select id, requisition_id as "requisitionId" from requisition_line
      where id = any(${sql.param(lineIds as string[])}::uuid[])`,
  )
  return new Map(found.map((f) => [f.id, f.requisitionId]))
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
    select p.order_id as "orderId", p.requisition_line_id as "requisitionLineId", r.id as "requisitionId",
      r.number as "requisitionNumber",
      r.owner_id as "ownerId", r.raised_by_id as "raisedById", w.name as asker, p.quantity,
        p.unit_price as "agreedPrice",
      l.item_id as "itemId", l.description, l.second_description as "secondDescription",
        l.note_to_supplier as "noteToSupplier", l.unit, l.unit_price as "unitPrice",
      coalesce(l.unit_price <> l.list_price, false) as "isByHand", l.discount_of as "discountOf",
        l.discount as "discountValue", l.quantity as requested,
      r.attention, r.telephone, r.instructions, r.note_to_supplier as "documentNote", l.price_base as "priceBase",
        l.currency,
      l.tax_code as "taxCode", l.tax_rate as "taxRate", l.supplier_part as "supplierPart", r.need_by::text as "needBy",
      r.ship_to_id as "shipToId", r.ship_to_detail as "shipToDetail"
    from tray_part p join requisition_line l on l.id = p.requisition_line_id
      join ${REQUISITIONS} r on r.id = l.requisition_id
      join person w on w.id = r.owner_id
    where p.order_id = any(${sql.param(orderIds as string[])}::uuid[])
    order by r.sent_at::date, r.number, l.position`,
  )
}
