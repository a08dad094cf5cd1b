import { parse } from 'csv-parse/sync'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { addDays } from '#core/base/day'
import { LISTS } from '#core/lists/definitions'
import { LIST_NAMES, type ListName } from '#core/lists/list'
import { recogniseColumns } from '#core/lists/read-rows'
import type { HeldView, ListView, PlanView } from '#shared/contract/lists'
import {
  fiscalYear,
  freeLine,
  raise,
  soundDraft,
  startRekko,
  TODAY,
  type Client,
  type Reply,
  type Rekko,
} from '../setup/rekko'

let rekko: Rekko
let admin: Client
let finance: Client
beforeAll(async () => {
  rekko = await startRekko()
  admin = await rekko.as('Harriet Voss')
  finance = await rekko.as('Greta Molin')
  // The bare organisation has everything but these.
  const rows = ['J-101|1|I-CP-UV-80A|UV lamp|2|84.5', 'J-101|2||Base plate|1.5|', 'J-103|A-7||Blue panel|3|210']
  const kept = await keep('parts', file('parts', 'Job|Part|Item|What|Quantity|Estimate for one', ...rows))
  expect(kept.body).toMatchObject({ changes: 3 })
  const rosa = 'rosa.castell@hallamere.example'
  const parts = [`${rosa}|buyer|4100||2198-01-31`, `${rosa}|receiver||Goods Yard|`, `${rosa}|receiver|4200||`]
  await keep('roles', file('roles', 'Person|Role|Department|Place|Until', ...parts))
  const days = [
    `${rosa}|own|1,250.5|2198-01-01|2198-01-31`,
    `${rosa}|own|0|2198-02-01|`,
    `${rosa}|deciding|9|2198-01-01|`,
  ]
  await keep('limits', file('limits', 'Person|Limit|Up to|From|Until', ...days))
  const reasons = ['Ask the Goods Yard first.|rejecting', 'As agreed.|all', 'Which job is it for?|asking']
  expect((await keep('reasons', file('reasons', 'Reason|For', ...reasons))).body).toMatchObject({ changes: 3 })
  const head = 'Fiscal year|Department|Account|Period|Stage|Number|What|Amount'
  const of = `${fiscalYear()}|4100|616`
  const before = [`${of}|1|spent||Waste|-12.5`, `${of}|2|committed|A-7|Skip|80`, `${of}|3|spent||Waste|7`]
  expect((await keep('opening', file('opening', head, ...before))).body).toMatchObject({ changes: 3 })
})
afterAll(async () => {
  await rekko.stop()
})

const keeperOf = (list: ListName) => (LISTS[list].right === 'keep budgets' || list === 'suppliers' ? finance : admin)
const see = async (list: ListName) => (await keeperOf(list).call<ListView>('GET', `/api/lists/${list}`)).body
const entry = async (list: ListName, key: string) =>
  (await see(list)).entries.find((e) => e.values[LISTS[list].key[0] ?? ''] === key)
/** A file as people write it: headings and rows, with bars between the cells. */
const file = (list: ListName, head: string, ...rows: string[]) => ({
  columns: recogniseColumns(LISTS[list], head.split('|')),
  cells: rows.map((r) => r.split('|')),
})
const plan = async (list: ListName, head: string, ...rows: string[]) =>
  (await keeperOf(list).call<PlanView>('POST', `/api/lists/${list}/plans`, { body: file(list, head, ...rows) })).body
interface Kept {
  version: number
  seq: number
  changes: number
  detail?: string
}
async function keep(
  list: ListName,
  given: ReturnType<typeof file>,
  o: { gone?: 'keep' | 'retire'; version?: number; who?: Client } = {},
): Promise<Reply<Kept>> {
  const version = o.version ?? (await see(list)).version
  const body = { ...given, source: 'list.csv', gone: o.gone ?? 'keep' }
  return (o.who ?? keeperOf(list)).call<Kept>('POST', `/api/lists/${list}/rows`, { body, version })
}
const undo = (list: ListName, kept: Kept) =>
  keeperOf(list).call<Kept>('DELETE', `/api/lists/${list}/changes/${kept.seq}`, { version: kept.version })
const cellsOf = async (list: ListName, as: 'csv' | 'xlsx') => {
  const bytes = Buffer.from(
    await (
      await fetch(`${rekko.url}/api/lists/${list}/file?as=${as}`, { headers: { cookie: keeperOf(list).cookie } })
    ).arrayBuffer(),
  )
  if (as === 'csv') return parse(bytes, { bom: true, relax_column_count: true }) as string[][]
  return (await admin.call<{ rows: string[][] }>('POST', '/api/line-files', { raw: bytes })).body.rows
}

describe.each(LIST_NAMES)('the list of %s', (list) => {
  test.each(['csv', 'xlsx'] as const)('goes out as %s and comes back unchanged', async (as) => {
    const [head = [], ...cells] = await cellsOf(list, as)
    const { entries } = await see(list)
    expect(entries.length).toBeGreaterThan(2)
    const body = { columns: recogniseColumns(LISTS[list], head), cells }
    const { counts } = (await keeperOf(list).call<PlanView>('POST', `/api/lists/${list}/plans`, { body })).body
    expect(counts).toEqual({ adds: 0, changes: 0, nothing: entries.length, refused: 0, gone: 0 })
    const kept = await keep(list, body, { gone: 'retire' })
    expect(kept.body).toMatchObject({ changes: 0, seq: null })
  })
  test('is kept by those whose right it is', async () => {
    const isCatalogue = LISTS[list].right === 'keep catalogue'
    for (const name of ['Owen Marsh', 'Leonie Farrow', 'Signe Aalto']) {
      const allowed = isCatalogue && name === 'Leonie Farrow'
      const { status } = await (await rekko.as(name)).call('GET', `/api/lists/${list}`)
      expect(status, name).toBe(allowed ? 200 : 403)
    }
    const other = keeperOf(list) === admin ? finance : admin
    expect((await other.call('GET', `/api/lists/${list}`)).status).toBe(403)
    expect((await keep(list, file(list, 'Name', 'x'), { who: other })).status).toBe(403)
  })
})

describe('people from a file', () => {
  const head = 'E-mail|Name|Department|Reports to|Own limit|Roles|Also for'
  const OWEN = 'owen.marsh@hallamere.example'
  test('come whole, with managers of the same file, change with what was before, and go by the event', async () => {
    const { name, values } = (await see('departments')).entries.map((e) => ({ name: e.values.name, ...e }))[0] ?? {}
    const rows = [
      `ida.berg@hallamere.example|Ida Berg|${name ?? ''}|jon.ode@hallamere.example|300||`,
      `jon.ode@hallamere.example|Jon Ode|${values?.costCentre ?? ''}|${OWEN}|1,500.50|receiver; buyer|`,
    ]
    expect((await plan('people', head, ...rows)).counts).toMatchObject({ adds: 2, refused: 0 })
    const kept = await keep('people', file('people', head, ...rows))
    expect(kept.body).toMatchObject({ changes: 2 })
    expect((await entry('people', 'ida.berg@hallamere.example'))?.values).toMatchObject({
      manager: 'jon.ode@hallamere.example',
      ownLimit: '300',
    })
    expect((await entry('people', 'jon.ode@hallamere.example'))?.values).toMatchObject({
      roles: 'buyer, receiver',
      ownLimit: '1500.5',
    })
    const next = await keep('people', file('people', 'Email|Own limit', 'IDA.BERG@hallamere.example|450'))
    const [event] = await rekko.sql<{ after: { changes: { before: object; after: object }[] } }>(
      'select after from event where seq = $1',
      [next.body.seq],
    )
    expect(event?.after.changes).toMatchObject([{ before: { ownLimit: '300' }, after: { ownLimit: '450' } }])
    // The first event's entries were changed since; the second's were not.
    const early = await undo('people', { ...kept.body, version: next.body.version })
    expect([early.status, early.body.detail]).toEqual([409, expect.stringContaining('changed since')])
    const back = await undo('people', next.body)
    expect((await entry('people', 'ida.berg@hallamere.example'))?.values.ownLimit).toBe('300')
    const again = await undo('people', { ...next.body, version: back.body.version })
    expect(again.body.detail).toContain('taken back already')
    expect((await undo('people', { ...kept.body, version: back.body.version })).status).toBe(200)
    expect(await entry('people', 'ida.berg@hallamere.example')).toBeUndefined()
  })
  test('one row that is wrong refuses all, with its number; nothing is written', async () => {
    const before = await see('people')
    const rows = [
      'a.sound@hallamere.example|A Sound|Water Systems|||',
      'wrong|No Mail|Nowhere|||',
      'a.sound@hallamere.example|Twice|Water Systems|||',
    ]
    const kept = await keep('people', file('people', head, ...rows))
    expect(kept.status).toBe(409)
    expect(kept.body.detail).toContain('Row 3: “wrong” is no e-mail address.')
    expect(kept.body.detail).toContain('Row 4: It says the same key as row 2.')
    expect(await see('people')).toEqual(before)
  })
  test('while it is set up nobody changes their own limits or roles; and nobody stands above themselves', async () => {
    const own = await keep(
      'people',
      file('people', 'Email|Limit for ordering', 'harriet.voss@hallamere.example|999999'),
    )
    expect([own.status, own.body.detail]).toEqual([409, expect.stringContaining('another administrator')])
    const circle = await plan('people', 'Email|Manager', 'ines.adeyemi@hallamere.example|owen.marsh@hallamere.example')
    expect(circle.rows[0]?.reasons).toMatchObject([{ code: 'circle' }])
  })
  test('of two at the same moment one is told', async () => {
    const { version } = await see('people')
    const change = (job: string) =>
      keep('people', file('people', 'Email|Job', `priya.lindqvist@hallamere.example|${job}`), { version })
    const both = await Promise.all([change('One'), change('Two')])
    expect(both.map((r) => r.status).sort()).toEqual([200, 412])
  })
})

describe('limits, once something was sent', () => {
  const held = async (who: Client) =>
    (await who.call<{ held: HeldView[] }>('GET', '/api/set-up')).body.held.map(({ id, ...h }) => ({ id, ...h }))
  const confirm = (who: Client, id = '') => who.call('POST', `/api/held-changes/${id}/confirmations`)
  const limitOf = async (who: string) => (await entry('people', `${who}@hallamere.example`))?.values.decidingLimit
  test('wait for a second person: never whoever asked; finance where there is no other administrator', async () => {
    expect((await raise(await rekko.as('Owen Marsh'), soundDraft([], { lines: [freeLine('10')] }))).status).toBe(200)
    const change = 'Email|What they do|Limit for deciding'
    const before = await limitOf('ines.adeyemi')
    const kept = await keep('people', file('people', change, 'ines.adeyemi@hallamere.example|Lead technician|9,000'))
    // What needs nobody else holds at once.
    expect(kept.body).toMatchObject({ changes: 1, held: 1 })
    expect((await entry('people', 'ines.adeyemi@hallamere.example'))?.values).toMatchObject({
      jobTitle: 'Lead technician',
      decidingLimit: before,
    })
    const [mine] = await held(admin)
    expect(mine).toMatchObject({ name: 'Ines Adeyemi', by: 'Harriet Voss', mayConfirm: false, isOwn: true })
    expect([mine?.before, mine?.after]).toEqual([{ decidingLimit: before }, { decidingLimit: '9000' }])
    expect((await confirm(admin, mine?.id)).body.detail).toContain('does not confirm it')
    expect((await confirm(await rekko.as('Leonie Farrow'), mine?.id)).status).toBe(403)
    const [theirs] = await held(finance)
    expect(theirs).toMatchObject({ id: mine?.id, mayConfirm: true })
    const both = await Promise.all([confirm(finance, mine?.id), confirm(finance, mine?.id)])
    expect(both.map((r) => r.status).sort()).toEqual([200, 404])
    expect([await limitOf('ines.adeyemi'), await held(admin)]).toEqual(['9000', []])
    const [event] = await rekko.sql<{ after: object }>(
      "select after from event where type = 'list changed' order by seq desc limit 1",
    )
    expect(event?.after).toMatchObject({ askedBy: 'Harriet Voss' })
  })
  test('taking it back waits too; what was changed since is not confirmed; what is dropped stays', async () => {
    const { changes } = (await admin.call<{ changes: { seq: number }[] }>('GET', '/api/lists/people/changes')).body
    const back = await undo('people', { ...(await see('people')), seq: changes[0]?.seq ?? 0, changes: 0 })
    expect(back.body).toMatchObject({ changes: 0, held: 1 })
    expect(await limitOf('ines.adeyemi')).toBe('9000')
    await rekko.sql("update person set deciding_limit = 8000 where email = 'ines.adeyemi@hallamere.example'")
    const [waits] = await held(finance)
    expect((await confirm(finance, waits?.id)).body.detail).toContain('changed since')
    expect((await finance.call('DELETE', `/api/held-changes/${waits?.id ?? ''}`)).status).toBe(204)
    expect([await limitOf('ines.adeyemi'), await held(admin)]).toEqual(['8000', []])
  })
  test('one’s own roles and limits wait for another too', async () => {
    const own = await keep(
      'people',
      file('people', 'Email|Roles', 'harriet.voss@hallamere.example|administrator, auditor'),
    )
    expect(own.body).toMatchObject({ changes: 0, held: 1 })
    expect((await entry('people', 'harriet.voss@hallamere.example'))?.values.roles).toBe('buyer, administrator')
    const [waits] = await held(admin)
    expect((await admin.call('DELETE', `/api/held-changes/${waits?.id ?? ''}`)).status).toBe(204)
  })
})

describe('what is retired', () => {
  test('is offered no more, and comes back by the event', async () => {
    const head = 'Name|Street|Town|Country'
    const { body } = await keep('places', file('places', head, 'Pump room 9|Quay 9|Hallamere|DE'))
    const owen = await rekko.as('Owen Marsh')
    const offered = async () =>
      (await owen.call<{ shipTos: { name: string; id: string }[] }>('GET', '/api/raise-choices')).body.shipTos
    const room = (await offered()).find((s) => s.name === 'Pump room 9')
    expect(room).toBeDefined()
    await raise(owen, soundDraft([], { shipToId: room?.id ?? '', lines: [freeLine('10')] }))
    // Something names it now: taken back, it is retired instead of taken away.
    const back = await undo('places', body)
    expect((await entry('places', 'Pump room 9'))?.retired).toBe(true)
    expect((await offered()).some((s) => s.name === 'Pump room 9')).toBe(false)
    expect((await undo('places', back.body)).status).toBe(200)
    expect((await offered()).some((s) => s.name === 'Pump room 9')).toBe(true)
  })
  test('are accounts that a file does not name, where that is chosen', async () => {
    const { entries } = await see('accounts')
    const [first] = entries
    const given = file('accounts', 'Code|Name', `${first?.values.code ?? ''}|${first?.values.name ?? ''}`)
    const { body } = await keep('accounts', given, { gone: 'retire' })
    expect(body.changes).toBe(entries.length - 1)
    expect((await see('accounts')).entries.filter((e) => !e.retired)).toHaveLength(1)
    await undo('accounts', body)
    expect((await see('accounts')).entries).toEqual(entries)
  })
  test('department may not be raised for', async () => {
    const owen = await rekko.as('Owen Marsh')
    const name = async () =>
      (await owen.call<{ departments: { name: string }[] }>('GET', '/api/raise-choices')).body.departments.map(
        (d) => d.name,
      )
    const water = (await see('departments')).entries.find((e) => e.values.name === 'Water Systems')?.values.costCentre
    const { body } = await keep('departments', file('departments', 'Code|Retired', `${water ?? ''}|yes`))
    expect(await name()).not.toContain('Water Systems')
    await undo('departments', body)
    expect(await name()).toContain('Water Systems')
  })
})

describe('money and numbers', () => {
  test('an amount that changes is spread evenly; what the ledger holds stays', async () => {
    const line = (await see('budget-lines')).entries[0]
    const { year, department, account, project } = line?.values ?? {}
    const of = [year, department, account, project].join('|')
    const stages = () =>
      rekko.sql('select period, budgeted, spent from budget_balance where budget_line_id = $1 order by period', [
        line?.id,
      ])
    const before = await stages()
    const { body } = await keep(
      'budget-lines',
      file('budget-lines', 'Year|Department|Account|Project|Amount', `${of}|100`),
    )
    const after = (await stages()) as { budgeted: string; spent: string }[]
    expect(after.map((s) => Number(s.budgeted))).toEqual([
      8.34,
      8.34,
      8.34,
      8.34,
      ...Array.from({ length: 8 }, () => 8.33),
    ])
    expect(after.map((s) => s.spent)).toEqual((before as { spent: string }[]).map((s) => s.spent))
    await undo('budget-lines', body)
    expect((await see('budget-lines')).entries[0]).toEqual(line)
  })
  test('two suppliers with one tax number are refused with a sentence', async () => {
    const head = 'Number|Name|Currency|Tax number'
    const r = await keep('suppliers', file('suppliers', head, 'N1|One|EUR|DE 811 907 980', 'N2|Two|EUR|DE811907980'))
    expect([r.status, r.body.detail]).toEqual([409, expect.stringContaining('a tax number')])
    expect(await entry('suppliers', 'N1')).toBeUndefined()
  })
  test('what looks like a formula is a text, on the way in and out', async () => {
    const { body } = await keep(
      'suppliers',
      file('suppliers', 'Number|Name|Currency|Phone', 'N3|=1+1 Pumps|EUR|+49 40 1'),
    )
    const cells = (await cellsOf('suppliers', 'csv')).find((r) => r[0] === 'N3')
    expect(cells?.slice(0, 2)).toEqual(['N3', "'=1+1 Pumps"])
    const [head = [], ...all] = await cellsOf('suppliers', 'csv')
    const again = await finance.call<PlanView>('POST', '/api/lists/suppliers/plans', {
      body: { columns: recogniseColumns(LISTS.suppliers, head), cells: all },
    })
    expect(again.body.counts).toMatchObject({ adds: 0, changes: 0, refused: 0 })
    await undo('suppliers', body)
  })
})

test('five thousand rows come in one transaction, and go again', async () => {
  const rows = Array.from({ length: 5000 }, (_, i) => `X${i}|Account ${i}`)
  const { body, status } = await keep('accounts', file('accounts', 'Code|Name', ...rows))
  expect([status, body.changes]).toEqual([200, 5000])
  const more = await keep('accounts', file('accounts', 'Code|Name', ...rows, 'X5000|One more'))
  expect(more.status).toBe(422)
  expect((await undo('accounts', body)).body.changes).toBe(5000)
  expect((await see('accounts')).entries.some((e) => e.values.code === 'X1')).toBe(false)
})

describe('items from a price list', () => {
  const head = 'Item|Name|Category|Supplier|Part number|Unit|Price|Currency|Tax'
  const seen = async (number: string) => (await entry('items', number))?.values
  const pricesOf = (number: string) =>
    rekko.sql<{ price: string; from: string | null; until: string | null }>(
      `select trim_scale(p.unit_price)::text as price, p.valid_from::text as from, p.valid_until::text as until
       from item_price p join item i on i.id = p.item_id where i.number = $1
       order by p.valid_from nulls first, p.from_quantity`,
      [number],
    )
  const day = (ago: number) => addDays(TODAY, -ago)

  test('come with prices from today; another price ends the old one yesterday and is found from today', async () => {
    const [, , supplier] = (await see('suppliers')).entries
    const called = String(supplier?.values.number)
    const kept = await keep(
      'items',
      file('items', head, `Z-1|Tidal hose|Pump parts|${called}|TH-1|piece|4.20; 10: 3.90|EUR|S`),
    )
    expect(kept.body).toMatchObject({ changes: 1 })
    expect(await seen('Z-1')).toMatchObject({ unit: 'H87', prices: '1: 4.2; 10: 3.9', supplier: called })
    // Yesterday's price, as if it had been there for a month.
    await rekko.sql(
      "update item_price set valid_from = $1 where item_id = (select id from item where number = 'Z-1')",
      [day(30)],
    )
    await keep('items', file('items', 'Supplier|Part number|Price', `${called}|th-1|4.50`))
    expect(await pricesOf('Z-1')).toEqual([
      { price: '4.2', from: day(30), until: day(1) },
      { price: '3.9', from: day(30), until: day(1) },
      { price: '4.5', from: day(0), until: null },
    ])
    // Changed once more on the same day: what never held on an earlier day is written over.
    await keep('items', file('items', 'Item|Price', 'Z-1|4.60'))
    expect((await pricesOf('Z-1')).map((p) => p.price)).toEqual(['4.2', '3.9', '4.6'])
    const found = await (
      await rekko.as('Owen Marsh')
    ).call<{ items: { number: string }[] }>('GET', '/api/items?words=tidal')
    expect(found.body.items.map((i) => i.number)).toEqual(['Z-1'])
  })
  test('a price that is known to follow keeps its day: what changes before it ends there', async () => {
    await rekko.sql(
      `insert into item_price (item_id, from_quantity, unit_price, valid_from)
       select id, 1, 9, $1 from item where number = 'Z-1'`,
      [day(-40)],
    )
    await keep('items', file('items', 'Item|Price', 'Z-1|4.70'))
    expect((await pricesOf('Z-1')).slice(-2)).toEqual([
      { price: '4.7', from: day(0), until: day(-39) },
      { price: '9', from: day(-40), until: null },
    ])
    expect((await seen('Z-1'))?.prices).toBe('1: 4.7')
  })
  test('retired it is found no more; its own number still names it, with what takes its place', async () => {
    const next = (await see('items')).entries.find((e) => !e.retired && e.values.number !== 'Z-1')?.values.number ?? ''
    await keep('items', file('items', 'Item|Successor|Retired', `Z-1|${next}|yes`))
    const owen = await rekko.as('Owen Marsh')
    const { body } = await owen.call<{ items: unknown[] }>('GET', '/api/items?words=tidal')
    expect(body.items).toEqual([])
    const match = await owen.call<{ items: { facts: { retired: boolean; successor: string } }[] }>(
      'POST',
      '/api/items/match',
      { body: { numbers: ['z-1'] } },
    )
    expect(match.body.items[0]?.facts).toMatchObject({ retired: true, successor: expect.stringContaining(next) })
  })
  test('what gets dearer is told before it is taken, at last year’s quantities', async () => {
    const priya = await rekko.as('Priya Lindqvist')
    const leonie = await rekko.as('Leonie Farrow')
    const draft = soundDraft([{ part: 'FL-GLM-100', quantity: 7, account: '620' }], {}, 'Animal Care')
    expect((await raise(priya, draft)).body.state).toBe('approved')
    const parts = draft.lines.map((l) => ({ lineId: l.id, quantity: null }))
    const tray = await leonie.call<{ orderId: string }>('POST', '/api/trays', {
      body: { orderId: null, supplierId: null, parts },
    })
    const issued = await leonie.call('POST', `/api/orders/${tray.body.orderId}/issue`, { version: 1 })
    expect(issued.status).toBe(200)
    const item = (await see('items')).entries.find((e) => e.values.supplierPart === 'FL-GLM-100')?.values
    const dearer = (item?.prices ?? '').replace(/: ([\d.]+)/g, (_, price: string) => `: ${Number(price) + 1}`)
    const found = await plan('items', 'Item|Prices', `${item?.number ?? ''}|${dearer}`)
    expect(item?.per).toBe('1')
    expect(found.dearer).toEqual([{ currency: 'EUR', amount: '7.00' }])
    expect(found.rows[0]?.dearer).toBe('7.00')
  })
  test('one that is typed as new and is there already is refused instead of changed', async () => {
    const { version } = await see('items')
    const body = { ...file('items', 'Item|Name', 'Z-1|Other'), source: '', gone: 'keep', onlyNew: true }
    const reply = await admin.call<Kept>('POST', '/api/lists/items/rows', { body, version })
    expect([reply.status, reply.body.detail]).toEqual([409, expect.stringContaining('already')])
  })
})

test('items are found by what their supplier is called now', async () => {
  const found = async (words: string) =>
    (
      await rekko.sql(
        `select 1 from item i join supplier s on s.id = i.supplier_id
         where s.number = 'S-1032' and search_text like $1`,
        [`%${words}%`],
      )
    ).length
  const all = await found('lowmarsh')
  expect(all).toBeGreaterThan(0)
  const kept = await keep('suppliers', file('suppliers', 'Number|Name', 'S-1032|Whitlow Ice'))
  expect([await found('whitlow'), await found('lowmarsh')]).toEqual([all, 0])
  await undo('suppliers', kept.body)
  expect([await found('whitlow'), await found('lowmarsh')]).toEqual([0, all])
})

describe('rates and taxes', () => {
  test('one of our own currency stays one, whatever a rate says', async () => {
    const kept = await keep('rates', file('rates', 'Day|Currency|Rate', '2026-01-05|EUR|2'))
    const owen = await rekko.as('Owen Marsh')
    const { body } = await owen.call<{ perBase: [string, string][] }>('GET', '/api/draft-facts')
    expect(body.perBase.filter(([c]) => c === 'EUR')).toEqual([['EUR', '1']])
    await undo('rates', kept.body)
  })
  test('reference rates as XML are read as rows, kept by day, and count from then on', async () => {
    const xml = `<Envelope><Cube><Cube time="2026-01-02"><Cube currency="ISK" rate="142.25"/></Cube></Cube></Envelope>`
    const sheet = await finance.call<{ rows: string[][] }>('POST', '/api/line-files', { raw: Buffer.from(xml) })
    const [head = [], ...cells] = sheet.body.rows
    const kept = await keep('rates', { columns: recogniseColumns(LISTS.rates, head), cells })
    expect(kept.body).toMatchObject({ changes: 1 })
    const back = await undo('rates', kept.body)
    expect(back.status).toBe(200)
    expect((await see('rates')).entries.some((e) => e.values.currency === 'ISK')).toBe(false)
  })
  test('a retired code is offered no more and stays where it was used', async () => {
    await keep('taxes', file('taxes', 'Code|Retired', 'R|yes'))
    const owen = await rekko.as('Owen Marsh')
    const { body } = await owen.call<{ taxCodes: { code: string; retired: boolean }[] }>('GET', '/api/draft-facts')
    expect(body.taxCodes.find((t) => t.code === 'R')?.retired).toBe(true)
    await keep('taxes', file('taxes', 'Code|Retired', 'R|no'))
  })
  test('a holiday that is worked after all counts no more', async () => {
    const [first] = (await see('holidays')).entries
    await keep('holidays', file('holidays', 'Day|Nobody works', `${first?.values.day ?? ''}|no`))
    expect((await entry('holidays', first?.values.day ?? ''))?.retired).toBe(true)
  })
})
