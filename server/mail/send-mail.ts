import { sayTold } from '#shared/words/told'
import { waysOf } from '#shared/words/ways'
import type { Db, Tx } from '../db/client'
import { inTransaction } from '../db/transaction'
import { environment } from '../environment'
import { findFile } from '../files/store'
import { requireOrganisation } from '../settings/reads'
import { deliverMail, type Letter } from './deliver-mail'
import { lockWaitingMail, type WaitingMail } from './reads'
import { markFailed, markSent } from './store'

/** A mail as more than its sentence. */
export interface Dressed {
  readonly text: string
  readonly html: string
  readonly replyTo: string | null
  readonly files: Letter['files']
}
/** Makes more of a mail than its sentence; null where that says it all. */
export type Dress = (tx: Tx, mail: WaitingMail, now: Date) => Promise<Dressed | null>

/**
 * Sends one mail, at least once: its row is locked while the mail server takes it, so that no other server sends it
 * too;
 * a crash in between repeats it with the same Message-ID. It is worded now, in its reader's ways. Throws when the mail
 * server refuses or is down; the queue then tries again.
 */
export async function sendMail(db: Db, mailId: string, clock: () => Date, dress: Dress): Promise<void> {
  try {
    await inTransaction(db, async (tx) => {
      const mail = await lockWaitingMail(tx, mailId, clock())
      if (mail === null) return
      const { name, mailFrom } = await requireOrganisation(tx)
      const { subject, sentence } = sayTold(mail.told, waysOf(mail.locale ?? 'en-GB'))
      const dressed = await dress(tx, mail, clock())
      await deliverMail({
        messageId: mail.messageId,
        from: { name, address: mailFrom },
        to: { name: mail.toName, address: mail.toAddress },
        subject,
        text:
          dressed?.text ?? (mail.path === null ? sentence : `${sentence}\n\n${environment().publicUrl}${mail.path}\n`),
        ...(dressed === null ? {} : { html: dressed.html }),
        ...(dressed?.replyTo == null ? {} : { replyTo: dressed.replyTo }),
        files: [...(await filesOf(tx, mail)), ...(dressed?.files ?? [])],
      })
      await markSent(tx, mail.id, clock())
    })
  } catch (error) {
    await inTransaction(db, (tx) => markFailed(tx, mailId, error instanceof Error ? error.message : String(error)))
    throw error
  }
}

async function filesOf(tx: Tx, mail: WaitingMail): Promise<{ name: string; mime: string; bytes: Buffer }[]> {
  const files = []
  for (const a of mail.attachments) {
    const found = await findFile(tx, a.hash)
    files.push({
      name: a.name,
      mime: found?.mime ?? 'application/octet-stream',
      bytes: found?.bytes ?? Buffer.alloc(0),
    })
  }
  return files
}
