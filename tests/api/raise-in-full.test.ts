import { spawnSync } from 'node:child_process'
import { randomUUID } from 'node:crypto'
import { writeFileSync } from 'node:fs'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import type { Draft } from '#core/requisition/draft'
import type { OrderView } from '#shared/contract/order'
import type { RequestDecision } from '#shared/contract/decide'
import type { RaiseChoices, RequisitionView } from '#shared/contract/requisition'
import {
  disagreements,
  freeLine,
  idOf,
  personId,
  raise,
  soundDraft,
  standsAt,
  startRekko,
  until,
  type Client,
  type Rekko,
} from '../setup/rekko'

const PDF = Buffer.from(
  '%PDF-1.4\n1 0 obj<</Type/Catalog/Pages 2 0 R>>endobj\n2 0 obj<</Type/Pages/Count ' +
    '0/Kids[]>>endobj\ntrailer<</Root 1 0 R>>\n%%EOF',
)
let rekko: Rekko
let [owen, leonie, priya]: Client[] = []
beforeAll(async () => {
  rekko = await startRekko()
  ;[owen, leonie, priya] = await Promise.all(['Owen Marsh', 'Leonie Farrow', 'Priya Lindqvist'].map(rekko.as))
})
afterAll(async () => {
  await rekko.stop()
})
const who = (c: Client | undefined): Client => c ?? rekko.nobody
const job = idOf('job', 'J-101')

async function keep(draft: Draft, by = owen): Promise<string> {
  const id = randomUUID()
  expect((await who(by).call('POST', '/api/requisitions', { body: { id, draft } })).status).toBe(200)
  return id
}
const send = (id: string, version = 1, by = owen) =>
  who(by).call<{ number: string; state: string; detail: string; missing: { code: string }[] }>(
    'POST',
    `/api/requisitions/${id}/send`,
    { version, key: randomUUID() },
  )
const attach = (id: string, name: string, query = '&kind=quote', raw = PDF) =>
  who(owen).call<{ id: string; kind: string; forSupplier: boolean }>(
    'POST',
    `/api/requisitions/${id}/attachments?name=${encodeURIComponent(name)}${query}`,
    { raw, headers: { 'content-type': 'application/octet-stream' } },
  )
const pdfText = (bytes: Buffer, name: string) => {
  writeFileSync(`.rekko/${name}`, bytes)
  return spawnSync('pdftotext', ['-layout', `.rekko/${name}`, '-'], { encoding: 'utf8' }).stdout
}
const download = async (path: string, by = owen) => {
  const r = await fetch(rekko.url + path, { headers: { cookie: who(by).cookie } })
  return { status: r.status, headers: r.headers, bytes: Buffer.from(await r.arrayBuffer()) }
}

/** Lays all lines of a requisition on a tray, and issues it. */
async function order(
  requisitionId: string,
  supplierId: string | null = null,
): Promise<{ status: number; id: string; detail: string }> {
  const lines = await rekko.sql<{ id: string }>(
    'select id from requisition_line where requisition_id = $1 order by position',
    [requisitionId],
  )
  const tray = await who(leonie).call<{ orderId: string }>('POST', '/api/trays', {
    body: { orderId: null, supplierId, parts: lines.map((l) => ({ lineId: l.id, quantity: null })) },
    key: randomUUID(),
  })
  expect(tray.status).toBe(200)
  const [at] = await rekko.sql<{ version: number }>('select version from document where id = $1', [tray.body.orderId])
  const issued = await who(leonie).call<{ detail: string }>('POST', `/api/orders/${tray.body.orderId}/issue`, {
    version: at?.version ?? 0,
    key: randomUUID(),
  })
  return { status: issued.status, id: tray.body.orderId, detail: issued.body.detail }
}

const FULL = (): Draft =>
  soundDraft([], {
    kind: 'service',
    shipToDetail: 'Room 12',
    attention: 'Rosa Castell',
    telephone: '0100 4711',
    instructions: 'Ring at the gate',
    justification: 'ours is worn',
    noteToSupplier: 'Please call before you come',
    noteInternal: 'They were late last time',
    jobId: job,
    lines: [
      {
        ...freeLine('100'),
        quantity: '3',
        secondDescription: 'drawing 7, rev. C',
        discount: { of: 'percent', value: '2.5' },
        noteToSupplier: 'in blue',
        noteInternal: 'haggle',
        jobId: job,
        listPrice: '110',
      },
    ],
  })

test('everything a requester may say is kept, and comes back as it was said', async () => {
  const draft = FULL()
  const view = (await who(owen).call<RequisitionView>('GET', `/api/requisitions/${await keep(draft)}`)).body
  expect(view.draft).toEqual(draft)
})

test('a draft of an older page, which says nothing of the newer fields, is kept with those blank', async () => {
  const { kind, title, departmentId, shipToId, shipToDetail, needBy, why, overBudgetReason, accountingDate, lines } =
    soundDraft([], { lines: [freeLine('12')] })
  const old = lines.map(
    ({
      id,
      itemId,
      categoryId,
      description,
      quantity,
      unit,
      unitPrice,
      priceBase,
      currency,
      taxCode,
      supplierId,
      supplierPart,
      splitMethod,
      codings,
    }) => ({
      id,
      itemId,
      categoryId,
      description,
      quantity,
      unit,
      unitPrice,
      priceBase,
      currency,
      taxCode,
      supplierId,
      supplierPart,
      splitMethod,
      codings,
    }),
  )
  const sent = await raise(who(owen), {
    kind,
    title,
    departmentId,
    shipToId,
    shipToDetail,
    needBy,
    why,
    overBudgetReason,
    accountingDate,
    lines: old,
  } as unknown as Draft)
  expect(sent.status).toBe(200)
})

test(
  'what is said goes on to the order: text, discount and notes, and nothing that is for colleagues ' + 'only',
  async () => {
    const before = await standsAt(rekko, 'Water Systems', '616', 'committed')
    const id = await keep(FULL())
    expect(await attach(id, 'Drawing 7.pdf', '&kind=drawing&forSupplier=true')).toMatchObject({
      status: 200,
      body: { kind: 'drawing', forSupplier: true },
    })
    await attach(id, 'What they quoted.pdf')
    const sent = await send(id)
    // 300.00 less 2.5 % is 292.50, above his own limit of 250.
    expect(sent.body).toMatchObject({ state: 'in approval' })
    expect(sent.body.number).toMatch(/^S-\d\d-00001$/)
    const ines = await rekko.as('Ines Adeyemi')
    const decision = (await ines.call<RequestDecision>('GET', `/api/documents/${id}/decision`)).body
    expect(decision).toMatchObject({
      amount: { amount: '292.50' },
      kind: 'a service',
      justification: 'ours is worn',
      noteInternal: 'They were late last time',
      besides: ['job J-101 Pump-room overhaul', 'to the supplier: Please call before you come'],
    })
    expect(decision.lines[0]).toMatchObject({
      net: { amount: '292.50' },
      listPrice: '110',
      more: [
        'drawing 7, rev. C',
        'less 2.5 %',
        'job J-101 Pump-room overhaul',
        'to the supplier: in blue',
        'for colleagues: haggle',
      ],
    })
    await ines.call('POST', `/api/documents/${id}/decisions`, { body: { outcome: 'approve' }, version: 2 })
    const issued = await order(id)
    expect(issued.status).toBe(200)
    const view = (await who(leonie).call<OrderView>('GET', `/api/orders/${issued.id}`)).body
    expect(view).toMatchObject({
      net: { amount: '292.50' },
      note: 'Please call before you come',
      internalNotes: [{ note: 'They were late last time' }, { note: 'Something of our own: haggle' }],
      deliveryDetails: ['Room 12', 'for the attention of Rosa Castell', 'telephone 0100 4711', 'Ring at the gate'],
    })
    expect(view.lines[0]).toMatchObject({
      unitPrice: '100',
      net: { amount: '292.50' },
      more: ['drawing 7, rev. C', 'less 2.5 %', 'in blue'],
    })
    const mail = await until('the mail of the order', async () =>
      (await rekko.mails()).find((m) => m.subject.startsWith('Purchase order')),
    )
    expect(mail.attachments.map((a) => a.name).sort()).toEqual([
      'Drawing 7.pdf',
      expect.stringMatching(/^P-/) as string,
    ])
    const text = pdfText((await download(`/api/orders/${issued.id}/pdf`, leonie)).bytes, 'test-notes.pdf')
    for (const said of [
      'drawing 7, rev. C',
      'less 2.5 %',
      'in blue',
      'Please call before you come',
      'Room 12',
      'for the attention of Rosa Castell',
      '292.50',
    ])
      expect(text).toContain(said)
    for (const kept of ['late last time', 'haggle']) expect(text).not.toContain(kept)
    expect(Number(await standsAt(rekko, 'Water Systems', '616', 'committed')) - Number(before)).toBeCloseTo(292.5, 2)
    expect(await disagreements(rekko)).toEqual([])
  },
)

test('a part of a discounted line takes its part of the discount, and the rest the rest', async () => {
  const draft = soundDraft([], {
    lines: [{ ...freeLine('10'), quantity: '3', discount: { of: 'amount', value: '1' } }],
  })
  const { id } = await raise(who(owen), draft)
  const lineId = draft.lines[0]?.id ?? ''
  const nets: string[] = []
  for (const quantity of ['1', null]) {
    const tray = await who(leonie).call<{ orderId: string }>('POST', '/api/trays', {
      body: { orderId: null, supplierId: null, parts: [{ lineId, quantity }] },
      key: randomUUID(),
    })
    const [at] = await rekko.sql<{ version: number }>('select version from document where id = $1', [tray.body.orderId])
    expect(
      (
        await who(leonie).call('POST', `/api/orders/${tray.body.orderId}/issue`, {
          version: at?.version ?? 0,
          key: randomUUID(),
        })
      ).status,
    ).toBe(200)
    nets.push((await who(leonie).call<OrderView>('GET', `/api/orders/${tray.body.orderId}`)).body.net.amount)
  }
  // 10.00 less 0.33, then 20.00 less 0.67: together 29.00.
  expect(nets).toEqual(['9.67', '19.33'])
  expect((await rekko.sql('select state from document where id = $1', [id]))[0]).toEqual({ state: 'ordered' })
  expect(await disagreements(rekko)).toEqual([])
})

test(
  'a picked price that was replaced by hand is what is ordered; the catalogue’s follows the order’s ' + 'quantity',
  async () => {
    const [line] = soundDraft([{ part: 'CP-GS-25', quantity: 2 }]).lines
    if (line === undefined) throw new Error('no line')
    const { id } = await raise(
      who(owen),
      soundDraft([], {
        lines: [
          { ...line, unitPrice: '3.10' },
          { ...line, id: randomUUID(), quantity: '20' },
        ],
      }),
    )
    const issued = await order(id)
    const view = (await who(leonie).call<OrderView>('GET', `/api/orders/${issued.id}`)).body
    expect(view.lines.map((l) => [l.quantity, l.unitPrice])).toEqual([
      ['2', '3.1'],
      ['20', '3.4'],
    ])
  },
)

test('an address for once goes to the order and is offered to nobody', async () => {
  const address = {
    name: 'Hall of the divers',
    street: 'Pier 2',
    postcode: '24109',
    town: 'Southquay',
    country: 'Hallamere Coast',
  }
  const { id, status } = await raise(who(owen), soundDraft([], { shipToId: null, address, lines: [freeLine('20')] }))
  expect(status).toBe(200)
  const issued = await order(id)
  expect((await who(leonie).call<OrderView>('GET', `/api/orders/${issued.id}`)).body).toMatchObject({
    shipTo: 'Hall of the divers',
    shipToAddress: 'Pier 2, 24109 Southquay, Hallamere Coast',
  })
  const places = (await who(owen).call<RaiseChoices>('GET', '/api/raise-choices')).body.shipTos.map((s) => s.name)
  expect(places).not.toContain('Hall of the divers')
  const unfinished = await send(
    await keep(soundDraft([], { shipToId: null, address: { ...address, street: '' }, lines: [freeLine('20')] })),
  )
  expect(unfinished).toMatchObject({
    status: 409,
    body: { detail: 'The address needs at least a name, a street and a town.' },
  })
})

describe('what the organisation asks for', () => {
  const when = { from: null, kinds: [], departmentIds: [], categoryIds: [], withoutAgreement: false }
  const rule = (id: string, conditions: object, asks: object) =>
    rekko.sql('insert into request_rule (id, position, name, conditions, asks) values ($1, 0, $2, $3, $4)', [
      id,
      `rule ${id.slice(0, 2)}`,
      JSON.stringify({ ...when, ...conditions }),
      JSON.stringify(asks),
    ])
  const reading = randomUUID()
  const text = randomUUID()
  const choice = randomUUID()
  beforeAll(async () => {
    await rule(
      randomUUID(),
      { from: { amount: '100.00', currency: 'EUR' }, withoutAgreement: true },
      { what: 'quotes', count: 2 },
    )
    await rule(reading, { kinds: ['travel'] }, { what: 'reading', text: 'Go by rail.' })
    await rule(randomUUID(), { kinds: ['travel'] }, { what: 'justification' })
    await rekko.sql(
      "insert into own_field (id, position, name, applies_on, type, required, kinds) values ($1, 0, 'Who " +
        "travels', 'requisition', 'person', true, '{travel}')",
      [text],
    )
    await rekko.sql(
      "insert into own_field (id, position, name, applies_on, type, choices) values ($1, 1, 'Funded by', " +
        "'requisition', 'choice', '{own budget,Harbour Fund}')",
      [choice],
    )
  })

  test('quotes by amount: refused until there are enough, and only quotes count', async () => {
    const id = await keep(soundDraft([], { lines: [freeLine('100')] }))
    await attach(id, 'a.pdf')
    // A copy of it is no second quote, whatever it is called.
    await attach(id, 'a again.pdf')
    const spec = await attach(id, 'b.pdf', '&kind=specification', Buffer.concat([PDF, Buffer.from('\n% another')]))
    expect(await send(id)).toMatchObject({
      status: 409,
      body: {
        missing: [{ code: 'quotes-missing', has: 1, needs: 2 }],
        detail: expect.stringMatching(/^One more quote: rule /) as string,
      },
    })
    expect(
      (
        await who(owen).call('PUT', `/api/requisitions/${id}/attachments/${spec.body.id}`, {
          body: { kind: 'quote', forSupplier: false },
        })
      ).body,
    ).toMatchObject({ kind: 'quote' })
    expect(await send(id)).toMatchObject({ status: 200 })
    // Once it is sent nothing about its attachments changes.
    expect(
      (
        await who(owen).call('PUT', `/api/requisitions/${id}/attachments/${spec.body.id}`, {
          body: { kind: 'other', forSupplier: true },
        })
      ).status,
    ).toBe(409)
    expect(
      (
        await who(priya).call('PUT', `/api/requisitions/${id}/attachments/${spec.body.id}`, {
          body: { kind: 'other', forSupplier: true },
        })
      ).status,
    ).toBe(404)
    // Below the amount, and with an agreement, nobody asks.
    expect((await raise(who(owen), soundDraft([], { lines: [freeLine('99.99')] }))).status).toBe(200)
    expect((await raise(who(owen), soundDraft([{ part: 'CP-UV-80A', quantity: 2 }]))).status).toBe(200)
  })

  test(
    'everything that a kind asks for is said at once; filled in, it is sent, found by its fields, and ' + 'exported',
    async () => {
      const draft = soundDraft([], { kind: 'travel', title: 'To the survey', lines: [freeLine('86')] })
      expect((await send(await keep(draft))).body.missing.map((m) => m.code)).toEqual([
        'own-field-missing',
        'reading-unread',
        'justification-missing',
      ])
      const told = {
        ...draft,
        justification: 'nobody else can',
        readWarnings: [reading],
        own: { [text]: personId('Rosa Castell'), [choice]: 'Harbour Fund' },
        lines: draft.lines.map((l) => ({ ...l, id: randomUUID() })),
      }
      expect(
        (
          await send(
            await keep({
              ...told,
              own: { ...told.own, [choice]: 'my aunt' },
              lines: told.lines.map((l) => ({ ...l, id: randomUUID() })),
            }),
          )
        ).body.detail,
      ).toBe('What stands in Funded by cannot be read.')
      const id = await keep(told)
      expect((await send(id)).body.number).toMatch(/^T-\d\d-00001$/)
      const list = async (query: string) =>
        (await who(owen).call<{ rows: { id: string }[] }>('GET', `/api/requisitions?${query}`)).body.rows.map(
          (r) => r.id,
        )
      expect(await list(`field=${choice}&value=${encodeURIComponent('Harbour Fund')}`)).toEqual([id])
      expect(await list(`field=${choice}&value=${encodeURIComponent('own budget')}`)).toEqual([])
      expect(
        (
          await who(owen).call<{ fields: { name: string; values: { name: string }[] }[] }>('GET', '/api/mine-filters')
        ).body.fields.map((f) => [f.name, f.values.map((v) => v.name)]),
      ).toContainEqual(['Who travels', ['Rosa Castell']])
      const csv = (
        await download(`/api/requisitions/export?field=${choice}&value=${encodeURIComponent('Harbour Fund')}`)
      ).bytes.toString('utf8')
      expect(csv.split(/\r?\n/)[0]).toContain('Job,Who travels,Funded by')
      expect(csv).toContain('Rosa Castell,Harbour Fund')
      const pdf = pdfText((await download(`/api/requisitions/${id}/pdf`)).bytes, 'test-requisition.pdf')
      for (const said of [
        'To the survey',
        'a journey',
        'Who travels: Rosa Castell',
        'Funded by: Harbour Fund',
        'nobody else can',
        '86.00',
      ])
        expect(pdf).toContain(said)
      expect((await download(`/api/requisitions/${id}/pdf`, priya)).status).toBe(404)
      const copy = (await who(owen).call<{ draft: Draft }>('GET', `/api/requisitions/${id}/copy`)).body.draft
      expect(copy).toMatchObject({
        kind: 'travel',
        own: told.own,
        readWarnings: [],
        needBy: null,
        justification: 'nobody else can',
      })
    },
  )

  test('a field that names somebody who is not there says so, and nothing breaks', async () => {
    const draft = soundDraft([], {
      own: { [text]: randomUUID(), [randomUUID()]: 'of a field that is gone' },
      lines: [freeLine('12')],
    })
    expect((await raise(who(owen), draft)).status).toBe(200)
  })
})

test('a job by which one’s own are told apart; a job that is closed is not taken', async () => {
  const { id } = await raise(who(owen), soundDraft([], { lines: [{ ...freeLine('12'), jobId: idOf('job', 'J-102') }] }))
  const rows = (
    await who(owen).call<{ rows: { id: string }[] }>('GET', `/api/requisitions?job=${idOf('job', 'J-102')}`)
  ).body.rows
  expect(rows.map((r) => r.id)).toEqual([id])
  const facts = (await who(owen).call<{ jobs: { number: string }[] }>('GET', '/api/draft-facts')).body
  expect(facts.jobs.map((j) => j.number)).not.toContain('J-098')
  expect(
    (
      await who(owen).call('POST', '/api/requisitions', {
        body: { id: randomUUID(), draft: soundDraft([], { jobId: randomUUID() }) },
      })
    ).status,
  ).toBe(422)
})

describe('warnings', () => {
  const withSupplier = (name: string, change: Partial<Draft> = {}) =>
    soundDraft([], { lines: [{ ...freeLine('40'), supplierId: idOf('supplier', name) }], ...change })
  test('one that must be read stops until it was; one that informs does not; one on hold does', async () => {
    expect((await send(await keep(withSupplier('Østervig Net and Rope')))).body.missing.map((m) => m.code)).toEqual([
      'warning-unread',
    ])
    expect(
      (
        await send(
          await keep(
            withSupplier('Østervig Net and Rope', { readWarnings: [idOf('supplier', 'Østervig Net and Rope')] }),
          ),
        )
      ).status,
    ).toBe(200)
    expect((await send(await keep(withSupplier('Silverquay Acrylics')))).status).toBe(200)
    expect((await send(await keep(withSupplier('Dunmere Castings')))).body.missing.map((m) => m.code)).toEqual([
      'line-supplier-blocked',
    ])
  })
  test('an item that cannot be asked for any more says why', async () => {
    const sent = await send(await keep(soundDraft([{ part: 'BS-DR200', quantity: 1, account: '612' }])))
    expect(sent).toMatchObject({
      status: 409,
      body: { detail: expect.stringContaining('No longer made; take a drum from the store.') as string },
    })
  })
})

describe('after it was sent', () => {
  test('its owner reminds those it waits for, once a day; nobody else does', async () => {
    const { id } = await raise(
      who(owen),
      soundDraft([{ part: 'CP-UV-80A', quantity: 6 }], { title: 'Lamps to be reminded of' }),
    )
    const reminding = (by = owen) =>
      who(by).call<{ names: string[]; detail: string }>('POST', `/api/requisitions/${id}/reminders`, {
        key: randomUUID(),
      })
    expect((await reminding(priya)).status).toBe(404)
    expect((await reminding(await rekko.as('Ines Adeyemi'))).status).toBe(403)
    expect(await reminding()).toMatchObject({ status: 200, body: { names: ['Ines Adeyemi'] } })
    expect(await reminding()).toMatchObject({
      status: 409,
      body: { detail: expect.stringContaining('once a day is enough') as string },
    })
    await rekko.sql("update requisition set reminded_at = reminded_at - interval '25 hours' where id = $1", [id])
    expect((await reminding()).status).toBe(200)
    await until('the reminder', async () =>
      (await rekko.mails()).some(
        (m) => m.subject === 'A reminder: Lamps to be reminded of' && m.to.includes('ines.adeyemi'),
      ),
    )
  })
  test('a change is asked of whoever bought it; the trail keeps what was asked', async () => {
    const { id } = await raise(who(owen), soundDraft([], { title: 'Something to be changed', lines: [freeLine('30')] }))
    const wish = (what: string, text: string, by = owen) =>
      who(by).call<{ names: string[]; detail: string }>('POST', `/api/requisitions/${id}/wishes`, {
        body: { what, text },
        key: randomUUID(),
      })
    expect((await wish('cancel', ' ')).status).toBe(422)
    expect((await wish('change', 'Please two of them', priya)).status).toBe(404)
    expect((await wish('change', 'Please two of them')).body.names).toEqual(['Harriet Voss', 'Leonie Farrow'])
    await order(id)
    expect((await wish('cancel', 'We found one')).body.names).toEqual(['Leonie Farrow'])
    await until('the mail', async () =>
      (await rekko.mails()).some((m) => m.subject === 'A cancellation asked for: Something to be changed'),
    )
    const { entries } = (await who(owen).call<{ entries: { what: string }[] }>('GET', `/api/requisitions/${id}/trail`))
      .body
    expect(entries.map((e) => e.what)).toContain('asked for a cancellation: “We found one”')
  })
  test('what is still being decided is withdrawn, not wished for', async () => {
    const { id } = await raise(who(owen), soundDraft([{ part: 'CP-UV-80A', quantity: 6 }]))
    expect(
      (await who(owen).call('POST', `/api/requisitions/${id}/wishes`, { body: { what: 'change', text: 'x' } })).status,
    ).toBe(409)
  })
})

test('a PDF is shown in a frame of our own and a picture in place; both else are kept as downloads', async () => {
  const id = await keep(soundDraft([], { lines: [freeLine('12')] }))
  const { body } = await attach(id, 'Look at me.pdf')
  const shown = await download(`/api/requisitions/${id}/attachments/${body.id}?show=true`)
  expect([
    shown.status,
    shown.headers.get('content-type'),
    shown.headers.get('content-disposition'),
    shown.headers.get('content-security-policy'),
    shown.headers.get('x-content-type-options'),
  ]).toEqual([200, 'application/pdf', 'inline', "frame-ancestors 'self'", 'nosniff'])
  expect(
    (await download(`/api/requisitions/${id}/attachments/${body.id}`)).headers.get('content-disposition'),
  ).toContain('attachment; filename="Look at me.pdf"')
  expect((await download(`/api/requisitions/${id}/attachments/${body.id}?show=true`, priya)).status).toBe(404)
})

test('views of a place are one’s own', async () => {
  const views = async (by = owen) =>
    (await who(by).call<{ views: { id: string; name: string; query: string }[] }>('GET', '/api/views?place=mine')).body
      .views
  const keepView = (name: string, query: string) =>
    who(owen).call('POST', '/api/views', { body: { place: 'mine', name, query } })
  expect((await keepView(' ', 'view=open')).status).toBe(422)
  await keepView('Pumps, open', 'view=open&words=pump')
  await keepView('Pumps, open', 'view=open&words=pumps')
  expect(await views()).toMatchObject([{ name: 'Pumps, open', query: 'view=open&words=pumps' }])
  expect(await views(priya)).toEqual([])
  const id = (await views())[0]?.id ?? ''
  expect((await who(priya).call('DELETE', `/api/views/${id}`)).status).toBe(404)
  expect((await who(owen).call('DELETE', `/api/views/${id}`)).status).toBe(204)
})
