import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, beforeEach, describe, expect, test } from 'vitest'
import { money } from '#core/base/money'
import type { RequestForm } from '#core/requisition/form'
import type { OwnField } from '#core/requisition/own-field'
import type { RequestRule } from '#core/requisition/rules'
import type { RequestFormView, RulesReplay } from '#shared/contract/request-form'
import type { DraftFactsWire } from '#shared/contract/draft-facts'
import { freeLine, raise, soundDraft, startRekko, type Client, type Rekko } from '../setup/rekko'

let rekko: Rekko
let owen: Client
let harriet: Client
let begun: RequestForm
beforeAll(async () => {
  rekko = await startRekko()
  ;[owen, harriet] = await Promise.all([rekko.as('Owen Marsh'), rekko.as('Harriet Voss')])
  begun = (await read()).form
})
beforeEach(async () => {
  await keep(begun)
})
afterAll(async () => {
  await rekko.stop()
})

const read = async () => (await harriet.call<RequestFormView>('GET', '/api/request-form')).body
async function keep(form: RequestForm, version?: number) {
  return harriet.call<{ version: number; detail: string }>('PUT', '/api/request-form', {
    version: version ?? (await read()).version,
    body: form,
  })
}
const facts = async () => (await owen.call<DraftFactsWire>('GET', '/api/draft-facts')).body
const field = (name: string, change: Partial<OwnField> = {}): OwnField => ({
  id: randomUUID(),
  name,
  help: '',
  on: 'requisition',
  type: 'text',
  required: false,
  kinds: [],
  departmentIds: [],
  categoryIds: [],
  choices: [],
  ...change,
})
const rule = (name: string, asks: RequestRule['asks'], when: Partial<RequestRule['when']> = {}): RequestRule => ({
  id: randomUUID(),
  name,
  asks,
  when: { from: null, kinds: [], departmentIds: [], categoryIds: [], withoutAgreement: false, ...when },
})

describe('what an administrator puts in force', () => {
  test('holds for what is written and sent from then on', async () => {
    const colour = field('Colour', { required: true, type: 'choice', choices: ['blue', 'green'] })
    const drawing = rule(
      'work from 100 comes with a drawing',
      { what: 'attachment', kind: 'drawing' },
      { from: money('100.00 EUR') },
    )
    expect(
      (await keep({ ...begun, ownFields: [...begun.ownFields, colour], rules: [...begun.rules, drawing] })).status,
    ).toBe(200)
    expect((await facts()).ownFields).toContainEqual(colour)
    const lacking = await raise(owen, soundDraft([], { lines: [freeLine('100')] }))
    expect(lacking.status).toBe(409)
    expect(lacking.body).toMatchObject({
      missing: [
        { code: 'own-field-missing', field: 'Colour' },
        { code: 'attachment-missing', why: 'work from 100 comes with a drawing' },
      ],
    })
    expect(
      (await raise(owen, soundDraft([], { lines: [freeLine('99.99')], own: { [colour.id]: 'blue' } }))).status,
    ).toBe(200)
  })

  test('is an event with what held before and what holds after, and counts the version on', async () => {
    const { version } = await read()
    expect((await keep({ ...begun, newSuppliers: 'nobody' })).body.version).toBe(version + 1)
    const [event] = await rekko.sql<{ before: RequestForm; after: RequestForm; name: string }>(
      'select e.before, e.after, p.name from event e join person p on p.id = e.actor_id where e.type = $1 order ' +
        'by e.seq desc limit 1',
      ['request form changed'],
    )
    expect(event).toMatchObject({
      name: 'Harriet Voss',
      before: { newSuppliers: begun.newSuppliers },
      after: { newSuppliers: 'nobody' },
    })
    const refusedSupplier = await owen.call('POST', '/api/suppliers', {
      body: { name: 'Any Supplier', town: '', email: '', taxNumber: 'X 1', currency: 'EUR', note: '' },
      key: randomUUID(),
    })
    expect(refusedSupplier.status).toBe(403)
  })

  test('is refused whole, with every reason, and changes nothing', async () => {
    const before = await read()
    const r = await keep({
      ...begun,
      kinds: [{ code: 'x', name: 'works', help: '', series: 'P' }],
      ownFields: [field('Colour', { type: 'choice' })],
      rules: [rule('', { what: 'quotes', count: 0 }, { departmentIds: [randomUUID()] })],
    })
    expect(r.status).toBe(409)
    for (const sentence of [
      'P begins the numbers of other documents',
      '“Colour” needs at least two things',
      'A rule needs a sentence',
      'names a department',
    ])
      expect(r.body.detail).toContain(sentence)
    expect(await read()).toEqual(before)
  })

  test('does not write over what another administrator put in force meanwhile', async () => {
    const { version } = await read()
    expect((await keep({ ...begun, newSuppliers: 'create' }, version)).status).toBe(200)
    const late = await keep({ ...begun, newSuppliers: 'nobody' }, version)
    expect([late.status, late.body.detail]).toEqual([
      412,
      'Somebody changed this meanwhile: another administrator changed what is asked for. Look at it again ' +
        'before you go on.',
    ])
    expect((await read()).form.newSuppliers).toBe('create')
    const races = await Promise.all(
      [1, 2, 3, 4].map((n) => keep({ ...begun, rules: [rule(`race ${n}`, { what: 'justification' })] }, version + 1)),
    )
    expect(races.map((r) => r.status).sort()).toEqual([200, 412, 412, 412])
  })

  test('may give two fields each other’s names', async () => {
    const [a, b] = [field('Here'), field('There')]
    expect((await keep({ ...begun, ownFields: [a, b] })).status).toBe(200)
    expect(
      (
        await keep({
          ...begun,
          ownFields: [
            { ...b, name: 'Here' },
            { ...a, name: 'There' },
          ],
        })
      ).status,
    ).toBe(200)
    expect((await read()).form.ownFields.map((f) => [f.id, f.name])).toEqual([
      [b.id, 'Here'],
      [a.id, 'There'],
    ])
  })
})

describe('what is taken away', () => {
  test(
    'an own field is asked for no longer; what was written into it still stands on the request and its ' + 'files',
    async () => {
      const plate = field('Plate')
      const mark = field('Mark', { on: 'line' })
      await keep({ ...begun, ownFields: [plate, mark] })
      const draft = soundDraft([], {
        lines: [{ ...freeLine('40'), own: { [mark.id]: 'M-7' } }],
        own: { [plate.id]: 'P4 north' },
      })
      const sent = await raise(owen, draft)
      expect((await read()).filled).toMatchObject({ [plate.id]: 1, [mark.id]: 1 })
      await keep({ ...begun, ownFields: [] })
      expect((await facts()).ownFields).toEqual([])
      const file = async (of: string) =>
        (
          await fetch(`${rekko.url}/api/requisitions/export?of=${of}&words=${String(sent.body.number)}`, {
            headers: { cookie: owen.cookie },
          })
        ).text()
      expect(await file('requests')).toContain('P4 north')
      expect(await file('lines')).toContain('M-7')
      const page = await owen.call<{ fields: { name: string }[] }>('GET', '/api/mine-filters')
      expect(page.body.fields.map((f) => f.name)).toContain('Plate')
      // And it may come back, or a new one of its name be defined.
      expect((await keep({ ...begun, ownFields: [plate, field('Mark', { on: 'line', type: 'number' })] })).status).toBe(
        200,
      )
      expect((await keep({ ...begun, ownFields: [{ ...plate, type: 'date' }] })).body.detail).toContain(
        'take it away and define a new one',
      )
    },
  )

  test(
    'a kind is offered no longer; a draft of it asks for another, a request of it keeps its name and ' + 'number',
    async () => {
      const works = { code: randomUUID(), name: 'building works', help: '', series: 'W' }
      await keep({ ...begun, kinds: [...begun.kinds, works] })
      const sent = await raise(owen, soundDraft([], { kind: works.code, lines: [freeLine('40')] }))
      expect(sent.body.number).toMatch(/^W-\d\d-00001$/)
      expect((await read()).sent[works.code]).toBe(1)
      await keep(begun)
      expect((await facts()).kinds.map((k) => k.code)).not.toContain(works.code)
      expect((await raise(owen, soundDraft([], { kind: works.code, lines: [freeLine('40')] }))).body).toMatchObject({
        missing: [{ code: 'no-kind' }],
      })
      const pdf = await fetch(`${rekko.url}/api/requisitions/${sent.id}/pdf`, { headers: { cookie: owen.cookie } })
      expect(pdf.status).toBe(200)
    },
  )

  test(
    'what has to be read is read again when it says something else, and not when only its reason ' + 'changed',
    async () => {
      const reading = rule('rails first', { what: 'reading', text: 'By rail.' }, { kinds: ['goods'] })
      await keep({ ...begun, rules: [reading] })
      await keep({ ...begun, rules: [{ ...reading, name: 'rails before roads' }] })
      const draft = soundDraft([], { lines: [freeLine('40')], readWarnings: [reading.id] })
      expect((await raise(owen, draft)).status).toBe(200)
      await keep({ ...begun, rules: [{ ...reading, asks: { what: 'reading', text: 'By rail or ferry.' } }] })
      expect(
        (await raise(owen, soundDraft([], { lines: [freeLine('40')], readWarnings: [reading.id] }))).body,
      ).toMatchObject({ missing: [{ code: 'reading-unread', text: 'By rail or ferry.' }] })
    },
  )
})

test('rules are tried on the requests sent last, and nothing of them but counts is told', async () => {
  await rekko.sql('update requisition set sent_draft = null')
  for (const net of ['40', '60'])
    expect(
      (await raise(owen, soundDraft([], { lines: [freeLine(net)], justification: net === '60' ? 'it is worn' : '' })))
        .status,
    ).toBe(200)
  const r = await harriet.call<RulesReplay>('POST', '/api/request-form/replays', {
    body: {
      rules: [
        rule('a', { what: 'justification' }),
        rule('b', { what: 'quotes', count: 1 }, { from: money('60.00 EUR') }),
        rule('c', { what: 'justification' }, { from: money('60.01 EUR') }),
      ],
    },
  })
  expect(r.body).toMatchObject({
    sent: 2,
    rules: [
      { asked: 2, lacking: 1 },
      { asked: 1, lacking: 1 },
      { asked: 0, lacking: 0 },
    ],
  })
})

test(
  'a form that cannot be read is refused with its field; nobody but an administrator reads or keeps ' + 'it',
  async () => {
    const bad = await keep({
      ...begun,
      rules: [{ ...rule('a', { what: 'justification' }), asks: { what: 'applause' } as never }],
    })
    expect([bad.status, (bad.body as unknown as { fields: { field: string }[] }).fields[0]?.field]).toEqual([
      422,
      'rules.0.asks.what',
    ])
    const [first] = begun.kinds
    const twice = await keep({
      ...begun,
      kinds: [...begun.kinds, { code: first?.code ?? '', name: 'the same again', help: '', series: 'R' }],
    })
    expect([twice.status, (twice.body as unknown as { fields: { field: string; message: string }[] }).fields]).toEqual([
      422,
      [{ field: 'kinds', message: 'names a kind twice' }],
    ])
    for (const name of ['Owen Marsh', 'Greta Molin', 'Leonie Farrow']) {
      const who = await rekko.as(name)
      expect((await who.call('GET', '/api/request-form')).status).toBe(403)
      expect((await who.call('PUT', '/api/request-form', { version: 1, body: begun })).status).toBe(403)
    }
  },
)
