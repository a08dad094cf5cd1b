import { randomBytes, randomUUID } from 'node:crypto'
import { readFileSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { gzipSync } from 'node:zlib'
import { chromium } from '@playwright/test'
import pg from 'pg'
import PgBoss from 'pg-boss'
import type { Draft } from '#core/requisition/draft'
import { makeRoute } from '#core/approval/route'
import { computeDraft } from '#core/requisition/compute'
import { readFacts } from '#shared/contract/draft-facts'
import { draftOf } from '../../demo/draft-of'
import { idOf } from '../../demo/ids'
import { DEMO_PASSWORD, loadBareHallamere } from '../../demo/load-demo'
import { personId } from '../../demo/world/people'
import { PLANNING, openDatabase, type Db } from '../../server/db/client'
import { migrateDatabase } from '../../server/db/migrate'
import { readDesk } from '../../server/order/read-desk'
import { findActor } from '../../server/people/actor-reads'
import { useQueue } from '../../server/queue/enqueue'
import { gatherDraftFacts } from '../../server/requisition/draft-facts'
import { readMine } from '../../server/requisition/read-mine'
import { buildIfChanged } from '../setup/build'
import { createDatabase, freePort, startCluster, type Cluster } from '../setup/cluster'
import { ROOT, step } from '../setup/install.mjs'
import { startPostOffice, startServer, waitFor, type Running } from '../setup/processes'
import { benchDecide } from './bench-decide'
import { benchGrowth } from './bench-growth'
import { benchImport } from './bench-import'
import { benchItems, bulkItems } from './bench-items'
import { benchOrders } from './bench-orders'
import { benchPolicy } from './bench-policy'
import { benchProposals } from './bench-proposals'
import { benchSending } from './bench-sending'
import { benchTyping } from './bench-typing'
import { bulkLoad, lineId } from './bulk-load'
import { recording } from './capture'

const BULK = 100_000
const now = new Date()
const today = now.toISOString().slice(0, 10)
/** Measures named on the command line, all of them where none is. */
const named = process.argv.slice(2)
const only = named.filter((n) => !/^\d+$/.test(n))
const sizes = named.filter((n) => /^\d+$/.test(n)).map(Number)
const results: [what: string, figure: string, aim: string][] = []

/** Two small lines, inside the requester's own limit: sent and approved at once. */
function smallDraft(n: number): Draft {
  const draft = draftOf(
    {
      department: 'Water Systems',
      by: [],
      title: 'Two lines',
      why: 'to measure',
      lines: [
        { part: 'CP-GS-25', quantity: 1 },
        { part: 'ST-HC-60', quantity: 1 },
      ],
    },
    today,
    randomUUID(),
  )
  return { ...draft, lines: draft.lines.map((l, i) => ({ ...l, id: lineId(n, i) })) }
}

async function signIn(url: string, email: string): Promise<string> {
  const r = await fetch(`${url}/api/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ email, password: DEMO_PASSWORD }),
  })
  return (r.headers.getSetCookie()[0] ?? '').split(';')[0] ?? ''
}

async function median(count: number, work: () => Promise<unknown>): Promise<number> {
  const times: number[] = []
  for (let i = 0; i < count; i += 1) {
    const from = performance.now()
    await work()
    times.push(performance.now() - from)
  }
  return times.sort((a, b) => a - b)[Math.floor(count / 2)] ?? 0
}

async function benchLists(cluster: Cluster, url: string): Promise<void> {
  const { db, pool, statements } = recording(cluster.url('rekko_app', 'rekko'))
  const bare = new pg.Client({ connectionString: cluster.url('rekko_app', 'rekko'), options: PLANNING })
  await bare.connect()
  const compare = async (name: string, who: string, path: string, read: () => Promise<unknown>) => {
    statements.length = 0
    await read()
    const list = [...statements]
    const cookie = await signIn(url, who)
    const api = () =>
      fetch(url + path, { headers: { cookie } }).then(async (r) => {
        if (r.status !== 200) throw new Error(String(r.status))
        await r.arrayBuffer()
      })
    const sql = async () => {
      for (const s of list) await bare.query(s.text, [...s.values])
    }
    await median(15, api)
    await median(15, sql)
    const [a, b] = [await median(60, api), await median(60, sql)]
    results.push([
      `first page of ${name} with ${BULK.toLocaleString('en')} requisitions: API ${a.toFixed(1)} ms, its bare ` +
        `queries ${b.toFixed(1)} ms (medians)`,
      `${(a / b).toFixed(2)} times`,
      'at most 3 times',
    ])
  }
  const owen = await findActor(db, personId('Owen Marsh'), now)
  const leonie = await findActor(db, personId('Leonie Farrow'), now)
  if (owen === null || leonie === null) throw new Error('nobody to measure with')
  await compare('Mine', 'owen.marsh@hallamere.example', '/api/requisitions', () =>
    readMine({ tx: db, now, actor: owen }, { view: 'all', words: '', limit: 50 }),
  )
  await compare('the Desk', 'leonie.farrow@hallamere.example', '/api/desk', () =>
    readDesk({ tx: db, now, actor: leonie }, 200),
  )
  await bare.end()
  await pool.end()
}

async function benchCore(db: Db): Promise<void> {
  const draft = smallDraft(9)
  const who = { id: null, sentFor: null, ownerId: personId('Owen Marsh'), raisedById: personId('Owen Marsh') }
  const facts = readFacts(await gatherDraftFacts(db, draft, who, now, false))
  const { subject } = computeDraft(draft, facts)
  const large = { ...subject, amount: { amount: '30000.00', currency: 'EUR' }, overBudget: true }
  for (let i = 0; i < 2000; i += 1) makeRoute(large, facts.policy, facts.people)
  const from = performance.now()
  const count = 20_000
  for (let i = 0; i < count; i += 1) makeRoute(large, facts.policy, facts.people)
  results.push([
    'route decisions in the core (chain, budget holders, trustees)',
    `${Math.round(count / ((performance.now() - from) / 1000)).toLocaleString('en')} a second`,
    '–',
  ])
}

/** Places whose first load is measured, each by a browser that has nothing yet. */
const PLACES: readonly (readonly [name: string, path: string, aim: string])[] = [
  ['Raise', '/raise', 'at most 130 kB'],
  ['the Catalogue', '/catalogue', '–'],
  ['a list of Set-up', '/set-up/lists/items', '–'],
  ['Organisation', '/set-up/organisation', '–'],
  ['One person', '/set-up/person', '–'],
  ['a job', `/jobs/${idOf('job', 'J-101')}`, '–'],
  ['a supplier', `/suppliers/${idOf('supplier', 'Corrigan Pumps')}`, '–'],
  ['Account', '/account', '–'],
  ['the API', '/guide', '–'],
]

async function benchFirstLoad(url: string): Promise<void> {
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'],
  })
  for (const [name, path, aim] of PLACES) {
    const context = await browser.newContext({ baseURL: url })
    const email = `${name === 'Raise' ? 'owen.marsh' : 'harriet.voss'}@hallamere.example`
    await context.request.post('/api/session', { data: { email, password: DEMO_PASSWORD } })
    const page = await context.newPage()
    const scripts = new Map<string, number>()
    page.on('response', (r) => {
      if (/\.js(\?|$)/.test(r.url()))
        void r.body().then(
          (b) => scripts.set(r.url(), gzipSync(b).length),
          () => undefined,
        )
    })
    await page.goto(path, { waitUntil: 'networkidle' })
    await page.waitForTimeout(500)
    await context.close()
    const sum = [...scripts.values()].reduce((x, y) => x + y, 0)
    const what = `JavaScript of the first load of ${name}, gzipped, ${scripts.size} files`
    results.push([what, `${(sum / 1000).toFixed(1)} kB`, aim])
  }
  await browser.close()
}

function peakMemory(server: Running): void {
  const status = readFileSync(`/proc/${server.child.pid ?? 0}/status`, 'utf8')
  results.push([
    'peak memory of the server over all of this',
    `${Math.round(Number(/VmHWM:\s+(\d+)/.exec(status)?.[1] ?? '0') / 1024)} MB`,
    '–',
  ])
}

async function main(): Promise<void> {
  await step('Building the application', () => {
    buildIfChanged(ROOT)
  })
  const directory = `/var/tmp/rekko-bench-${process.pid}-${randomBytes(4).toString('hex')}`
  const cluster = await startCluster(directory, { hasty: false })
  const [port, smtpPort, postPort] = [await freePort(), await freePort(), await freePort()]
  const post = await startPostOffice(ROOT, smtpPort, postPort, `${directory}-post`, join(ROOT, '.rekko/bench.log'))
  await createDatabase(cluster, 'rekko')
  await migrateDatabase(cluster.url('rekko_owner', 'rekko'), ROOT)
  const databaseUrl = cluster.url('rekko_app', 'rekko')
  Object.assign(process.env, {
    DATABASE_URL: databaseUrl,
    REKKO_SESSION_SECRET: 'a-secret-for-the-bench-that-is-long-enough',
    REKKO_ROOT: ROOT,
  })
  const { db, pool } = openDatabase(databaseUrl, 8)
  // What a use case leaves for later is put into the queue here too, and done by the server.
  const queue = new PgBoss({ connectionString: databaseUrl, migrate: false, schema: 'pgboss', supervise: false })
  queue.on('error', () => undefined)
  await queue.start()
  useQueue(queue)
  await loadBareHallamere(db, now)
  const server = startServer(
    ROOT,
    { databaseUrl, port, smtpPort, sessionSecret: 'a-secret-for-the-bench-that-is-long-enough', isDemo: false },
    join(ROOT, '.rekko/bench.log'),
  )
  const url = `http://127.0.0.1:${port}`
  try {
    await waitFor(`${url}/api/health`, server)
    const cookie = await signIn(url, 'owen.marsh@hallamere.example')
    for (const [name, measure] of Object.entries<() => Promise<void>>({
      sending: async () => {
        results.push(...(await benchSending(db, cluster, url, cookie, smallDraft)))
      },
      orders: async () => {
        const buyer = await signIn(url, 'leonie.farrow@hallamere.example')
        results.push(...(await benchOrders(db, cluster, url, buyer, () => smallDraft(0))))
      },
      routes: () => benchCore(db),
      policy: async () => {
        results.push(...(await Promise.resolve(benchPolicy())))
      },
      proposals: async () => {
        results.push(...(await benchProposals()))
      },
      decide: async () => {
        const large = () => ({
          ...smallDraft(0),
          lines: smallDraft(0).lines.map((l) => ({ ...l, id: randomUUID(), quantity: '30' })),
        })
        results.push(...(await benchDecide(db, cluster, url, (email) => signIn(url, email), large)))
      },
      lists: async () => {
        await bulkLoad(cluster.url('postgres', 'rekko'), BULK, today)
        await benchLists(cluster, url)
      },
      items: async () => {
        await bulkItems(cluster.url('postgres', 'rekko'), BULK)
        results.push(...(await benchItems(cluster, url, cookie, smallDraft(9).departmentId ?? '', BULK)))
      },
      import: async () => {
        const buyer = await signIn(url, 'leonie.farrow@hallamere.example')
        results.push(...(await benchImport(cluster, url, buyer, BULK)))
      },
      raise: () => benchFirstLoad(url),
      growth: async () => {
        results.push(...(await benchGrowth(cluster, url, (email) => signIn(url, email), sizes)))
      },
      typing: async () => {
        const draft = smallDraft(9)
        results.push(
          ...(await benchTyping(
            url,
            await gatherDraftFacts(
              db,
              draft,
              { id: null, sentFor: null, ownerId: personId('Owen Marsh'), raisedById: personId('Owen Marsh') },
              now,
              false,
            ),
            draft,
          )),
        )
      },
    }))
      if (only.length === 0 || only.includes(name)) await step(`Measuring ${name}`, measure)
    peakMemory(server)
  } finally {
    await queue.stop({ graceful: false })
    await server.stop()
    await post.stop()
    await pool.end()
    await cluster.stop()
    rmSync(directory, { recursive: true, force: true })
    rmSync(`${directory}-post`, { recursive: true, force: true })
  }
  process.stdout.write(
    `\n| what was measured | figure | aim |\n| --- | --- | --- ` +
      `|\n${results.map((r) => `| ${r.join(' | ')} |`).join('\n')}\n`,
  )
}

await main()
