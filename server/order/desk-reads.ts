import { sql } from 'drizzle-orm'
import type { DecimalText } from '#core/base/decimal'
import type { Part } from '#core/people/rights'
import type { LineDiscount } from '#core/requisition/draft'
import type { Tx } from '../db/client'
import { named, read, sure } from '../db/read'
import { requisitionLine } from '../db/schema/requisition'
import { person, shipTo } from '../db/schema/people'
import { supplier } from '../db/schema/supplier'
import { inPart, isOpenLine, requisitions } from '../requisition/visible'
import { SECONDS } from '../db/moments'

const l = named(requisitionLine, 'l')
const w = named(person, 'w')
const t = named(shipTo, 't')
const s = named(supplier, 's')
const r = requisitions('r')

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
export function listDeskLines(tx: Tx, part: Part, limit: number): Promise<DeskLineRow[]> {
  return read(
    tx,
    {
      id: l.id,
      requisitionId: r.id,
      number: sure(r.number),
      asker: w.name,
      description: l.description,
      itemId: l.itemId,
      open: sql<DecimalText>`${l.quantity} - ${l.ordered} - ${l.cancelled} - ${l.onTray}`,
      unit: l.unit,
      unitPrice: sure(l.unitPrice),
      priceBase: l.priceBase,
      currency: l.currency,
      supplierId: l.supplierId,
      supplier: s.name,
      freightFreeFrom: s.freightFreeFrom,
      needBy: sql<DeskLineRow['needBy']>`coalesce(${l.needBy}, ${r.needBy})::text`,
      discountOf: l.discountOf,
      discountValue: l.discount,
      requested: l.quantity,
      noteInternal: l.noteInternal,
      supplierStanding: s.standing,
      shipToId: sure(r.shipToId),
      shipTo: t.name,
      sentAt: SECONDS(r.sentAt),
    },
    sql`from open_line r join ${l} on ${l.requisitionId} = ${r.id} join ${w} on ${w.id} = ${r.ownerId}
      join ${t} on ${t.id} = ${r.shipToId} left join ${s} on ${s.id} = ${l.supplierId}
    where ${isOpenLine(l)}
    order by ${s.name} nulls last, ${r.sentAt}, ${r.number}, ${l.position} limit ${limit}`,
    {
      before: sql`with open_line as materialized (
      select ${r.id}, ${r.number}, ${r.ownerId}, ${r.needBy}, ${r.shipToId}, ${r.sentAt} from ${r}
      where ${r.kind} = 'requisition' and ${r.state} in ('approved', 'part ordered') and ${inPart(part)}
      order by ${r.sentAt}, ${r.number} limit ${limit})`,
    },
  )
}

/** How many lines wait on the Desk in all, counted up to one more than `most`. */
export async function countDeskLines(tx: Tx, part: Part, most: number): Promise<number> {
  const [found] = await read(
    tx,
    { n: sql<number>`count(*)::int` },
    sql`from (select 1 from ${r} join ${l} on ${l.requisitionId} = ${r.id}
      where ${r.kind} = 'requisition' and ${r.state} in ('approved', 'part ordered') and ${inPart(part)}
      and ${isOpenLine(l)}
      limit ${most + 1}) counted`,
  )
  return found?.n ?? 0
}
