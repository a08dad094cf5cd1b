import { sql } from 'drizzle-orm'
import type { DecimalText } from '#core/base/decimal'
import type { LineDiscount } from '#core/requisition/draft'
import type { Tx } from '../db/client'
import { rows } from '../db/rows'
import { REQUISITIONS } from '../requisition/visible'

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
      select r.id, r.number, r.owner_id, r.need_by, r.ship_to_id, r.sent_at from ${REQUISITIONS} r
      where r.state in ('approved', 'part ordered') ${part} order by r.sent_at, r.number limit ${limit})
    select l.id, r.id as "requisitionId", r.number, w.name as asker, l.description, l.item_id as "itemId",
      l.quantity - l.ordered - l.cancelled - l.on_tray as open, l.unit, l.unit_price as "unitPrice",
        l.price_base as "priceBase", l.currency,
      l.supplier_id as "supplierId", s.name as supplier, s.freight_free_from as "freightFreeFrom",
        r.need_by::text as "needBy",
      l.discount_of as "discountOf", l.discount as "discountValue", l.quantity as requested,
        l.note_internal as "noteInternal", s.standing as "supplierStanding",
      r.ship_to_id as "shipToId", t.name as "shipTo", to_char(r.sent_at at time zone 'UTC',
        'YYYY-MM-DD"T"HH24:MI:SS"Z"') as "sentAt"
    from open_line r join requisition_line l on l.requisition_id = r.id join person w on w.id = r.owner_id
      join ship_to t on t.id = r.ship_to_id left join supplier s on s.id = l.supplier_id
    where l.quantity - l.ordered - l.cancelled - l.on_tray > 0
    order by s.name nulls last, r.sent_at, r.number, l.position limit ${limit}`,
  )
}

/** How many lines wait on the Desk in all. */
export async function countDeskLines(tx: Tx, departments: 'all' | readonly string[]): Promise<number> {
  const part = departments === 'all' ? sql`` : sql`and r.department_id = any(${sql.param([...departments])}::uuid[])`
  const [found] = await rows<{ n: number }>(
    tx,
    sql`
    select count(*)::int as n from ${REQUISITIONS} r join requisition_line l on l.requisition_id = r.id
    where r.state in ('approved', 'part ordered') ${part} and l.quantity - l.ordered - l.cancelled - l.on_tray > 0`,
  )
  return found?.n ?? 0
}
