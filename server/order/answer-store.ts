import { eq, sql } from 'drizzle-orm'
import type { AnswerOutcome } from '#core/order/answer'
import type { LineWish } from '#core/order/change'
import type { Tx } from '../db/client'
import { bare, named } from '../db/read'
import { orderAnswer, orderLine, purchaseOrder } from '../db/schema/order'

const l = named(orderLine, 'l')

export async function insertAnswer(tx: Tx, answer: typeof orderAnswer.$inferInsert): Promise<void> {
  await tx.insert(orderAnswer).values(answer)
}

/** What became of an answer, and what was said to it. */
export async function endAnswer(
  tx: Tx,
  id: string,
  { outcome, said = '', now }: { outcome: AnswerOutcome; said?: string; now: Date },
): Promise<void> {
  await tx.update(orderAnswer).set({ outcome, said, endedAt: now }).where(eq(orderAnswer.id, id))
}

/** Writes down by when the supplier promised lines. */
export async function setPromised(tx: Tx, orderId: string, lines: readonly LineWish[]): Promise<void> {
  const flat = lines.map((w) => ({ i: w.lineId, d: w.needBy }))
  await tx.execute(sql`update ${l} set ${bare(l.promisedOn)} = w.d
    from jsonb_to_recordset(${JSON.stringify(flat)}::jsonb) as w(i uuid, d date)
    where ${l.id} = w.i and ${l.orderId} = ${orderId}`)
}

/** When the supplier was asked last for an answer. */
export async function setReminded(tx: Tx, orderId: string, now: Date): Promise<void> {
  await tx.update(purchaseOrder).set({ remindedAt: now }).where(eq(purchaseOrder.id, orderId))
}
