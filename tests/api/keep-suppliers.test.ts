import { sql } from 'drizzle-orm'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { addDays } from '#core/base/day'
import type { DatedWarning } from '#core/supplier/record'
import { inTransaction } from '../../server/db/transaction'
import { read } from '../../server/db/read'
import { notice } from '../../server/db/schema/people'
import { REKKO } from '../../server/people/actor'
import { changeStanding } from '../../server/supplier/change-standing'
import { keepRecord } from '../../server/supplier/keep-record'
import { addPaper } from '../../server/supplier/papers'
import { findRecord } from '../../server/supplier/record-reads'
import { keepSuppliers } from '../../server/upkeep/keep-suppliers'
import { idOf, personId, TODAY } from '../setup/rekko'
import { openUseCases, type UseCases } from '../setup/use-cases'

let it: UseCases
beforeAll(async () => {
  it = await openUseCases()
})
afterAll(async () => {
  await it.stop()
})

/** What the calendar does, at noon of so many days from today. */
const keep = (days: number) =>
  inTransaction(it.db, (tx) => keepSuppliers({ tx, now: new Date(`${addDays(TODAY, days)}T12:00:00Z`), actor: REKKO }))
const record = async (name: string) => {
  const found = await findRecord(it.db, idOf('supplier', name))
  if (found === null) throw new Error(`no ${name}`)
  return found
}

test('a hold ends after its last day, by itself and once; what is blocked stays', async () => {
  const [held, blocked] = ['Sallow Furniture', 'Juniper Print'] as const
  for (const [name, to, until] of [
    [held, 'on hold', addDays(TODAY, 2)],
    [blocked, 'blocked', null],
  ] as const)
    await it.as('Greta Molin', (ctx) =>
      changeStanding(ctx, idOf('supplier', name), 1, { to, reason: 'their insurance ended', until }),
    )
  await keep(2)
  expect((await record(held)).standing).toBe('on hold')
  await keep(3)
  expect(await record(held)).toMatchObject({ standing: 'active', standingReason: '', standingUntil: null, version: 3 })
  await keep(4)
  expect((await record(held)).version).toBe(3)
  expect((await record(blocked)).standing).toBe('blocked')
})

test('a warning with days begins, stays, ends and is forgotten; one without days is left alone', async () => {
  const warn = (name: string, warning: Partial<DatedWarning>) =>
    it.as('Leonie Farrow', (ctx) =>
      keepRecord(ctx, idOf('supplier', name), 1, {
        contacts: [],
        warning: { text: 'no delivery after five', mode: 'informs', from: null, until: null, ...warning },
      }),
    )
  await warn('Vellacott Gases', { from: addDays(TODAY, 2), until: addDays(TODAY, 3) })
  await warn('Yarrowdale Feeds', {})
  const said: (string | null)[] = []
  for (const day of [0, 1, 2, 3, 4, 5]) {
    await keep(day)
    said.push((await record('Vellacott Gases')).warning)
  }
  const text = 'no delivery after five'
  expect(said).toEqual([null, null, text, text, null, null])
  expect(await record('Vellacott Gases')).toMatchObject({ datedWarning: null, warningFrom: null, warningUntil: null })
  expect((await record('Yarrowdale Feeds')).warning).toBe(text)
})

test('buyers and finance hear once of a paper that ends within a month, and of none that ends later', async () => {
  const pdf = Buffer.from('%PDF-1.4\n1 0 obj<<>>endobj\n%%EOF')
  const supplier = idOf('supplier', 'Corrigan Pumps')
  for (const [name, days] of [
    ['insurance.pdf', 31],
    ['licence.pdf', 200],
  ] as const)
    await it.as('Leonie Farrow', (ctx) => addPaper(ctx, supplier, pdf, { name, validUntil: addDays(TODAY, days) }))
  const told = async () =>
    (
      await read(
        it.db,
        { personId: notice.personId, told: notice.told },
        sql`from ${notice} where ${notice.aboutId} = ${supplier}`,
      )
    ).filter((n) => n.told.code === 'paper-ends')
  await keep(0)
  expect(await told()).toEqual([])
  await keep(1)
  await keep(2)
  const heard = await told()
  expect(heard.filter((n) => n.personId === personId('Greta Molin'))).toMatchObject([
    { told: { paper: 'insurance.pdf', supplier: 'Corrigan Pumps', day: addDays(TODAY, 31) } },
  ])
  expect(new Set(heard.map((n) => n.personId)).size).toBe(heard.length)
  expect(heard.map((n) => n.personId)).toContain(personId('Leonie Farrow'))
  expect(heard.map((n) => n.personId)).not.toContain(personId('Owen Marsh'))
})
