import { expect, test } from 'vitest'
import { readTypedDay } from './typed-day'

// A Thursday. (Days of the week: a calendar of 2026; the readings themselves: common practice, no source.)
const TODAY = '2026-11-26'

test.each([
  ['fri', '2026-11-27'],
  ['Friday', '2026-11-27'],
  ['thu', '2026-12-03'],
  ['sunday', '2026-11-29'],
  ['mon', '2026-11-30'],
  ['11 Dec', '2026-12-11'],
  ['11dec', '2026-12-11'],
  ['11th december', '2026-12-11'],
  ['Dec 11', '2026-12-11'],
  ['Dec 11, 2027', '2027-12-11'],
  ['3 may', '2027-05-03'],
  ['26 nov', '2026-11-26'],
  ['25 nov', '2027-11-25'],
  ['29 feb', '2028-02-29'],
  ['11.12.', '2026-12-11'],
  ['11.12.26', '2026-12-11'],
  ['11/12', '2026-12-11'],
  ['11-12-2027', '2027-12-11'],
  ['2026-12-11', '2026-12-11'],
  ['2026-12-1', '2026-12-01'],
  ['+5', '2026-12-01'],
  ['+ 2w', '2026-12-10'],
  ['+10 days', '2026-12-06'],
  ['today', '2026-11-26'],
  ['tomorrow', '2026-11-27'],
])('%s is %s', (typed, day) => {
  expect(readTypedDay(typed, TODAY)).toBe(day)
})

test('months come first where a person writes them so', () => {
  expect(readTypedDay('12/11', TODAY, true)).toBe('2026-12-11')
  expect(readTypedDay('13/11', TODAY, true)).toBeNull()
})

test.each(['', 'soon', '30 feb', '31.4.', '32 dec', '1', 'fr', '+', '2026-13-01', '11 foo', 'dec', '0 dec', '+1000'])(
  '“%s” is no day',
  (typed) => {
    expect(readTypedDay(typed, TODAY)).toBeNull()
  },
)
