import fc from 'fast-check'
import { expect, test } from 'vitest'
import { dec } from '#core/base/decimal'
import { money, moneyOf, roundMoney, sum } from '#core/base/money'
import { nextYear } from './next-year'

const eur = (amount: string) => money(`${amount} EUR`)

// Worked by hand: the year is rounded once, then spread as it was by the largest remainder.
test('a year begins from the one before, times a factor, spread as that was', () => {
  const year = [eur('10.00'), eur('20.00'), eur('0'), eur('70.00')]
  expect(nextYear(year, '1.025', 'EUR').map((m) => m.amount)).toEqual(['10.25', '20.50', '0.00', '71.75'])
  expect(nextYear([eur('0.01'), eur('0.02')], '1.5', 'EUR').map((m) => m.amount)).toEqual(['0.02', '0.03'])
  expect(nextYear(year, '0', 'EUR').map((m) => m.amount)).toEqual(['0.00', '0.00', '0.00', '0.00'])
  // A month from which more was moved out than it had has nothing of the next year.
  expect(nextYear([eur('-5.00'), eur('15.00')], '2', 'EUR').map((m) => m.amount)).toEqual(['0.00', '20.00'])
  expect(nextYear([eur('-5.00'), eur('1.00')], '2', 'EUR').map((m) => m.amount)).toEqual(['0.00', '0.00'])
})
test('property: it is the year times the factor, rounded once', () => {
  const cents = fc.integer({ min: 0, max: 1_000_000 }).map((n) => moneyOf((n / 100).toFixed(2), 'EUR'))
  fc.assert(
    fc.property(fc.array(cents, { minLength: 12, maxLength: 12 }), fc.integer({ min: 0, max: 3000 }), (year, f) => {
      const factor = (f / 1000).toFixed(3)
      const whole = roundMoney(dec(sum(year, 'EUR').amount).times(dec(factor)), 'EUR')
      expect(sum(nextYear(year, factor, 'EUR'), 'EUR')).toEqual(whole)
    }),
  )
})
