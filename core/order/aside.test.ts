import { expect, test } from 'vitest'
import { asideReasons } from './aside'

test('a line is put aside until a later day, up to a year and a day, both ends looked at', () => {
  const codes = (until: string) => asideReasons(until, '2026-12-01').map((r) => r.code)
  expect([codes('2026-12-01'), codes('2026-11-30')]).toEqual([['aside-not-later'], ['aside-not-later']])
  expect([codes('2026-12-02'), codes('2027-12-02')]).toEqual([[], []])
  expect(codes('2027-12-03')).toEqual(['aside-too-long'])
})
