import fc from 'fast-check'
import { addMonths, addWeeks, format, parseISO } from 'date-fns'
import { describe, expect, test } from 'vitest'
import { nextOf, RHYTHMS, type Rhythm } from './rhythm'

describe('a rhythm', () => {
  // Common practice, no source.
  test.each<[Rhythm, string, string, string]>([
    ['week', '2026-11-25', '2026-11-25', '2026-12-02'],
    ['week', '2026-11-25', '2026-12-10', '2026-12-16'],
    ['two weeks', '2026-11-25', '2026-11-25', '2026-12-09'],
    ['month', '2026-01-31', '2026-01-31', '2026-02-28'],
    ['month', '2026-01-31', '2026-02-28', '2026-03-31'],
    ['month', '2027-12-31', '2028-02-01', '2028-02-29'],
    ['quarter', '2026-11-30', '2026-11-30', '2027-02-28'],
    ['year', '2028-02-29', '2028-02-29', '2029-02-28'],
    ['year', '2028-02-29', '2031-12-31', '2032-02-29'],
  ])('%s from %s, after %s: %s', (rhythm, start, after, next) => {
    expect(nextOf(rhythm, start, after)).toBe(next)
  })

  // Against date-fns, which adds months to a date in the same way.
  test('comes as a general-purpose library counts it, is later than the day, and leaves none out (property)', () => {
    const months: Partial<Record<Rhythm, number>> = { month: 1, quarter: 3, year: 12 }
    const weeks: Partial<Record<Rhythm, number>> = { week: 1, 'two weeks': 2 }
    const day = fc.integer({ min: 0, max: 20_000 }).map((n) => format(new Date(2000, 0, 1 + n, 12), 'yyyy-MM-dd'))
    fc.assert(
      fc.property(fc.constantFrom(...RHYTHMS), day, fc.nat(60), (rhythm, start, steps) => {
        const at = (n: number) =>
          format(
            months[rhythm] !== undefined
              ? addMonths(parseISO(start), n * months[rhythm])
              : addWeeks(parseISO(start), n * (weeks[rhythm] ?? 1)),
            'yyyy-MM-dd',
          )
        expect(nextOf(rhythm, start, at(steps))).toBe(at(steps + 1))
      }),
    )
  })
})
