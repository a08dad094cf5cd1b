import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { openDatabase, type Database } from '../../server/db/client'
import { inTransaction } from '../../server/db/transaction'
import { keepFile } from '../../server/files/store'
import { insertMails } from '../../server/mail/store'
import { enqueue } from '../../server/queue/enqueue'
import { takeTasks } from '../../server/queue/take-tasks'
import { REKKO } from '../../server/people/actor'
import { purge } from '../../server/upkeep/purge'
import { tellEnded } from '../../server/upkeep/tell-ended'
import { moment, startRekko, until, type Rekko } from '../setup/rekko'

let rekko: Rekko
let database: Database
beforeAll(async () => {
  rekko = await startRekko()
  Object.assign(process.env, {
    DATABASE_URL: rekko.appUrl,
    REKKO_SESSION_SECRET: 'a-secret-for-tests-that-is-long-enough',
  })
  database = openDatabase(rekko.appUrl, 2)
})
afterAll(async () => {
  await database.pool.end()
  await rekko.stop()
})

test('a task is tried again in growing pauses for days, and then goes where an administrator is told', async () => {
  const put = takeTasks()
  await enqueue(database.db, 'route-all-again', {})
  const [task] = put
  const { retryLimit = 0, retryDelay = 0 } = task ?? {}
  expect(task).toMatchObject({ retryBackoff: true, deadLetter: 'task-ended' })
  // The queue waits between half and all of the delay, doubled each time.
  const days = Array.from({ length: retryLimit }, (_, i) => retryDelay * 2 ** Math.min(16, i + 1)).reduce(
    (a, b) => a + b,
  )
  expect(days / 2 / 86_400).toBeGreaterThan(2)
  expect(days / 86_400).toBeLessThan(14)
})

test('one task that fails is tried again by itself; those of its batch are done', async () => {
  const [bad, good] = [randomUUID(), randomUUID()]
  const job = (id: string, name: string, data: object) =>
    rekko.sql(
      `insert into pgboss.job (id, name, data, retry_limit, retry_delay, retry_backoff, dead_letter, policy)
       select $1, q.name, $3, 16, 60, true, 'task-ended', q.policy from pgboss.queue q where q.name = $2`,
      [id, name, JSON.stringify(data)],
    )
  // What names no order cannot be read by the database: it fails, whatever is done.
  await rekko.sql('begin')
  await job(bad, 'file-order', { orderId: 'no id', revision: 0, task: 'file-order' })
  await job(good, 'file-order', { orderId: randomUUID(), revision: 0, task: 'file-order' })
  await rekko.sql('commit')
  const state = async (id: string) =>
    (await rekko.sql<{ state: string }>('select state from pgboss.job where id = $1', [id]))[0]?.state
  await until('both were tried', async () => (await state(good)) === 'completed' && (await state(bad)) === 'retry')
})

test('what ends is marked as given up, and administrators are told what it was', async () => {
  let mailId = ''
  await inTransaction(database.db, (tx) =>
    insertMails(tx, [
      {
        personId: null,
        toName: 'x',
        toAddress: 'x@y.example',
        told: { code: 'plain', subject: '', sentence: '' },
        path: null,
        aboutKind: 'task',
        aboutId: randomUUID(),
        notBefore: new Date(moment().getTime() + 86_400_000),
        now: moment(),
      },
    ]).then(([id = '']) => {
      mailId = id
    }),
  )
  await inTransaction(database.db, (tx) =>
    tellEnded(
      { tx, now: moment(), actor: REKKO },
      randomUUID(),
      { task: 'send-mail', mailId },
      { message: 'no route' },
    ),
  )
  const [mail] = await rekko.sql('select cancelled_at is not null as given_up from outgoing_mail where id = $1', [
    mailId,
  ])
  expect(mail).toEqual({ given_up: true })
  const harriet = await rekko.as('Harriet Voss')
  const { notices } = (await harriet.call<{ notices: { sentence: string }[] }>('GET', '/api/notices')).body
  expect(notices[0]?.sentence).toContain('has given up: an e-mail to a colleague. The last cause was “no route”.')
})

test('sessions, keys and files that nobody needs are taken away; what is in use stays', async () => {
  const now = moment()
  const old = new Date(now.getTime() - 40 * 86_400_000)
  for (const name of ['Owen Marsh', 'Ines Adeyemi']) await rekko.as(name)
  await rekko.sql('update session set ended_at = $1 where id = (select id from session limit 1)', [old])
  await rekko.sql(
    `insert into idempotency (person_id, key, route, body_hash, status, at)
     values ('x', 'old-key-1', 'r', '', 200, $1)`,
    [old],
  )
  const orphan = await keepFile(database.db, Buffer.from('nobody refers to this'), 'text/plain', old)
  const fresh = await keepFile(database.db, Buffer.from('somebody may yet'), 'text/plain', now)
  const before = await rekko.sql('select id from session')
  await inTransaction(database.db, (tx) => purge(tx, now))
  expect((await rekko.sql('select id from session')).length).toBe(before.length - 1)
  expect(await rekko.sql("select 1 from idempotency where key = 'old-key-1'")).toEqual([])
  expect(await rekko.sql('select hash from file where hash = any($1)', [[orphan, fresh]])).toEqual([{ hash: fresh }])
})

test('twelve sign in at once, and the server goes on', async () => {
  const names = ['Owen Marsh', 'Ines Adeyemi', 'Tomas Brandt', 'Leonie Farrow', 'Harriet Voss', 'Rosa Castell']
  const clients = await Promise.all([...names, ...names].map((n) => rekko.as(n)))
  const replies = await Promise.all(clients.map((c) => c.call('GET', '/api/session')))
  expect(replies.map((r) => r.status)).toEqual(clients.map(() => 200))
})
