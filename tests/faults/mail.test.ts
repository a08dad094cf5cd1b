import { createServer, type Socket } from 'node:net'
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

async function trayOf(price: string): Promise<string> {
  const sent = await raise(owen, soundDraft([], { lines: [freeLine(price)] }))
  const [line] = await rekko.sql<{ id: string }>('select id from requisition_line where requisition_id = $1', [sent.id])
  return (
    await leonie.call<{ orderId: string }>('POST', '/api/trays', {
      body: { orderId: null, supplierId: null, parts: [{ lineId: line?.id, quantity: null }] },
    })
  ).body.orderId
}
const mailsOf = async (number: string) => (await rekko.mails()).filter((m) => m.subject.includes(number))

test('the mail server is down: the order is issued all the same, and its mail follows when it is back', async () => {
  const tray = await trayOf('40')
  await rekko.closePostOffice()
  const issued = await leonie.call<{ number: string }>('POST', `/api/orders/${tray}/issue`, { version: 1 })
  expect(issued.status).toBe(200)
  await until(
    'a first try',
    async () =>
      (await rekko.sql('select 1 from order_sending where last_error is not null and order_id = $1', [tray])).length ===
      1,
  )
  expect((await leonie.call<{ mail: string; ok: boolean }>('GET', '/api/health')).body).toMatchObject({
    ok: true,
    mail: 'cannot be reached',
  })
  const order = await leonie.call<{ state: string; revisions: { hasPdf: boolean; sentAt: string | null }[] }>(
    'GET',
    `/api/orders/${tray}`,
  )
  expect(order.body).toMatchObject({ state: 'issued', revisions: [{ hasPdf: true, sentAt: null }] })
  await rekko.openPostOffice()
  await until('the mail', async () => (await mailsOf(issued.body.number)).length === 1, 60)
})

test('the server is killed between issue and mail: after the restart exactly one mail', async () => {
  const tray = await trayOf('41')
  const issued = await leonie.call<{ number: string }>('POST', `/api/orders/${tray}/issue`, { version: 1 })
  await rekko.kill()
  expect(await mailsOf(issued.body.number)).toEqual([])
  await rekko.startAgain()
  await until('the mail', async () => (await mailsOf(issued.body.number)).length >= 1, 200)
  // The sweep and the queue's own repeat had their chance by now.
  await new Promise((r) => {
    setTimeout(r, 4000)
  })
  expect(await mailsOf(issued.body.number)).toHaveLength(1)
})

test('killed after the mail server took it: at most one repeat, with the same Message-ID', async () => {
  const tray = await trayOf('42')
  await rekko.closePostOffice()
  // A mail server that takes the message and never says so: the moment between its taking and our knowing.
  const taken: string[] = []
  const sockets = new Set<Socket>()
  const mute = createServer((socket) => {
    sockets.add(socket)
    socket.on('error', () => undefined)
    socket.write('220 mute\r\n')
    let data = false
    let message = ''
    socket.on('data', (chunk) => {
      const text = chunk.toString()
      if (data) {
        message += text
        if (message.endsWith('\r\n.\r\n')) taken.push(message)
        return
      }
      if (/^DATA/im.test(text)) {
        data = true
        socket.write('354 go on\r\n')
      } else socket.write('250 ok\r\n')
    })
  })
  await new Promise<void>((r) => {
    mute.listen(rekko.smtpPort, '127.0.0.1', r)
  })
  const issued = await leonie.call<{ number: string }>('POST', `/api/orders/${tray}/issue`, { version: 1 })
  const first = await until(
    'the message to be taken',
    () => Promise.resolve(taken.find((t) => t.includes(issued.body.number))),
    60,
  )
  await rekko.kill()
  for (const s of sockets) s.destroy()
  await new Promise((r) => {
    mute.close(r)
  })
  await rekko.openPostOffice()
  await rekko.startAgain()
  await until('the repeat', async () => (await mailsOf(issued.body.number)).length >= 1, 60)
  await new Promise((r) => {
    setTimeout(r, 3000)
  })
  const repeats = await mailsOf(issued.body.number)
  expect(repeats).toHaveLength(1)
  expect(/^Message-ID: (\S+)/im.exec(first)?.[1]).toBe(repeats[0]?.messageId)
})

test('two servers on one database: each mail leaves once, and a decision on one is seen on the other', async () => {
  const other = await rekko.second()
  const tray = await trayOf('43')
  const issued = await leonie.call<{ number: string }>('POST', `/api/orders/${tray}/issue`, { version: 1 })
  await until('the mail', async () => (await mailsOf(issued.body.number)).length >= 1)
  await new Promise((r) => {
    setTimeout(r, 1500)
  })
  expect(await mailsOf(issued.body.number)).toHaveLength(1)
  const seen = await fetch(`${other.url}/api/live`, { headers: { cookie: leonie.cookie } })
  const reader = seen.body?.getReader()
  const sent = await raise(owen, soundDraft([], { lines: [freeLine('44')] }))
  let heard = ''
  for (const end = Date.now() + 15_000; Date.now() < end && !heard.includes(sent.id);)
    heard += new TextDecoder().decode((await reader?.read())?.value)
  expect(heard).toContain(sent.id)
  await reader?.cancel()
  await other.stop()
})

test('a mail server that never says a word: health answers all the same, and work goes on', async () => {
  await rekko.closePostOffice()
  const sockets = new Set<Socket>()
  const silent = createServer((socket) => {
    sockets.add(socket)
    socket.on('error', () => undefined)
  })
  await new Promise<void>((r) => {
    silent.listen(rekko.smtpPort, '127.0.0.1', r)
  })
  const tray = await trayOf('45')
  const issued = await leonie.call<{ number: string }>('POST', `/api/orders/${tray}/issue`, { version: 1 })
  await until('a try', () => Promise.resolve(sockets.size > 1))
  const health = await fetch(`${rekko.url}/api/health`, { signal: AbortSignal.timeout(5000) })
  expect([health.status, ((await health.json()) as { ok: boolean }).ok]).toEqual([200, true])
  expect((await raise(owen, soundDraft([], { lines: [freeLine('46')] }))).status).toBe(200)
  for (const s of sockets) s.destroy()
  await new Promise((r) => {
    silent.close(r)
  })
  await rekko.openPostOffice()
  await until('the mail', async () => (await mailsOf(issued.body.number)).length === 1, 90)
})
