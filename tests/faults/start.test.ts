import { join } from 'node:path'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { freePort } from '../../scripts/setup/cluster'
import { startServer } from '../../scripts/setup/processes'
import { startRekko, until, type Rekko } from '../setup/rekko'

let rekko: Rekko
beforeAll(async () => {
  rekko = await startRekko()
})
afterAll(() => rekko.stop())

/** Starts a second server that has to end by itself; its exit code. */
const endOf = (port: number, sessionSecret: string) => {
  const { databaseUrl, smtpPort } = { databaseUrl: rekko.appUrl, smtpPort: rekko.smtpPort }
  const second = startServer(
    process.cwd(),
    { databaseUrl, port, smtpPort, sessionSecret, isDemo: true },
    join(process.cwd(), '.rekko/test-server.log'),
  )
  return new Promise((resolve) => second.child.once('exit', resolve))
}

test('a server whose port is taken says so and ends, instead of running on where nobody reaches it', async () => {
  expect(await endOf(Number(new URL(rekko.url).port), 'a-secret-for-tests-that-is-long-enough')).toBe(1)
  expect((await fetch(`${rekko.url}/api/health`)).status).toBe(200)
})
test('a server does not start with a secret that is short enough to be guessed', async () => {
  expect(await endOf(await freePort(), 'short')).toBe(1)
})
/** Starts a second server that has to wait for a table, and loses the connection on which it waits; then lets go. */
async function loseWhileStarting(table: string, waiting: string): Promise<Awaited<ReturnType<Rekko['second']>>> {
  // Held until it is let go, however long the second takes to come so far.
  const held = rekko.sql(`begin; lock table ${table} in access exclusive mode; select pg_sleep(120)`).catch(() => null)
  const second = await rekko.second()
  const dropped = await until('it waits', async () => {
    const found = await rekko.sql(
      `select pg_terminate_backend(pid) from pg_stat_activity where datname = current_database()
        and wait_event_type = 'Lock' and ltrim(query) ilike $1`,
      [waiting],
    )
    return found.length
  })
  expect(dropped).toBeGreaterThan(0)
  await rekko.sql(
    `select pg_terminate_backend(pid) from pg_stat_activity
      where query like 'begin; lock table%' and wait_event = 'PgSleep'`,
  )
  await held
  return second
}

test.each([
  // The first look for mails that wait has to wait for this.
  ['it looks for what another left behind', 'outgoing_mail', 'select%outgoing_mail%'],
  // What is to be done by the clock is written down last; it has to wait for this.
  ['the queue starts', 'pgboss.schedule', '%insert into pgboss.schedule%'],
])('a connection lost while %s does not end a server that answers already', async (_when, table, waiting) => {
  const second = await loseWhileStarting(table, waiting)
  await new Promise((r) => {
    setTimeout(r, 2000)
  })
  expect((await fetch(`${second.url}/api/health`)).status).toBe(200)
  await second.stop()
})
