import { readFileSync } from 'node:fs'
import type { Kept } from './kept'

const STYLE = readFileSync(new URL('style.css', import.meta.url), 'utf8')

const escape = (text: string) => text.replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`)
/** Addresses in a letter lead where they say. */
const withLinks = (escaped: string) => escaped.replace(/https?:\/\/[^\s<>"]+/g, (at) => `<a href="${at}">${at}</a>`)
const page = (title: string, body: string): string => `<!doctype html><html lang="en"><head>
  <meta charset="utf-8"><meta name="viewport" content="width=device-width,initial-scale=1">
  <title>${escape(title)}</title><style>${STYLE}</style>
  </head><body><main>${body}</main></body></html>`

function recipients(k: Kept): string {
  const { to } = k.mail
  return to === undefined ? '' : (Array.isArray(to) ? to : [to]).map((t) => t.text).join(', ')
}

/** All mail, newest first, or what has the words in it. */
export function listPage(kept: readonly Kept[], words: string): string {
  const wanted = words.toLowerCase().trim()
  const shown = [...kept]
    .reverse()
    .filter((k) => `${recipients(k)} ${k.mail.subject ?? ''} ${k.mail.text ?? ''}`.toLowerCase().includes(wanted))
    .slice(0, 300)
  const sentence =
    kept.length === 0
      ? 'No mail has come yet. Send a request or issue an order in Rekko, and its mail stands here.'
      : shown.length === 0
        ? 'No mail has these words in it.'
        : `The post office holds ${kept.length} ${kept.length === 1 ? 'mail' : 'mails'}.`
  const table = `<table>
    <thead><tr><th>Came (UTC)</th><th>To</th><th>Subject</th></tr></thead>
    <tbody>${shown.map(listRow).join('')}</tbody></table>`
  return page(
    'Post office',
    `<h1>${sentence}</h1>
    <form><input name="words" value="${escape(words)}" aria-label="Find mail"
      placeholder="Find by person, subject or words"></form>
    ${shown.length === 0 ? '' : table}`,
  )
}

function listRow(k: Kept): string {
  const files = k.mail.attachments.map((a) => a.filename ?? '').join(', ')
  return `<tr>
    <td class="second"><time datetime="${k.receivedAt}">${k.receivedAt.slice(0, 16).replace('T', ' ')}</time></td>
    <td>${escape(recipients(k))}</td>
    <td><a href="/mail/${k.number}">${escape(k.mail.subject ?? 'no subject')}</a>
      ${files === '' ? '' : `<div class="second">${escape(files)}</div>`}</td></tr>`
}

/** One mail as it came; `said` is what became of an answer to it. */
export function mailPage(k: Kept, said = ''): string {
  const attachments = k.mail.attachments.map((a, i) => {
    const size = `${Math.max(1, Math.round(a.size / 1000))} kB`
    const name = escape(a.filename ?? 'attachment')
    return `<a href="/mail/${k.number}/attachments/${i}">${name}</a> <span class="second">${size}</span>`
  })
  const facts: [string, string][] = [
    ['From', escape(k.mail.from?.text ?? '')],
    ['To', escape(recipients(k))],
    ['Came', k.receivedAt],
    ['Message-ID', escape(k.mail.messageId ?? '')],
    ...(typeof k.mail.html === 'string'
      ? [['As a page', `<a href="/mail/${k.number}/page">Read it as a page</a>`] as [string, string]]
      : []),
    ...(attachments.length === 0 ? [] : [['With it', attachments.join('<br>')] as [string, string]]),
  ]
  return page(
    k.mail.subject ?? 'Mail',
    `<p><a href="/">All mail</a></p>
    <h1>${escape(k.mail.subject ?? 'no subject')}</h1>
    <dl>${facts.map(([name, value]) => `<dt>${name}</dt><dd>${value}</dd>`).join('')}</dl>
    <pre>${withLinks(escape(k.mail.text ?? ''))}</pre>
    ${answerForm(k, said)}`,
  )
}

/** Where a mail may be answered, whoever it went to can answer it here. */
function answerForm(k: Kept, said: string): string {
  const to = k.mail.replyTo?.text ?? ''
  if (to === '') return ''
  return `<h2>Answer as ${escape(recipients(k))}</h2>
    ${said === '' ? '' : `<p role="status">${escape(said)}</p>`}
    <form method="post" action="/mail/${k.number}/answer">
    <textarea name="text" rows="4" aria-label="Your answer" required></textarea>
    <p class="second">It goes to ${escape(to)}, with the mail quoted below it.</p>
    <button>Send the answer</button></form>`
}

export function missingPage(): string {
  return page('Post office', '<h1>There is no such mail.</h1><p><a href="/">All mail</a></p>')
}
