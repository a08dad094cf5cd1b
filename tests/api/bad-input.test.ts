import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { freeLine, raise, soundDraft, startRekko, until, type Client, type Rekko } from '../setup/rekko'

let rekko: Rekko
let owen: Client, priya: Client, leonie: Client
beforeAll(async () => {
  rekko = await startRekko()
  ;[owen, priya, leonie] = (await Promise.all(
    ['Owen Marsh', 'Priya Lindqvist', 'Leonie Farrow'].map((n) => rekko.as(n)),
  )) as [Client, Client, Client]
})
afterAll(async () => {
  await rekko.stop()
})

/** Everything that could have changed, counted. */
async function counts(): Promise<string> {
  const [row] = await rekko.sql(
    'select (select count(*) from requisition) r, (select count(*) from requisition_line) l, (select count(*) ' +
      'from budget_entry) e, (select count(*) from event) v, (select count(*) from attachment) a, (select ' +
      'coalesce(sum(version), 0) from document) n',
  )
  return JSON.stringify(row)
}
/** A clear 4xx with a sentence, and nothing changed. */
async function refused(
  work: () => Promise<{ status: number; body: Record<string, unknown> }>,
  status?: number,
): Promise<void> {
  const before = await counts()
  const reply = await work()
  expect(reply.status).toBeGreaterThanOrEqual(400)
  expect(reply.status).toBeLessThan(500)
  if (status !== undefined) expect(reply.status).toBe(status)
  expect(typeof reply.body.detail).toBe('string')
  expect(String(reply.body.detail).length).toBeGreaterThan(10)
  expect(JSON.stringify(reply.body)).not.toMatch(/select |insert |at .*\.mjs|node_modules|ZodError/)
  expect(await counts()).toBe(before)
}
const post = (body: unknown) => () => owen.call('POST', '/api/requisitions', { body })
const line = (change: object) => ({
  id: randomUUID(),
  draft: soundDraft([], { lines: [{ ...freeLine('10'), ...change }] }),
})

describe('a body that cannot be', () => {
  test('broken JSON, another type, an array, nothing', async () => {
    await refused(
      () => owen.call('POST', '/api/requisitions', { raw: '{"id": ', headers: { 'content-type': 'application/json' } }),
      400,
    )
    await refused(
      () =>
        owen.call('POST', '/api/requisitions', {
          raw: 'a=b',
          headers: { 'content-type': 'application/x-www-form-urlencoded' },
        }),
      415,
    )
    await refused(post([]), 422)
    await refused(post({}), 422)
    await refused(post(null), 422)
  })
  test('wrong types in every field', async () => {
    for (const change of [
      { quantity: 6 },
      { quantity: 'six' },
      { quantity: '1e9' },
      { quantity: 'Infinity' },
      { quantity: '' },
      { unitPrice: {} },
      { currency: 'EURO' },
      { currency: 'eur' },
      { codings: 'x' },
      { splitMethod: 'magic' },
      { priceBase: '0' },
      { priceBase: '-1' },
      { itemId: 'x' },
      { supplierId: randomUUID() },
      { itemId: randomUUID() },
      { description: 5 },
      { codings: [{ budgetLineId: randomUUID(), value: null }] },
    ])
      await refused(post(line(change)), 422)
    for (const change of [
      { needBy: '2026-02-30' },
      { needBy: 'tomorrow' },
      { departmentId: randomUUID() },
      { shipToId: 'here' },
      { lines: 'none' },
      { lines: Array.from({ length: 501 }, () => freeLine('1')) },
    ])
      await refused(post({ id: randomUUID(), draft: { ...soundDraft([]), ...change } }), 422)
  })
  test('a text of 200,000 characters, and one with NUL', async () => {
    await refused(post({ id: randomUUID(), draft: { ...soundDraft([]), why: 'x'.repeat(200_000) } }), 422)
    await refused(post(line({ description: 'a\u0000b' })), 422)
    await refused(() => owen.call('GET', '/api/items?words=%00'), 422)
    await refused(
      () =>
        owen.call('POST', '/api/requisitions', {
          raw: JSON.stringify({ x: 'y'.repeat(3_000_000) }),
          headers: { 'content-type': 'application/json' },
        }),
      413,
    )
  })
  test('huge numbers are kept out; what is absurd is kept as a draft and named before sending', async () => {
    await refused(post(line({ quantity: '9'.repeat(30) })), 422)
    await refused(post(line({ unitPrice: '1234567890123456' })), 422)
    // What is accepted is what is kept: six decimals, and no price for none of a unit.
    for (const change of [{ quantity: '0.0000001' }, { unitPrice: '1.2345678' }, { priceBase: '0.0000001' }])
      await refused(post(line(change)), 422)
    await refused(post(line({ priceBase: '0' })), 422)
    expect((await owen.call('POST', '/api/requisitions', { body: line({ quantity: '0.500000000' }) })).status).toBe(200)
    for (const [change, code] of [
      [{ quantity: '-3' }, 'line-quantity'],
      [{ quantity: '0' }, 'line-quantity'],
      [{ quantity: '99999999999' }, 'line-quantity'],
      [{ unitPrice: '-5' }, 'line-price-range'],
      [{ unit: 'QQQ' }, 'line-unit'],
      [{ taxCode: 'XX' }, 'line-tax'],
      [{ currency: 'XAF' }, 'line-currency'],
    ] as const) {
      const id = randomUUID()
      expect((await owen.call('POST', '/api/requisitions', { body: { ...line(change), id } })).status).toBe(200)
      const before = await counts()
      const sent = await owen.call<{ missing: { code: string }[] }>('POST', `/api/requisitions/${id}/send`, {
        version: 1,
      })
      expect([sent.status, sent.body.missing.map((m) => m.code)]).toEqual([409, [code]])
      expect(await counts()).toBe(before)
    }
  })
  test('two lines of one id, and a line of another’s requisition', async () => {
    const twice = freeLine('1')
    await refused(post({ id: randomUUID(), draft: soundDraft([], { lines: [twice, twice] }) }), 422)
    const sent = await raise(owen, soundDraft([], { lines: [freeLine('1')] }))
    const [theirs] = await rekko.sql<{ id: string }>('select id from requisition_line where requisition_id = $1', [
      sent.id,
    ])
    await refused(
      () =>
        priya.call('POST', '/api/requisitions', {
          body: { id: randomUUID(), draft: soundDraft([], { lines: [freeLine('1', { id: theirs?.id ?? '' })] }) },
        }),
      422,
    )
  })
})

describe('addresses and other people’s documents', () => {
  test('what one may not see does not exist; what one may see and not do is 403', async () => {
    const sent = await raise(owen, soundDraft([{ part: 'CP-UV-80A', quantity: 8 }]))
    for (const path of ['', '/trail', '/decision'])
      await refused(() => priya.call('GET', `/api/requisitions/${sent.id}${path}`), 404)
    await refused(
      () => priya.call('POST', `/api/documents/${sent.id}/decisions`, { body: { outcome: 'approve' }, version: 2 }),
      404,
    )
    await refused(() => priya.call('POST', `/api/requisitions/${sent.id}/withdraw`, { version: 2 }), 404)
    await refused(
      () => owen.call('POST', `/api/documents/${sent.id}/decisions`, { body: { outcome: 'approve' }, version: 2 }),
      403,
    )
    await refused(() => owen.call('GET', `/api/requisitions/${randomUUID()}`), 404)
    await refused(() => owen.call('GET', '/api/requisitions/not-an-id'), 404)
    await refused(() => owen.call('GET', '/api/no-such-thing'), 404)
    await refused(() => leonie.call('GET', `/api/requisitions/${sent.id}`), 404)
    await refused(
      () =>
        leonie.call('POST', '/api/trays', {
          body: { orderId: null, supplierId: null, parts: [{ lineId: randomUUID(), quantity: null }] },
        }),
      404,
    )
  })
  test('another’s draft can neither be read, written, sent nor thrown away', async () => {
    const id = randomUUID()
    const draft = soundDraft([], { lines: [freeLine('1')] })
    await owen.call('POST', '/api/requisitions', { body: { id, draft } })
    await refused(() => priya.call('PUT', `/api/requisitions/${id}`, { body: { draft }, version: 1 }), 404)
    await refused(() => priya.call('POST', `/api/requisitions/${id}/send`, { version: 1 }), 404)
    await refused(() => priya.call('DELETE', `/api/requisitions/${id}`, { version: 1 }), 404)
    await refused(() => priya.call('POST', '/api/requisitions', { body: { id, draft: { ...draft, lines: [] } } }), 403)
  })
  test('a bent mark of a page begins the list anew', async () => {
    const leonie = await rekko.as('Leonie Farrow')
    for (const mark of [
      '1_',
      '2026-02-30_',
      '2026-02-30T00:00:00.000Z_',
      'infinity_',
      'x',
      '2026-11-26T12:00:00.000Z',
    ]) {
      const after = encodeURIComponent(`${mark}${randomUUID()}`)
      expect([mark, (await owen.call('GET', `/api/requisitions?after=${after}`)).status]).toEqual([mark, 200])
      expect([mark, (await leonie.call('GET', `/api/orders?after=${after}`)).status]).toEqual([mark, 200])
    }
  })
  test('the same line twice on a tray, and next to nothing of one', async () => {
    const leonie = await rekko.as('Leonie Farrow')
    const sent = await raise(owen, soundDraft([], { lines: [freeLine('1')] }))
    const [line] = await rekko.sql<{ id: string }>('select id from requisition_line where requisition_id = $1', [
      sent.id,
    ])
    const lay =
      (...quantities: (string | null)[]) =>
      () =>
        leonie.call('POST', '/api/trays', {
          body: {
            orderId: null,
            supplierId: null,
            parts: quantities.map((quantity) => ({ lineId: line?.id, quantity })),
          },
        })
    await refused(lay(null, null), 422)
    await refused(lay('0.5', '0.5'), 422)
    await refused(lay('0.0000001'), 422)
  })
  test('a search with signs that mean something elsewhere is a search', async () => {
    for (const words of ['%', '_', '\\', "'; drop table item; --", '(', '"', '🦭', '%25%25'])
      expect((await owen.call('GET', `/api/items?words=${encodeURIComponent(words)}`)).status).toBe(200)
    expect(
      (await owen.call('GET', `/api/requisitions?after=${encodeURIComponent('nonsense_1')}&words=%25`)).status,
    ).toBe(200)
    await refused(() => owen.call('GET', '/api/requisitions?limit=1000000'), 422)
  })
})

describe('uploads', () => {
  const PDF = Buffer.from('%PDF-1.4\n1 0 obj<<>>endobj\ntrailer<<>>\n%%EOF')
  const upload =
    (id: string, bytes: Buffer, name: string, who = owen) =>
    () =>
      who.call<Record<string, unknown>>(
        'POST',
        `/api/requisitions/${id}/attachments?name=${encodeURIComponent(name)}&kind=quote`,
        { raw: bytes, headers: { 'content-type': 'application/octet-stream' } },
      )
  let id = ''
  beforeAll(async () => {
    id = randomUUID()
    await owen.call('POST', '/api/requisitions', { body: { id, draft: soundDraft([], { lines: [freeLine('1')] }) } })
  })

  test('an executable named .pdf, a page named .png, nothing, and too much', async () => {
    await refused(upload(id, Buffer.concat([Buffer.from('MZ\u0090\u0000'), Buffer.alloc(2000)]), 'quote.pdf'), 415)
    await refused(upload(id, Buffer.from('\u007fELF' + 'x'.repeat(500)), 'quote.pdf'), 415)
    await refused(upload(id, Buffer.from('<html><script>alert(1)</script>'), 'picture.png'), 415)
    await refused(upload(id, Buffer.alloc(0), 'empty.pdf'), 422)
    await refused(upload(id, Buffer.concat([PDF, Buffer.alloc(16 * 1024 * 1024)]), 'large.pdf'), 413)
    await refused(upload(id, PDF, 'quote.pdf', priya), 404)
  })
  test('a PDF is kept, and served to be kept, with a safe name', async () => {
    const kept = await upload(id, PDF, '../../etc/<b>Angebot für 🦭"\r\n.exe')()
    expect(kept).toMatchObject({ status: 200, body: { name: 'bAngebot für 🦭.pdf', size: PDF.length } })
    const got = await owen.call('GET', `/api/requisitions/${id}/attachments/${String(kept.body.id)}`)
    expect(got.headers.get('content-type')).toBe('application/pdf')
    expect(got.headers.get('x-content-type-options')).toBe('nosniff')
    expect(got.headers.get('content-disposition')).toMatch(
      /^attachment; filename="bAngebot f_r __\.pdf"; filename\*=UTF-8''bAngebot%20f%C3%BCr%20%F0%9F%A6%AD\.pdf$/,
    )
    await refused(() => priya.call('GET', `/api/requisitions/${id}/attachments/${String(kept.body.id)}`), 404)
    expect((await owen.call('DELETE', `/api/requisitions/${id}/attachments/${String(kept.body.id)}`)).status).toBe(204)
  })
})

describe('names of every kind', () => {
  test('pictographs and right-to-left words go through, into the PDF too', async () => {
    const name = 'مرحبا שלום 🦭 Ångström Ελλάδα Привет 漢字'
    const sent = await raise(
      owen,
      soundDraft([], { lines: [freeLine('20', { description: name })], title: name, shipToDetail: name }),
    )
    expect(sent.status).toBe(200)
    const [open] = await rekko.sql<{ id: string }>('select id from requisition_line where requisition_id = $1', [
      sent.id,
    ])
    const tray = await leonie.call<{ orderId: string }>('POST', '/api/trays', {
      body: { orderId: null, supplierId: null, parts: [{ lineId: open?.id, quantity: null }] },
    })
    expect((await leonie.call('POST', `/api/orders/${tray.body.orderId}/issue`, { version: 1 })).status).toBe(200)
    await until(
      'the PDF',
      async () => (await leonie.call('GET', `/api/orders/${tray.body.orderId}/pdf`)).status === 200,
    )
    await until('its mail', async () => (await rekko.mails()).some((m) => m.attachments.length === 1))
  })
})
