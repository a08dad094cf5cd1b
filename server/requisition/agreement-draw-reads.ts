import { sql } from 'drizzle-orm'
import type { DecimalText } from '#core/base/decimal'
import type { LineDiscount } from '#core/requisition/draft'
import type { RequisitionState } from '#core/requisition/moves'
import type { Tx } from '../db/client'
import { named, read, sure } from '../db/read'
import { requisitionLine } from '../db/schema/requisition'
import { requisitions } from './visible'

const l = named(requisitionLine, 'l')
const r = requisitions('r')

/** A line that was sent and is not ordered whole, as far as it decides what it would draw on. */
export interface OpenDrawRow {
  requisitionId: string
  number: string
  state: RequisitionState
  departmentId: string
  /** Null: whatever day it is ordered on. */
  accountingDate: string | null
  itemId: string | null
  description: string
  supplierId: string
  currency: string
  quantity: DecimalText
  open: DecimalText
  unit: string
  unitPrice: DecimalText
  priceBase: DecimalText
  discountOf: LineDiscount['of'] | null
  discountValue: DecimalText | null
}

/**
 * The lines of some suppliers that were sent and are not ordered yet, those on trays too, apart from one request's;
 * oldest first.
 */
export function listOpenDraws(
  tx: Tx,
  supplierIds: readonly string[],
  apartFrom: string | null,
): Promise<OpenDrawRow[]> {
  const open = sql<DecimalText>`${l.quantity} - ${l.ordered} - ${l.cancelled}`
  return read(
    tx,
    {
      requisitionId: r.id,
      number: sure(r.number),
      state: sql<RequisitionState>`${r.state}`,
      departmentId: sure(r.departmentId),
      accountingDate: r.accountingDate,
      itemId: l.itemId,
      description: l.description,
      supplierId: sure(l.supplierId),
      currency: l.currency,
      quantity: l.quantity,
      open,
      unit: l.unit,
      unitPrice: sure(l.unitPrice),
      priceBase: l.priceBase,
      discountOf: l.discountOf,
      discountValue: l.discount,
    },
    sql`from ${l} join ${r} on ${r.id} = ${l.requisitionId}
      where ${l.supplierId} = any(${sql.param([...supplierIds])}::uuid[]) and ${open} > 0
        and ${r.state} in ('in approval', 'approved', 'part ordered')
        ${apartFrom === null ? sql`` : sql`and ${r.id} <> ${apartFrom}`}
      order by ${r.sentAt}, ${r.number}, ${l.position}`,
  )
}
