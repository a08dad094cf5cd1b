import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { addDays } from '#core/base/day'
import type { CatalogueItem, ItemPage } from '#shared/contract/catalogue'
import { idOf, raise, soundDraft, startRekko, TODAY, until, type Client, type Rekko } from '../setup/rekko'

let rekko: Rekko
let owen: Client
let leonie: Client
beforeAll(async () => {
  rekko = await startRekko()
  owen = await rekko.as('Owen Marsh')
  leonie = await rekko.as('Leonie Farrow')
})
afterAll(async () => {
  await rekko.stop()
})
interface Found {
  items: CatalogueItem[]
  count: number
  next: string | null
}
const browse = async (asked: Record<string, string> = {}, who = owen) =>
  (await who.call<Found>('GET', `/api/catalogue?${new URLSearchParams(asked).toString()}`)).body
const item = async (part: string, who = owen) =>
  (await who.call<ItemPage>('GET', `/api/items/${idOf('item', part)}`)).body

describe('browsing', () => {
  test('goes through everything by name, each once, whatever the size of the pages', async () => {
    const [all] = await rekko.sql<{ n: number }>('select count(*)::int as n from item where not retired')
    const seen: string[] = []
    for (let after: string | null = ''; after !== null;) {
      const page: Found = await browse({ limit: '37', ...(after === '' ? {} : { after }) })
      expect(page.count).toBe(all?.n)
      seen.push(...page.items.map((i) => i.id))
      after = page.next
    }
    expect(new Set(seen).size).toBe(seen.length)
    expect(seen).toHaveLength(all?.n ?? 0)
    expect((await owen.call('GET', '/api/catalogue?after=nowhere')).status).toBe(422)
  })
  test('a category holds what is part of it; suppliers and agreements narrow further', async () => {
    const branch = idOf('category', 'Water and pumps')
    const inBranch = await browse({ category: branch, limit: '60' })
    const names = new Set(inBranch.items.map((i) => i.category))
    expect(names.size).toBeGreaterThan(1)
    expect([...names].every((n) => ['Water treatment', 'Pump parts', 'Sea salt', 'Ozone parts'].includes(n))).toBe(true)
    const corrigan = await browse({ category: branch, supplier: idOf('supplier', 'Corrigan Pumps'), agreement: 'yes' })
    expect(corrigan.items.every((i) => i.supplier === 'Corrigan Pumps' && i.hasAgreement)).toBe(true)
    expect(corrigan.count).toBeLessThan(inBranch.count)
  })
  test('by a day: what takes longer in business days is left out, and all of it on a day that is past', async () => {
    const all = await browse()
    const soon = await browse({ by: addDays(TODAY, 4), limit: '60' })
    expect(soon.count).toBeGreaterThan(0)
    expect(soon.count).toBeLessThan(all.count)
    expect(soon.items.every((i) => i.leadDays <= 4)).toBe(true)
    expect((await browse({ by: addDays(TODAY, -1) })).count).toBe(0)
    expect((await browse({ by: addDays(TODAY, 900) })).count).toBe(all.count)
  })
  test('between prices, in the base currency by the rate of today', async () => {
    // The plain prices once more, by hand: a price in crowns is divided by its rate.
    const rows = await rekko.sql<{ id: string; one: string }>(
      `select i.id, (p.unit_price / i.price_base / coalesce((select r.per_base from exchange_rate r
         where r.currency = i.currency and r.day <= $1 order by r.day desc limit 1), 1))::text as one
       from item i join item_price p on p.item_id = i.id and p.from_quantity = 1
         and coalesce(p.valid_from <= $1, true) and coalesce(p.valid_until >= $1, true) where not i.retired`,
      [TODAY],
    )
    const between = rows.filter((r) => Number(r.one) >= 40 && Number(r.one) <= 60).map((r) => r.id)
    const found = await browse({ from: '40', to: '60', limit: '60' })
    expect(found.items.map((i) => i.id).sort()).toEqual(between.sort())
    expect(found.items.some((i) => i.currency !== 'EUR')).toBe(true)
  })
  test('words and filters together: what was found by words fits the filter too, typing errors forgiven', async () => {
    const found = await browse({ words: 'quartz sleve', supplier: idOf('supplier', 'Northmole Water') })
    expect(found.items.map((i) => i.supplierPart)).toEqual(['88-025'])
  })
  test('asked for before: by oneself, or by one’s department; a draft is not asked for', async () => {
    const part = { part: 'CP-GS-25', quantity: 2, account: '610' }
    expect((await browse({ bought: 'me' })).items.map((i) => i.supplierPart)).not.toContain('CP-GS-25')
    const draft = soundDraft([part])
    await owen.call('POST', '/api/requisitions', { body: { id: crypto.randomUUID(), draft } })
    expect((await browse({ bought: 'me' })).items.map((i) => i.supplierPart)).not.toContain('CP-GS-25')
    await raise(owen, soundDraft([part]))
    expect((await browse({ bought: 'me' })).items.map((i) => i.supplierPart)).toContain('CP-GS-25')
    expect((await browse({ bought: 'department' })).items.map((i) => i.supplierPart)).toContain('CP-GS-25')
    const priya = await rekko.as('Priya Lindqvist')
    expect((await browse({ bought: 'me' }, priya)).items.map((i) => i.supplierPart)).not.toContain('CP-GS-25')
    expect((await browse({ bought: 'department' }, priya)).items.map((i) => i.supplierPart)).not.toContain('CP-GS-25')
  })
})

describe('an item', () => {
  test('shows who else has it, what follows it when it is retired, and what stands with it', async () => {
    expect((await item('CP-QS-25')).others.map((o) => o.supplierPart)).toEqual(['88-025'])
    expect((await item('88-025')).others.map((o) => o.supplierPart)).toEqual(['CP-QS-25'])
    const old = await item('CP-UV-75')
    expect([old.item.facts.retired, old.successor?.number]).toEqual([true, 'I-CP-UV-80A'])
    expect((await browse({ words: 'CP-UV-75' })).items.map((i) => i.supplierPart)).not.toContain('CP-UV-75')
    for (let i = 0; i < 2; i += 1)
      await raise(
        owen,
        soundDraft([
          { part: 'CP-QS-32C', quantity: 1, account: '610' },
          { part: 'CP-GS-25', quantity: 1, account: '610' },
        ]),
      )
    const page = await item('CP-QS-32C')
    expect(page.together.map((t) => [t.number, t.times])).toEqual([['I-CP-GS-25', 2]])
    expect(page.askedBy).toContainEqual({ department: 'Water Systems', lines: 2 })
    expect((await owen.call('GET', `/api/items/${crypto.randomUUID()}`)).status).toBe(404)
  })
  test('remembers what was last ordered, and what was paid', async () => {
    const priya = await rekko.as('Priya Lindqvist')
    const draft = soundDraft([{ part: 'FL-GLM-100', quantity: 3, account: '620' }], {}, 'Animal Care')
    await raise(priya, draft)
    expect((await item('FL-GLM-100')).item.paid).toBeNull()
    const parts = draft.lines.map((l) => ({ lineId: l.id, quantity: null }))
    const tray = await leonie.call<{ orderId: string }>('POST', '/api/trays', {
      body: { orderId: null, supplierId: null, parts },
    })
    expect((await item('FL-GLM-100')).item.paid).toBeNull()
    await leonie.call('POST', `/api/orders/${tray.body.orderId}/issue`, { version: 1 })
    expect((await item('FL-GLM-100')).item.paid).toMatchObject({
      quantity: '3',
      currency: 'EUR',
      unitPrice: draft.lines[0]?.unitPrice,
    })
  })
})

describe('prices from a day on', () => {
  const set = (who: Client, part: string, from: string, ...steps: [string, string][]) =>
    who.call<{ detail: string }>('PUT', `/api/items/${idOf('item', part)}/prices`, {
      body: { from, steps: steps.map(([q, unitPrice]) => ({ from: q, unitPrice })) },
    })
  const stepsOf = async (part: string) =>
    (await item(part)).steps.map((s) => [s.from, s.unitPrice, s.validFrom, s.validUntil])
  const soon = addDays(TODAY, 30)

  test('what held before holds up to the day before; set again, and earlier, the last one said counts', async () => {
    expect((await set(leonie, 'CP-QS-32C', soon, ['1', '46'], ['10', '43'])).status).toBe(204)
    expect(await stepsOf('CP-QS-32C')).toEqual([
      ['1', '44.1', null, addDays(soon, -1)],
      ['1', '46', soon, null],
      ['10', '41', null, addDays(soon, -1)],
      ['10', '43', soon, null],
    ])
    await set(leonie, 'CP-QS-32C', soon, ['1', '47'])
    await set(leonie, 'CP-QS-32C', TODAY, ['1', '45'])
    expect(await stepsOf('CP-QS-32C')).toEqual([
      ['1', '44.1', null, addDays(TODAY, -1)],
      ['1', '45', TODAY, null],
      ['10', '41', null, addDays(TODAY, -1)],
    ])
    const events = await rekko.sql("select seq from event where type = 'prices set'")
    expect(events).toHaveLength(3)
  })
  test.each([
    [addDays(TODAY, -1), [['1', '5']], 422, 'from today'],
    [TODAY, [['1', '-5']], 422, 'nothing or more'],
    [
      TODAY,
      [
        ['1', '5'],
        ['1.0', '6'],
      ],
      422,
      'one quantity',
    ],
  ] as const)('from %s with %j answers %i', async (from, steps, status, sentence) => {
    const reply = await set(leonie, 'CP-GS-25', from, ...(steps as unknown as [string, string][]))
    expect([reply.status, reply.body.detail]).toEqual([status, expect.stringContaining(sentence)])
  })
  test('tell whoever has the list of items open, who would write the old ones back', async () => {
    const version = async () => (await leonie.call<{ version: number }>('GET', '/api/lists/items')).body.version
    const before = await version()
    await set(leonie, 'CP-GS-25', TODAY, ['1', '4'])
    expect(await version()).toBe(before + 1)
  })
  test('are set by those who keep the catalogue', async () => {
    expect((await set(owen, 'CP-GS-25', TODAY, ['1', '5'])).status).toBe(403)
    expect((await set(await rekko.as('Greta Molin'), 'CP-GS-25', TODAY, ['1', '5'])).status).toBe(403)
  })
})

describe('pictures of an item', () => {
  // The smallest PNG there is, one point (W3C, Portable Network Graphics), and one with another end.
  const png = (tail: string) =>
    Buffer.concat([
      Buffer.from(
        'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
        'base64',
      ),
      Buffer.from(tail),
    ])
  const id = idOf('item', 'CP-UV-80A')
  const add = (who: Client, bytes: Buffer, name = 'lamp.png') =>
    who.call<{ id: string; detail: string }>('POST', `/api/items/${id}/pictures?name=${name}`, {
      raw: bytes,
      headers: { 'content-type': 'application/octet-stream' },
    })
  const page = async () => (await owen.call<ItemPage>('GET', `/api/items/${id}`)).body
  test('are kept by those who keep the catalogue; the first stands for it; files go with them', async () => {
    expect((await add(owen, png('a'))).status).toBe(403)
    const one = (await add(leonie, png('a'))).body.id
    const two = (await add(leonie, png('b'), 'other.png')).body.id
    expect((await page()).pictures).toEqual([
      { id: one, name: 'lamp.png' },
      { id: two, name: 'other.png' },
    ])
    expect((await leonie.call('PUT', `/api/items/${id}/pictures/${two}`)).status).toBe(204)
    expect([(await page()).item.pictureId, (await page()).pictures.map((p) => p.id)]).toEqual([two, [two, one]])
    const shown = await fetch(`${rekko.url}/api/items/${id}/pictures/${two}`, { headers: { cookie: owen.cookie } })
    expect([shown.headers.get('content-type'), Buffer.from(await shown.arrayBuffer())]).toEqual(['image/png', png('b')])
    expect((await fetch(`${rekko.url}/api/items/${id}/pictures/${two}`)).status).toBe(401)
    expect((await owen.call('GET', `/api/items/${idOf('item', 'CP-QS-80')}/pictures/${two}`)).status).toBe(404)
    expect((await leonie.call('DELETE', `/api/items/${id}/pictures/${two}`)).status).toBe(204)
    expect((await page()).item.pictureId).toBe(one)
    await until('the file to go', async () => {
      const kept = await rekko.sql('select 1 from file where size = $1', [png('b').length])
      return kept.length === 1
    })
    expect((await leonie.call('DELETE', `/api/items/${id}/pictures/${two}`)).status).toBe(404)
  })
  test('a PDF, words, and a ninth are refused with a sentence', async () => {
    expect((await add(leonie, Buffer.from('%PDF-1.7 and more of it'))).body.detail).toContain('a PNG or a JPEG')
    expect((await add(leonie, Buffer.from('words'))).status).toBe(415)
    for (let n = (await page()).pictures.length; n < 8; n += 1)
      expect((await add(leonie, png(String(n)))).status).toBe(200)
    expect((await add(leonie, png('ninth'))).body.detail).toContain('at most 8 pictures')
  })
})
