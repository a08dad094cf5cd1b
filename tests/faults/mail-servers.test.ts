import { createServer, type Server, type Socket } from 'node:net'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { freeLine, raise, soundDraft, startRekko, until, type Client, type Rekko } from '../setup/rekko'

let rekko: Rekko
let owen: Client, leonie: Client
beforeAll(async () => {
  rekko = await startRekko()
  owen = await rekko.as('Owen Marsh')
  leonie = await rekko.as('Leonie Farrow')
})
afterAll(async () => {
  await rekko.stop()
})

/**
 * A mail server that answers each command as `answer` says, after a wait, and never says that it took a letter; what
 * was said to it.
 */
async function mailServer(
  port: number,
  waitMs: number,
  answer: (line: string) => string,
): Promise<{ heard: string[]; close: () => Promise<void> }> {
  const heard: string[] = []
  const sockets = new Set<Socket>()
  const server: Server = createServer((socket) => {
    sockets.add(socket)
    socket.on('error', () => undefined)
    const say = (text: string) => {
      setTimeout(() => {
        if (!socket.destroyed) socket.write(`${text}\r\n`)
      }, waitMs)
    }
    let isLetter = false
    say('220 ready')
    socket.on('data', (chunk: Buffer) => {
      for (const line of chunk.toString().split('\r\n').filter(Boolean)) {
        heard.push(line)
        if (!isLetter) say(answer(line))
        // Whatever it took would not be found in the post office, however slow the machine is.
        isLetter ||= line.startsWith('DATA')
      }
    })
  })
  await new Promise<void>((r) => {
    server.listen(port, '127.0.0.1', r)
  })
  return {
    heard,
    close: () =>
      new Promise((resolve) => {
        for (const s of sockets) s.destroy()
        server.close(() => {
          resolve()
        })
      }),
  }
}

/** Orders one request by one; the orders' numbers. */
async function orderMany(count: number): Promise<{ id: string; number: string }[]> {
  const issued: { id: string; number: string }[] = []
  for (let i = 0; i < count; i += 1) {
    const draft = soundDraft([], { lines: [freeLine(String(40 + i))] })
    expect((await raise(owen, draft)).body.state).toBe('approved')
    const tray = await leonie.call<{ orderId: string }>('POST', '/api/trays', {
      body: { orderId: null, supplierId: null, parts: draft.lines.map((l) => ({ lineId: l.id, quantity: null })) },
    })
    const id = tray.body.orderId
    const order = await leonie.call<{ number: string }>('POST', `/api/orders/${id}/issue`, { version: 1 })
    expect(order.status).toBe(200)
    issued.push({ id, number: order.body.number })
  }
  return issued
}

/** What somebody who has nothing to do with it waits for a small page of the API, at most: a hang is what it finds. */
async function innocent(): Promise<void> {
  const reply = await fetch(`${rekko.url}/api/session`, {
    headers: { cookie: owen.cookie },
    signal: AbortSignal.timeout(20_000),
  })
  expect(reply.status).toBe(200)
}

/** The wait between two tries, which doubles, is not what is tested: what waits for its next one is tried at once. */
const arrive = (numbers: readonly string[]) =>
  until(
    'every mail',
    async () => {
      await rekko.sql("update pgboss.job set start_after = now() where state = 'retry' and start_after > now()")
      const subjects = (await rekko.mails()).map((m) => m.subject)
      return numbers.every((n) => subjects.some((s) => s.includes(n)))
    },
    150,
  )

test('a mail server that takes seconds over every word: orders are issued, others served, memory stays', async () => {
  const before = rekko.memory()
  await rekko.closePostOffice()
  const slow = await mailServer(rekko.smtpPort, 2500, (line) => (line.startsWith('DATA') ? '354 go on' : '250 ok'))
  const orders = await orderMany(8)
  await until('it is spoken to', () => Promise.resolve(slow.heard.length > 3), 60)
  for (let i = 0; i < 5; i += 1) await innocent()
  expect(rekko.memory() - before).toBeLessThan(80 * 1024 * 1024)
  await slow.close()
  await rekko.openPostOffice()
  await arrive(orders.map((o) => o.number))
}, 240_000)

test('a mail server that refuses: it is known why, others are served, and all of it leaves in the end', async () => {
  const before = rekko.memory()
  await rekko.closePostOffice()
  const refusing = await mailServer(rekko.smtpPort, 0, (line) =>
    line.startsWith('RCPT') ? '550 no such mailbox here' : '250 ok',
  )
  const [one, ...rest] = await orderMany(6)
  const said = await until('the refusal is written down', async () => {
    const [sending] = await rekko.sql<{ last_error: string | null }>(
      'select last_error from order_sending where order_id = $1',
      [one?.id],
    )
    return sending?.last_error ?? null
  })
  expect(said).toContain('no such mailbox here')
  for (let i = 0; i < 5; i += 1) await innocent()
  expect(rekko.memory() - before).toBeLessThan(80 * 1024 * 1024)
  await refusing.close()
  await rekko.openPostOffice()
  await arrive([one, ...rest].map((o) => o?.number ?? ''))
}, 240_000)
