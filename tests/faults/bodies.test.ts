import { request } from 'node:http'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { startRekko, type Rekko } from '../setup/rekko'

let rekko: Rekko
beforeAll(async () => {
  rekko = await startRekko()
})
afterAll(() => rekko.stop())

/** Sends a body in chunks, without saying how long it is, until it is answered or cut off. */
function pour(
  path: string,
  megabytes: number,
  headers: Record<string, string>,
): Promise<{ status: number; sent: number }> {
  const url = new URL(path, rekko.url)
  const chunk = Buffer.alloc(256 * 1024, 'a')
  return new Promise((resolve) => {
    let sent = 0
    let status = 0
    const r = request(url, { method: 'POST', headers: { 'transfer-encoding': 'chunked', ...headers } }, (reply) => {
      status = reply.statusCode ?? 0
      reply.resume()
    })
    const done = () => {
      clearInterval(pump)
      resolve({ status, sent })
    }
    r.on('error', done)
    r.on('close', done)
    // What waits in this process was not sent yet: no more is written than the connection takes.
    const pump = setInterval(() => {
      if (sent >= megabytes * 1024 * 1024) {
        clearInterval(pump)
        r.end()
      } else if (!r.destroyed && !r.writableNeedDrain) {
        r.write(chunk)
        sent += chunk.length
      }
    }, 1)
  })
}

test('a body is counted while it arrives: 200 MB in chunks are refused early, and others are served', async () => {
  const before = rekko.memory()
  const poured = pour('/api/session', 200, { 'content-type': 'application/json' })
  const meanwhile = await fetch(`${rekko.url}/api/health`)
  expect(meanwhile.status).toBe(200)
  const { status, sent } = await poured
  expect([0, 413]).toContain(status)
  expect(sent).toBeLessThan(100 * 1024 * 1024)
  expect(rekko.memory() - before).toBeLessThan(80 * 1024 * 1024)
  expect((await fetch(`${rekko.url}/api/health`)).status).toBe(200)
})

test('a body that says that it is too large is refused with a sentence', async () => {
  const r = await fetch(`${rekko.url}/api/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ email: 'x'.repeat(3 * 1024 * 1024), password: 'y' }),
  })
  expect([r.status, ((await r.json()) as { detail: string }).detail]).toEqual([
    413,
    'This is more than Rekko takes at once (2 MB).',
  ])
})
