import { afterAll, beforeAll, expect, test } from 'vitest'
import { readAbsences } from '../../server/people/find-people'
import { endCalendar, makeCalendar, readCalendar } from '../../server/people/cover-calendar'
import { setAway } from '../../server/people/set-away'
import { personId } from '../setup/rekko'
import { openUseCases, type UseCases } from '../setup/use-cases'

let rekko: UseCases
const KAVEH = 'Kaveh Dorani'
beforeAll(async () => {
  rekko = await openUseCases()
  await rekko.as('Tomas Brandt', (ctx) =>
    setAway(ctx, {
      ...{ personId: personId('Tomas Brandt'), substituteId: personId(KAVEH) },
      ...{ from: '2027-03-01', until: '2027-03-05', note: 'in hospital' },
    }),
  )
})
afterAll(() => rekko.stop())
const make = async () =>
  (await rekko.as(KAVEH, (ctx) => makeCalendar(ctx))).address.split('/').at(-1) ?? expect.fail('there is no key')
/** As a calendar reads it: nobody is signed in. */
const open = (key: string) => rekko.as('Sorrel Quist', ({ tx, now }) => readCalendar({ tx, now }, key))

test('whoever stands in sees for whom, not why; a calendar reads it until its address ends', async () => {
  const { covers, hasCalendar } = await rekko.as(KAVEH, (ctx) => readAbsences(ctx))
  expect(covers.map((a) => [a.name, a.note])).toContainEqual(['Tomas Brandt', ''])
  expect([covers.every((a) => a.note === ''), hasCalendar]).toEqual([true, false])
  const key = await make()
  const text = (await open(key)).toString()
  expect(text).toContain('Tomas Brandt is away: you decide for them')
  expect(text).not.toContain('hospital')
  // Another address ends the first; ended, neither opens.
  const next = await make()
  await expect(open(key)).rejects.toThrow(/does not exist/)
  expect((await rekko.as(KAVEH, (ctx) => readAbsences(ctx))).hasCalendar).toBe(true)
  await rekko.as(KAVEH, (ctx) => endCalendar(ctx))
  await expect(open(next)).rejects.toThrow(/does not exist/)
})
test('whoever left has none', async () => {
  const key = await make()
  await rekko.arrange("update person set left_on = '2026-01-01' where id = $1", [personId(KAVEH)])
  await expect(open(key)).rejects.toThrow(/does not exist/)
})
