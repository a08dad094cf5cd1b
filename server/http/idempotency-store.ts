import { and, eq } from 'drizzle-orm'
import { idempotency } from '../db/schema/http'
import type { Tx } from '../db/client'
import { sendAlong } from '../db/transaction'

/** Writes a key first, so that two at the same moment wait for each other; false where it was used before. */
export async function insertKey(
  tx: Tx,
  k: {
    readonly personId: string
    readonly key: string
    readonly route: string
    readonly bodyHash: string
    readonly now: Date
  },
): Promise<boolean> {
  const { now, ...rest } = k
  const added = await tx
    .insert(idempotency)
    .values({ ...rest, status: 200, at: now })
    .onConflictDoNothing()
    .returning({ key: idempotency.key })
  return added.length > 0
}

/** What was answered under a key. */
export async function findKept(
  tx: Tx,
  personId: string,
  key: string,
): Promise<{ route: string; bodyHash: string; reply: unknown } | null> {
  const [kept] = await tx
    .select({ route: idempotency.route, bodyHash: idempotency.bodyHash, reply: idempotency.reply })
    .from(idempotency)
    .where(and(eq(idempotency.personId, personId), eq(idempotency.key, key)))
  return kept ?? null
}

export async function setReply(tx: Tx, personId: string, key: string, reply: unknown): Promise<void> {
  await sendAlong(
    tx,
    tx
      .update(idempotency)
      .set({ reply })
      .where(and(eq(idempotency.personId, personId), eq(idempotency.key, key))),
  )
}
