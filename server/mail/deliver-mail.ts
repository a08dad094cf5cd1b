import nodemailer, { type Transporter } from 'nodemailer'
import { environment } from '../environment'

export interface Letter {
  readonly messageId: string
  readonly from: { readonly name: string; readonly address: string }
  readonly to: { readonly name: string; readonly address: string }
  readonly subject: string
  readonly text: string
  /** The same as a page, for programs that show one. */
  readonly html?: string
  /** Where an answer goes, if not to the sender. */
  readonly replyTo?: string
  readonly files: readonly { readonly name: string; readonly mime: string; readonly bytes: Buffer }[]
}

let kept: Transporter | null = null
/** Connections to the mail server are kept, a few at once: opening one takes longer than the letter. */
function transport(): Transporter {
  if (kept !== null) return kept
  const url = new URL(environment().smtpUrl)
  const limits = { connectionTimeout: 5000, greetingTimeout: 5000, socketTimeout: 20_000, maxConnections: 4 }
  for (const [name, value] of Object.entries({ pool: true, ...limits })) url.searchParams.set(name, String(value))
  kept = nodemailer.createTransport(url.href)
  return kept
}

/** Hands a letter to the mail server; throws when that refuses or is down. */
export async function deliverMail(letter: Letter): Promise<void> {
  await transport().sendMail({
    messageId: letter.messageId,
    from: letter.from,
    to: letter.to,
    subject: letter.subject,
    text: letter.text,
    // A machine wrote it: no absence is answered to it (RFC 3834).
    headers: { 'Auto-Submitted': 'auto-generated' },
    ...(letter.html === undefined ? {} : { html: letter.html }),
    ...(letter.replyTo === undefined ? {} : { replyTo: letter.replyTo }),
    attachments: letter.files.map((f) => ({ filename: f.name, content: f.bytes, contentType: f.mime })),
  })
}

/** Closes what is kept open to the mail server. */
export function closeMail(): void {
  kept?.close()
  kept = null
}
