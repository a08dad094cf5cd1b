import { afterAll, beforeAll, expect, test } from 'vitest'
import type { DeskAsked } from '#shared/contract/order'
import { readDesk } from '../../server/order/read-desk'
import { moment } from '../setup/rekko'
import { ordering } from '../setup/ordering'
import { openUseCases, type UseCases } from '../setup/use-cases'

let rekko: UseCases
beforeAll(async () => {
  rekko = await openUseCases()
  await rekko.arrange('update budget_balance set budgeted = budgeted + 1000000')
})
afterAll(() => rekko.stop())
const { approvedLine } = ordering(() => rekko)
const ALL: DeskAsked = { words: '', supplier: 'any', due: 'any', aside: 'no' }
const desk = (asked: Partial<DeskAsked> = {}, limit = 200) =>
  rekko.as('Leonie Farrow', (ctx) => readDesk(ctx, limit, { ...ALL, ...asked }))

test('lines are found by words, supplier, place and day, and counted as they are found', async () => {
  const [pump, shelves] = [await approvedLine('12.50'), await approvedLine('40.00', 'Harriet Voss')]
  const all = await desk()
  expect(all.total).toBe(all.lines.length)
  const line = (id: string) => all.lines.find((l) => l.id === id) ?? expect.fail('it waits')
  const [own, hers] = [line(pump), line(shelves)]
  const found = async (asked: Partial<DeskAsked>) => {
    const d = await desk(asked)
    expect(d.total).toBe(d.lines.length)
    return d.lines.map((l) => l.id)
  }
  expect(await found({ words: own.number })).toEqual([pump])
  expect(await found({ words: 'harb* shel' })).toEqual([shelves])
  expect(await found({ words: 'harriet' })).toContain(shelves)
  expect(await found({ words: 'nobody ordered this' })).toEqual([])
  const known = await found({ supplier: 'known' })
  const none = await found({ supplier: 'none' })
  expect([...known, ...none].sort()).toEqual(all.lines.map((l) => l.id).sort())
  expect(known).toContain(shelves)
  expect(none.every((id) => line(id).supplierId === null)).toBe(true)
  expect((await found({ shipToId: hers.shipToId })).sort()).toEqual(
    all.lines.flatMap((l) => (l.shipToId === hers.shipToId ? [l.id] : [])).sort(),
  )
  expect(all.places.map((p) => p.id)).toContain(hers.shipToId)
  await rekko.arrange('update requisition_line set need_by = $1 where id = $2', [moment(), pump])
  const week = await found({ due: 'week' })
  expect(week).toContain(pump)
  expect(await found({ due: 'late' })).not.toContain(pump)
  await rekko.arrange("update requisition_line set need_by = '2020-01-01' where id = $1", [pump])
  expect(await found({ due: 'late' })).toContain(pump)
  // Narrowed, the oldest that fit stand there, however many others are older.
  expect((await desk({ words: own.number }, 1)).lines.map((l) => l.id)).toEqual([pump])
})
