import { sql } from 'drizzle-orm'
import type { Day } from '#core/base/day'
import type { DecimalText } from '#core/base/decimal'
import type { Part } from '#core/people/rights'
import type { ProposalSupplier } from '#core/order/propose'
import type { LineDiscount } from '#core/requisition/draft'
import type { Tx } from '../db/client'
import { named, read, sure } from '../db/read'
import { department, shipTo } from '../db/schema/people'
import { requisitionLine } from '../db/schema/requisition'
import { supplier } from '../db/schema/supplier'
import { inPart, requisitions, waitsOn } from '../requisition/visible'

const l = named(requisitionLine, 'l')
const t = named(shipTo, 't')
const s = named(supplier, 's')
const d = named(department, 'd')
const r = requisitions('r')

export interface OpenLineRow {
  id: string
  requisitionId: string
  number: string
  kindCode: string
  sentOn: string
  /** Whoever raised or owned its requisition. */
  owners: string[]
  departmentId: string
  department: string
  itemId: string | null
  categoryId: string | null
  description: string
  secondDescription: string
  noteToSupplier: string
  open: DecimalText
  requested: DecimalText
  unit: string
  unitPrice: DecimalText
  isByHand: boolean
  discountOf: LineDiscount['of'] | null
  discountValue: DecimalText | null
  priceBase: DecimalText
  currency: string
  taxCode: string
  supplierPart: string | null
  supplierId: string | null
  supplier: string | null
  needBy: string
  shipToId: string
  shipTo: string
}

/**
 * Approved lines with something open that lies on no tray and is not put aside, oldest first by the day sent, then by
 * number.
 */
export function listOpenLines(
  tx: Tx,
  part: Part,
  today: Day,
  limit: number,
  /** Of this one alone. */
  requisitionId: string | null = null,
): Promise<OpenLineRow[]> {
  return read(
    tx,
    {
      id: l.id,
      requisitionId: r.id,
      number: sure(r.number),
      kindCode: r.kindCode,
      sentOn: sql<string>`${r.sentAt}::date::text`,
      owners: sql<string[]>`array[${r.ownerId}, ${r.raisedById}] || ${r.ownedBy}`,
      departmentId: sure(r.departmentId),
      department: d.name,
      itemId: l.itemId,
      categoryId: l.categoryId,
      description: l.description,
      secondDescription: l.secondDescription,
      noteToSupplier: l.noteToSupplier,
      open: sql<DecimalText>`${l.quantity} - ${l.ordered} - ${l.cancelled} - ${l.onTray}`,
      requested: l.quantity,
      unit: l.unit,
      unitPrice: sure(l.unitPrice),
      isByHand: sql<boolean>`coalesce(${l.unitPrice} <> ${l.listPrice}, false)`,
      discountOf: l.discountOf,
      discountValue: l.discount,
      priceBase: l.priceBase,
      currency: l.currency,
      taxCode: l.taxCode,
      supplierPart: l.supplierPart,
      supplierId: l.supplierId,
      supplier: s.name,
      needBy: sql<string>`coalesce(${l.needBy}, ${r.needBy})::text`,
      shipToId: sure(r.shipToId),
      shipTo: t.name,
    },
    sql`from ${r} join ${l} on ${l.requisitionId} = ${r.id} join ${t} on ${t.id} = ${r.shipToId}
      join ${d} on ${d.id} = ${r.departmentId} left join ${s} on ${s.id} = ${l.supplierId}
    where ${r.kind} = 'requisition' and ${r.state} in ('approved', 'part ordered') and ${inPart(part)}
      and ${waitsOn(l, today)} and ${requisitionId === null ? sql`true` : sql`${r.id} = ${requisitionId}`}
    order by ${r.sentAt}::date, ${r.number}, ${l.position} limit ${limit}`,
  )
}

/** How suppliers stand and what they ask of an order, by supplier. */
export async function listOrderTerms(tx: Tx, supplierIds: readonly string[]): Promise<Map<string, ProposalSupplier>> {
  const found = await read(
    tx,
    {
      id: s.id,
      standing: s.standing,
      currency: s.currency,
      freight: s.freight,
      freightFreeFrom: s.freightFreeFrom,
      minimumOrder: s.minimumOrder,
    },
    sql`from ${s} where ${s.id} = any(${sql.param([...supplierIds])}::uuid[])`,
  )
  return new Map(found.map(({ id, ...terms }) => [id, terms]))
}
