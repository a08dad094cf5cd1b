import { sql } from 'drizzle-orm'
import type { Told } from '#core/told/told'
import type { Tx } from '../db/client'
import { named, read, readOne } from '../db/read'
import { person } from '../db/schema/people'
import { outgoingMail } from '../db/schema/mail'

const p = named(person, 'p')
const m = named(outgoingMail, 'm')

export interface WaitingMail {
  id: string
  messageId: string
  toName: string
  toAddress: string
  personId: string | null
  aboutKind: string
  aboutId: string
  /** The ways of whoever reads it; null for somebody outside. */
  locale: string | null
  told: Told
  path: string | null
  attachments: { hash: string; name: string }[]
}

/** Locks a mail that is still to be sent and due; null when it was sent, cancelled, or another server has it. */
export function lockWaitingMail(tx: Tx, id: string, now: Date): Promise<WaitingMail | null> {
  return readOne(
    tx,
    {
      id: m.id,
      messageId: m.messageId,
      toName: m.toName,
      toAddress: m.toAddress,
      told: m.told,
      path: m.path,
      personId: m.personId,
      aboutKind: m.aboutKind,
      aboutId: m.aboutId,
      attachments: m.attachments,
      locale: sql<WaitingMail['locale']>`(select ${p.locale} from ${p} where ${p.id} = ${m.personId})`,
    },
    sql`from ${m}
    where ${m.id} = ${id} and ${m.sentAt} is null and ${m.cancelledAt} is null
    and ${m.notBefore} <= ${now.toISOString()}
    for update of m skip locked`,
  )
}

/** Whether something was mailed about a document since a moment, for a decision or for none. */
export async function wasMailed(
  tx: Tx,
  of: { aboutId: string; code: Told['code']; decisionId: string | null; since: string },
): Promise<boolean> {
  const found = await readOne(
    tx,
    { id: outgoingMail.id },
    sql`from ${outgoingMail} where ${outgoingMail.aboutId} = ${of.aboutId}
      and ${outgoingMail.told} ->> 'code' = ${of.code}
      and ${outgoingMail.decisionId} is not distinct from ${of.decisionId}::uuid
      and ${outgoingMail.createdAt} >= ${of.since}::timestamptz limit 1`,
  )
  return found !== null
}

/** Mail that is due and was not sent: a task may have been lost with its server. */
export async function listOverdueMail(tx: Tx, now: Date, limit: number): Promise<string[]> {
  const found = await read(
    tx,
    { id: outgoingMail.id },
    sql`from ${outgoingMail} where ${outgoingMail.sentAt} is null and ${outgoingMail.cancelledAt} is null
    and ${outgoingMail.notBefore} <= ${now.toISOString()}
    order by ${outgoingMail.notBefore} limit ${limit}`,
  )
  return found.map((m) => m.id)
}
