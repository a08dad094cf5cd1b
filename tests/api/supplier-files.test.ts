import { randomBytes, randomUUID } from 'node:crypto'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { freeLine, soundDraft, startRekko, type Client, type Rekko } from '../setup/rekko'

let rekko: Rekko
let owen: Client, leonie: Client
beforeAll(async () => {
  rekko = await startRekko()
  owen = await rekko.as('Owen Marsh')
  leonie = await rekko.as('Leonie Farrow')
})
afterAll(() => rekko.stop())

const file = (megabytes: number) =>
  Buffer.concat([Buffer.from('%PDF-1.4\n1 0 obj<<>>endobj\n%'), randomBytes(megabytes * 1_000_000)])
const draft = async () => {
  const id = randomUUID()
  await owen.call('POST', '/api/requisitions', { body: { id, draft: soundDraft([], { lines: [freeLine('40')] }) } })
  return id
}
const attach = (id: string, raw: Buffer, forSupplier: boolean) =>
  owen.call<{ id: string; detail: string }>(
    'POST',
    `/api/requisitions/${id}/attachments?name=drawing.pdf&kind=drawing&forSupplier=${forSupplier}`,
    { raw, headers: { 'content-type': 'application/octet-stream' } },
  )

test('what a request gives its supplier goes with one order: more is refused, by whichever way it comes', async () => {
  const id = await draft()
  const first = file(8)
  expect((await attach(id, first, true)).status).toBe(200)
  expect(await attach(id, file(8), true)).toMatchObject({
    status: 409,
    body: {
      detail:
        'With it the files for the supplier come to 16.0 MB, and 14.0 MB can go with an order: keep one for ' +
        'colleagues only, or make one smaller.',
    },
  })
  const inside = await attach(id, file(8), false)
  expect(inside.status).toBe(200)
  const describe = { body: { kind: 'drawing', forSupplier: true } }
  expect((await owen.call('PUT', `/api/requisitions/${id}/attachments/${inside.body.id}`, describe)).status).toBe(409)
  // The same file again is sent once, and counts once.
  expect((await attach(id, first, true)).status).toBe(200)
  expect(await rekko.sql('select for_supplier from attachment where document_id = $1 order by added_at', [id])).toEqual(
    [{ for_supplier: true }, { for_supplier: false }, { for_supplier: true }],
  )
})

test('an order of several whose files are too large is not issued, says so, and is divided', async () => {
  const lines: string[] = []
  for (let i = 0; i < 2; i += 1) {
    const id = await draft()
    await attach(id, file(8), true)
    expect((await owen.call('POST', `/api/requisitions/${id}/send`, { version: 1 })).status).toBe(200)
    lines.push(
      ...(await rekko.sql<{ id: string }>('select id from requisition_line where requisition_id = $1', [id])).map(
        (l) => l.id,
      ),
    )
  }
  const tray = await leonie.call<{ orderId: string }>('POST', '/api/trays', {
    body: { orderId: null, supplierId: null, parts: lines.map((lineId) => ({ lineId, quantity: null })) },
  })
  const version = async () =>
    (await rekko.sql<{ version: number }>('select version from document where id = $1', [tray.body.orderId]))[0]
      ?.version ?? 0
  const issue = async () =>
    leonie.call<{ detail: string }>('POST', `/api/orders/${tray.body.orderId}/issue`, { version: await version() })
  expect(await issue()).toMatchObject({
    status: 409,
    body: { detail: expect.stringContaining('come to 16.0 MB, and 14.0 MB can go with an order') as string },
  })
  await leonie.call('POST', `/api/trays/${tray.body.orderId}/take-off`, { body: { lineIds: lines.slice(1) } })
  expect((await issue()).status).toBe(200)
})
