import { sql } from 'drizzle-orm'
import type { DecimalText } from '#core/base/decimal'
import type { LineDiscount } from '#core/requisition/draft'
import type { Tx } from '../db/client'
import { named, read, readOne, sure } from '../db/read'
import { attachment } from '../db/schema/document'
import { file } from '../db/schema/file'
import { item } from '../db/schema/catalogue'
import { trayPart } from '../db/schema/order'
import { requisitionLine } from '../db/schema/requisition'
import { person } from '../db/schema/people'
import { supplier } from '../db/schema/supplier'
import { whatAsks } from '../requisition/visible'

const p = named(trayPart, 'p')
const l = named(requisitionLine, 'l')
const w = named(person, 'w')
const i = named(item, 'i')
const s = named(supplier, 's')
const r = whatAsks('r')

/** That what asks, `r`, is a direct order itself. */
const IS_DIRECT = sql`(${r.kind} = 'order')`

/** The requisition of each line. */
export async function findRequisitionsOfLines(tx: Tx, lineIds: readonly string[]): Promise<Map<string, string>> {
  const found = await read(
    tx,
    { id: requisitionLine.id, requisitionId: requisitionLine.requisitionId },
    sql`from ${requisitionLine}
      where ${requisitionLine.id} = any(${sql.param(lineIds as string[])}::uuid[])`,
  )
  return new Map(found.map((f) => [f.id, f.requisitionId]))
}

/** Bytes of the files that the supplier gets with an order that serves these requisitions, each file once. */
export async function sizeOfSupplierFiles(tx: Tx, requisitionIds: readonly string[]): Promise<number> {
  const found = await readOne(
    tx,
    { size: sql<number>`coalesce(sum(${file.size}), 0)::int` },
    sql`from ${file} where ${file.hash} in (select ${attachment.fileHash} from ${attachment}
      where ${attachment.forSupplier} and ${attachment.documentId} = any(${sql.param([...requisitionIds])}::uuid[]))`,
  )
  return found?.size ?? 0
}

export interface PartRow {
  orderId: string
  requisitionLineId: string
  requisitionId: string
  requisitionNumber: string
  departmentId: string
  ownerId: string
  raisedById: string
  ownedBy: string[]
  /** It is of a direct order itself, which has no request. */
  isDirect: boolean
  /** Where it is paid from in time, as it was sent. */
  fiscalYear: number | null
  period: number | null
  /** Whose need it is. */
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
  /** What its supplier's price is for: of an offer its own. */
  orderedBase: DecimalText
  /** Another supplier's offer was taken of what was asked of this one. */
  insteadOf: { readonly supplier: string } | null
  currency: string
  taxCode: string
  taxRate: DecimalText
  /** At which rate it was approved. */
  perBase: DecimalText
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
  return read(
    tx,
    {
      orderId: p.orderId,
      requisitionLineId: p.requisitionLineId,
      requisitionId: r.id,
      requisitionNumber: sql<string>`coalesce(${r.number}, '')`,
      departmentId: sure(r.departmentId),
      ownerId: r.ownerId,
      raisedById: r.raisedById,
      ownedBy: r.ownedBy,
      isDirect: sql<boolean>`${IS_DIRECT}`,
      ...{ fiscalYear: r.fiscalYear, period: r.period },
      asker: w.name,
      quantity: p.quantity,
      agreedPrice: p.unitPrice,
      itemId: sql<string | null>`coalesce(${p.itemId}, ${l.itemId})`,
      description: sql<string>`coalesce(${i.name}, ${l.description})`,
      secondDescription: l.secondDescription,
      noteToSupplier: l.noteToSupplier,
      unit: l.unit,
      unitPrice: sure(l.unitPrice),
      isByHand: sql<PartRow['isByHand']>`(${p.itemId} is null and coalesce(${l.unitPrice} <> ${l.listPrice}, false))`,
      discountOf: l.discountOf,
      discountValue: l.discount,
      requested: l.quantity,
      attention: r.attention,
      telephone: r.telephone,
      instructions: r.instructions,
      documentNote: r.noteToSupplier,
      priceBase: l.priceBase,
      orderedBase: sql<DecimalText>`coalesce(${i.priceBase}, ${l.priceBase})`,
      insteadOf: sql<PartRow['insteadOf']>`case when ${p.itemId} is null then null
        else json_build_object('supplier', ${s.name}) end`,
      currency: l.currency,
      taxCode: l.taxCode,
      taxRate: sure(l.taxRate),
      perBase: sure(l.perBase),
      supplierPart: sql<string | null>`coalesce(${i.supplierPart}, ${l.supplierPart})`,
      needBy: sql<PartRow['needBy']>`coalesce(${l.needBy}, ${r.needBy})::text`,
      shipToId: sure(r.shipToId),
      shipToDetail: r.shipToDetail,
    },
    sql`from ${p} join ${l} on ${l.id} = ${p.requisitionLineId}
      join ${r} on ${r.id} = ${l.requisitionId}
      join ${w} on ${w.id} = case when ${IS_DIRECT} then ${r.raisedById} else ${r.ownerId} end
      left join ${i} on ${i.id} = ${p.itemId} left join ${s} on ${s.id} = ${l.supplierId}
    where ${p.orderId} = any(${sql.param(orderIds as string[])}::uuid[])
    order by ${r.sentAt}::date, ${r.number}, ${l.position}`,
  )
}
