import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import type { Hit } from '#shared/contract/find'
import { freeLine, raise, soundAgreement, soundDraft, startRekko, type Client, type Rekko, idOf } from '../setup/rekko'

let rekko: Rekko
let owen: Client
let [number, id] = ['', '']
beforeAll(async () => {
  rekko = await startRekko()
  owen = await rekko.as('Owen Marsh')
  const sent = await raise(
    owen,
    soundDraft([], { title: 'Impeller for the quarantine pump', lines: [freeLine('1200')] }),
  )
  ;[number, id] = [sent.body.number, sent.id]
  await owen.call('POST', '/api/requisitions', {
    body: { id: crypto.randomUUID(), draft: soundDraft([], { title: 'Quarantine nets, not yet sent' }) },
  })
})
afterAll(async () => {
  await rekko.stop()
})
async function find(words: string, who = owen): Promise<Hit[]> {
  const r = await who.call<{ hits: Hit[] }>('GET', `/api/find?words=${encodeURIComponent(words)}`)
  expect(r.status).toBe(200)
  return r.body.hits
}
const ids = (hits: readonly Hit[], kind: Hit['kind'] = 'requisition') =>
  hits.filter((h) => h.kind === kind).map((h) => h.id)

test('an agreement is found by whoever sees orders, and by nobody else', async () => {
  const greta = await rekko.as('Greta Molin')
  const body = soundAgreement(idOf('supplier', 'Harbour Waste'), { name: 'Sludge of the reservoirs' })
  const { number: called, id: agreementId } = (
    await greta.call<{ id: string; number: string }>('POST', '/api/agreements', { body })
  ).body
  for (const words of [called, 'sludge reservoirs'])
    expect([words, ids(await find(words, greta), 'agreement')]).toEqual([words, [agreementId]])
  expect(ids(await find('sludge reservoirs'), 'agreement')).toEqual([])
})

describe('a requisition is found', () => {
  test('by its number, by a part of it, and with wildcards', async () => {
    for (const words of [
      number,
      number.toLowerCase(),
      number.slice(2),
      number.slice(-5),
      number.replace(/\d$/, '?'),
      `R-*${number.slice(-2)}`,
    ])
      expect([words, ids(await find(words))]).toEqual([words, expect.arrayContaining([id])])
    expect(ids(await find(`${number.slice(0, 6)}?`))).toEqual([])
  })
  test('by words and by misspelt words, drafts by their author', async () => {
    expect(ids(await find('quarantine pump'))[0]).toBe(id)
    expect(ids(await find('impeler'))).toContain(id)
    const drafts = (await find('quarantine net')).filter((h) => h.kind === 'requisition')
    expect(drafts[0]).toMatchObject({
      name: 'Quarantine nets, not yet sent',
      link: expect.stringContaining('/raise/') as string,
    })
  })
  test('only by whoever may see it', async () => {
    const seen = async (name: string) => ids(await find(number, await rekko.as(name)))
    for (const name of ['Ines Adeyemi', 'Tomas Brandt', 'Greta Molin', 'Signe Aalto'])
      expect([name, await seen(name)]).toEqual([name, [id]])
    for (const name of ['Priya Lindqvist', 'Sorrel Quist', 'Leonie Farrow', 'Wes Okafor', 'Harriet Voss'])
      expect([name, await seen(name)]).toEqual([name, []])
    // A draft is its author's alone, whoever else sees all documents.
    expect(
      (await find('quarantine nets', await rekko.as('Greta Molin'))).filter((h) => h.name.includes('not yet sent')),
    ).toEqual([])
  })
})

test('the catalogue, suppliers and people are found too; what is only told leads nowhere', async () => {
  const quartz = await find('quartz slev')
  expect(quartz.find((h) => h.kind === 'item')).toMatchObject({ link: `/catalogue/${idOf('item', 'CP-QS-25')}` })
  expect((await find('corrigan')).find((h) => h.kind === 'supplier')).toMatchObject({
    name: 'Corrigan Pumps',
    link: expect.stringMatching(/^\/suppliers\//) as string,
  })
  expect((await find('adeye')).find((h) => h.kind === 'person')).toMatchObject({ name: 'Ines Adeyemi', link: null })
})

describe('the catalogue forgives', () => {
  const items = async (words: string) => (await find(words)).filter((h) => h.kind === 'item')
  test.each([
    ['two words misspelt', 'qartz sleve', 'Quartz sleeve'],
    ['two others', 'quarz sleve', 'Quartz sleeve'],
    ['letters that changed places', 'sea slat', 'ea salt'],
    ['another letter', 'karbon', 'arbon'],
    ['a part number without punctuation', 'qs25', 'Quartz sleeve'],
    ['words in another order', 'sleeve quartz', 'Quartz sleeve'],
    ['a word that is nowhere', 'quartz sleeve xyzzy', 'Quartz sleeve'],
  ])('%s: %s', async (_, words, name) => {
    const names = (await items(words)).slice(0, 2).map((h) => h.name)
    expect(names).toContainEqual(expect.stringContaining(name))
  })
  test('what stands there as it is typed comes before what only comes close', async () => {
    const [first] = await items('quartz sleeve')
    expect(first?.name).toContain('Quartz sleeve')
    expect((await items('seal')).every((h) => /seal/i.test(h.name))).toBe(true)
  })
})

test('in Mine words need not be adjacent, and a number may leave out its zeros', async () => {
  const mine = async (words: string) =>
    (
      await owen.call<{ rows: { id: string }[] }>('GET', `/api/requisitions?words=${encodeURIComponent(words)}`)
    ).body.rows.map((r) => r.id)
  const short = number.replace(/-0+/, '-')
  expect(short).not.toBe(number)
  for (const words of ['pump impeller', 'quarantine impeller', short])
    expect([words, await mine(words)]).toEqual([words, [id]])
  expect(await mine('impeller salt')).toEqual([])
  expect(ids(await find(short))).toContain(id)
})

test('an issued order is found by those who see orders and by those it serves', async () => {
  const sent = await raise(owen, soundDraft([{ part: 'CP-GS-25', quantity: 2 }], { title: 'Seals' }))
  const leonie = await rekko.as('Leonie Farrow')
  const desk = await leonie.call<{ lines: { id: string; requisitionId: string }[] }>('GET', '/api/desk')
  const line = desk.body.lines.find((l) => l.requisitionId === sent.id)
  const tray = await leonie.call('POST', '/api/trays', {
    body: { orderId: null, supplierId: null, parts: [{ lineId: line?.id, quantity: null }] },
  })
  const [kept] = await rekko.sql<{ id: string; version: number }>(
    "select id, version from document where kind = 'order'",
  )
  expect(tray.status).toBe(200)
  const issued = await leonie.call<{ number: string }>('POST', `/api/orders/${kept?.id ?? ''}/issue`, {
    version: kept?.version ?? 0,
    key: 'issue-find',
  })
  expect(issued.status).toBe(200)
  for (const who of [leonie, owen]) expect(ids(await find('P-*1', who), 'order')).toEqual([kept?.id])
  expect(ids(await find('P-*1', await rekko.as('Sorrel Quist')), 'order')).toEqual([])
})

test('too little to look for finds nothing, and odd signs do no harm', async () => {
  expect(await find('')).toEqual([])
  expect(await find('a')).toEqual([])
  for (const words of ['%%', '__', '\\', "'; drop table person; --", '***', '🦭🦭']) await find(words)
  expect((await owen.call('GET', `/api/find?words=${'x'.repeat(101)}`)).status).toBe(422)
})
