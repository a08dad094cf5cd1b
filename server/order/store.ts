import { randomUUID } from 'node:crypto'
import { and, eq, inArray, sql } from 'drizzle-orm'
import type { Day, PaymentTerms } from '#core/base/day'
import type { DecimalText } from '#core/base/decimal'
import { comparedNumber, type DeliveryTerm, type OrderConditions } from '#core/order/conditions'
import type { MergedLine } from '#core/order/merge'
import type { Money } from '#core/base/money'
import { orderLine, orderLineSource, orderRevision, purchaseOrder, trayPart } from '../db/schema/order'
import type { Tx } from '../db/client'
import { sendAlong } from '../db/transaction'
import { bare, named } from '../db/read'
import { forgetOwners, insertDocument, setLeft } from '../document/store'
import type { OrderSnapshot } from './snapshot'
import type { OrderAdjustment } from '#core/order/adjustment'

/** What an order begins with. */
interface NewOrder {
  id: string
  supplierId: string
  shipToId: string
  currency: string
  termsKind: PaymentTerms['kind']
  termsDays: number
  /** Of a call-off. */
  blanketId?: string
  deliveryTerm?: DeliveryTerm | null
  deliveryPlace?: string
  adjustments?: readonly OrderAdjustment[]
}

/** A tray with its document; `supplier` is its name, by which the order is called. */
export async function insertTray(
  tx: Tx,
  { buyerId, supplier, now, ...order }: NewOrder & { buyerId: string; supplier: string; now: Date },
): Promise<void> {
  await insertDocument(tx, { id: order.id, kind: 'order', title: supplier, ownerId: buyerId, now })
  await insertOrder(tx, order)
}

/** The part that an order has besides its document. */
export async function insertOrder(tx: Tx, order: NewOrder): Promise<void> {
  await tx.insert(purchaseOrder).values(order)
}

/** Takes that part away again, with what lies on it. */
export async function deleteOrder(tx: Tx, id: string): Promise<void> {
  await tx.delete(purchaseOrder).where(eq(purchaseOrder.id, id))
}

/** A part of a requisition line as it is laid on a tray: with the offer that was taken, if one was. */
interface LaidPart {
  readonly requisitionLineId: string
  readonly quantity: DecimalText
  readonly offer?: { readonly itemId: string; readonly unitPrice: DecimalText } | null
}

/** Lays parts on a tray; more of a line that lies there already is added to it. */
export async function upsertParts(tx: Tx, orderId: string, parts: readonly LaidPart[], now: Date): Promise<void> {
  await tx
    .insert(trayPart)
    .values(
      parts.map(({ requisitionLineId, quantity, offer }) => ({
        ...{ orderId, requisitionLineId, quantity, addedAt: now },
        ...{ itemId: offer?.itemId ?? null, unitPrice: offer?.unitPrice ?? null },
      })),
    )
    .onConflictDoUpdate({
      target: [trayPart.orderId, trayPart.requisitionLineId],
      set: { quantity: sql`${trayPart.quantity} + excluded.${bare(trayPart.quantity)}` },
    })
}

/** Adds to what lies on a tray, or takes from it; something of each stays there. */
export async function addToParts(
  tx: Tx,
  orderId: string,
  moves: readonly { readonly requisitionLineId: string; readonly by: DecimalText }[],
): Promise<void> {
  if (moves.length === 0) return
  const p = named(trayPart, 'p')
  const flat = moves.map((m) => ({ i: m.requisitionLineId, q: m.by }))
  await tx.execute(sql`update ${p} set ${bare(p.quantity)} = ${p.quantity} + f.q
    from json_to_recordset(${JSON.stringify(flat)}::json) as f(i uuid, q numeric)
    where ${p.orderId} = ${orderId} and ${p.requisitionLineId} = f.i`)
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

/** On which agreement an order draws, whether its buyer said so, and the terms that follow. */
export async function setAgreement(
  tx: Tx,
  orderId: string,
  to: Pick<typeof purchaseOrder.$inferSelect, 'agreementId' | 'agreementSaid' | 'termsKind' | 'termsDays'>,
): Promise<void> {
  await tx.update(purchaseOrder).set(to).where(eq(purchaseOrder.id, orderId))
}

/** What the supplier is told on an order. */
export async function setNote(tx: Tx, orderId: string, note: string): Promise<void> {
  await tx.update(purchaseOrder).set({ note }).where(eq(purchaseOrder.id, orderId))
}

/** Of which last day of a blanket order its buyer was warned. */
export async function setEndTold(tx: Tx, orderId: string, endToldFor: Day): Promise<void> {
  await tx.update(purchaseOrder).set({ endToldFor }).where(eq(purchaseOrder.id, orderId))
}

/** On which conditions an order that is put together is placed. */
export async function setConditions(
  tx: Tx,
  orderId: string,
  c: OrderConditions & { readonly termsSaid: boolean },
): Promise<void> {
  await tx
    .update(purchaseOrder)
    .set({
      ...{ termsKind: c.terms.kind, termsDays: c.terms.days, termsSaid: c.termsSaid, expiresOn: c.expiresOn },
      ...{ deliveryTerm: c.delivery?.term ?? null, deliveryPlace: c.delivery?.place ?? '' },
      ...{ placedAs: c.placedAs, placedKey: c.placedAs === null ? null : comparedNumber(c.placedAs) },
      ...{ isSent: c.isSent, isBlanket: c.isBlanket, adjustments: c.adjustments },
    })
    .where(eq(purchaseOrder.id, orderId))
}

/** An order that is cancelled was placed under no number: another may be entered under it. */
export async function freePlacedNumber(tx: Tx, orderId: string): Promise<void> {
  await tx.update(purchaseOrder).set({ placedKey: null }).where(eq(purchaseOrder.id, orderId))
}

/** An order that was kept from its supplier goes to them from now on. */
export async function setGoesToSupplier(tx: Tx, orderId: string): Promise<void> {
  await tx.update(purchaseOrder).set({ isSent: true }).where(eq(purchaseOrder.id, orderId))
}

/** Writes the lines of an order with what each serves; returns their ids in order. */
export async function insertOrderLines(
  tx: Tx,
  orderId: string,
  lines: readonly (MergedLine & { taxRate: DecimalText; net: Money; borne: Money; blanketLineId?: string })[],
): Promise<string[]> {
  const ids = lines.map(() => randomUUID())
  await sendAlong(
    tx,
    tx.insert(orderLine).values(
      lines.map((l, position) => ({
        id: ids[position] ?? '',
        orderId,
        position,
        blanketLineId: l.blanketLineId ?? null,
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
        borne: l.borne.amount,
      })),
    ),
  )
  const sources = lines.flatMap((l, i) =>
    l.sources.map((s) => ({
      orderLineId: ids[i] ?? '',
      requisitionLineId: s.requisitionLineId,
      quantity: s.quantity,
    })),
  )
  // What is called off belongs to whatever its blanket order belongs to.
  if (sources.length > 0) await sendAlong(tx, tx.insert(orderLineSource).values(sources))
  return ids
}

/** An order is sent to be decided on: who owned it before plays no part from now on. */
export async function setSentForDecision(tx: Tx, id: string, issuesItself: boolean): Promise<void> {
  await tx.update(purchaseOrder).set({ issuesItself }).where(eq(purchaseOrder.id, id))
  await forgetOwners(tx, id)
}

export async function setIssued(
  tx: Tx,
  id: string,
  o: { number: string; perBase: DecimalText; net: Money; freight: Money; tax: Money; note: string; now: Date },
): Promise<void> {
  await sendAlong(
    tx,
    tx
      .update(purchaseOrder)
      .set({ note: o.note, perBase: o.perBase, net: o.net.amount, freight: o.freight.amount, tax: o.tax.amount })
      .where(eq(purchaseOrder.id, id)),
  )
  await setLeft(tx, id, { number: o.number, state: 'issued', now: o.now })
  await sendAlong(tx, tx.delete(trayPart).where(eq(trayPart.orderId, id)))
}

export async function insertRevision(
  tx: Tx,
  v: { orderId: string; revision: number; issuedById: string; issuedAt: Date; snapshot: OrderSnapshot },
): Promise<void> {
  await sendAlong(tx, tx.insert(orderRevision).values(v))
}
