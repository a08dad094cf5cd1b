import { expect, test } from 'vitest'
import { isOverdue, soonDays } from './overdue'

// Rules of calculation: past due, expired and overdue are from the day after.
test('an order is overdue from the day after, while it stands', () => {
  const late = (state: string, needBy: string | null, expiresOn: string | null = null) =>
    isOverdue({ state, needBy, expiresOn }, '2026-12-01')
  expect([late('issued', '2026-11-30'), late('issued', '2026-12-01'), late('issued', null)]).toEqual([
    true,
    false,
    false,
  ])
  expect([late('acknowledged', '2026-11-30'), late('cancelled', '2026-11-30')]).toEqual([true, false])
  const expired = [late('issued', '2026-12-24', '2026-11-30'), late('issued', '2026-12-24', '2026-12-01')]
  expect([...expired, late('cancelled', '2026-12-24', '2026-11-30')]).toEqual([true, false, false])
})
test('due soon is a week, today and its last day included, also over a year’s end', () => {
  expect(soonDays('2026-12-28')).toEqual({ from: '2026-12-28', until: '2027-01-04' })
})
