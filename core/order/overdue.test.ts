import { expect, test } from 'vitest'
import { isOverdue, soonDays } from './overdue'

// Rules of calculation: past due, expired and overdue are from the day after.
test('an order is overdue from the day after, while it stands', () => {
  const late = (state: string, needBy: string | null, expiresOn: string | null = null) =>
    isOverdue({ state, needBy, expiresOn, isBlanket: false, isUsedUp: false }, '2026-12-01')
  expect([late('issued', '2026-11-30'), late('issued', '2026-12-01'), late('issued', null)]).toEqual([
    true,
    false,
    false,
  ])
  expect([late('acknowledged', '2026-11-30'), late('cancelled', '2026-11-30')]).toEqual([true, false])
  const expired = [late('issued', '2026-12-24', '2026-11-30'), late('issued', '2026-12-24', '2026-12-01')]
  expect([...expired, late('cancelled', '2026-12-24', '2026-11-30')]).toEqual([true, false, false])
})
test('a blanket order is past its last day alone, and not once all of it is called off', () => {
  const blanket = { state: 'issued', needBy: '2026-11-01', isBlanket: true }
  const late = (expiresOn: string, isUsedUp: boolean) => isOverdue({ ...blanket, expiresOn, isUsedUp }, '2026-12-01')
  expect([late('2026-12-31', false), late('2026-11-30', false), late('2026-11-30', true)]).toEqual([false, true, false])
})
test('due soon is a week, today and its last day included, also over a year’s end', () => {
  expect(soonDays('2026-12-28')).toEqual({ from: '2026-12-28', until: '2027-01-04' })
})
