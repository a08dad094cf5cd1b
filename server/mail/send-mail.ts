import nodemailer from 'nodemailer'
import { type Db, inTransaction } from '../db/client'
import { environment } from '../environment'
import { findFile } from '../files/store'
import { notifyChange } from '../live/notify'
import { requireOrganisation } from '../settings/reads'
import { lockWaitingMail, markFailed, markSent } from './store'

/**
 * Sends one mail, at least once: its row is locked while the mail server takes it, so that no other
 * server sends it too; a crash in between repeats it with the same Message-ID. Throws when the mail
 * server refuses or is down; the queue then tries again.
 */
export async function sendMail(db: Db, mailId: string, clock: () => Date): Promise<void> {
  try {
    await inTransaction(db, async (tx) => {
      const mail = await lockWaitingMail(tx, mailId, clock())
      if (mail === null) return
      const attachments = await Promise.all(
        mail.attachments.map(async (a) => {
          const found = await findFile(tx, a.hash)
          return {
            filename: a.name,
            content: found?.bytes ?? Buffer.alloc(0),
            contentType: found?.mime ?? 'application/octet-stream',
          }
        }),
      )
      const { name, mailFrom } = await requireOrganisation(tx)
      const url = new URL(environment().smtpUrl)
      url.searchParams.set('connectionTimeout', '5000')
      url.searchParams.set('socketTimeout', '20000')
      const transport = nodemailer.createTransport(url.href)
      await transport.sendMail({
        messageId: mail.messageId,
        from: { name, address: mailFrom },
        to: { name: mail.toName, address: mail.toAddress },
        subject: mail.subject,
        text: mail.body,
        attachments,
      })
      transport.close()
      await markSent(tx, mail.id, clock())
      if (mail.aboutKind === 'order') await notifyChange(tx, { kind: 'order', id: mail.aboutId })
    })
  } catch (error) {
    await inTransaction(db, (tx) => markFailed(tx, mailId, error instanceof Error ? error.message : String(error)))
    throw error
  }
}
