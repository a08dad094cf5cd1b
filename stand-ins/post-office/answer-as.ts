import nodemailer from 'nodemailer'
import type { Kept } from './kept'

/** The name by which the post office says what it found out of a sender (RFC 8601). */
const NAME = process.env.POST_OFFICE_NAME ?? 'post-office.example'

/**
 * Sends an answer to a mail as whoever it went to, over SMTP to where letters of that domain go, and says what the
 * other side said. It knows its people: what they send carries its word for them.
 */
export async function answerAs(k: Kept, text: string, routes: ReadonlyMap<string, string>): Promise<string> {
  const to = k.mail.replyTo?.value[0]?.address ?? ''
  const [recipient] = k.mail.to === undefined ? [] : Array.isArray(k.mail.to) ? k.mail.to : [k.mail.to]
  const from = recipient?.value[0]
  const route = routes.get(to.slice(to.indexOf('@') + 1))
  if (from?.address === undefined || route === undefined) return `Nothing is known of where letters to ${to} go.`
  const [host, port] = route.split(':')
  const domain = from.address.slice(from.address.indexOf('@') + 1)
  const quoted = (k.mail.text ?? '').replace(/^/gm, '> ')
  const messageId = k.mail.messageId ?? ''
  const transport = nodemailer.createTransport({ host: host ?? '', port: Number(port), ignoreTLS: true })
  try {
    await transport.sendMail({
      from: { name: from.name, address: from.address },
      to,
      subject: `Re: ${k.mail.subject ?? ''}`,
      text: `${text}\n\nOn ${k.receivedAt.slice(0, 10)}, ${k.mail.from?.text ?? ''} wrote:\n${quoted}\n`,
      ...(messageId === '' ? {} : { inReplyTo: messageId, references: messageId }),
      headers: { 'Authentication-Results': `${NAME}; dmarc=pass header.from=${domain}` },
    })
    return 'The answer was taken.'
  } catch (error) {
    return `The answer was not taken: ${error instanceof Error ? error.message : String(error)}`
  } finally {
    transport.close()
  }
}
