import { and, eq, sql } from 'drizzle-orm'
import { orderRevision, orderSending } from '../db/schema/order'
import type { Tx } from '../db/client'

export async function setFiled(tx: Tx, orderId: string, revision: number, pdfHash: string): Promise<void> {
  await tx
    .update(orderRevision)
    .set({ pdfHash })
    .where(and(eq(orderRevision.orderId, orderId), eq(orderRevision.revision, revision)))
}

export async function insertSending(tx: Tx, s: typeof orderSending.$inferInsert): Promise<void> {
  await tx.insert(orderSending).values(s)
}

export async function markSendingSent(tx: Tx, id: string, now: Date): Promise<void> {
  await tx
    .update(orderSending)
    .set({ outcome: 'sent', sentAt: now, tries: sql`${orderSending.tries} + 1`, lastError: null })
    .where(eq(orderSending.id, id))
}

export async function markSendingFailed(tx: Tx, id: string, error: string): Promise<void> {
  await tx
    .update(orderSending)
    .set({ tries: sql`${orderSending.tries} + 1`, lastError: error.slice(0, 500) })
    .where(and(eq(orderSending.id, id), eq(orderSending.outcome, 'waiting')))
}

/** Nobody tries any more; whoever looks sees why. */
export async function markSendingGivenUp(tx: Tx, id: string): Promise<void> {
  await tx
    .update(orderSending)
    .set({ outcome: 'given up' })
    .where(and(eq(orderSending.id, id), eq(orderSending.outcome, 'waiting')))
}
