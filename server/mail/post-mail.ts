import type { Tx } from '../db/client'
import { enqueueAll } from '../queue/enqueue'
import { insertMails, type NewMail } from './store'

/** Lays mails out to leave after the commit, each not before its time. */
export async function postMails(tx: Tx, mails: readonly NewMail[]): Promise<void> {
  const ids = await insertMails(tx, mails)
  await enqueueAll(
    tx,
    'send-mail',
    mails.map((mail, i) => ({
      data: { mailId: ids[i] ?? '' },
      inSeconds: (mail.notBefore.getTime() - mail.now.getTime()) / 1000,
    })),
  )
}
