import { randomUUID } from 'node:crypto'
import { and, eq, isNull, sql } from 'drizzle-orm'
import { outgoingMail } from '../db/schema/mail'
import { type Tx } from '../db/client'
import { row, rows } from '../db/rows'

export interface NewMail {
  readonly toName: string
  readonly toAddress: string
  readonly subject: string
  readonly body: string
  readonly attachments?: readonly { hash: string; name: string }[]
  readonly aboutKind: 'requisition' | 'order' | 'supplier'
  readonly aboutId: string
  readonly decisionId?: string | null
  readonly notBefore: Date
  readonly now: Date
}

export async function insertMail(tx: Tx, mail: NewMail): Promise<string> {
  const id = randomUUID()
  await tx.insert(outgoingMail).values({
    id,
    messageId: `<${id}@rekko.local>`,
    toName: mail.toName,
    toAddress: mail.toAddress,
    subject: mail.subject,
    body: mail.body,
    attachments: [...(mail.attachments ?? [])],
    aboutKind: mail.aboutKind,
    aboutId: mail.aboutId,
    decisionId: mail.decisionId ?? null,
    createdAt: mail.now,
    notBefore: mail.notBefore,
  })
  return id
}

export interface WaitingMail {
  id: string
  messageId: string
  toName: string
  toAddress: string
  subject: string
  body: string
  attachments: { hash: string; name: string }[]
  aboutKind: string
  aboutId: string
}

/** Locks a mail that is still to be sent and due; null when it was sent, cancelled, or another server has it. */
export function lockWaitingMail(tx: Tx, id: string, now: Date): Promise<WaitingMail | null> {
  return row<WaitingMail>(
    tx,
    sql`
    select id, message_id as "messageId", to_name as "toName", to_address as "toAddress", subject, body, attachments,
      about_kind as "aboutKind", about_id as "aboutId"
    from outgoing_mail where id = ${id} and sent_at is null and cancelled_at is null and not_before <= ${now.toISOString()}
    for update skip locked`,
  )
}

export async function markSent(tx: Tx, id: string, now: Date): Promise<void> {
  await tx
    .update(outgoingMail)
    .set({ sentAt: now, attempts: sql`${outgoingMail.attempts} + 1`, lastError: null })
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

/** Mail that has been due for a while and was not sent: a task may have been lost with its server. */
export async function listOverdueMail(tx: Tx, now: Date, limit: number): Promise<string[]> {
  const found = await rows<{ id: string }>(
    tx,
    sql`
    select id from outgoing_mail where sent_at is null and cancelled_at is null and not_before <= ${now.toISOString()}
    order by not_before limit ${limit}`,
  )
  return found.map((m) => m.id)
}
