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
test('a connection lost while it looks for what another left behind does not end a server', async () => {
  // The first look for mails that wait has to wait for this.
  const held = rekko.sql('begin; lock table outgoing_mail in access exclusive mode; select pg_sleep(4); commit')
  const second = await rekko.second()
  const dropped = await until('it waits', async () => {
    const waiting = await rekko.sql(
      `select pg_terminate_backend(pid) from pg_stat_activity where datname = current_database()
        and wait_event_type = 'Lock' and query like '%outgoing_mail%' and ltrim(query) like 'select%'`,
    )
    return waiting.length
  })
  expect(dropped).toBeGreaterThan(0)
  await held
  await new Promise((r) => {
    setTimeout(r, 500)
  })
  expect((await fetch(`${second.url}/api/health`)).status).toBe(200)
  await second.stop()
})

test('a connection lost while the queue starts does not end a server that answers already', async () => {
  // What is to be done by the clock is written down last; it has to wait for this.
  const held = rekko.sql('begin; lock table pgboss.schedule in access exclusive mode; select pg_sleep(6); commit')
  const second = await rekko.second()
  const dropped = await until('it waits', async () => {
    const waiting = await rekko.sql(
      `select pg_terminate_backend(pid) from pg_stat_activity where datname = current_database()
        and wait_event_type = 'Lock' and query ilike '%insert into pgboss.schedule%'`,
    )
    return waiting.length
  })
  expect(dropped).toBeGreaterThan(0)
  await held
  await new Promise((r) => {
    setTimeout(r, 2000)
  })
  expect((await fetch(`${second.url}/api/health`)).status).toBe(200)
  await second.stop()
})
