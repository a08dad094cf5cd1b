import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { brokenRules } from '../setup/invariants'
import { freeLine, soundDraft, startRekko, until, type Client, type Reply, type Rekko } from '../setup/rekko'

/** How often the server is killed: a dozen times, or as often as `npm run faults` says. */
const KILLS = Number(process.env.REKKO_KILLS ?? '12')

let rekko: Rekko
beforeAll(async () => {
  rekko = await startRekko()
})
afterAll(() => rekko.stop())

/** Asks until there is an answer, under one key: what was cut off is asked again, and is done once. */
async function sure<T>(ask: () => Promise<Reply<T>>): Promise<Reply<T>> {
  for (;;) {
    const reply = await ask().catch(() => null)
    if (reply !== null && reply.status < 500) return reply
    await pause(100)
  }
}
const pause = (ms: number) =>
  new Promise((r) => {
    setTimeout(r, ms)
  })

/** What was acknowledged, and so may never be lost. */
interface Done {
  readonly sent: string[]
  readonly decided: string[]
  readonly issued: { id: string; number: string }[]
}

/** Raises one need after another; every third is above the own limit and is decided by the manager. */
async function raiseOn(owen: Client, ines: Client, done: Done, goesOn: () => boolean): Promise<void> {
  for (let n = 0; goesOn(); n += 1) {
    const id = randomUUID()
    const large = n % 3 === 0
    const draft = soundDraft([], { lines: [freeLine(large ? '1200' : '40'), freeLine('10')] })
    await sure(() => owen.call('POST', '/api/requisitions', { body: { id, draft }, key: `draft-${id}` }))
    const sent = await sure<{ state: string; version: number }>(() =>
      owen.call('POST', `/api/requisitions/${id}/send`, { version: 1, key: `send-${id}` }),
    )
    expect([id, sent.status]).toEqual([id, 200])
    if (large) {
      const decided = await sure(() =>
        ines.call('POST', `/api/documents/${id}/decisions`, {
          body: { outcome: 'approve', comment: '' },
          version: sent.body.version,
          key: `decide-${id}`,
        }),
      )
      expect([id, decided.status]).toEqual([id, 200])
      done.decided.push(id)
    }
    done.sent.push(id)
  }
}

/** Orders what is approved, a request at a time. */
async function orderOn(leonie: Client, done: Done, goesOn: () => boolean): Promise<void> {
  for (let at = 0; goesOn();) {
    const id = done.sent[at]
    if (id === undefined) {
      await pause(50)
      continue
    }
    at += 1
    const lines = await rekko.sql<{ id: string }>(
      `select l.id from requisition_line l join document d on d.id = l.requisition_id
        where d.id = $1 and d.state = 'approved'`,
      [id],
    )
    if (lines.length === 0) continue
    const tray = await sure<{ orderId: string }>(() =>
      leonie.call('POST', '/api/trays', {
        body: { orderId: null, supplierId: null, parts: lines.map((l) => ({ lineId: l.id, quantity: null })) },
        key: `tray-${id}`,
      }),
    )
    expect([id, tray.status]).toEqual([id, 200])
    const issued = await sure<{ number: string }>(() =>
      leonie.call('POST', `/api/orders/${tray.body.orderId}/issue`, { version: 1, key: `issue-${id}` }),
    )
    expect([id, issued.status]).toEqual([id, 200])
    done.issued.push({ id: tray.body.orderId, number: issued.body.number })
  }
}

test(
  `killed ${KILLS} times at work, nothing that was acknowledged is lost, and nothing is done twice`,
  async () => {
    const [owen, ines, leonie] = [
      await rekko.as('Owen Marsh'),
      await rekko.as('Ines Adeyemi'),
      await rekko.as('Leonie Farrow'),
    ]
    await rekko.sql('update budget_balance set budgeted = 100000000')
    const done: Done = { sent: [], decided: [], issued: [] }
    let working = true
    const goesOn = () => working
    const work = Promise.all([
      raiseOn(owen, ines, done, goesOn),
      raiseOn(owen, ines, done, goesOn),
      orderOn(leonie, done, goesOn),
    ])
    for (let i = 0; i < KILLS; i += 1) {
      await pause(200 + Math.random() * 800)
      // Now and then it is PostgreSQL that drops everybody, in the middle of what they do.
      if (i % 4 === 3)
        await rekko.sql(
          `select pg_terminate_backend(pid) from pg_stat_activity
            where datname = current_database() and usename = 'rekko_app'`,
        )
      else {
        await rekko.kill()
        await rekko.startAgain()
      }
      expect(await brokenRules(rekko)).toEqual([])
    }
    // However slow the machine is: enough was done among the kills to say something.
    await until(
      'enough work',
      () => Promise.resolve(done.sent.length > KILLS / 2 && done.issued.length > KILLS / 4),
      240,
    )
    working = false
    await work

    const states = await rekko.sql<{ id: string }>(
      `select id from document where id = any($1)
        and (number is null or state not in ('in approval', 'approved', 'ordered'))`,
      [done.sent],
    )
    expect(states).toEqual([])
    const decisions = await rekko.sql(
      `select t.id from unnest($1::uuid[]) t(id) where (
        select count(*) from approval_decision where document_id = t.id) <> 1`,
      [done.decided],
    )
    expect(decisions).toEqual([])
    expect(
      await rekko.sql("select id from document where id = any($1) and state <> 'issued'", [
        done.issued.map((o) => o.id),
      ]),
    ).toEqual([])
    // One request, one order: a tray that was asked for twice was laid once.
    expect(
      await rekko.sql(
        `select requisition_line_id from order_line_source group by 1 having count(*) > 1
        union all select requisition_line_id from tray_part group by 1 having count(*) > 1`,
      ),
    ).toEqual([])
    // Every order reaches its supplier: once, or again under the same Message-ID.
    await until(
      'every mail',
      async () => {
        const subjects = (await rekko.mails()).map((m) => m.subject)
        return done.issued.every((o) => subjects.some((s) => s.includes(o.number)))
      },
      240,
    )
    const mails = await rekko.mails()
    for (const o of done.issued) {
      const ids = new Set(mails.filter((m) => m.subject.includes(o.number)).map((m) => m.messageId))
      expect([o.number, ids.size]).toEqual([o.number, 1])
    }
    expect(await brokenRules(rekko)).toEqual([])
  },
  60_000 + KILLS * 15_000,
)
