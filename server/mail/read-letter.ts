import EmailReplyParser from 'email-reply-parser'
import { convert } from 'html-to-text'
import { simpleParser, type AddressObject, type HeaderLines, type ParsedMail } from 'mailparser'

/** The line that stands above what Rekko writes: whatever a mail program quotes of it is no answer. */
export const ANSWER_ABOVE = 'Write above this line to answer.'

/** A letter that came in, as far as it is looked at. */
export interface ReadLetter {
  /** Whoever it says it is from; null unless it is one address. */
  readonly from: string | null
  readonly messageId: string
  /** What its writer wrote, without what they quoted. */
  readonly text: string
  /** A machine wrote it: an absence, a bounce, a list, or another such program. */
  readonly automatic: boolean
  readonly headers: HeaderLines
}

/** Letters that went around so often go around. */
const MOST_HOPS = 30
/** Of a longer page no more is read: an answer stands at its top. */
const MOST_HTML = 2_000_000

/** Reads a message of RFC 5322 as it came. */
export async function readLetter(raw: Buffer): Promise<ReadLetter> {
  const mail = await simpleParser(raw, {
    skipTextToHtml: true,
    skipImageLinks: true,
    maxHtmlLengthToParse: MOST_HTML,
  })
  return {
    from: onlyAddress(mail.from),
    messageId: mail.messageId ?? '',
    text: visibleText(textOf(mail)),
    automatic: isAutomatic(mail),
    headers: mail.headerLines,
  }
}

function onlyAddress(from: AddressObject | undefined): string | null {
  const all = from?.value ?? []
  const [one] = all
  return all.length === 1 && one?.address !== undefined && one.group === undefined ? one.address.toLowerCase() : null
}

/** What was written as text; the page where there is none. */
const textOf = (mail: ParsedMail): string =>
  (mail.text ?? '').trim() === '' && typeof mail.html === 'string'
    ? convert(mail.html.slice(0, MOST_HTML), { wordwrap: false })
    : (mail.text ?? '')

/** What stands above the first line of Rekko's own letter, without what introduces or marks a quotation. */
function visibleText(text: string): string {
  const at = text.indexOf(ANSWER_ABOVE)
  const above = at === -1 ? text : text.slice(0, at).replace(/[>|\s]*$/, '\n')
  return new EmailReplyParser()
    .read(above.replace(/\u00a0/g, ' '))
    .getVisibleText()
    .trim()
}

/** By RFC 3834, and what programs that do not know it write. */
function isAutomatic(mail: ParsedMail): boolean {
  const said = (name: string) => {
    const value = mail.headers.get(name)
    return typeof value === 'string' ? value.toLowerCase() : value === undefined ? '' : 'something'
  }
  const type = mail.headerLines.find((h) => h.key === 'content-type')?.line.toLowerCase() ?? ''
  return (
    !['', 'no'].includes(said('auto-submitted').split(';')[0]?.trim() ?? '') ||
    /^(bulk|junk|list|auto_reply)/.test(said('precedence')) ||
    ['x-autoreply', 'x-autorespond', 'list', 'x-loop', 'x-failed-recipients'].some((name) => said(name) !== '') ||
    type.includes('multipart/report') ||
    mail.headerLines.filter((h) => h.key === 'received').length > MOST_HOPS
  )
}
