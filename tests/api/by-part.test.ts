import { afterAll, beforeAll, expect, test } from 'vitest'
import { addDays } from '#core/base/day'
import { LISTS } from '#core/lists/definitions'
import type { ListName } from '#core/lists/list'
import { recogniseColumns } from '#core/lists/read-rows'
import type { DraftFactsWire } from '#shared/contract/draft-facts'
import type { HeldView, ListView } from '#shared/contract/lists'
import {
  budgetLineId,
  disagreements,
  fiscalYear,
  freeLine,
  idOf,
  personId,
  raise,
  soundDraft,
  startRekko,
  TODAY,
  type Client,
  type Rekko,
} from '../setup/rekko'

/** What is held for a part of the organisation or for a time, and what weighs on budgets from before. */
let rekko: Rekko
let harriet: Client, greta: Client, owen: Client, rosa: Client
beforeAll(async () => {
  rekko = await startRekko()
  ;[harriet, greta, owen, rosa] = (await Promise.all(
    ['Harriet Voss', 'Greta Molin', 'Owen Marsh', 'Rosa Castell'].map(rekko.as),
  )) as [Client, Client, Client, Client]
})
afterAll(() => rekko.stop())

interface Kept {
  version: number
  seq: number
  changes: number
  held: number
  detail: string
}
const keeperOf = (list: ListName) => (list === 'opening' ? greta : harriet)
const see = async (list: ListName) => (await keeperOf(list).call<ListView>('GET', `/api/lists/${list}`)).body
async function keep(list: ListName, head: string, ...rows: string[]) {
  const columns = recogniseColumns(LISTS[list], head.split('|'))
  const body = { columns, cells: rows.map((r) => r.split('|')), source: 'a.csv', gone: 'keep' }
  const { version } = await see(list)
  return keeperOf(list).call<Kept>('POST', `/api/lists/${list}/rows`, { body, version })
}
const undo = (list: ListName, kept: Kept) =>
  keeperOf(list).call<Kept>('DELETE', `/api/lists/${list}/changes/${kept.seq}`, { version: kept.version })
const yesterday = addDays(TODAY, -1)

test('whoever buys for a place sees, lays and issues what goes there, as long as it holds', async () => {
  const to = async (place: string) =>
    (await raise(owen, soundDraft([], { shipToId: idOf('ship-to', place), lines: [freeLine('20')] }))).id
  const [yard, hall] = [await to('Goods Yard'), await to('Pump Hall, Quay Gate')]
  const lineOf = async (id: string) =>
    (await rekko.sql<{ id: string }>('select id from requisition_line where requisition_id = $1', [id]))[0]?.id
  const onDesk = async () => {
    const reply = await rosa.call<{ lines: { requisitionId: string }[] }>('GET', '/api/desk')
    return reply.status === 200 ? reply.body.lines.map((l) => l.requisitionId) : reply.status
  }
  const lay = async (id: string) =>
    rosa.call<{ orderId: string }>('POST', '/api/trays', {
      body: { orderId: null, supplierId: null, parts: [{ lineId: await lineOf(id), quantity: null }] },
    })
  expect(await onDesk()).toBe(403)
  const head = 'Person|Role|Place|From|Until'
  const given = await keep('roles', head, `rosa.castell@hallamere.example|buyer|Goods Yard|${TODAY}|`)
  expect(given.body).toMatchObject({ changes: 1, held: 0 })
  expect(await onDesk()).toEqual([yard])
  expect((await rosa.call('GET', `/api/requisitions/${hall}`)).status).toBe(404)
  expect((await lay(hall)).status).toBe(404)
  expect((await lay(yard)).status).toBe(200)
  // A step that asks a role of the whole organisation asks nobody who holds it for a part.
  const holders = async (departmentId: string | null) => {
    await rekko.sql('update approval_step set who = $1 where id = (select min(id::text)::uuid from approval_step)', [
      JSON.stringify({ by: 'role', role: 'buyer', departmentId }),
    ])
    const { policy } = (await owen.call<DraftFactsWire>('GET', '/api/draft-facts')).body
    return policy.rules.flatMap((r) => r.steps.flatMap(({ who }) => (who.by === 'role' ? who.holders : [])))
  }
  const [before] = await rekko.sql<{ who: object }>('select who from approval_step order by id::text limit 1')
  for (const departmentId of [null, idOf('department', 'Water Systems')]) {
    const asked = await holders(departmentId)
    expect(asked).toContain(personId('Leonie Farrow'))
    expect(asked).not.toContain(personId('Rosa Castell'))
  }
  await rekko.sql('update approval_step set who = $1 where id = (select min(id::text)::uuid from approval_step)', [
    JSON.stringify(before?.who),
  ])
  // Over since yesterday, it gives nothing.
  await keep('roles', head, `rosa.castell@hallamere.example|buyer|Goods Yard|${yesterday}|${yesterday}`)
  expect(await onDesk()).toBe(403)
  expect((await rosa.call('GET', `/api/requisitions/${yard}`)).status).toBe(404)
  // For a department as well, and taken back.
  const more = await keep('roles', 'Person|Role|Department', 'rosa.castell@hallamere.example|buyer|4100')
  expect(await onDesk()).toEqual([hall])
  expect((await undo('roles', more.body)).status).toBe(200)
  expect(await onDesk()).toBe(403)
})

test('a role is for one part, and nobody gives themselves one', async () => {
  const refusal = async (row: string) =>
    (await keep('roles', 'Person|Role|Department|Place|From|Until', row)).body.detail
  const rosas = 'rosa.castell@hallamere.example|buyer'
  expect(await refusal(`${rosas}|4100|Goods Yard||`)).toContain('say one of the two')
  expect(await refusal(`${rosas}||||`)).toContain('say one of the two')
  expect(await refusal(`${rosas}|4100||${TODAY}|${yesterday}`)).toContain('ends before it begins')
  expect(await refusal('rosa.castell@hallamere.example|finance|4100|||')).toContain('is none of buyer, receiver')
  expect(await refusal('harriet.voss@hallamere.example|receiver|4100|||')).toContain('by another administrator')
})

test('a limit for a time waits for a second person, counts from its first day to its last, and ends', async () => {
  const facts = async () => (await owen.call<DraftFactsWire>('GET', '/api/draft-facts')).body
  const limitOf = async () => (await facts()).people.find((p) => p.name === 'Ines Adeyemi')?.decidingLimit?.amount
  const heldNow = async () => (await greta.call<{ held: HeldView[] }>('GET', '/api/set-up')).body.held
  const confirm = async () => {
    for (const h of await heldNow())
      expect((await greta.call('POST', `/api/held-changes/${h.id}/confirmations`)).status).toBe(200)
  }
  const head = 'Person|Limit|Up to|From|Until'
  const at = (amount: string, from: string, until = '') =>
    keep('limits', head, `ines.adeyemi@hallamere.example|deciding|${amount}|${from}|${until}`)
  expect((await at('4,000', addDays(TODAY, -20))).body).toMatchObject({ changes: 1, held: 1 })
  expect([await limitOf(), (await heldNow())[0]?.name]).toEqual(['1000.00', 'Ines Adeyemi'])
  await confirm()
  expect(await limitOf()).toBe('4000.00')
  // Taken back before anybody confirmed it, nothing of it waits any more.
  const soon = await at('9,000', addDays(TODAY, 40))
  expect((await undo('limits', soon.body)).status).toBe(200)
  expect(await rekko.sql("select 1 from held_change where list = 'limits'")).toEqual([])
  // The one that began last counts; one that has not begun, or is over, does not.
  await at('6,000', yesterday)
  await at('7,000', addDays(TODAY, 1))
  await at('8,000', addDays(TODAY, -5), yesterday)
  await confirm()
  expect(await limitOf()).toBe('6000.00')
  const sent = await raise(owen, soundDraft([], { lines: [freeLine('1200')] }))
  const [seat] = await rekko.sql<{ name: string; n: number }>(
    `select min(p.name) as name, count(*)::int as n from approval_seat s join person p on p.id = s.actor_id
     where s.document_id = $1`,
    [sent.id],
  )
  expect(seat).toEqual({ name: 'Ines Adeyemi', n: 1 })
  // Lowered, it waits as well; ended, the limit that is always hers counts again.
  await at('6,000', yesterday, TODAY)
  expect(await limitOf()).toBe('6000.00')
  await confirm()
  await at('6,000', yesterday, yesterday)
  await at('4,000', addDays(TODAY, -20), addDays(TODAY, -10))
  await confirm()
  expect(await limitOf()).toBe('1000.00')
})

test('one’s own place comes before the department’s, for the own department alone', async () => {
  const usual = async () =>
    (
      await rosa.call<{ departments: { name: string; usualShipToId: string | null }[] }>('GET', '/api/raise-choices')
    ).body.departments.map((d) => d.usualShipToId)
  const before = await usual()
  await keep(
    'people',
    'E-mail|Usual place|Numbers and dates as in',
    'rosa.castell@hallamere.example|Goods Yard|germany',
  )
  expect(await usual()).toEqual([idOf('ship-to', 'Goods Yard'), ...before.slice(1)])
  expect((await rosa.call<{ locale: string }>('GET', '/api/profile')).body.locale).toBe('de-DE')
})

test('what is from before weighs on its budget line until it is over, and is never taken away', async () => {
  const line = budgetLineId('Water Systems', '616', fiscalYear())
  const stands = async () => {
    const [sum] = await rekko.sql<{ s: string; c: string; n: number }>(
      `select sum(spent)::numeric(20,2)::text as s, sum(committed)::numeric(20,2)::text as c,
         (select orders_behind from budget_line where id = $1) as n from budget_balance where budget_line_id = $1`,
      [line],
    )
    expect(await disagreements(rekko)).toEqual([])
    return [sum?.s, sum?.c, sum?.n]
  }
  const head = 'Fiscal year|Department|Account|Period|Stage|Number|Supplier|What|Amount|Over'
  const of = `${fiscalYear()}|4100|616`
  const first = await stands()
  const kept = await keep(
    'opening',
    head,
    `${of}|2|spent|||Waste until June|1,250.40|`,
    `${of}|5|committed|4500-77||Skip, yearly|300|no`,
  )
  expect(kept.body).toMatchObject({ changes: 2 })
  const plus = (text: string | undefined, more: string) => (Number(text) + Number(more)).toFixed(2)
  expect(await stands()).toEqual([
    plus(first[0] as string, '1250.40'),
    plus(first[1] as string, '300'),
    Number(first[2]) + 1,
  ])
  // Seen in Budgets, by what it is called elsewhere.
  const { entries } = (
    await greta.call<{ entries: { documentKind: string; number: string | null; title: string }[] }>(
      'GET',
      `/api/budgets/${line}/entries`,
    )
  ).body
  expect(entries.filter((e) => e.documentKind === 'opening').map((e) => [e.number, e.title])).toEqual([
    ['4500-77', 'Skip, yearly'],
    [null, 'Waste until June'],
  ])
  // Less of it, over, and back again; taken back it is over, since it was felt.
  await keep('opening', head, `${of}|5|committed|4500-77||Skip, yearly|120.55|no`)
  expect((await stands())[1]).toBe(plus(first[1] as string, '120.55'))
  await keep('opening', head, `${of}|5|committed|4500-77||Skip, yearly|120.55|yes`)
  expect((await stands()).slice(1)).toEqual(first.slice(1))
  const again = await keep('opening', head, `${of}|6|committed|4500-78||Net|75|no`)
  expect((await undo('opening', again.body)).status).toBe(200)
  expect((await stands()).slice(1)).toEqual(first.slice(1))
  expect((await see('opening')).entries.map((e) => [e.values.number, e.values.over])).toEqual([
    ['', 'no'],
    ['4500-77', 'yes'],
    ['4500-78', 'yes'],
  ])
  // A line that is not there is told with its row, before anything is written.
  const wrong = await keep('opening', head, `${of}|7|spent|||Ok|5|`, `${fiscalYear()}|4100|999|7|spent|||No|5|`)
  expect(wrong.body.detail).toContain('Row 3')
  const outside = await keep('opening', head, `1999|4100|616|7|spent|||No|5|`)
  expect(outside.body.detail).toContain('There is no budget line “1999 4100 616”')
  expect((await keep('opening', head, `${of}|7|committed|||No number|5|`)).body.detail).toContain(
    'its number elsewhere',
  )
})
