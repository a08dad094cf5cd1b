import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, expect, test } from 'vitest'
import type { SupplierView } from '#shared/contract/supplier'
import { freeLine, raise, soundDraft, startRekko, until, type Client, type Rekko } from '../setup/rekko'

let rekko: Rekko
let [owen, greta, leonie]: Client[] = []
beforeAll(async () => {
  rekko = await startRekko()
  ;[owen, greta, leonie] = await Promise.all(['Owen Marsh', 'Greta Molin', 'Leonie Farrow'].map(rekko.as))
})
afterAll(async () => {
  await rekko.stop()
})
const who = (c: Client | undefined): Client => c ?? rekko.nobody
const propose = (change: object = {}, by = owen) =>
  who(by).call<{ id: string; standing: string; detail: string; fields: { field: string }[] }>(
    'POST',
    '/api/suppliers',
    {
      body: {
        name: 'Cold Harbour Optics',
        town: 'Cold Harbour',
        email: 'hello@coldharbour.example',
        taxNumber: 'HL 773 3120',
        currency: 'EUR',
        note: 'they repair old microscopes',
        ...change,
      },
      key: randomUUID(),
    },
  )
const decide = (id: string, accept: boolean, reason = '', by = greta) =>
  who(by).call<{ detail: string }>('POST', `/api/suppliers/${id}/decision`, { body: { accept, reason } })
const policy = (p: string) => rekko.sql('update organisation set new_suppliers = $1', [p])

async function issue(requisitionLine: string): Promise<{ status: number; detail: string }> {
  const tray = await who(leonie).call<{ orderId: string }>('POST', '/api/trays', {
    body: { orderId: null, supplierId: null, parts: [{ lineId: requisitionLine, quantity: null }] },
  })
  const [at] = await rekko.sql<{ version: number }>('select version from document where id = $1', [tray.body.orderId])
  const r = await who(leonie).call<{ detail: string }>('POST', `/api/orders/${tray.body.orderId}/issue`, {
    version: at?.version ?? 0,
  })
  if (r.status !== 200)
    await who(leonie).call('POST', `/api/trays/${tray.body.orderId}/take-off`, { body: { lineIds: null } })
  return { status: r.status, detail: r.body.detail }
}

test('a tax number with a wrong check digit is refused, one of no known scheme is taken as it is', async () => {
  const wrong = await propose({ name: 'Checkdigit Works', taxNumber: 'DE136695975' })
  expect([wrong.status, wrong.body.fields[0]?.field]).toEqual([422, 'taxNumber'])
  expect(wrong.body.detail).toContain('check digit')
})

test('an address that no mail server takes is refused when it is written', async () => {
  for (const email of ['order"<x>,y@z.example', 'a b@c.example', 'nobody', 'x@y', '@z.example', 'a@b..example']) {
    const r = await propose({ email })
    expect([email, r.status, r.body.fields.map((f) => f.field)]).toEqual([email, 422, ['email']])
  }
})

test('a proposed supplier may be asked for and not ordered from, until finance approves it', async () => {
  const made = await propose()
  expect(made).toMatchObject({ status: 200, body: { standing: 'proposed' } })
  const { id } = made.body
  await until('the mail to finance', async () =>
    (await rekko.mails()).some(
      (m) => m.subject === 'A new supplier: Cold Harbour Optics' && m.to.includes('greta.molin'),
    ),
  )
  // The header counts it for finance, and for nobody who may not decide on it.
  const waits = async (by: Client | undefined) =>
    (await who(by).call<{ waiting: { order: number } }>('GET', '/api/session')).body.waiting.order
  expect([await waits(greta), await waits(owen)]).toEqual([1, 0])
  const form = await who(owen).call('POST', `/api/suppliers/${id}/tax-form?name=form.pdf`, {
    raw: Buffer.from('%PDF-1.4\n%%EOF'),
    headers: { 'content-type': 'application/octet-stream' },
  })
  expect(form.status).toBe(204)
  const draft = soundDraft([], { lines: [{ ...freeLine('40'), supplierId: id }] })
  expect((await raise(who(owen), draft)).body.state).toBe('approved')
  const lineId = draft.lines[0]?.id ?? ''
  expect(await issue(lineId)).toMatchObject({
    status: 409,
    detail: expect.stringContaining('Cold Harbour Optics') as string,
  })
  // Finance sees what was said, everybody else only who it is.
  const seen = async (by: Client | undefined) => (await who(by).call<SupplierView>('GET', `/api/suppliers/${id}`)).body
  expect(await seen(greta)).toMatchObject({
    taxNumber: 'HL 773 3120',
    note: 'they repair old microscopes',
    hasTaxForm: true,
    mayDecide: true,
    waitingRequests: 1,
  })
  expect(await seen(leonie)).toMatchObject({ taxNumber: null, note: '', hasTaxForm: false, mayDecide: false })
  expect(
    (await fetch(`${rekko.url}/api/suppliers/${id}/tax-form`, { headers: { cookie: who(leonie).cookie } })).status,
  ).toBe(404)
  expect(
    (await fetch(`${rekko.url}/api/suppliers/${id}/tax-form`, { headers: { cookie: who(greta).cookie } })).status,
  ).toBe(200)
  expect((await decide(id, true, '', owen)).status).toBe(403)
  expect((await decide(id, true)).status).toBe(204)
  expect(await waits(greta)).toBe(0)
  expect((await decide(id, true)).status).toBe(409)
  expect((await issue(lineId)).status).toBe(200)
  await until('the mail to its proposer', async () =>
    (await rekko.mails()).some((m) => m.subject === 'Cold Harbour Optics approved' && m.to.includes('owen.marsh')),
  )
})

test('nobody approves what they proposed; a refusal says why, and the supplier is offered no more', async () => {
  const own = await propose({ name: 'Greta’s Choice', taxNumber: 'HL1112223', email: '' }, greta)
  expect((await decide(own.body.id, true)).body.detail).toContain(
    'Nobody approves a supplier that they proposed themselves',
  )
  const other = await propose({ name: 'Doubtful Wares', taxNumber: 'HL9998887', email: '' })
  expect((await decide(other.body.id, false)).status).toBe(422)
  expect((await decide(other.body.id, false, 'no such address')).status).toBe(204)
  expect(
    (await who(owen).call<{ suppliers: unknown[] }>('GET', '/api/suppliers?words=Doubtful')).body.suppliers,
  ).toEqual([])
  const sent = await raise(who(owen), soundDraft([], { lines: [{ ...freeLine('40'), supplierId: other.body.id }] }))
  expect(sent).toMatchObject({ status: 409, body: { missing: [{ code: 'line-supplier-blocked' }] } })
})

test('whoever may be meant is shown while typing; the same tax number is refused', async () => {
  const alike = async (query: Record<string, string>) =>
    (
      await who(owen).call<{ alike: { name: string; why: string[] }[] }>(
        'GET',
        `/api/suppliers/alike?${new URLSearchParams(query).toString()}`,
      )
    ).body.alike.map((a) => [a.name, a.why])
  expect(await alike({ name: 'corigan pumps ltd' })).toEqual([['Corrigan Pumps', ['like name']]])
  expect(await alike({ name: 'Brackwater' })).toEqual([['Brackwater Salts', ['like name']]])
  expect(await alike({ name: 'Something else', email: 'me@corrigan.example' })).toEqual([
    ['Corrigan Pumps', ['same mail domain']],
  ])
  expect(await alike({ name: 'Unheard Of' })).toEqual([])
  expect(await propose({ name: 'Another name', taxNumber: 'hl7733120' })).toMatchObject({
    status: 409,
    body: { detail: expect.stringContaining('Cold Harbour Optics') as string },
  })
})

test('the organisation’s policy decides: nobody, or at once', async () => {
  await policy('nobody')
  expect(await propose({ name: 'Not wanted', taxNumber: '' })).toMatchObject({
    status: 403,
    body: { detail: 'New suppliers are entered by finance only; ask Greta Molin.' },
  })
  await policy('create')
  expect(await propose({ name: 'There at once', taxNumber: '' })).toMatchObject({
    status: 200,
    body: { standing: 'active' },
  })
  await policy('propose')
})

test('bad input is told, field by field', async () => {
  for (const [change, field] of [
    [{ name: 'x' }, 'name'],
    [{ email: 'nobody' }, 'email'],
    [{ currency: 'EURO' }, 'currency'],
    [{ note: 'x'.repeat(1001) }, 'note'],
  ] as const) {
    const r = await propose(change)
    expect([r.status, r.body.fields[0]?.field]).toEqual([422, field])
  }
})
