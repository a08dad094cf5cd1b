import { afterAll, beforeAll, expect, test } from 'vitest'
import type { LaidView, ListView, PlanView } from '#shared/contract/lists'
import { brokenRules } from '../setup/invariants'
import { startRekko, until, type Client, type Rekko } from '../setup/rekko'

let rekko: Rekko
let leonie: Client, harriet: Client
beforeAll(async () => {
  rekko = await startRekko()
  leonie = await rekko.as('Leonie Farrow')
  harriet = await rekko.as('Harriet Voss')
})
afterAll(() => rekko.stop())

const HEAD = 'Item;Name;Category;Supplier;Their number;Price;Currency;Tax'
const ROWS = 5300
const row = (i: number, price = '1,25', part = `L-${i}`) =>
  `LONG-${i};Long thing ${i};Pump parts;S-1001;${part};${price};EUR;S`
const csv = (rows: readonly string[]) => Buffer.from([HEAD, ...rows].join('\r\n'))
const all = Array.from({ length: ROWS }, (_, i) => row(i))
const lay = (who: Client, raw: Buffer, list = 'items') =>
  who.call<{ id: string; detail: string }>('POST', `/api/lists/${list}/files?name=prices.csv`, {
    raw,
    headers: { 'content-type': 'application/octet-stream' },
  })
const see = async (id: string, who = leonie) => (await who.call<LaidView>('GET', `/api/lists/items/files/${id}`)).body
const at = async (id: string, ...states: LaidView['state'][]) => {
  let last: LaidView | null = null
  await until(
    `the file is ${states.join(' or ')}`,
    async () => {
      last = await see(id)
      return states.includes(last.state)
    },
    90,
  )
  return last as unknown as LaidView
}
const look = (id: string, columns: readonly (string | null)[]) =>
  leonie.call<{ detail: string }>('POST', `/api/lists/items/files/${id}/looks`, { body: { columns } })
const take = (id: string) => leonie.call<{ detail: string }>('POST', `/api/lists/items/files/${id}/takings`)
const leave = (id: string) => leonie.call('DELETE', `/api/lists/items/files/${id}`)
const kept = async () =>
  Number((await rekko.sql<{ n: string }>("select count(*) as n from item where number like 'LONG-%'"))[0]?.n)
/** Lays a file, looks at it by the columns as they were recognised, and says what it would do. */
async function looked(rows: readonly string[]): Promise<LaidView> {
  const { id } = (await lay(leonie, csv(rows))).body
  const { columns } = await at(id, 'read')
  expect((await look(id, columns)).status).toBe(204)
  return at(id, 'looked at')
}

test('a long file is read, looked at, taken whole, brought again unchanged, changed, and taken back', async () => {
  const first = await looked(all)
  expect(first).toMatchObject({
    rows: ROWS,
    looked: ROWS,
    counts: { adds: ROWS, changes: 0, nothing: 0, refused: 0 },
    columns: ['number', 'name', 'category', 'supplier', 'supplierPart', 'prices', 'currency', 'tax'],
  })
  expect(await kept()).toBe(0)
  // One at a time, and it is found again.
  expect(await lay(leonie, csv(all))).toMatchObject({ status: 409 })
  expect((await leonie.call<{ file: LaidView }>('GET', '/api/lists/items/files')).body.file.id).toBe(first.id)
  // It is whoever laid it aside's own.
  expect((await harriet.call('GET', `/api/lists/items/files/${first.id}`)).status).toBe(404)

  expect((await take(first.id)).status).toBe(204)
  expect([204, 409]).toContain((await take(first.id)).status)
  const taken = await at(first.id, 'taken')
  expect(await kept()).toBe(ROWS)
  const { changes } = (
    await leonie.call<{ changes: { seq: number; count: number; source: string }[] }>('GET', '/api/lists/items/changes')
  ).body
  expect(changes[0]).toMatchObject({ seq: taken.seq, count: ROWS, source: 'prices.csv' })
  expect(await leave(first.id)).toMatchObject({ status: 409 })

  const again = await looked(all)
  expect(again.counts).toMatchObject({ adds: 0, changes: 0, nothing: ROWS, refused: 0 })
  expect((await take(again.id)).body.detail).toBe('This file changes nothing.')
  await leave(again.id)

  const dearer = await looked(all.map((r, i) => (i % 1000 === 0 ? row(i, '2,50') : r)))
  expect(dearer.counts).toMatchObject({ adds: 0, changes: 6, nothing: ROWS - 6, refused: 0 })
  await take(dearer.id)
  await at(dearer.id, 'taken')
  const found = await leonie.call<ListView>('GET', '/api/lists/items?words=LONG-3000')
  expect(found.body.entries[0]?.values).toMatchObject({ number: 'LONG-3000', prices: '1: 2.5' })

  // What a later file changed is not taken back under it; the later one first.
  const { version } = (await leonie.call<ListView>('GET', '/api/lists/items?words=LONG-1')).body
  const undo = (seq: number | null, v: number) =>
    leonie.call('DELETE', `/api/lists/items/changes/${seq}`, { version: v })
  expect((await undo(taken.seq, version)).status).toBe(200)
  const refused = await at(first.id, 'taken')
  expect(refused.trouble).toContain('6 entries were changed since')
  const { body: told } = await leonie.call<{ notices: unknown[] }>('GET', '/api/notices')
  expect(JSON.stringify(told)).toContain('6 entries were changed since')
  const last = await see(dearer.id)
  expect((await undo(last.seq, version)).status).toBe(200)
  await at(dearer.id, 'left')
  expect((await undo(taken.seq, version + 1)).status).toBe(200)
  await at(first.id, 'left')
  expect(await kept()).toBe(0)
  expect(await brokenRules(rekko)).toEqual([])
}, 240_000)

test('what a long file does not name is retired with it where that is said, and comes back with it', async () => {
  const inUse = async () =>
    (await rekko.sql<{ number: string }>('select number from item where not retired order by number')).map(
      (i) => i.number,
    )
  const others = await inUse()
  const first = await looked(all)
  expect(first.counts.gone).toBe(others.length)
  await take(first.id)
  await at(first.id, 'taken')
  expect(await inUse()).toHaveLength(ROWS + others.length)
  // Exported some at a time, the list is whole and in order.
  const exported = await fetch(`${rekko.url}/api/lists/items/file?as=csv`, { headers: { cookie: leonie.cookie } })
  const names = (await exported.text()).split('\r\n').slice(1, -1)
  expect(names.filter((l) => l.startsWith('LONG-'))).toHaveLength(ROWS)

  const fewer = await looked(all.slice(7))
  expect(fewer.counts).toEqual({ adds: 0, changes: 0, nothing: ROWS - 7, refused: 0, gone: 7 + others.length })
  expect((await take(fewer.id)).status).toBe(409)
  const retire = await leonie.call('POST', `/api/lists/items/files/${fewer.id}/takings`, { body: { gone: 'retire' } })
  expect(retire.status).toBe(204)
  const { seq, counts } = await at(fewer.id, 'taken')
  expect(counts).toMatchObject({ changes: 7 + others.length, gone: 0 })
  expect(await inUse()).toEqual(
    all
      .slice(7)
      .map((r) => r.split(';')[0] ?? '')
      .sort(),
  )
  // A short file asks the same of it, without reading it whole.
  const columns = ['number', 'leadDays']
  const short = { columns, cells: [['LONG-7', '9']] }
  const plan = await leonie.call<PlanView>('POST', '/api/lists/items/plans', { body: short })
  expect(plan.body.counts).toMatchObject({ changes: 1, gone: ROWS - 8 })

  for (const back of [seq, first.id]) {
    const { version } = (await leonie.call<ListView>('GET', '/api/lists/items?words=LONG-1')).body
    const which = back === seq ? back : (await see(first.id)).seq
    expect((await leonie.call('DELETE', `/api/lists/items/changes/${which}`, { version })).status).toBe(200)
    await at(back === seq ? fewer.id : first.id, 'left')
  }
  expect(await inUse()).toEqual(others)
}, 240_000)

test('what is wrong is told with its row, across parts of the file, and nothing is taken', async () => {
  const rows = [...all]
  rows[5099] = row(10) // the key of row 12, in another part of the file
  rows[5100] = row(5100, 'dear')
  rows[5101] = row(5101).replace('Pump parts', 'No such category')
  const file = await looked(rows)
  expect(file.counts.refused).toBe(3)
  expect(file.reasons).toEqual([
    { at: 5101, reasons: [{ code: 'twice', row: 12 }] },
    { at: 5102, reasons: [{ code: 'no-steps', column: 'prices', text: 'dear' }] },
    { at: 5103, reasons: [{ code: 'unknown', column: 'category', text: 'No such category' }] },
  ])
  expect((await take(file.id)).status).toBe(409)
  expect((await leave(file.id)).status).toBe(204)

  // Two numbers for one part of a supplier are found when it is taken, and all of it stays out.
  const shared = await looked([...all.slice(0, 5100), row(9999, '1', 'L-3')])
  await take(shared.id)
  const stays = await at(shared.id, 'looked at')
  expect(stays.trouble).toContain('would share what only one may have')
  expect(await kept()).toBe(0)
  await leave(shared.id)
}, 120_000)

test('a list that changes meanwhile has the file looked at again; columns are chosen anew', async () => {
  const file = await looked(all.slice(0, 5200))
  const { body } = await leonie.call<{ item: { id: string } }>('GET', `/api/lists/items?words=I-CP-QS-25`)
  const [entry] = (body as unknown as ListView).entries
  const price = { from: '2198-01-01', steps: [{ from: '1', unitPrice: '9' }] }
  expect((await leonie.call('PUT', `/api/items/${entry?.id}/prices`, { body: price })).status).toBe(204)
  await take(file.id)
  const anew = await at(file.id, 'looked at')
  expect(anew.trouble).toContain('looked at again')
  // Without its number a row is told by supplier and part.
  const columns = anew.columns.map((c) => (c === 'number' ? null : c))
  expect((await look(file.id, columns)).status).toBe(204)
  expect((await at(file.id, 'looked at')).counts).toMatchObject({ adds: 5200, refused: 0 })
  await leave(file.id)
}, 120_000)

test('files that are none, broken, empty or of a short list are refused with a sentence', async () => {
  expect(await lay(leonie, Buffer.from(''))).toMatchObject({ status: 422 })
  expect(await lay(harriet, csv(all), 'people')).toMatchObject({ status: 422 })
  expect(await lay(leonie, csv(all), 'suppliers')).toMatchObject({ status: 403 })
  for (const bytes of [Buffer.from('Item;"Name\nx;y'), Buffer.from([0x50, 0x4b, 3, 4, 0, 0, 1, 2])]) {
    const { id } = (await lay(leonie, bytes)).body
    expect((await at(id, 'broken')).trouble).not.toBe('')
  }
  // Written on Windows, with formulas: read as text.
  const odd = Buffer.concat([csv(all.slice(0, 3)), Buffer.from('\r\nLONG-X;=1+1 caf'), Buffer.from([0xe9])])
  const { id } = (await lay(leonie, odd)).body
  const read = await at(id, 'read')
  expect(read.notes[0]).toContain('Windows-1252')
  await look(id, read.columns)
  expect((await at(id, 'looked at')).counts).toMatchObject({ adds: 3, refused: 1 })
  await leave(id)
})
