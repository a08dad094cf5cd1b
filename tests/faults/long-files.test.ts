import { afterAll, beforeAll, expect, test } from 'vitest'
import type { LaidView } from '#shared/contract/lists'
import { brokenRules } from '../setup/invariants'
import { startRekko, until, type Rekko } from '../setup/rekko'

let rekko: Rekko
beforeAll(async () => {
  rekko = await startRekko()
})
afterAll(() => rekko.stop())

const ROWS = 12_000
const csv = Buffer.from(
  [
    'Item;Name;Category;Supplier;Their number;Price;Currency;Tax',
    ...Array.from({ length: ROWS }, (_, i) => `K-${i};Thing ${i};Pump parts;S-1001;K-${i};1.25;EUR;S`),
  ].join('\n'),
)

test('killed while a long file is read, looked at and taken, it goes on, and nothing is half done', async () => {
  const leonie = await rekko.as('Leonie Farrow')
  const kept = async () =>
    Number((await rekko.sql<{ n: string }>("select count(*) as n from item where number like 'K-%'"))[0]?.n)
  const { id } = (
    await leonie.call<{ id: string }>('POST', '/api/lists/items/files?name=long.csv', {
      raw: csv,
      headers: { 'content-type': 'application/octet-stream' },
    })
  ).body
  const at = `/api/lists/items/files/${id}`
  const see = async () => (await leonie.call<LaidView>('GET', at).catch(() => null))?.body
  const is = (what: string, holds: (f: LaidView) => boolean) =>
    until(
      what,
      async () => {
        const f = await see()
        return f !== undefined && holds(f) ? f : null
      },
      150,
    )
  await is('some rows are read', (f) => f.rows > 0)
  await rekko.kill()
  await rekko.startAgain()
  const read = await is('all rows are read', (f) => f.state === 'read')
  expect(read.rows).toBe(ROWS)
  expect((await leonie.call('POST', `${at}/looks`, { body: { columns: read.columns } })).status).toBe(204)
  await is('some rows are looked at', (f) => f.looked > 0)
  await rekko.kill()
  await rekko.startAgain()
  const looked = await is('all rows are looked at', (f) => f.state === 'looked at')
  expect(looked.counts).toMatchObject({ adds: ROWS, changes: 0, nothing: 0, refused: 0 })
  expect((await leonie.call('POST', `${at}/takings`)).status).toBe(204)
  // It takes seconds: by now it is in the middle of it.
  await new Promise((r) => {
    setTimeout(r, 1500)
  })
  await rekko.kill()
  expect([0, ROWS]).toContain(await kept())
  await rekko.startAgain()
  await is('it is taken', (f) => f.state === 'taken')
  expect(await kept()).toBe(ROWS)
  expect(
    await rekko.sql("select 1 from event where type = 'list changed' and after ->> 'file' = $1", [id]),
  ).toHaveLength(1)
  expect(await brokenRules(rekko)).toEqual([])
}, 400_000)
