import { expect, test } from 'vitest'
import { dayOf } from '#core/base/day'
import { beginOf, momentOf } from './moment-of'

test('a moment is that of the time zone, also on days on which the clock is moved', () => {
  // The clock in London goes on at 01:00 UTC on the last Sunday of March, and back on that of October (from memory).
  expect(momentOf('2026-07-01', '09:30', 'Europe/London').toISOString()).toBe('2026-07-01T08:30:00.000Z')
  expect(momentOf('2026-12-01', '09:30', 'Europe/London').toISOString()).toBe('2026-12-01T09:30:00.000Z')
  expect(momentOf('2026-03-29', '12:00', 'Europe/London').toISOString()).toBe('2026-03-29T11:00:00.000Z')
  expect(beginOf('2026-10-25', 'Europe/London').toISOString()).toBe('2026-10-24T23:00:00.000Z')
  expect(beginOf('2026-11-25', 'Pacific/Auckland').toISOString()).toBe('2026-11-24T11:00:00.000Z')
})

test('the first moment of a day is of that day, and what comes just before is not', () => {
  for (const zone of ['Europe/London', 'Pacific/Auckland', 'America/New_York', 'Asia/Kolkata'])
    for (const day of ['2026-03-29', '2026-10-25', '2026-11-01', '2028-02-29']) {
      const begin = beginOf(day, zone)
      expect(dayOf(begin, zone)).toBe(day)
      expect(dayOf(new Date(begin.getTime() - 1), zone)).not.toBe(day)
    }
})
