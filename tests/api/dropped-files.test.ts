import { randomBytes, randomUUID } from 'node:crypto'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { freeLine, soundDraft, startRekko, until, type Client, type Rekko } from '../setup/rekko'

let rekko: Rekko
let owen: Client
beforeAll(async () => {
  rekko = await startRekko()
  owen = await rekko.as('Owen Marsh')
})
afterAll(() => rekko.stop())

const file = () => Buffer.concat([Buffer.from('%PDF-1.4\n1 0 obj<<>>endobj\n%'), randomBytes(500)])
const draft = async () => {
  const id = randomUUID()
  await owen.call('POST', '/api/requisitions', { body: { id, draft: soundDraft([], { lines: [freeLine('40')] }) } })
  return id
}
const attach = async (id: string, raw: Buffer) =>
  (
    await owen.call<{ id: string; fileHash: string }>('POST', `/api/requisitions/${id}/attachments?name=a.pdf`, {
      raw,
      headers: { 'content-type': 'application/octet-stream' },
    })
  ).body
const isKept = async (hash: string) => (await rekko.sql('select 1 from file where hash = $1', [hash])).length > 0
const detach = (id: string, a: { id: string }) => owen.call('DELETE', `/api/requisitions/${id}/attachments/${a.id}`)

/** What was left for later is done. */
const idle = () =>
  until('the queue is done', async () => {
    const left = await rekko.sql(
      "select 1 from pgboss.job where name = 'drop-files' and state not in ('completed', 'failed')",
    )
    return left.length === 0
  })

test('a file goes with the last that carried it, and not before', async () => {
  const [one, two, bytes] = [await draft(), await draft(), file()]
  const [a, b] = [await attach(one, bytes), await attach(two, bytes)]
  expect(a.fileHash).toBe(b.fileHash)
  expect((await detach(one, a)).status).toBe(204)
  await idle()
  expect(await isKept(a.fileHash)).toBe(true)
  const [found] = await rekko.sql<{ version: number }>('select version from document where id = $1', [two])
  expect((await owen.call('DELETE', `/api/requisitions/${two}`, { version: found?.version ?? 0 })).status).toBe(204)
  await idle()
  expect(await isKept(a.fileHash)).toBe(false)
})

test('whoever attaches the same file at the moment it is taken away elsewhere keeps it', async () => {
  for (let turn = 0; turn < 8; turn += 1) {
    const [one, two, bytes] = [await draft(), await draft(), file()]
    const a = await attach(one, bytes)
    const [gone, b] = await Promise.all([detach(one, a), attach(two, bytes)])
    expect(gone.status).toBe(204)
    await idle()
    expect(await isKept(b.fileHash)).toBe(true)
    expect((await owen.call('GET', `/api/requisitions/${two}/attachments/${b.id}`)).status).toBe(200)
  }
})
