import nodemailer from 'nodemailer'
import { environment } from '../environment'

export interface Letter {
  readonly messageId: string
  readonly from: { readonly name: string; readonly address: string }
  readonly to: { readonly name: string; readonly address: string }
  readonly subject: string
  readonly text: string
  readonly files: readonly { readonly name: string; readonly mime: string; readonly bytes: Buffer }[]
}

/** Hands a letter to the mail server; throws when that refuses or is down. */
export async function deliverMail(letter: Letter): Promise<void> {
  const url = new URL(environment().smtpUrl)
  url.searchParams.set('connectionTimeout', '5000')
  url.searchParams.set('socketTimeout', '20000')
  const transport = nodemailer.createTransport(url.href)
  try {
    await transport.sendMail({
      messageId: letter.messageId,
      from: letter.from,
      to: letter.to,
      subject: letter.subject,
      text: letter.text,
      attachments: letter.files.map((f) => ({ filename: f.name, content: f.bytes, contentType: f.mime })),
    })
  } finally {
    transport.close()
  }
}
