import { type Kept } from './post-office'

const STYLE = `
:root{color-scheme:light dark;--ground:#e6ebe5;--sheet:#fcfcf9;--ink:#14231f;--second:#44554f;--rule:#d6ddd6;--edge:#7d8c85;--green:#0e5a4f}
@media(prefers-color-scheme:dark){:root{--ground:#0c1412;--sheet:#141e1b;--ink:#e6ede8;--second:#b4c2bb;--rule:#26332e;--edge:#66776f;--green:#7cc9b5}}
body{margin:0;background:var(--ground);color:var(--ink);font:14px/20px "Hanken Grotesk",ui-sans-serif,system-ui,sans-serif;font-variant-numeric:tabular-nums}
main{max-width:960px;margin:20px auto;background:var(--sheet);border:1px solid var(--rule);border-radius:4px;padding:28px 32px}
h1{font:440 25px/35px Newsreader,Georgia,serif;margin:0 0 16px}table{border-collapse:collapse;width:100%}
th{text-align:left;font-weight:600;font-size:12.5px;color:var(--second);border-bottom:1px solid var(--ink);padding:6px 12px 6px 0}
td{border-bottom:1px solid var(--rule);padding:8px 12px 8px 0;vertical-align:top;overflow-wrap:anywhere}
a{color:inherit;text-underline-offset:3px}a:focus-visible,input:focus-visible{outline:2px solid var(--green);outline-offset:2px}
.second{color:var(--second)}pre{font:inherit;white-space:pre-wrap;overflow-wrap:anywhere;max-width:68ch}
input{font:inherit;color:inherit;background:none;border:1px solid var(--edge);border-radius:4px;padding:7px 10px;width:100%;box-sizing:border-box;margin-bottom:16px}
dl{display:grid;grid-template-columns:max-content 1fr;gap:4px 16px;margin:0 0 20px}dt{color:var(--second)}dd{margin:0;overflow-wrap:anywhere}`

const escape = (text: string) => text.replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`)
const page = (title: string, body: string) =>
  `<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width,initial-scale=1"><title>${escape(title)}</title><style>${STYLE}</style></head><body><main>${body}</main></body></html>`

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
  const rows = shown
    .map(
      (k) =>
        `<tr><td class="second"><time datetime="${k.receivedAt}">${k.receivedAt.slice(0, 16).replace('T', ' ')}</time></td><td>${escape(recipients(k))}</td><td><a href="/mail/${k.number}">${escape(k.mail.subject ?? 'no subject')}</a>${k.mail.attachments.length > 0 ? `<div class="second">${escape(k.mail.attachments.map((a) => a.filename ?? '').join(', '))}</div>` : ''}</td></tr>`,
    )
    .join('')
  const sentence =
    kept.length === 0
      ? 'No mail has come yet. Send a request or issue an order in Rekko, and its mail stands here.'
      : shown.length === 0
        ? 'No mail has these words in it.'
        : `The post office holds ${kept.length} ${kept.length === 1 ? 'mail' : 'mails'}.`
  return page(
    'Post office',
    `<h1>${sentence}</h1><form><input name="words" value="${escape(words)}" aria-label="Find mail" placeholder="Find by person, subject or words"></form>${rows === '' ? '' : `<table><thead><tr><th>Came (UTC)</th><th>To</th><th>Subject</th></tr></thead><tbody>${rows}</tbody></table>`}`,
  )
}

/** One mail as it came. */
export function mailPage(k: Kept): string {
  const attachments = k.mail.attachments
    .map(
      (a, i) =>
        `<a href="/mail/${k.number}/attachments/${i}">${escape(a.filename ?? 'attachment')}</a> <span class="second">${Math.max(1, Math.round(a.size / 1000))} kB</span>`,
    )
    .join('<br>')
  return page(
    k.mail.subject ?? 'Mail',
    `<p><a href="/">All mail</a></p><h1>${escape(k.mail.subject ?? 'no subject')}</h1><dl><dt>From</dt><dd>${escape(k.mail.from?.text ?? '')}</dd><dt>To</dt><dd>${escape(recipients(k))}</dd><dt>Came</dt><dd>${k.receivedAt}</dd><dt>Message-ID</dt><dd>${escape(k.mail.messageId ?? '')}</dd>${attachments === '' ? '' : `<dt>With it</dt><dd>${attachments}</dd>`}</dl><pre>${escape(k.mail.text ?? '')}</pre>`,
  )
}

export function missingPage(): string {
  return page('Post office', '<h1>There is no such mail.</h1><p><a href="/">All mail</a></p>')
}
