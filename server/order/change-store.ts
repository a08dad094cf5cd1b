import { eq, sql } from 'drizzle-orm'
import type { DecimalText } from '#core/base/decimal'
import type { OrderAdjustment } from '#core/order/adjustment'
import type { ChangedLine, LineWish, Rest } from '#core/order/change'
import type { Money } from '#core/base/money'
import type { Tx } from '../db/client'
import { bare, named } from '../db/read'
import { orderChange, orderLine, orderLineSource, purchaseOrder } from '../db/schema/order'
import { sendAlong } from '../db/transaction'
import { insertDocument } from '../document/store'

const l = named(orderLine, 'l')
const x = named(orderLineSource, 'x')

interface Wishes {
  readonly lines: readonly LineWish[]
  readonly shipToId: string | null
  readonly expiresOn?: string | null
  readonly adjustments?: readonly OrderAdjustment[] | null
  readonly rest: Rest
  readonly reason: string
  readonly note: string
}

/** Enters a change of an order that is under way from now on. */
export async function insertChange(
  tx: Tx,
  change: { id: string; orderId: string; title: string; buyerId: string; wishes: Wishes; now: Date },
): Promise<void> {
  const { id, orderId, title, buyerId: ownerId, wishes, now } = change
  await insertDocument(tx, { id, kind: 'order change', title, ownerId, now })
  await tx.insert(orderChange).values({ id, orderId, ...wishes, isUnderWay: true })
}

/** Writes anew what a change that came back is to be. */
export async function setWishes(tx: Tx, id: string, wishes: Wishes): Promise<void> {
  await tx.update(orderChange).set(wishes).where(eq(orderChange.id, id))
}

/** A change is over: it became a revision, or nothing (null). */
export async function endChange(tx: Tx, id: string, revision: number | null): Promise<void> {
  await tx.update(orderChange).set({ isUnderWay: false, revision }).where(eq(orderChange.id, id))
}

/** What an order is from a revision on. */
export async function setRevised(
  tx: Tx,
  id: string,
  o: Pick<typeof purchaseOrder.$inferSelect, 'revision' | 'shipToId' | 'expiresOn' | 'adjustments'> & {
    readonly net: Money
    readonly freight: Money
    readonly tax: Money
  },
): Promise<void> {
  await tx
    .update(purchaseOrder)
    .set({
      ...{ revision: o.revision, shipToId: o.shipToId, expiresOn: o.expiresOn, adjustments: o.adjustments },
      ...{ net: o.net.amount, freight: o.freight.amount, tax: o.tax.amount },
    })
    .where(eq(purchaseOrder.id, id))
}

/** Writes the lines of an order as a change leaves them, and how much of each belongs to which requisition line. */
export async function updateLines(
  tx: Tx,
  lines: readonly (ChangedLine & { readonly borne: Money; readonly discountAmount: DecimalText | null })[],
): Promise<void> {
  const flat = lines.map((c) => ({
    ...{ i: c.id, q: c.quantity, p: c.unitPrice, d: c.needBy, n: c.net.amount, b: c.borne.amount },
    a: c.discountAmount,
  }))
  await sendAlong(
    tx,
    tx.execute(sql`
      update ${l} set ${bare(l.quantity)} = f.q, ${bare(l.unitPrice)} = f.p, ${bare(l.needBy)} = f.d,
        ${bare(l.net)} = f.n, ${bare(l.borne)} = f.b, ${bare(l.discountAmount)} = f.a
      from json_to_recordset(${JSON.stringify(flat)}::json)
        as f(i uuid, q numeric, p numeric, d date, n numeric, b numeric, a numeric) where ${l.id} = f.i`),
  )
  const moved = lines.flatMap((c) =>
    c.moved.map((m) => ({
      ...{ i: c.id, l: m.requisitionLineId },
      q: c.sources.find((s) => s.requisitionLineId === m.requisitionLineId)?.quantity ?? '0',
    })),
  )
  if (moved.length === 0) return
  await sendAlong(
    tx,
    tx.execute(sql`
      update ${x} set ${bare(x.quantity)} = f.q
      from json_to_recordset(${JSON.stringify(moved)}::json) as f(i uuid, l uuid, q numeric)
      where ${x.orderLineId} = f.i and ${x.requisitionLineId} = f.l`),
  )
}
