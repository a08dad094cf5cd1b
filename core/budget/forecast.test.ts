import { expect, test } from 'vitest'
import { money } from '#core/base/money'
import { forecast, type SpokenFor } from './forecast'

const at = (period: number, amount: string): SpokenFor => ({ period, amount: money(`${amount} EUR`) })
const year = (daysGone: number, period: number, days = 365) => ({ daysGone, days, period })
const range = (f: ReturnType<typeof forecast>) => f && [f.least.amount, f.most.amount, f.by.length]

// Worked by hand; common practice, no source.
test('by the pace: what stood until now, for the days that are left as for those that are gone', () => {
  // 1,000.00 in 146 of 365 days is 2,500.00 in all.
  expect(range(forecast(year(146, 5), [at(1, '400.00'), at(5, '600.00')], [], 'EUR'))).toEqual([
    '2500.00',
    '2500.00',
    1,
  ])
  // 100.00 in 181 of 365 days is 201.6574…
  expect(range(forecast(year(181, 6), [at(2, '100.00')], [], 'EUR'))).toEqual(['201.66', '201.66', 1])
})
test('by the last year: grown as the same line grew then', () => {
  const last = [at(1, '200.00'), at(5, '300.00'), at(11, '1000.00')]
  // 1,000.00 until now against 500.00 then, which became 1,500.00.
  expect(range(forecast(year(146, 5), [at(4, '1000.00')], last, 'EUR'))).toEqual(['2500.00', '3000.00', 2])
  // A line that had nothing by then says nothing of this year.
  expect(range(forecast(year(146, 5), [at(4, '1000.00')], [at(9, '700.00')], 'EUR'))).toEqual(['2500.00', '2500.00', 1])
})
test('never less than what stands already, in periods to come too', () => {
  expect(range(forecast(year(146, 5), [at(4, '10.00'), at(9, '900.00')], [], 'EUR'))).toEqual(['910.00', '910.00', 1])
})
test('a year that has just begun, or is over, has none', () => {
  expect(forecast(year(29, 1), [at(1, '10.00')], [], 'EUR')).toBeNull()
  expect(forecast(year(365, 12), [at(1, '10.00')], [], 'EUR')).toBeNull()
})
