import { describe, expect, test } from 'vitest'
import {
  addBusinessDays as addWorkdays,
  addDays as addCalendarDays,
  differenceInCalendarDays,
  endOfMonth,
  formatISO,
  getDay,
} from 'date-fns'
import Holidays from 'date-holidays'
import fc from 'fast-check'
import {
  addBusinessDays,
  addDays,
  dayOf,
  daysBetween,
  dueDay,
  firstDayOf,
  fiscalPeriod,
  isBusinessDay,
  isDay,
  weekday,
} from '#core/base/day'
import { readTypedNumber } from '#core/base/typed-number'
import { findRate } from '#core/base/rate'

/** Public holidays of England, from the registry package date-holidays. */
const england = new Set(
  [2026, 2027].flatMap((y) =>
    new Holidays('GB', 'ENG')
      .getHolidays(y)
      .filter((h) => h.type === 'public')
      .map((h) => h.date.slice(0, 10)),
  ),
)

describe('days', () => {
  test('the holidays of England 2026 that the checks below rest on', () => {
    for (const day of [
      '2026-01-01',
      '2026-04-03',
      '2026-04-06',
      '2026-05-04',
      '2026-05-25',
      '2026-08-31',
      '2026-12-25',
      '2026-12-28',
    ])
      expect(england).toContain(day)
  })

  // Checked against the holidays of date-holidays; the counting rule is common practice, no source.
  test.each([
    ['2026-04-01', 3, '2026-04-08'],
    ['2026-05-01', 1, '2026-05-05'],
    ['2026-12-23', 3, '2026-12-30'],
    ['2026-12-31', 1, '2027-01-04'],
  ])('%s and %i business days is %s', (from, n, expected) => {
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
    for (const start of [1, 4, 12])
      for (let period = 1; period <= 12; period += 1)
        expect(fiscalPeriod(firstDayOf(2026, period, start), start)).toEqual({ year: 2026, period })
  })

  test('only real days are days', () => {
    expect(['2026-02-29', '2024-02-29', '2026-13-01', '26-01-01', '2026-1-1', '0000-00-00'].map(isDay)).toEqual([
      false,
      true,
      false,
      false,
      false,
      false,
    ])
    expect(addDays('2024-02-28', 2)).toBe('2024-03-01')
  })
})

describe('numbers as people type them', () => {
  test.each([
    ['1,234.5', '.', '1234.5'],
    ['1234,50', ',', '1234.5'],
    ['1.234,50', ',', '1234.5'],
    ['1 234,50', ',', '1234.5'],
    ['3*12.5', '.', '37.5'],
    ['10+2.50', '.', '12.5'],
    ['1,234', '.', '1234'],
    ['1,234', ',', '1.234'],
    ['12,5', '.', '12.5'],
    ['2*3+4*5', '.', '26'],
    ['10-2-3', '.', '5'],
    ['−5', '.', '-5'],
    ['7/0', '.', null],
    ['abc', '.', null],
    ['', '.', null],
    ['1e5', '.', null],
    ['--5', '.', null],
    ['5+', '.', null],
  ] as const)('%s with %s is %s', (typed, mark, expected) => {
    expect(readTypedNumber(typed, mark)).toBe(expected)
  })
})

describe('exchange rates', () => {
  const rates = [
    { day: '2026-11-02', currency: 'GBP', perBase: '0.86' },
    { day: '2026-11-20', currency: 'GBP', perBase: '0.854' },
  ]
  test('a day without a rate takes the newest earlier one, and none is refused', () => {
    expect(findRate(rates, 'GBP', '2026-11-19')?.perBase).toBe('0.86')
    expect(findRate(rates, 'GBP', '2026-11-20')?.perBase).toBe('0.854')
    expect(findRate(rates, 'GBP', '2026-11-01')).toBeNull()
    expect(findRate(rates, 'DKK', '2026-11-30')).toBeNull()
  })
})

describe('days as the registry package date-fns counts them (property)', () => {
  const at = (day: string) => new Date(`${day}T12:00:00`)
  const say = (date: Date) => formatISO(date, { representation: 'date' })
  const days = fc.integer({ min: 0, max: 70_000 }).map((n) => addDays('1990-01-01', n))
  test('weekdays, days later and days between', () => {
    fc.assert(
      fc.property(days, fc.integer({ min: -4000, max: 4000 }), (day, n) => {
        expect([weekday(day), addDays(day, n), daysBetween(day, addDays(day, n))]).toEqual([
          getDay(at(day)),
          say(addCalendarDays(at(day), n)),
          n,
        ])
        expect(differenceInCalendarDays(at(addDays(day, n)), at(day))).toBe(n)
      }),
    )
  })
  test('business days where there are no holidays', () => {
    fc.assert(
      fc.property(days, fc.integer({ min: 1, max: 260 }), (day, n) => {
        expect(addBusinessDays(day, n, new Set())).toBe(say(addWorkdays(at(day), n)))
      }),
    )
  })
  test('the end of the month and n days', () => {
    fc.assert(
      fc.property(days, fc.integer({ min: 0, max: 120 }), (day, n) => {
        expect(dueDay(day, { kind: 'month-end', days: n })).toBe(say(addCalendarDays(endOfMonth(at(day)), n)))
      }),
    )
  })
  test('with holidays, exactly n business days lie after the day up to and with the one that is said', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 500 }).map((n) => addDays('2026-01-01', n)),
        fc.integer({ min: 1, max: 40 }),
        (day, n) => {
          const end = addBusinessDays(day, n, england)
          const between = Array.from({ length: daysBetween(day, end) }, (_, i) => addDays(day, i + 1))
          expect([between.filter((d) => isBusinessDay(d, england)).length, isBusinessDay(end, england)]).toEqual([
            n,
            true,
          ])
        },
      ),
    )
  })
})
