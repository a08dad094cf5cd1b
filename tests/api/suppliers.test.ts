import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import type { SupplierView } from '#shared/contract/supplier'
import { brokenRules } from '../setup/invariants'
import {
  freeLine,
  idOf,
  personId,
  raise,
  soundAgreement,
  soundDraft,
  startRekko,
  TODAY,
  until,
  versionOf,
  type Client,
  type Rekko,
} from '../setup/rekko'

let rekko: Rekko
let greta: Client, leonie: Client, owen: Client, second: Client
const IBAN = 'DE89370400440532013000'
const pdf = Buffer.from('%PDF-1.4\n1 0 obj<<>>endobj\n%%EOF')

beforeAll(async () => {
  rekko = await startRekko()
  await rekko.sql("insert into role_grant (person_id, role) values ($1, 'finance')", [personId('Sorrel Quist')])
  greta = await rekko.as('Greta Molin')
  leonie = await rekko.as('Leonie Farrow')
  owen = await rekko.as('Owen Marsh')
  second = await rekko.as('Sorrel Quist')
})
afterAll(() => rekko.stop())

async function newSupplier(name: string, more: Record<string, string> = {}): Promise<string> {
  const id = randomUUID()
  await rekko.sql(
    `insert into supplier (id, number, name, town, email, currency, tax_number)
      values ($1, $2, $3, 'Quayside', $4, 'EUR', $5)`,
    [id, `T-${id.slice(0, 6)}`, name, more.email ?? null, more.taxNumber ?? null],
  )
  return id
}
const view = async (who: Client, id: string) => (await who.call<SupplierView>('GET', `/api/suppliers/${id}`)).body

describe('bank details are changed by two', () => {
  const details = (number: string) => ({ holder: 'Tallow Street Supply', number, bank: '' })
  const ask = (who: Client, id: string, number: string) =>
    who.call<{ toldTo: string[] }>('PUT', `/api/suppliers/${id}/bank`, { body: details(number) })
  const confirm = (who: Client, id: string, number: string) =>
    who.call('POST', `/api/suppliers/${id}/bank/confirmations`, { body: { number } })

  test('whoever asks does not confirm; the supplier hears at once, at the address of before as well', async () => {
    const id = await newSupplier('Tallow Street Supply', { email: 'old@tallow.example' })
    const row = (await view(greta, id)).number
    const list = (
      await greta.call<{ version: number; entries: { values: Record<string, string> }[] }>(
        'GET',
        '/api/lists/suppliers',
      )
    ).body
    const values = list.entries.find((e) => e.values.number === row)?.values ?? {}
    const columns = Object.keys(values)
    const cells = [columns.map((c) => (c === 'email' ? 'new@tallow.example' : (values[c] ?? '')))]
    expect(
      await greta.call('POST', '/api/lists/suppliers/rows', {
        version: list.version,
        body: { columns, cells, source: '', gone: 'keep' },
      }),
    ).toMatchObject({ status: 200 })

    expect(await ask(greta, id, IBAN.replace('3000', '3001'))).toMatchObject({ status: 422 })
    expect((await ask(greta, id, 'de89 3704 0044 0532 0130 00')).body.toldTo).toEqual([
      'old@tallow.example',
      'new@tallow.example',
    ])
    await until('the mails', async () => {
      const mails = (await rekko.mails()).map((m) => JSON.stringify(m))
      return ['old@tallow.example', 'new@tallow.example'].every((to) =>
        mails.some((m) => m.includes(to) && m.includes('3000')),
      )
    })
    expect((await view(greta, id)).bankChange).toMatchObject({ isOwn: true, mayConfirm: false })
    expect((await view(greta, id)).bank).toBe(null)
    expect(await confirm(greta, id, IBAN)).toMatchObject({ status: 403 })
    expect(await confirm(leonie, id, IBAN)).toMatchObject({ status: 403 })
    // What was asked for since is another thing than what was seen.
    expect(await ask(leonie, id, 'GB29NWBK60161331926819')).toMatchObject({ status: 200 })
    expect(await confirm(greta, id, IBAN)).toMatchObject({ status: 409 })
    expect(await confirm(greta, id, 'GB29NWBK60161331926819')).toMatchObject({ status: 204 })
    expect((await view(second, id)).bank).toMatchObject({ number: 'GB29NWBK60161331926819' })
    expect((await view(second, id)).bankChange).toBe(null)
    expect(await confirm(second, id, 'GB29NWBK60161331926819')).toMatchObject({ status: 404 })
    expect(await ask(greta, id, 'GB29 NWBK 6016 1331 9268 19')).toMatchObject({ status: 409 })
    const events = await rekko.sql<{ type: string; actor: string }>(
      `select e.type, p.name as actor from event e join person p on p.id = e.actor_id where e.subject_id = $1
        order by e.seq`,
      [id],
    )
    expect(events.map((e) => `${e.type} by ${e.actor}`)).toEqual([
      'bank change asked for by Greta Molin',
      'bank change asked for by Leonie Farrow',
      'bank change confirmed by Greta Molin',
    ])
  })

  test('whoever asked takes it back, finance refuses it, nobody else; others see nothing of it', async () => {
    const id = await newSupplier('Wicket Lane Timber', { email: 'yard@wicket.example' })
    expect((await ask(leonie, id, IBAN)).status).toBe(200)
    expect(JSON.stringify(await view(owen, id))).not.toContain(IBAN)
    expect((await owen.call('DELETE', `/api/suppliers/${id}/bank`)).status).toBe(403)
    expect((await leonie.call('DELETE', `/api/suppliers/${id}/bank`)).status).toBe(204)
    expect((await leonie.call('DELETE', `/api/suppliers/${id}/bank`)).status).toBe(404)
    expect((await ask(greta, id, IBAN)).status).toBe(200)
    expect((await leonie.call('DELETE', `/api/suppliers/${id}/bank`)).status).toBe(403)
    expect((await second.call('DELETE', `/api/suppliers/${id}/bank`)).status).toBe(204)
  })

  test('two who confirm at once confirm once', async () => {
    const id = await newSupplier('Pellow Castings')
    expect((await ask(leonie, id, IBAN)).body.toldTo).toEqual([])
    const both = await Promise.all([confirm(greta, id, IBAN), confirm(second, id, IBAN)])
    expect(both.map((r) => r.status).sort()).toEqual([204, 404])
  })
})

describe('the record', () => {
  const record = (contacts: unknown[], warning: Record<string, unknown> = {}) => ({
    contacts,
    warning: { text: '', mode: 'informs', from: null, until: null, ...warning },
  })
  const keep = (id: string, version: number, body: unknown) =>
    leonie.call<{ version: number }>('PUT', `/api/suppliers/${id}/record`, { version, body })

  test('contacts and a warning with days; a second writer is told', async () => {
    const id = await newSupplier('Sennen Rope')
    const contact = { name: 'Ida Pell', about: 'bills', email: 'ida@sennen.example', telephone: '', address: '' }
    const far = { text: 'closed for stocktaking', mode: 'must be read', from: '2198-01-01', until: '2198-01-31' }
    expect((await keep(id, 1, record([contact], far))).status).toBe(200)
    expect((await keep(id, 1, record([]))).status).toBe(412)
    const seen = await view(owen, id)
    expect(seen).toMatchObject({ contacts: [contact], warning: null, datedWarning: far.text, papers: [], bank: null })
    expect((await keep(id, seen.version, record([contact], { ...far, from: '2198-02-01' }))).status).toBe(422)
    const now = { text: 'ring first', from: TODAY, until: TODAY }
    expect((await keep(id, seen.version, record([], now))).status).toBe(200)
    expect(await view(owen, id)).toMatchObject({ contacts: [], warning: 'ring first', warningUntil: TODAY })
    expect((await keep(id, (await view(owen, id)).version, record([{ ...contact, email: 'no' }]))).status).toBe(422)
    expect((await owen.call('PUT', `/api/suppliers/${id}/record`, { version: 3, body: record([]) })).status).toBe(403)
  })

  test('on hold, blocked, active again: with a reason that meets whoever asks for it', async () => {
    const id = await newSupplier('Mallard Freight')
    const stand = (who: Client, version: number, to: string, reason = '', until: string | null = null) =>
      who.call('PUT', `/api/suppliers/${id}/standing`, { version, body: { to, reason, until } })
    expect((await stand(leonie, 1, 'on hold', 'x')).status).toBe(403)
    expect((await stand(greta, 1, 'on hold')).status).toBe(422)
    expect((await stand(greta, 1, 'on hold', 'their insurance ended', '2001-01-01')).status).toBe(422)
    expect((await stand(greta, 1, 'on hold', 'their insurance ended', '2198-01-01')).status).toBe(200)
    const held = await raise(owen, soundDraft([], { lines: [freeLine('40', { supplierId: id })] }))
    expect(held.status).toBe(409)
    expect((await stand(greta, 1, 'active')).status).toBe(412)
    expect((await stand(greta, 2, 'blocked', 'they billed twice')).status).toBe(200)
    expect((await stand(greta, 3, 'merged', 'x')).status).toBe(409)
    const found = await owen.call<{ suppliers: { id: string; standing: string; warning: string }[] }>(
      'GET',
      '/api/suppliers?words=Mallard%20Freight',
    )
    expect(found.body.suppliers.find((x) => x.id === id)).toMatchObject({
      standing: 'blocked',
      warning: 'they billed twice',
    })
    expect((await stand(greta, 3, 'active')).status).toBe(200)
    expect((await raise(owen, soundDraft([], { lines: [freeLine('40', { supplierId: id })] }))).status).toBe(200)
  })

  test('papers: kept, read by whoever keeps suppliers, taken away with their file', async () => {
    const id = await newSupplier('Gorse Hill Insurance')
    const add = (who: Client, raw: Buffer, query: string) =>
      who.call<{ id: string }>('POST', `/api/suppliers/${id}/papers?${query}`, {
        raw,
        headers: { 'content-type': 'application/octet-stream' },
      })
    expect((await add(leonie, Buffer.from('no file'), 'name=a.pdf')).status).toBe(415)
    const kept = await add(leonie, pdf, 'name=insurance.pdf&validUntil=2198-01-01')
    expect(kept.status).toBe(200)
    const at = `/api/suppliers/${id}/papers/${kept.body.id}`
    expect((await greta.call('GET', at)).status).toBe(200)
    expect((await owen.call('GET', at)).status).toBe(403)
    expect((await view(leonie, id)).papers).toMatchObject([{ name: 'insurance.pdf', validUntil: '2198-01-01' }])
    expect((await view(owen, id)).papers).toEqual([])
    expect((await leonie.call('DELETE', at)).status).toBe(204)
    expect((await leonie.call('DELETE', at)).status).toBe(404)
    await until('its file goes', async () => {
      const left = await rekko.sql('select 1 from file f where f.bytes = $1', [pdf])
      return left.length === 0
    })
  })
})

describe('doubles are merged', () => {
  const review = async (from: string, into: string) =>
    (
      await greta.call<{ seen: string; hinders: string[]; moves: Record<string, number> }>(
        'GET',
        `/api/suppliers/${from}/merging?into=${into}`,
      )
    ).body
  const merge = (from: string, into: string, seen: string) =>
    greta.call('POST', `/api/suppliers/${from}/merging`, { body: { into, seen } })

  test('they are found over the whole list, and everything that names one names the other', async () => {
    const [one, other] = [
      await newSupplier('Hesketh Bearings', { taxNumber: 'HL 555 0199' }),
      await newSupplier('Hesketh Bearing Ltd.', { email: 'a@hesketh.example' }),
    ]
    const { pairs } = (
      await greta.call<{ pairs: { one: { id: string }; other: { id: string }; why: string[] }[] }>(
        'GET',
        '/api/suppliers/doubles',
      )
    ).body
    expect(
      pairs.find((p) => [p.one.id, p.other.id].includes(one) && [p.one.id, p.other.id].includes(other))?.why,
    ).toEqual(['like name'])
    const sent = await raise(owen, soundDraft([], { lines: [freeLine('40', { supplierId: other })] }))
    const agreed = await greta.call<{ id: string }>('POST', '/api/agreements', { body: soundAgreement(other) })
    const rule = randomUUID()
    await rekko.sql(
      `insert into ordering_rule (id, name, buyer_id, form, state, written_by_id)
        values ($1, 'Bearings', $2, $3, 'in force', $2)`,
      [rule, personId('Leonie Farrow'), { supplierIds: [idOf('supplier', 'Corrigan Pumps'), other] }],
    )
    const openDraft = randomUUID()
    const draft = soundDraft([], { lines: [freeLine('41', { supplierId: other })] })
    await owen.call('POST', '/api/requisitions', { body: { id: openDraft, draft } })
    const seen = await review(other, one)
    expect(seen).toMatchObject({ hinders: [], moves: { lines: 2, agreements: 1 } })
    expect((await merge(other, other, seen.seen)).status).toBe(409)
    expect((await merge(other, one, 'another')).status).toBe(409)
    expect((await merge(other, one, seen.seen)).status).toBe(204)
    expect((await merge(other, one, seen.seen)).status).toBe(409)
    const lines = await rekko.sql('select supplier_id from requisition_line where requisition_id = any($1)', [
      [sent.id, openDraft],
    ])
    expect(lines).toEqual([{ supplier_id: one }, { supplier_id: one }])
    const moved = await greta.call('GET', `/api/agreements/${agreed.body.id}`)
    expect(moved.body).toMatchObject({ supplierId: one, reserved: { amount: '40.00' } })
    const [named] = await rekko.sql<{ form: unknown }>('select form from ordering_rule where id = $1', [rule])
    expect(named?.form).toEqual({ supplierIds: [idOf('supplier', 'Corrigan Pumps'), one] })
    await rekko.sql('delete from ordering_rule where id = $1', [rule])
    expect(await view(owen, other)).toMatchObject({ standing: 'merged', mergedInto: { id: one } })
    // A draft that was open all the while is kept under the supplier that it became.
    expect((await owen.call('PUT', `/api/requisitions/${openDraft}`, { version: 1, body: { draft } })).status).toBe(200)
    expect(await rekko.sql('select supplier_id from requisition_line where requisition_id = $1', [openDraft])).toEqual([
      { supplier_id: one },
    ])
    expect((await merge(one, other, (await review(one, other)).seen)).status).toBe(409)
    const third = await newSupplier('Hesketh Bearings & Co')
    expect((await merge(one, third, (await review(one, third)).seen)).status).toBe(204)
    expect(await view(owen, other)).toMatchObject({ mergedInto: { id: third } })
  })

  test('under load: requests that name it meanwhile end at the one that stays, and nothing is broken', async () => {
    const [from, into] = [await newSupplier('Quillet Paints'), await newSupplier('Marram Coatings')]
    let stop = false
    let raised = 0
    const load = Promise.all(
      Array.from({ length: 4 }, async () => {
        while (!stop) {
          const sent = await raise(owen, soundDraft([], { lines: [freeLine('12', { supplierId: from })] }))
          // Named before it was merged, it goes; afterwards it is refused as a supplier that is on hold is.
          expect([200, 409]).toContain(sent.status)
          raised += 1
        }
      }),
    )
    await until('some requests', () => Promise.resolve(raised > 4))
    const { seen } = await review(from, into)
    await until('some more', () => Promise.resolve(raised > 8))
    // That more of them name it changes nothing of what was reviewed.
    expect((await merge(from, into, seen)).status).toBe(204)
    const before = raised
    await until('some after it', () => Promise.resolve(raised > before + 4))
    stop = true
    await load
    expect(await rekko.sql('select id from requisition_line where supplier_id = $1', [from])).toEqual([])
    expect(await brokenRules(rekko)).toEqual([])
  })
})

test('what was ordered of it is for whoever sees orders', async () => {
  const id = await newSupplier('Ravel Hooks', { email: 'hooks@ravel.example' })
  const sent = await raise(owen, soundDraft([], { lines: [freeLine('40.10', { supplierId: id, quantity: '3' })] }))
  const [line] = await rekko.sql<{ id: string }>('select id from requisition_line where requisition_id = $1', [sent.id])
  const parts = [{ lineId: line?.id, quantity: null }]
  const tray = await leonie.call<{ orderId: string }>('POST', '/api/trays', {
    body: { orderId: null, supplierId: null, parts },
  })
  const order = tray.body.orderId
  const at = `/api/suppliers/${id}/bought`
  expect((await leonie.call('GET', at)).body).toEqual({ years: [], most: [], orders: [] })
  expect(
    (await leonie.call('POST', `/api/orders/${order}/issue`, { version: await versionOf(rekko, order) })).status,
  ).toBe(200)
  expect((await leonie.call('GET', at)).body).toMatchObject({
    years: [{ currency: 'EUR', orders: 1, net: '120.3000' }],
    most: [{ quantity: '3.000000', lastPrice: '40.100000', times: 1 }],
    orders: [{ id: order }],
  })
  expect((await owen.call('GET', at)).status).toBe(403)
})
