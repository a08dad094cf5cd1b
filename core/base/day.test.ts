import { describe, expect, test } from 'vitest'
import Holidays from 'date-holidays'
import { addBusinessDays, addDays, dayOf, dueDay, fiscalPeriod, isDay } from '#core/base/day'
import { readTypedNumber } from '#core/base/typed-number'
import { findRate, toBaseFactor } from '#core/base/rate'

/** Public holidays of England, from the registry package date-holidays. */
const england = new Set([2026, 2027].flatMap((y) => new Holidays('GB', 'ENG').getHolidays(y).filter((h) => h.type === 'public').map((h) => h.date.slice(0, 10))))

describe('days', () => {
  test('the holidays of England 2026 that the checks below rest on', () => {
    for (const day of ['2026-01-01', '2026-04-03', '2026-04-06', '2026-05-04', '2026-05-25', '2026-08-31', '2026-12-25', '2026-12-28']) expect(england).toContain(day)
  })

  // Checked against the holidays of date-holidays; the counting rule is common practice, no source.
  test.each([['2026-04-01', 3, '2026-04-08'], ['2026-05-01', 1, '2026-05-05'], ['2026-12-23', 3, '2026-12-30'], ['2026-12-31', 1, '2027-01-04']])('%s and %i business days is %s', (from, n, expected) => {
    expect(addBusinessDays(from, n, england)).toBe(expected)
  })

  test('net 21 days from 2026-11-25 is 2026-12-16; end of month and 15 days (common practice, no source)', () => {
    expect(dueDay('2026-11-25', { kind: 'net', days: 21 })).toBe('2026-12-16')
    expect(dueDay('2026-11-25', { kind: 'month-end', days: 15 })).toBe('2026-12-15')
    expect(dueDay('2026-12-31', { kind: 'month-end', days: 0 })).toBe('2026-12-31')
  })

  test('the day of a moment is one in the organisation’s time zone', () => {
    expect(dayOf(new Date('2026-07-01T23:30:00Z'), 'Europe/London')).toBe('2026-07-02')
    expect(dayOf(new Date('2026-12-01T23:30:00Z'), 'Europe/London')).toBe('2026-12-01')
  })

  test('fiscal years are named by their first day', () => {
    expect(fiscalPeriod('2026-04-01', 4)).toEqual({ year: 2026, period: 1 })
    expect(fiscalPeriod('2027-03-31', 4)).toEqual({ year: 2026, period: 12 })
    expect(fiscalPeriod('2026-01-01', 1)).toEqual({ year: 2026, period: 1 })
  })

  test('only real days are days', () => {
    expect(['2026-02-29', '2024-02-29', '2026-13-01', '26-01-01', '2026-1-1', '0000-00-00'].map(isDay)).toEqual([false, true, false, false, false, false])
    expect(addDays('2024-02-28', 2)).toBe('2024-03-01')
  })
})

describe('numbers as people type them', () => {
  test.each([
    ['1,234.5', '.', '1234.5'], ['1234,50', ',', '1234.5'], ['1.234,50', ',', '1234.5'], ['1 234,50', ',', '1234.5'], ['3*12.5', '.', '37.5'], ['10+2.50', '.', '12.5'],
    ['1,234', '.', '1234'], ['1,234', ',', '1.234'], ['12,5', '.', '12.5'], ['2*3+4*5', '.', '26'], ['10-2-3', '.', '5'], ['−5', '.', '-5'], ['7/0', '.', null], ['abc', '.', null], ['', '.', null], ['1e5', '.', null], ['--5', '.', null], ['5+', '.', null],
  ] as const)('%s with %s is %s', (typed, mark, expected) => { expect(readTypedNumber(typed, mark)).toBe(expected) })
})

describe('exchange rates', () => {
  const rates = [{ day: '2026-11-02', currency: 'GBP', perBase: '0.86' }, { day: '2026-11-20', currency: 'GBP', perBase: '0.854' }]
  test('a day without a rate takes the newest earlier one, and none is refused', () => {
    expect(findRate(rates, 'GBP', '2026-11-19')?.perBase).toBe('0.86')
    expect(findRate(rates, 'GBP', '2026-11-20')?.perBase).toBe('0.854')
    expect(findRate(rates, 'GBP', '2026-11-01')).toBeNull()
    expect(findRate(rates, 'DKK', '2026-11-30')).toBeNull()
  })
  test('the factor into the base is the reciprocal at 20 digits', () => {
    expect(toBaseFactor({ day: '2026-11-20', currency: 'GBP', perBase: '0.8' })).toBe('1.25')
  })
})
