import { createServer } from 'node:net'
import type { AddressInfo } from 'node:net'
import nodemailer from 'nodemailer'
import { afterAll, beforeAll, beforeEach, expect, test } from 'vitest'
import { listenForMail, type Arrived } from './take-mail'

const DOMAIN = 'answers.example'
let port = 0
let taken: Arrived[] = []
let faults: unknown[] = []
let say: () => string | null = () => null
let server: { stop: () => Promise<void> }

async function freePort(): Promise<number> {
  const probe = createServer()
  await new Promise<void>((resolve) => probe.listen(0, '127.0.0.1', resolve))
  const found = (probe.address() as AddressInfo).port
  await new Promise((resolve) => probe.close(resolve))
  return found
}
beforeAll(async () => {
  port = await freePort()
  server = await listenForMail(port, {
    domain: DOMAIN,
    knows: (to) => Promise.resolve(to.startsWith('decide-')),
    take: (arrived) => {
      const answer = say()
      taken.push(arrived)
      return Promise.resolve(answer)
    },
    onError: (e) => faults.push(e),
  })
})
afterAll(() => server.stop())
beforeEach(() => {
  taken = []
  faults = []
  say = () => null
})

/** What the other side answers: the letter went, or a code with its sentence. */
async function send(to: string | string[], text: string | Buffer = 'Approved') {
  const transport = nodemailer.createTransport({ host: '127.0.0.1', port, ignoreTLS: true })
  try {
    const { rejected } = await transport.sendMail({
      envelope: { from: 'Ines@Example.org', to },
      raw: Buffer.concat([Buffer.from('From: ines@example.org\r\nSubject: Re\r\n\r\n'), Buffer.from(text)]),
    })
    return { code: 250, said: '', rejected }
  } catch (error) {
    const { responseCode, response } = error as { responseCode?: number; response?: string }
    return { code: responseCode ?? 0, said: response ?? String(error), rejected: [] }
  } finally {
    transport.close()
  }
}

test('a letter is handed on as it came, addresses in small letters', async () => {
  expect((await send(`Decide-ABC@Answers.Example`, 'Genehmigt, größer')).code).toBe(250)
  expect([taken[0]?.to, taken[0]?.envelopeFrom, taken[0]?.raw.toString().includes('größer')]).toEqual([
    'decide-abc',
    'ines@example.org',
    true,
  ])
})
test('what there is no address for is refused before it is sent', async () => {
  expect(await send(`nobody@${DOMAIN}`)).toMatchObject({ code: 550 })
  expect(await send('decide-abc@elsewhere.example')).toMatchObject({ code: 550 })
  expect(taken).toEqual([])
})
test('what is not taken says why; what goes wrong here is asked for again', async () => {
  say = () => 'Only the person whom Rekko asked can answer.'
  expect(await send(`decide-abc@${DOMAIN}`)).toMatchObject({ code: 550, said: expect.stringContaining('Only the') })
  say = () => {
    throw new Error('the database is away')
  }
  expect(await send(`decide-abc@${DOMAIN}`)).toMatchObject({ code: 451 })
  expect(faults).toHaveLength(1)
})
test('one recipient at a time: the other is left to come by itself', async () => {
  const { code, rejected } = await send([`decide-abc@${DOMAIN}`, `decide-def@${DOMAIN}`])
  expect([code, rejected, taken.map((t) => t.to)]).toEqual([250, [`decide-def@${DOMAIN}`], ['decide-abc']])
})
test('a letter that is too large is refused, and the next is taken', async () => {
  expect((await send(`decide-abc@${DOMAIN}`, Buffer.alloc(21 * 1024 * 1024, 'a\r\n'))).code).toBe(552)
  expect((await send(`decide-abc@${DOMAIN}`)).code).toBe(250)
})
