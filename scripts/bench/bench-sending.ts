import { execFile } from 'node:child_process'
import { readdirSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { promisify } from 'node:util'
import pg from 'pg'
import type { Draft } from '#core/requisition/draft'
import { personId } from '../../demo/world/people'
import { PLANNING, type Db } from '../../server/db/client'
import { inTransaction } from '../../server/db/transaction'
import { findActor } from '../../server/people/actor-reads'
import { createDraft } from '../../server/requisition/save-draft'
import { sendRequisition } from '../../server/requisition/send-requisition'
import type { Cluster } from '../setup/cluster'
import { ROOT } from '../setup/install.mjs'
import { draftId, idNumber } from './bulk-load'
import { inline, recording, type Statement } from './capture'

const CONNECTIONS = 8
const ROUNDS = 6
const SENDS_A_ROUND = 200
const SENDS = ROUNDS * SENDS_A_ROUND
const WARM = 200
/** Drafts of one measure: sent by pgbench, by the API, to warm up, and the one that is recorded. */
const DRAFTS = 2 * SENDS + WARM + 1
const SPREAD = 200
const now = new Date()

const spreadLine = (n: number) => `00000000-0000-4000-8009-${idNumber(n)}`

/** Sending a two-line requisition over HTTP beside its statements under pgbench, in turns. */
export async function benchSending(
  db: Db,
  cluster: Cluster,
  url: string,
  cookie: string,
  draftOf: (n: number) => Draft,
): Promise<[string, string, string][]> {
  const draft = draftOf(0)
  await arrange(cluster, draft)
  const shared = { what: 'all on the same two budget lines', from: 0, draftOf }
  const spread = {
    what: `on ${SPREAD} budget lines in turn`,
    from: DRAFTS,
    draftOf: (n: number): Draft => {
      const { lines, ...head } = draftOf(n)
      const paidBy = (at: number) => spreadLine((2 * n + at) % SPREAD)
      return {
        ...head,
        lines: lines.map((l, at) => ({ ...l, codings: l.codings.map((c) => ({ ...c, budgetLineId: paidBy(at) })) })),
      }
    },
  }
  const results: [string, string, string][] = []
  for (const measure of [shared, spread]) results.push(await benchOne(db, cluster, { url, cookie }, measure))
  return results
}

/**
 * Room enough that money never refuses, as many budget lines as are spread over, and each request looked at by itself:
 * nobody sends thousands in a week, and all of those would be read with each.
 */
async function arrange(cluster: Cluster, draft: Draft): Promise<void> {
  const admin = new pg.Client({ connectionString: cluster.url('postgres', 'rekko') })
  await admin.connect()
  const like = draft.lines[0]?.codings[0]?.budgetLineId
  await admin.query(
    `insert into budget_line (id, department_id, account_code, project_code, fiscal_year, name, control)
     select ('00000000-0000-4000-8009-' || (100000000000 + n))::uuid, department_id, account_code, 'S' || n,
       fiscal_year, name || ' ' || n, 'tells' from budget_line, generate_series(0, $2::int - 1) n where id = $1`,
    [like, SPREAD],
  )
  await admin.query(
    `insert into budget_balance (budget_line_id, period)
     select l.id, p from budget_line l, generate_series(1, 12) p where l.project_code like 'S%'`,
  )
  await admin.query('update budget_balance set budgeted = 100000000')
  await admin.query('update approval_policy set own_limit_days = null')
  await admin.end()
}

async function benchOne(
  db: Db,
  cluster: Cluster,
  { url, cookie }: { url: string; cookie: string },
  { what, from, draftOf }: { what: string; from: number; draftOf: (n: number) => Draft },
): Promise<[string, string, string]> {
  const actor = await findActor(db, personId('Owen Marsh'), now)
  if (actor === null) throw new Error('nobody to measure with')
  await perSecond(DRAFTS, CONNECTIONS, (n) =>
    inTransaction(db, (tx) => createDraft({ tx, now, actor }, draftId(from + n), draftOf(from + n))),
  )
  const { db: seen, pool, statements } = recording(cluster.url('rekko_app', 'rekko'))
  const recorded = from + 2 * SENDS + WARM
  await inTransaction(seen, (tx) => sendRequisition({ tx, now, actor }, draftId(recorded), 1))
  const script = pgbenchScript(statements, recorded, from)
  await pool.end()

  const send = async (n: number) => {
    const r = await fetch(`${url}/api/requisitions/${draftId(n)}/send`, {
      method: 'POST',
      headers: { cookie, 'content-type': 'application/json', 'if-match': '"1"' },
      body: '{}',
    })
    if (r.status !== 200) throw new Error(`${r.status} ${await r.text()}`)
    await r.arrayBuffer()
  }
  await perSecond(WARM, CONNECTIONS, (n) => send(from + 2 * SENDS + n))
  // In turns, so that whatever else the machine does falls on both.
  let [bareSeconds, apiSeconds] = [0, 0]
  for (let round = 0; round < ROUNDS; round += 1) {
    bareSeconds += SENDS_A_ROUND / (await runPgbench(script, cluster, round))
    apiSeconds +=
      SENDS_A_ROUND /
      (await perSecond(SENDS_A_ROUND, CONNECTIONS, (n) => send(from + SENDS + round * SENDS_A_ROUND + n)))
  }
  const [bare, api] = [SENDS / bareSeconds, SENDS / apiSeconds]
  return [
    `sending a two-line requisition, ${CONNECTIONS} connections, ${what}: API ${api.toFixed(0)}/s, the same SQL ` +
      `under pgbench ${bare.toFixed(0)}/s (${statements.length} statements)`,
    (api / bare).toFixed(2),
    '0.7 or more',
  ]
}

/** Runs `work` for each of `count` numbers with so many at a time; returns how many a second. */
async function perSecond(count: number, atOnce: number, work: (n: number) => Promise<unknown>): Promise<number> {
  let next = 0
  const from = performance.now()
  await Promise.all(
    Array.from({ length: atOnce }, async () => {
      while (next < count) {
        const n = next
        next += 1
        await work(n)
      }
    }),
  )
  return count / ((performance.now() - from) / 1000)
}

/**
 * The statements of one sending as a pgbench transaction over drafts of its own: client c of a
 * round takes numbers of its own. pgbench puts its variables in as text, within quotes too, and
 * all numbers have the same count of digits, so that an id may end in a variable.
 */
function pgbenchScript(statements: readonly Statement[], n: number, from: number): string {
  const opened = statements.find((s) => s.text.includes('insert into "approval_route"'))
  const routeId = String(opened?.values[0])
  const body = statements
    .filter((s) => !/^(begin|commit)/i.test(s.text))
    .map((s) =>
      inline(s)
        .replaceAll(idNumber(n), ':i')
        .replaceAll(spreadLine((2 * n) % SPREAD), spreadLine(0).replace(idNumber(0), ':a'))
        .replaceAll(spreadLine((2 * n + 1) % SPREAD), spreadLine(0).replace(idNumber(0), ':b'))
        .replaceAll(`'${routeId}'`, 'gen_random_uuid()')
        .replace(/'R-\d\d-\d{5}'/, "'B-:i'"),
    )
  return [
    '\\set k :k + 1',
    `\\set i ${idNumber(from)} + :r * ${SENDS_A_ROUND} + :client_id * ${SENDS_A_ROUND / CONNECTIONS} + :k - 1`,
    `\\set a ${idNumber(0)} + (2 * :i) % ${SPREAD}`,
    `\\set b ${idNumber(0)} + (2 * :i + 1) % ${SPREAD}`,
    'begin;',
    ...body.map((b) => `${b};`),
    'commit;',
  ].join('\n')
}

async function runPgbench(script: string, cluster: Cluster, round: number): Promise<number> {
  const file = join(ROOT, '.rekko/bench.sql')
  writeFileSync(file, script)
  const bin = readdirSync('/usr/lib/postgresql').sort((a, b) => Number(b) - Number(a))[0] ?? ''
  const done = await promisify(execFile)(
    join('/usr/lib/postgresql', bin, 'bin/pgbench'),
    [
      '-n',
      '-f',
      file,
      '-c',
      String(CONNECTIONS),
      '-j',
      '2',
      '-t',
      String(SENDS_A_ROUND / CONNECTIONS),
      '-D',
      'k=0',
      '-D',
      `r=${round}`,
      '-M',
      'simple',
      cluster.url('rekko_app', 'rekko'),
    ],
    { env: { ...process.env, PGOPTIONS: PLANNING } },
  )
  const tps = /tps = ([\d.]+)/.exec(done.stdout)?.[1]
  if (tps === undefined || /aborted|ERROR/.test(done.stderr)) throw new Error(`pgbench: ${done.stderr.slice(0, 1500)}`)
  return Number(tps)
}
