import { afterAll, beforeAll, expect, test } from 'vitest'
import { freePort } from '../../scripts/setup/cluster'
import { brokenRules } from '../setup/invariants'
import { freeLine, raise, soundDraft, startRekko, type Client, type Rekko } from '../setup/rekko'
import { openStallingWay, type StallingWay } from '../setup/stalling'

let rekko: Rekko
let owen: Client
let way: StallingWay
beforeAll(async () => {
  rekko = await startRekko({
    databaseThrough: async (port) => {
      way = await openStallingWay(port, await freePort())
      return way.port
    },
  })
  owen = await rekko.as('Owen Marsh')
})
afterAll(async () => {
  way.goOn()
  await rekko.stop()
  await way.close()
})

const ASKED = 60

test('a database that hangs: health says so, memory stays, and what waited is answered when it goes on', async () => {
  expect((await raise(owen, soundDraft([], { lines: [freeLine('10')] }))).status).toBe(200)
  const before = rekko.memory()
  way.hang()
  const waiting = Array.from({ length: ASKED }, () => owen.call('GET', '/api/requisitions'))
  const raised = raise(owen, soundDraft([], { lines: [freeLine('11')] })).catch(() => null)
  for (let i = 0; i < 3; i += 1) {
    const health = await fetch(`${rekko.url}/api/health`, { signal: AbortSignal.timeout(5000) })
    expect([health.status, await health.json()]).toMatchObject([503, { database: 'cannot be reached' }])
  }
  expect(rekko.memory() - before).toBeLessThan(40 * 1024 * 1024)
  way.goOn()
  const statuses = (await Promise.all(waiting)).map((r) => r.status)
  expect(statuses.filter((s) => s !== 200 && s !== 503)).toEqual([])
  await raised
  expect((await fetch(`${rekko.url}/api/health`)).status).toBe(200)
  expect((await raise(owen, soundDraft([], { lines: [freeLine('12')] }))).status).toBe(200)
  expect(await brokenRules(rekko)).toEqual([])
})

test('a database that hangs for longer than anybody waits: 503 with a sentence, and later all goes on', async () => {
  way.hang()
  const late = await Promise.all(Array.from({ length: 30 }, () => owen.call('GET', '/api/requisitions')))
  expect(late.filter((r) => r.status !== 503).map((r) => r.status)).toEqual([])
  expect(String((late.at(-1)?.body as { detail?: string }).detail)).toMatch(/\.$/)
  way.goOn()
  expect((await raise(owen, soundDraft([], { lines: [freeLine('13')] }))).status).toBe(200)
  expect(await brokenRules(rekko)).toEqual([])
}, 150_000)
