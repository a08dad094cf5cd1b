import { join } from 'node:path'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { freePort } from '../../scripts/setup/cluster'
import { startServer } from '../../scripts/setup/processes'
import { startRekko, type Rekko } from '../setup/rekko'

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
