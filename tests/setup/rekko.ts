import { randomBytes, randomUUID } from 'node:crypto'
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import pg from 'pg'
import { inject } from 'vitest'
import { addDays, addBusinessDays, dayOf } from '#core/base/day'
import type { KeptAgreement } from '#shared/contract/agreement'
import type { Draft, DraftLine } from '#core/requisition/draft'
import { idOf } from '../../demo/ids'
import { budgetLineId } from '../../demo/world/budgets'
import { draftOf } from '../../demo/draft-of'
import type { NeedLine } from '../../demo/world/needs'
import { personId } from '../../demo/world/people'
import { freePort } from '../../scripts/setup/cluster'
import { startPostOffice, startServer, waitFor, type Running } from '../../scripts/setup/processes'

const ROOT = process.cwd()
/** The moment that the tests' world shows; its servers' clocks agree. */
export const moment = (): Date => new Date(Date.now() + inject('lead'))
export const TODAY = dayOf(moment(), 'Europe/London')

export interface Reply<T = Record<string, unknown>> {
  status: number
  body: T
  headers: Headers
}
type Method = 'GET' | 'POST' | 'PUT' | 'DELETE'
export interface Client {
  readonly cookie: string
  call: <T = Record<string, unknown>>(
    method: Method,
    path: string,
    options?: {
      body?: unknown
      version?: number
      key?: string
      headers?: Record<string, string>
      raw?: Buffer | string
    },
  ) => Promise<Reply<T>>
}
export interface Mail {
  number: number
  messageId: string
  subject: string
  to: string
  text: string
  attachments: { name: string; size: number; type: string }[]
}

/** A whole Rekko for one test file: a database of its own, a server, a post office. */
export interface Rekko {
  readonly url: string
  /** A connection with all rights, to look at what was written. */
  readonly sql: <T extends pg.QueryResultRow>(text: string, values?: unknown[]) => Promise<T[]>
  readonly appUrl: string
  readonly smtpPort: number
  /** One more server on the same database. */
  second: () => Promise<{ url: string; stop: () => Promise<void> }>
  as: (name: string) => Promise<Client>
  nobody: Client
  /** A client by the cookie that a reply set. */
  by: (reply: Reply) => Client
  /** The newest address that a server printed for the first administrator; of this one or of one more. */
  firstAddress: (url?: string) => URL
  mails: () => Promise<Mail[]>
  /** The server's resident memory, in bytes. */
  memory: () => number
  kill: () => Promise<void>
  startAgain: () => Promise<void>
  closePostOffice: () => Promise<void>
  openPostOffice: () => Promise<void>
  stop: () => Promise<void>
}

export async function startRekko(
  options: {
    isDemo?: boolean
    isSecure?: boolean
    template?: string
    /** Another port through which the server reaches the database's. */
    databaseThrough?: (port: number) => Promise<number>
  } = {},
): Promise<Rekko> {
  const cluster = inject('cluster')
  const database = `test_${process.pid}_${randomBytes(4).toString('hex')}`
  const at = (role: 'postgres' | 'rekko_app', name: string) => cluster.urls[role].replace(/DATABASE$/, name)
  const admin = new pg.Client({ connectionString: at('postgres', 'postgres') })
  await admin.connect()
  await admin.query(
    `create database "${database}" owner rekko_owner template "${options.template ?? cluster.template}" ` +
      `strategy file_copy`,
  )
  const pool = new pg.Pool({ connectionString: at('postgres', database), max: 4 })
  pool.on('error', () => undefined)
  const directory = mkdtempSync('/var/tmp/rekko-post-')
  const [port, smtpPort, httpPort] = [await freePort(), await freePort(), await freePort()]
  const url = `http://127.0.0.1:${port}`
  const log = join(ROOT, '.rekko/test-server.log')
  const databaseUrl = new URL(at('rekko_app', database))
  if (options.databaseThrough !== undefined)
    databaseUrl.port = String(await options.databaseThrough(Number(databaseUrl.port)))
  const settings = {
    databaseUrl: databaseUrl.href,
    port,
    smtpPort,
    sessionSecret: 'a-secret-for-tests-that-is-long-enough',
    isDemo: options.isDemo ?? true,
    isSecure: options.isSecure ?? false,
  }
  // Outside the demo the clock is the machine's, and nobody may move it.
  const start = (at = port): Running =>
    startServer(ROOT, { ...settings, port: at, now: settings.isDemo ? moment() : undefined }, log)
  let post: Running = await startPostOffice(ROOT, smtpPort, httpPort, directory, log)
  let server: Running = start()
  await waitFor(`${url}/api/health`, server)
  const rekko: Rekko = {
    url,
    appUrl: settings.databaseUrl,
    smtpPort,
    second: async () => {
      const more = await freePort()
      const running = start(more)
      await waitFor(`http://127.0.0.1:${more}/api/health`, running)
      return { url: `http://127.0.0.1:${more}`, stop: running.stop }
    },
    sql: async (text, values) => (await pool.query(text, values)).rows,
    nobody: client(url, ''),
    by: (reply) => client(url, (reply.headers.getSetCookie()[0] ?? '').split(';')[0] ?? ''),
    firstAddress: (of = url) => {
      const printed = readFileSync(log, 'utf8').match(/^http\S+\/begin\?key=\S+$/gm) ?? []
      const last = printed.findLast((p) => p.startsWith(`${of}/`))
      if (last === undefined) throw new Error('no address was printed')
      return new URL(last)
    },
    as: async (name) => client(url, await signIn(url, name)),
    mails: async () => (await fetch(`http://127.0.0.1:${httpPort}/messages.json`).then((r) => r.json())) as Mail[],
    memory: () =>
      1024 *
      Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${server.child.pid ?? 'self'}/status`, 'utf8'))?.[1] ?? '0'),
    kill: () =>
      new Promise((resolve, reject) => {
        if (server.child.exitCode !== null) reject(new Error('the server had ended by itself'))
        server.child.once('exit', () => {
          resolve()
        })
        server.child.kill('SIGKILL')
      }),
    startAgain: async () => {
      server = start()
      await waitFor(`${url}/api/health`, server)
    },
    closePostOffice: () => post.stop(),
    openPostOffice: async () => {
      post = await startPostOffice(ROOT, smtpPort, httpPort, directory, log)
    },
    stop: async () => {
      await server.stop()
      await post.stop()
      await pool.end()
      await admin.query(`drop database if exists "${database}" with (force)`)
      await admin.end()
      rmSync(directory, { recursive: true, force: true })
    },
  }
  return rekko
}

async function signIn(url: string, name: string): Promise<string> {
  const r = await fetch(`${url}/api/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({
      email: `${name.toLowerCase().replace(/ /g, '.')}@hallamere.example`,
      password: 'sea-salt-and-patience',
    }),
  })
  if (r.status !== 200) throw new Error(`${name} could not sign in: ${r.status} ${await r.text()}`)
  return (r.headers.getSetCookie()[0] ?? '').split(';')[0] ?? ''
}

function client(url: string, cookie: string): Client {
  return {
    cookie,
    call: async (method, path, o = {}) => {
      const headers: Record<string, string> = { ...(cookie === '' ? {} : { cookie }), ...o.headers }
      if (o.version !== undefined) headers['if-match'] = `"${o.version}"`
      if (o.key !== undefined) headers['idempotency-key'] = o.key
      if (o.raw === undefined && method !== 'GET') headers['content-type'] ??= 'application/json'
      const r = await fetch(url + path, {
        method,
        headers,
        ...(method === 'GET'
          ? {}
          : {
              body:
                o.raw === undefined
                  ? JSON.stringify(o.body ?? {})
                  : typeof o.raw === 'string'
                    ? o.raw
                    : new Uint8Array(o.raw),
            }),
      })
      const type = r.headers.get('content-type') ?? ''
      const text = /\bjson\b/.test(type) ? await r.text() : ''
      return { status: r.status, body: (text === '' ? {} : JSON.parse(text)) as never, headers: r.headers }
    },
  }
}

/** A sound draft of Water Systems, with the lines given. */
export function soundDraft(
  lines: readonly NeedLine[],
  change: Partial<Draft> = {},
  department = 'Water Systems',
): Draft {
  const draft = draftOf(
    { department, by: [], title: 'A test', why: 'it is needed for a test', lines },
    TODAY,
    randomUUID(),
  )
  return {
    ...draft,
    needBy: addBusinessDays(TODAY, 10, new Set()),
    lines: draft.lines.map((l) => ({ ...l, id: randomUUID() })),
    ...change,
  }
}

/** An agreement on a sum with a supplier, kept by Greta Molin, in force for a good while. */
export const soundAgreement = (supplierId: string, more: Partial<KeptAgreement> = {}): KeptAgreement => ({
  ...{ name: 'Waste of the year', theirNumber: 'HW/7', supplierId, currency: 'EUR' },
  ...{ startsOn: addDays(TODAY, -30), endsOn: addDays(TODAY, 200), fixes: 'sum' as const, ceiling: '1000.00' },
  ...{ warnPercent: '80', warnDays: 30, renewOn: null, terms: null, departmentIds: [], note: '' },
  ...{ keeperId: personId('Greta Molin'), items: [] },
  ...more,
})

export function freeLine(price: string, change: Partial<DraftLine> = {}, account = '616'): DraftLine {
  const [line] = soundDraft([
    { text: 'Something of our own', quantity: 1, price, unit: 'E48', account, supplier: 'Harbour Waste' },
  ]).lines
  if (line === undefined) throw new Error('no line')
  return { ...line, id: randomUUID(), ...change }
}

/** Keeps a draft and sends it; what came back of the sending. */
export async function raise(
  who: Client,
  draft: Draft,
): Promise<Reply<{ id: string; number: string; state: string; version: number }> & { id: string }> {
  const id = randomUUID()
  const kept = await who.call('POST', '/api/requisitions', { body: { id, draft } })
  if (kept.status !== 200) throw new Error(`the draft was not kept: ${JSON.stringify(kept.body)}`)
  const sent = await who.call<{ id: string; number: string; state: string; version: number }>(
    'POST',
    `/api/requisitions/${id}/send`,
    { version: 1, key: `send-${id}` },
  )
  return { ...sent, id }
}

/** The version that a requisition stands at now. */
export async function versionOf(rekko: Rekko, id: string): Promise<number> {
  const [row] = await rekko.sql<{ version: number }>('select version from document where id = $1', [id])
  return row?.version ?? 0
}

export async function decide(
  rekko: Rekko,
  who: Client,
  id: string,
  outcome: 'approve' | 'sendBack' | 'reject',
  comment = '',
): Promise<Reply<{ decisionId: string; state: string }>> {
  return who.call('POST', `/api/documents/${id}/decisions`, {
    body: { outcome, comment },
    version: await versionOf(rekko, id),
  })
}

/** Where the ledger disagrees with the balances or with what is counted behind a line: nowhere, at any moment. */
export function disagreements(rekko: Rekko): Promise<{ id: string }[]> {
  return rekko.sql(`
    select l.id, 0 as period from budget_line l left join (
      select budget_line_id, count(*) filter (where stage = 'reserved') as r,
        count(*) filter (where stage = 'committed') as c
      from (select budget_line_id, stage, document_id from budget_entry group by 1, 2, 3 having sum(amount) <> 0) d
      group by 1) e on e.budget_line_id = l.id
    where l.requests_behind <> coalesce(e.r, 0) or l.orders_behind <> coalesce(e.c, 0)
    union all
    select b.budget_line_id as id, b.period from budget_balance b
    left join (select budget_line_id, period, sum(amount) filter (where stage = 'reserved') as r,
      sum(amount) filter (where stage = 'committed') as c, sum(amount) filter (where stage = 'spent') as s
      from budget_entry group by 1, 2) e using (budget_line_id, period)
    where b.reserved <> coalesce(e.r, 0) or b.committed <> coalesce(e.c, 0) or b.spent <> coalesce(e.s, 0)`)
}

/** What stands in a stage of a budget line. */
export async function standsAt(
  rekko: Rekko,
  department: string,
  account: string,
  stage: 'reserved' | 'committed',
  year = fiscalYear(),
): Promise<string> {
  const [row] = await rekko.sql<{ sum: string }>(
    `select sum(${stage})::numeric(20,2)::text as sum from budget_balance where budget_line_id = $1`,
    [budgetLineId(department, account, year)],
  )
  return row?.sum ?? ''
}
export function fiscalYear(): number {
  const [year = 0, month = 0] = TODAY.split('-').map(Number)
  return month >= 4 ? year : year - 1
}

export async function until<T>(
  what: string,
  look: () => Promise<T | null | undefined | false>,
  seconds = 30,
): Promise<T> {
  for (const end = Date.now() + seconds * 1000; Date.now() < end;) {
    const found = await look()
    if (found) return found
    await new Promise((r) => {
      setTimeout(r, 150)
    })
  }
  throw new Error(`${what} did not happen within ${seconds} seconds`)
}

export { budgetLineId, idOf, personId }
