import { randomUUID } from 'node:crypto'
import { and, eq, isNull, sql } from 'drizzle-orm'
import type { Told } from '#core/told/told'
import { outgoingMail } from '../db/schema/mail'
import type { Tx } from '../db/client'
import { sendAlong } from '../db/transaction'

export interface NewMail {
  /** Whoever reads it, if they are one of ours. */
  readonly personId: string | null
  readonly toName: string
  readonly toAddress: string
  readonly told: Told
  /** Where it leads, below the address of the application. */
  readonly path: string | null
  readonly attachments?: readonly { hash: string; name: string }[]
  readonly aboutKind: string
  readonly aboutId: string
  readonly decisionId?: string | null
  readonly notBefore: Date
  readonly now: Date
}

/** Lays mails out; returns their ids in order. */
export async function insertMails(tx: Tx, mails: readonly NewMail[]): Promise<string[]> {
  const rows = mails.map(({ now, attachments = [], decisionId = null, ...rest }) => {
    const id = randomUUID()
    return {
      id,
      messageId: `<${id}@rekko.local>`,
      ...rest,
      attachments: [...attachments],
      decisionId,
      createdAt: now,
    }
  })
  if (rows.length > 0) await sendAlong(tx, tx.insert(outgoingMail).values(rows))
  return rows.map((r) => r.id)
}

export async function markSent(tx: Tx, id: string, now: Date): Promise<void> {
  await tx
    .update(outgoingMail)
    .set({
      sentAt: now,
      attempts: sql`${outgoingMail.attempts} + 1`,
      lastError: null,
      // What opens something once is nobody's to read here afterwards.
      path: sql`split_part(${outgoingMail.path}, '?key=', 1)`,
    })
    .where(eq(outgoingMail.id, id))
}

export async function markFailed(tx: Tx, id: string, error: string): Promise<void> {
  await tx
    .update(outgoingMail)
    .set({ attempts: sql`${outgoingMail.attempts} + 1`, lastError: error.slice(0, 500) })
    .where(eq(outgoingMail.id, id))
}

/** Mail of a decision that was taken back does not leave. */
export async function cancelMailOf(tx: Tx, decisionId: string, now: Date): Promise<void> {
  await tx
    .update(outgoingMail)
    .set({ cancelledAt: now })
    .where(and(eq(outgoingMail.decisionId, decisionId), isNull(outgoingMail.sentAt)))
}
