import { sql } from 'drizzle-orm'
import type { Told } from '#core/told/told'
import type { Tx } from '../db/client'
import { row, rows } from '../db/rows'

export interface WaitingMail {
  id: string
  messageId: string
  toName: string
  toAddress: string
  /** The ways of whoever reads it; null for somebody outside. */
  locale: string | null
  told: Told
  path: string | null
  attachments: { hash: string; name: string }[]
}

/** Locks a mail that is still to be sent and due; null when it was sent, cancelled, or another server has it. */
export function lockWaitingMail(tx: Tx, id: string, now: Date): Promise<WaitingMail | null> {
  return row<WaitingMail>(
    tx,
    sql`
    select m.id, m.message_id as "messageId", m.to_name as "toName", m.to_address as "toAddress", m.told, m.path,
      m.attachments, (select p.locale from person p where p.id = m.person_id) as locale
    from outgoing_mail m
    where m.id = ${id} and m.sent_at is null and m.cancelled_at is null and m.not_before <= ${now.toISOString()}
    for update of m skip locked`,
  )
}

/** Mail that is due and was not sent: a task may have been lost with its server. */
export async function listOverdueMail(tx: Tx, now: Date, limit: number): Promise<string[]> {
  const found = await rows<{ id: string }>(
    tx,
    sql`
    select id from outgoing_mail where sent_at is null and cancelled_at is null and not_before <= ${now.toISOString()}
    order by not_before limit ${limit}`,
  )
  return found.map((m) => m.id)
}
