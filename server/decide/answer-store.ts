import { createHmac } from 'node:crypto'
import { eq, sql } from 'drizzle-orm'
import type { Tx } from '../db/client'
import { answerKey, mailAnswer } from '../db/schema/decide'
import { hashSecret } from '../people/hash-secret'

export type AnswerKey = typeof answerKey.$inferSelect

/**
 * The secret part of an answer address: unguessable without the server's secret, and the same when a mail is sent once
 * more after a crash. Lower case alone, since some programs write addresses so.
 */
export const answerSecret = (secret: string, mailId: string): string =>
  createHmac('sha256', secret).update(`answer ${mailId}`).digest('hex').slice(0, 40)

/** Keeps that an address may be answered; sending its mail again changes nothing. */
export async function insertAnswerKey(tx: Tx, secret: string, k: Omit<AnswerKey, 'hash' | 'usedAt'>): Promise<void> {
  await tx
    .insert(answerKey)
    .values({ hash: hashSecret(secret), ...k })
    .onConflictDoNothing()
}

/** What an address belongs to, its row locked, so that of two answers one decides; null where it belongs to nothing. */
export async function lockAnswerKey(tx: Tx, secret: string): Promise<AnswerKey | null> {
  const [row] = await tx
    .select()
    .from(answerKey)
    .where(eq(answerKey.hash, hashSecret(secret)))
    .for('update')
  return row ?? null
}

/** Whether an address is one at all, before anything is sent to it. */
export async function isAnswerKey(tx: Tx, secret: string): Promise<boolean> {
  const found = await tx
    .select({ hash: answerKey.hash })
    .from(answerKey)
    .where(eq(answerKey.hash, hashSecret(secret)))
  return found.length > 0
}

/** A decision was made by it: it makes no other. */
export async function useAnswerKey(tx: Tx, key: AnswerKey, now: Date): Promise<void> {
  await tx.update(answerKey).set({ usedAt: now }).where(eq(answerKey.hash, key.hash))
}

export async function insertAnswer(tx: Tx, a: typeof mailAnswer.$inferInsert): Promise<void> {
  await tx.insert(mailAnswer).values(a)
}

/** Whether a message came to an address before, and how many did that changed nothing. */
export async function findAnswered(
  tx: Tx,
  key: AnswerKey,
  messageId: string,
): Promise<{ readonly before: boolean; readonly idle: number }> {
  const [found] = await tx
    .select({
      before: sql<boolean>`coalesce(bool_or(${mailAnswer.messageId} = ${messageId}), false)`,
      idle: sql<number>`count(*) filter (where ${mailAnswer.outcome} not in ('decided', 'asked'))::int`,
    })
    .from(mailAnswer)
    .where(eq(mailAnswer.keyHash, key.hash))
  return found ?? { before: false, idle: 0 }
}
