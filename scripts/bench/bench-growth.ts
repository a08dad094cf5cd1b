import pg from 'pg'
import { personId } from '../../demo/world/people'
import { listBudgetEntries } from '../../server/budget/list-budget-entries'
import { listBudgets } from '../../server/budget/list-budgets'
import type { Context } from '../../server/context'
import { PLANNING } from '../../server/db/client'
import { listSlips } from '../../server/decide/reads'
import { findAnything } from '../../server/find/find-anything'
import { listOrders } from '../../server/order/list-orders'
import { readOrder } from '../../server/order/read-order'
import { readDesk } from '../../server/order/read-desk'
import { findActor } from '../../server/people/actor-reads'
import { readLineSource } from '../../server/regulars/line-sources'
import { readMine } from '../../server/requisition/read-mine'
import { readMe } from '../../server/session/read-me'
import { readNotices } from '../../server/session/read-notices'
import { readTrail } from '../../server/trail/read-trail'
import type { Cluster } from '../setup/cluster'
import { bulkHistory, historyId } from './bulk-history'
import { recording, type Statement } from './capture'

/** How many lines there are in all; two a request. Others where numbers are named on the command line. */
const SIZES = [10_000, 100_000, 1_000_000]
const READS = 15
const ORDERED = 40 * 21

interface Place {
  readonly name: string
  readonly who: string
  readonly path: string
  readonly read: (ctx: Context) => Promise<unknown>
}

/** Every list and page that reads what grows, as somebody who uses it. */
function places(departmentId: string, budgetLineId: string): Place[] {
  const [owen, leonie, greta] = ['Owen Marsh', 'Leonie Farrow', 'Greta Molin']
  const source = (name: 'bought' | 'requests' | 'orders', words: string): Place => ({
    name: `lines from ${name}${words === '' ? '' : ', words'}`,
    who: owen,
    path: `/api/line-sources/${name}?departmentId=${departmentId}&words=${words}`,
    read: (ctx) => readLineSource(ctx, name, { departmentId, words }),
  })
  const find = (name: string, who: string, words: string): Place => ({
    name: `Find, ${name}`,
    who,
    path: `/api/find?words=${encodeURIComponent(words)}`,
    read: (ctx) => findAnything(ctx, words),
  })
  const all = { view: 'all', words: '', limit: 50 } as const
  return [
    { name: 'who is in, and what waits', who: leonie, path: '/api/session', read: readMe },
    { name: 'Mine', who: owen, path: '/api/requisitions', read: (ctx) => readMine(ctx, all) },
    {
      name: 'Mine, words',
      who: owen,
      path: '/api/requisitions?words=winch+8',
      read: (ctx) => readMine(ctx, { ...all, words: 'winch 8' }),
    },
    {
      name: 'a trail',
      who: owen,
      path: `/api/requisitions/${historyId(ORDERED)}/trail`,
      read: (ctx) => readTrail(ctx, historyId(ORDERED)),
    },
    { name: 'Decide', who: 'Ines Adeyemi', path: '/api/waiting', read: (ctx) => listSlips(ctx.tx, ctx.actor.id) },
    { name: 'the Desk', who: leonie, path: '/api/desk', read: (ctx) => readDesk(ctx, 200) },
    {
      ...{ name: 'Orders', who: leonie, path: '/api/orders' },
      read: (ctx) => listOrders(ctx, { whose: 'all', state: 'any', words: '', limit: 50 }),
    },
    {
      name: 'an order',
      who: leonie,
      path: `/api/orders/${historyId(250).replace('-b000-', '-b100-')}`,
      read: (ctx) => readOrder(ctx, historyId(250).replace('-b000-', '-b100-')),
    },
    { name: 'Budgets', who: greta, path: '/api/budgets', read: (ctx) => listBudgets(ctx, undefined) },
    {
      name: 'entries behind a budget line',
      who: greta,
      path: `/api/budgets/${budgetLineId}/entries`,
      read: (ctx) => listBudgetEntries(ctx, budgetLineId, undefined),
    },
    find('a number', owen, 'H-840'),
    find('words', owen, 'reagents yard'),
    find('a misspelt word', owen, 'regents yard'),
    find('nothing', owen, 'zzqqxx wwyyvv'),
    find('words, as a buyer', leonie, 'reagents yard'),
    source('bought', ''),
    source('bought', 'valve'),
    source('requests', ''),
    source('orders', ''),
    { name: 'notices', who: owen, path: '/api/notices', read: readNotices },
  ]
}

async function median(work: () => Promise<unknown>): Promise<number> {
  const times: number[] = []
  for (let i = 0; i < READS; i += 1) {
    const from = performance.now()
    await work()
    times.push(performance.now() - from)
  }
  return times.sort((a, b) => a - b)[Math.floor(READS / 2)] ?? 0
}

interface Plan {
  readonly 'Node Type': string
  readonly 'Actual Rows': number
  readonly 'Actual Loops': number
  readonly 'Rows Removed by Filter'?: number
  readonly 'Rows Removed by Index Recheck'?: number
  readonly Plans?: readonly Plan[]
}
/** Rows that a plan took from tables and indexes, whatever became of them. */
function rowsRead(p: Plan): number {
  const below = (p.Plans ?? []).reduce((sum, child) => sum + rowsRead(child), 0)
  if (!/Scan$/.test(p['Node Type']) || p['Node Type'].startsWith('Bitmap Index')) return below
  const each = p['Actual Rows'] + (p['Rows Removed by Filter'] ?? 0) + (p['Rows Removed by Index Recheck'] ?? 0)
  return below + each * p['Actual Loops']
}

type Result = [what: string, figure: string, aim: string]

/**
 * How every list and page grows: with ten thousand, a hundred thousand and a million lines behind it, its time beside
 * its own statements alone, beside its time at the size before, and the rows it reads by those it gets.
 */
export async function benchGrowth(
  cluster: Cluster,
  url: string,
  signIn: (email: string) => Promise<string>,
  asked: readonly number[],
): Promise<Result[]> {
  const admin = cluster.url('postgres', 'rekko')
  const { db, pool, statements } = recording(cluster.url('rekko_app', 'rekko'))
  const bare = new pg.Client({ connectionString: cluster.url('rekko_app', 'rekko'), options: PLANNING })
  await bare.connect()
  try {
    const ids = await bare.query<{ department: string; line: string }>(
      `select department_id as department, (select id from budget_line order by id limit 1) as line from person
        where id = $1`,
      [personId('Owen Marsh')],
    )
    const results: Result[] = []
    const before = new Map<string, number>()
    let loaded = 0
    for (const lines of asked.length > 0 ? asked : SIZES) {
      await bulkHistory(admin, { from: loaded, to: lines / 2 })
      loaded = lines / 2
      for (const place of places(ids.rows[0]?.department ?? '', ids.rows[0]?.line ?? '')) {
        const actor = await findActor(db, personId(place.who), new Date())
        if (actor === null) throw new Error(`${place.who} is not here`)
        statements.length = 0
        await place.read({ tx: db, now: new Date(), actor })
        const list: Statement[] = [...statements]
        const cookie = await signIn(`${place.who.toLowerCase().replace(' ', '.')}@hallamere.example`)
        const overHttp = async () => {
          const r = await fetch(url + place.path, { headers: { cookie } })
          if (r.status !== 200) throw new Error(`${place.path}: ${r.status} ${await r.text()}`)
          await r.arrayBuffer()
        }
        let [read, got] = [0, 0]
        const alone = async (counts: boolean) => {
          for (const s of list) {
            const { rowCount } = await bare.query(s.text, [...s.values])
            if (!counts || !/^\s*(select|with)/i.test(s.text)) continue
            got += rowCount ?? 0
            const { rows } = await bare.query<{ 'QUERY PLAN': [{ Plan: Plan }] }>(
              `explain (analyze, format json, timing off) ${s.text}`,
              [...s.values],
            )
            read += rows[0] === undefined ? 0 : rowsRead(rows[0]['QUERY PLAN'][0].Plan)
          }
        }
        await alone(true)
        await median(overHttp)
        const [api, sql] = [await median(overHttp), await median(() => alone(false))]
        const than = before.get(place.name)
        before.set(place.name, api)
        results.push([
          `${place.name} with ${lines.toLocaleString('en')} lines: API ${api.toFixed(1)} ms, its ${list.length} ` +
            `statements ${sql.toFixed(1)} ms, ${read} rows read for ${got}`,
          `${(api / sql).toFixed(2)} times` +
            (than === undefined ? '' : `, ${(api / than).toFixed(2)} times the size before`),
          'at most 1.5 each',
        ])
        process.stdout.write(`${results.at(-1)?.join(' | ') ?? ''}\n`)
      }
    }
    return results
  } finally {
    await bare.end()
    await pool.end()
  }
}
