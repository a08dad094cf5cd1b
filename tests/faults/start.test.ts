import { join } from 'node:path'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { startServer } from '../../scripts/setup/processes'
import { startRekko, type Rekko } from '../setup/rekko'

let rekko: Rekko
beforeAll(async () => {
  rekko = await startRekko()
})
afterAll(() => rekko.stop())

test('a server whose port is taken says so and ends, instead of running on where nobody reaches it', async () => {
  const second = startServer(
    process.cwd(),
    {
      databaseUrl: rekko.appUrl,
      port: Number(new URL(rekko.url).port),
      smtpPort: rekko.smtpPort,
      sessionSecret: 'a-secret-for-tests-that-is-long-enough',
      isDemo: true,
    },
    join(process.cwd(), '.rekko/test-server.log'),
  )
  const code = await new Promise((resolve) => second.child.once('exit', resolve))
  expect(code).toBe(1)
  expect((await fetch(`${rekko.url}/api/health`)).status).toBe(200)
})
