import type { Tx } from '../db/client'
import { enqueue } from '../queue/enqueue'
import { insertMail, type NewMail } from './store'

/** Lays a mail out to leave after the commit, not before its time. */
export async function postMail(tx: Tx, mail: NewMail): Promise<string> {
  const mailId = await insertMail(tx, mail)
  await enqueue(tx, 'send-mail', { mailId }, (mail.notBefore.getTime() - mail.now.getTime()) / 1000)
  return mailId
}
