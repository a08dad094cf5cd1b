import { randomUUID } from 'node:crypto'
import pg from 'pg'
import type { Draft } from '#core/requisition/draft'
import { personId } from '../../demo/world/people'
import type { Db } from '../../server/db/client'
import { inTransaction } from '../../server/db/transaction'
import { layOnTray } from '../../server/order/lay-tray'
import { findActor } from '../../server/people/actor-reads'
import { createDraft } from '../../server/requisition/save-draft'
import { sendRequisition } from '../../server/requisition/send-requisition'
import type { Cluster } from '../setup/cluster'

const ORDERS = 300
const AT_ONCE = 4
const READS_ALONE = 200
const now = new Date()

/** Orders issued over HTTP, with a small read again and again beside them; their PDFs and mails are made meanwhile. */
export async function benchOrders(
  db: Db,
  cluster: Cluster,
  url: string,
  cookie: string,
  draftOf: () => Draft,
): Promise<[string, string, string][]> {
  const admin = new pg.Client({ connectionString: cluster.url('postgres', 'rekko') })
  await admin.connect()
  await admin.query('update budget_balance set budgeted = 100000000')
  await admin.query('update approval_policy set own_limit_days = null')
  const trays = await layTrays(db, draftOf)
  const counted = async (what: string) =>
    (await admin.query<{ n: number }>(`select count(*)::int as n ${what}`)).rows[0]?.n
  // What approving them left behind is done first.
  while ((await counted("from pgboss.job where state < 'completed' and name in ('mail-approved', 'send-mail')")) !== 0)
    await pause(500)
  const alone = await timesOf(url, cookie, (done) => done < READS_ALONE)

  let issued = 0
  let isDone = false
  const beside = timesOf(url, cookie, () => !isDone)
  const from = performance.now()
  await Promise.all(
    Array.from({ length: AT_ONCE }, async () => {
      while (issued < trays.length) {
        const id = trays[issued] ?? ''
        issued += 1
        const r = await fetch(`${url}/api/orders/${id}/issue`, {
          method: 'POST',
          headers: { cookie, 'content-type': 'application/json', 'if-match': '"1"', 'idempotency-key': randomUUID() },
          body: '{}',
        })
        if (r.status !== 200) throw new Error(`${r.status} ${await r.text()}`)
        await r.arrayBuffer()
      }
    }),
  )
  const issuing = (performance.now() - from) / 1000
  isDone = true
  const reads = await beside
  while ((await counted('from order_sending where sent_at is not null')) !== ORDERS) await pause(200)
  const mailed = (performance.now() - from) / 1000
  await admin.end()
  return [
    [
      `orders issued over HTTP, ${AT_ONCE} at once; all ${ORDERS} with PDF in the mail after ${mailed.toFixed(0)} s`,
      `${(ORDERS / issuing).toFixed(1)} a second`,
      '25 a second',
    ],
    [
      `a small read beside it: median ${share(reads, 0.5)} ms, 95th percentile ${share(reads, 0.95)} ms; alone ` +
        `${share(alone, 0.5)} and ${share(alone, 0.95)} ms`,
      `${share(reads, 0.5)} ms`,
      'under 20 ms',
    ],
  ]
}

/** Trays of one line each, from requests of their own. */
async function layTrays(db: Db, draftOf: () => Draft): Promise<string[]> {
  const [owen, leonie] = await Promise.all(
    ['Owen Marsh', 'Leonie Farrow'].map((name) => findActor(db, personId(name), now)),
  )
  if (!owen || !leonie) throw new Error('nobody to measure with')
  const trays: string[] = []
  for (let i = 0; i < ORDERS; i += 1) {
    const [id, draft] = [randomUUID(), draftOf()]
    const lines = draft.lines.slice(0, 1).map((l) => ({ ...l, id: randomUUID() }))
    await inTransaction(db, (tx) => createDraft({ tx, now, actor: owen }, id, { ...draft, lines }))
    await inTransaction(db, (tx) => sendRequisition({ tx, now, actor: owen }, id, 1))
    const parts = lines.map((l) => ({ lineId: l.id, quantity: null }))
    const tray = await inTransaction(db, (tx) =>
      layOnTray({ tx, now, actor: leonie }, { orderId: null, supplierId: null, parts }),
    )
    trays.push(tray.orderId)
  }
  return trays
}

const pause = (ms: number) =>
  new Promise((r) => {
    setTimeout(r, ms)
  })

/** What a small read takes, in milliseconds, twenty times a second for as long as `goesOn`. */
async function timesOf(url: string, cookie: string, goesOn: (done: number) => boolean): Promise<number[]> {
  const times: number[] = []
  while (goesOn(times.length)) {
    const from = performance.now()
    await (await fetch(`${url}/api/notices`, { headers: { cookie } })).arrayBuffer()
    times.push(performance.now() - from)
    await pause(50)
  }
  return times.sort((a, b) => a - b)
}

const share = (sorted: readonly number[], at: number) => (sorted[Math.floor(sorted.length * at)] ?? 0).toFixed(1)
