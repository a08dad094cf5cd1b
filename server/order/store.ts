import { randomUUID } from 'node:crypto'
import { and, eq, inArray, sql } from 'drizzle-orm'
import { type DecimalText } from '#core/base/decimal'
import { type MergedLine } from '#core/order/merge'
import { type Money } from '#core/base/money'
import { orderLine, orderLineSource, orderRevision, purchaseOrder, trayPart } from '../db/schema/order'
import { type Tx } from '../db/client'
import { row } from '../db/rows'
import { type OrderSnapshot } from './snapshot'

export async function insertTray(
  tx: Tx,
  t: {
    id: string
    buyerId: string
    supplierId: string
    shipToId: string
    currency: string
    termsKind: string
    termsDays: number
    now: Date
  },
): Promise<void> {
  await tx.insert(purchaseOrder).values({
    id: t.id,
    buyerId: t.buyerId,
    supplierId: t.supplierId,
    shipToId: t.shipToId,
    currency: t.currency,
    termsKind: t.termsKind,
    termsDays: t.termsDays,
    createdAt: t.now,
  })
}

/** Lays parts on a tray; more of a line that lies there already is added to it. */
export async function upsertParts(
  tx: Tx,
  orderId: string,
  parts: readonly { requisitionLineId: string; quantity: DecimalText }[],
  now: Date,
): Promise<void> {
  await tx
    .insert(trayPart)
    .values(parts.map((p) => ({ orderId, requisitionLineId: p.requisitionLineId, quantity: p.quantity, addedAt: now })))
    .onConflictDoUpdate({
      target: [trayPart.orderId, trayPart.requisitionLineId],
      set: { quantity: sql`${trayPart.quantity} + excluded.quantity` },
    })
}

export async function deleteParts(tx: Tx, orderId: string, lineIds: readonly string[]): Promise<void> {
  await tx.delete(trayPart).where(and(eq(trayPart.orderId, orderId), inArray(trayPart.requisitionLineId, [...lineIds])))
}

export async function setAgreedPrice(tx: Tx, orderId: string, lineId: string, unitPrice: DecimalText): Promise<void> {
  await tx
    .update(trayPart)
    .set({ unitPrice })
    .where(and(eq(trayPart.orderId, orderId), eq(trayPart.requisitionLineId, lineId)))
}

export async function touchOrder(tx: Tx, id: string): Promise<void> {
  await tx
    .update(purchaseOrder)
    .set({ version: sql`${purchaseOrder.version} + 1` })
    .where(eq(purchaseOrder.id, id))
}

export async function deleteTray(tx: Tx, id: string): Promise<void> {
  await tx.delete(purchaseOrder).where(and(eq(purchaseOrder.id, id), eq(purchaseOrder.state, 'draft')))
}

/** Writes the lines of an order with what each serves; returns their ids in order. */
export async function insertOrderLines(
  tx: Tx,
  orderId: string,
  lines: readonly (MergedLine & { taxRate: DecimalText; net: Money })[],
): Promise<string[]> {
  const ids = lines.map(() => randomUUID())
  await tx.insert(orderLine).values(
    lines.map((l, position) => ({
      id: ids[position] ?? '',
      orderId,
      position,
      itemId: l.itemId,
      description: l.description,
      secondDescription: l.secondDescription,
      note: l.notes.join('\n'),
      discountPercent: l.adjustments.find((a) => a.percent !== undefined)?.percent ?? null,
      discountAmount: l.adjustments.find((a) => a.amount !== undefined)?.amount ?? null,
      supplierPart: l.supplierPart,
      quantity: l.quantity,
      unit: l.unit,
      unitPrice: l.unitPrice,
      priceBase: l.priceBase,
      taxCode: l.taxCode,
      taxRate: l.taxRate,
      needBy: l.needBy,
      net: l.net.amount,
    })),
  )
  await tx
    .insert(orderLineSource)
    .values(
      lines.flatMap((l, i) =>
        l.sources.map((s) => ({
          orderLineId: ids[i] ?? '',
          requisitionLineId: s.requisitionLineId,
          quantity: s.quantity,
        })),
      ),
    )
  return ids
}

export async function setIssued(
  tx: Tx,
  id: string,
  o: { number: string; toBase: DecimalText; net: Money; tax: Money; note: string; now: Date },
): Promise<void> {
  await tx
    .update(purchaseOrder)
    .set({
      number: o.number,
      state: 'issued',
      note: o.note,
      toBase: o.toBase,
      net: o.net.amount,
      tax: o.tax.amount,
      issuedAt: o.now,
      version: sql`${purchaseOrder.version} + 1`,
    })
    .where(eq(purchaseOrder.id, id))
  await tx.delete(trayPart).where(eq(trayPart.orderId, id))
}

export async function insertRevision(
  tx: Tx,
  v: { orderId: string; revision: number; issuedById: string; issuedAt: Date; snapshot: OrderSnapshot },
): Promise<void> {
  await tx.insert(orderRevision).values(v)
}

/** Locks a revision whose PDF is still to be made; null when it was made or another server has it. */
export function lockUnfiledRevision(
  tx: Tx,
  orderId: string,
  revision: number,
): Promise<{ snapshot: OrderSnapshot } | null> {
  return row<{ snapshot: OrderSnapshot }>(
    tx,
    sql`
    select snapshot from order_revision where order_id = ${orderId} and revision = ${revision} and pdf_hash is null for update skip locked`,
  )
}

export async function setFiled(
  tx: Tx,
  orderId: string,
  revision: number,
  pdfHash: string,
  mailId: string,
): Promise<void> {
  await tx
    .update(orderRevision)
    .set({ pdfHash, mailId })
    .where(and(eq(orderRevision.orderId, orderId), eq(orderRevision.revision, revision)))
}
