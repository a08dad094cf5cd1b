import { mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { createServer, type IncomingMessage, type ServerResponse } from 'node:http'
import { join } from 'node:path'
import { answerAs } from './answer-as'
import type { Kept } from './kept'
import { simpleParser } from 'mailparser'
import { SMTPServer } from 'smtp-server'
import { mailPage, listPage, missingPage } from './pages'

const smtpPort = Number(process.env.POST_OFFICE_SMTP_PORT ?? '2525')
const httpPort = Number(process.env.POST_OFFICE_HTTP_PORT ?? '8025')
const directory = process.env.POST_OFFICE_DIRECTORY ?? join(process.cwd(), '.rekko', 'post')
/** Where letters for other domains go: "domain=host:port", several with commas between. */
const routes = new Map(
  (process.env.POST_OFFICE_ROUTES ?? '')
    .split(',')
    .filter((r) => r !== '')
    .map((r): [string, string] => [r.slice(0, r.indexOf('=')), r.slice(r.indexOf('=') + 1)]),
)
const kept: Kept[] = []

mkdirSync(directory, { recursive: true })
for (const name of readdirSync(directory)
  .filter((n) => n.endsWith('.eml'))
  .sort()) {
  const [number, at] = name.replace('.eml', '').split('_')
  kept.push({
    number: Number(number),
    receivedAt: new Date(Number(at)).toISOString(),
    mail: await simpleParser(readFileSync(join(directory, name))),
  })
}

const smtp = new SMTPServer({
  authOptional: true,
  disabledCommands: ['STARTTLS', 'AUTH'],
  size: 40 * 1024 * 1024,
  logger: false,
  onData(stream, _session, done) {
    const chunks: Buffer[] = []
    stream.on('data', (chunk: Buffer) => chunks.push(chunk))
    stream.on('end', () => {
      void keep(Buffer.concat(chunks)).then(
        () => {
          done()
        },
        (error: unknown) => {
          done(error instanceof Error ? error : new Error(String(error)))
        },
      )
    })
  },
})

async function keep(raw: Buffer): Promise<void> {
  const mail = await simpleParser(raw)
  const number = (kept.at(-1)?.number ?? 0) + 1
  const now = Date.now()
  writeFileSync(join(directory, `${String(number).padStart(6, '0')}_${now}.eml`), raw)
  kept.push({ number, receivedAt: new Date(now).toISOString(), mail })
}

const http = createServer((request, response) => {
  answer(request, response).catch((error: unknown) => {
    process.stderr.write(`post office: ${error instanceof Error ? error.message : String(error)}\n`)
    if (!response.headersSent) response.writeHead(500)
    response.end()
  })
})

/** What a form of these pages sent; more than a long letter is none of them. */
async function readForm(request: IncomingMessage): Promise<URLSearchParams> {
  const chunks: Buffer[] = []
  let size = 0
  for await (const chunk of request as AsyncIterable<Buffer>) {
    size += chunk.length
    if (size > MOST_FORM) throw new Error('a form is too large')
    chunks.push(chunk)
  }
  return new URLSearchParams(Buffer.concat(chunks).toString('utf8'))
}
const MOST_FORM = 1_000_000

async function answer(request: IncomingMessage, response: ServerResponse): Promise<void> {
  const url = new URL(request.url ?? '/', 'http://localhost')
  const send = (status: number, type: string, body: string | Buffer, more: Record<string, string> = {}) => {
    response.writeHead(status, {
      'content-type': type,
      'x-content-type-options': 'nosniff',
      'content-security-policy': "default-src 'none'; style-src 'unsafe-inline'; form-action 'self'",
      ...more,
    })
    response.end(body)
  }
  const html = 'text/html; charset=utf-8'
  if (url.pathname === '/') {
    send(200, html, listPage(kept, url.searchParams.get('words') ?? ''))
    return
  }
  if (url.pathname === '/messages.json') {
    send(200, 'application/json', JSON.stringify(kept.map(summary)))
    return
  }
  const match = /^\/mail\/(\d+)(?:\/attachments\/(\d+)|\/(answer|page))?$/.exec(url.pathname)
  const found = match === null ? undefined : kept.find((k) => k.number === Number(match[1]))
  if (match === null || found === undefined) {
    send(404, html, missingPage())
    return
  }
  if (match[3] === 'page') {
    send(200, html, typeof found.mail.html === 'string' ? found.mail.html : missingPage())
    return
  }
  if (match[3] === 'answer') {
    // Only these pages themselves answer.
    const isOwn = request.headers['sec-fetch-site'] === undefined || request.headers['sec-fetch-site'] === 'same-origin'
    if (request.method !== 'POST' || !isOwn) {
      send(403, html, missingPage())
      return
    }
    const text = (await readForm(request)).get('text') ?? ''
    send(200, html, mailPage(found, await answerAs(found, text, routes)))
    return
  }
  if (match[2] === undefined) {
    send(200, html, mailPage(found))
    return
  }
  const attachment = found.mail.attachments[Number(match[2])]
  if (attachment === undefined) {
    send(404, html, missingPage())
    return
  }
  const name = (attachment.filename ?? 'attachment').replace(/[^\w.-]/g, '_')
  send(200, attachment.contentType, attachment.content, { 'content-disposition': `attachment; filename="${name}"` })
}

function summary(k: Kept): Record<string, unknown> {
  const to = k.mail.to === undefined ? [] : Array.isArray(k.mail.to) ? k.mail.to : [k.mail.to]
  return {
    number: k.number,
    receivedAt: k.receivedAt,
    messageId: k.mail.messageId,
    subject: k.mail.subject,
    to: to.map((t) => t.text).join(', '),
    text: k.mail.text,
    attachments: k.mail.attachments.map((a) => ({ name: a.filename, size: a.size, type: a.contentType })),
  }
}

smtp.on('error', (error) => {
  process.stderr.write(`post office: ${error.message}\n`)
})
smtp.listen(smtpPort, '127.0.0.1')
http.listen(httpPort, '127.0.0.1', () => {
  process.stdout.write('post office open\n')
})
for (const signal of ['SIGTERM', 'SIGINT'] as const) {
  process.once(signal, () => {
    smtp.close(() => undefined)
    http.close()
    http.closeAllConnections()
    setTimeout(() => process.exit(0), 200)
  })
}
