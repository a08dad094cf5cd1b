import { expect, test } from 'vitest'
import { neededBy } from './needed-by'

test('parts are needed when the job begins, or as soon as the slowest can be there', () => {
  const at = (startsOn: string | null, ...leadDays: (number | null)[]) =>
    neededBy(startsOn, leadDays, '2026-11-27', new Set(['2026-12-25']))
  // A Friday: three business days later is a Wednesday.
  expect(at(null, 3, 1)).toBe('2026-12-02')
  expect(at(null, 3, null)).toBe('2026-12-11')
  expect(at(null, 0)).toBe('2026-11-30')
  expect(at(null, 20)).toBe('2026-12-28')
  expect(at('2027-02-01', 3)).toBe('2027-02-01')
  expect(at('2026-12-01', 3)).toBe('2026-12-02')
  expect(at('2026-01-01', 3)).toBe('2026-12-02')
})
