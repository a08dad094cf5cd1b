import { expect, test } from 'vitest'
import { money } from '#core/base/money'
import { shareReached, tellShare } from './share'

const eur = (amount: string) => money(`${amount} EUR`)
const figures = (given: string, spent: string, committed = '0.00', reserved = '0.00', adjusted = '0.00') => ({
  ...{ budgeted: eur(given), adjustments: eur(adjusted) },
  ...{ spent: eur(spent), committed: eur(committed), reserved: eur(reserved) },
})

// Common practice, no source: whoever holds a budget is warned at shares of it, promises counted.
test('a share is reached by what is spent, ordered and asked for together, exactly there', () => {
  const shares = [75, 90, 100]
  expect(shareReached(figures('1000.00', '749.99'), shares)).toBeNull()
  expect(shareReached(figures('1000.00', '400.00', '300.00', '50.00'), shares)).toBe(75)
  expect(shareReached(figures('1000.00', '899.99'), shares)).toBe(75)
  expect(shareReached(figures('1000.00', '900.00'), shares)).toBe(90)
  expect(shareReached(figures('1000.00', '5000.00'), shares)).toBe(100)
  expect(shareReached(figures('1000.00', '1000.00', '0.00', '0.00', '200.00'), shares)).toBe(75)
  expect(shareReached(figures('0.07', '0.05'), [75])).toBeNull()
})
test('of nothing given, anything is the whole, and nothing is nothing; less than nothing too', () => {
  expect(shareReached(figures('0.00', '0.01'), [90, 100])).toBe(100)
  expect(shareReached(figures('0.00', '0.00'), [90, 100])).toBeNull()
  expect(shareReached(figures('100.00', '-5.00'), [90])).toBeNull()
  expect(shareReached(figures('100.00', '100.00'), [])).toBeNull()
})
test('it is told once on the way up, and again once it fell below in between', () => {
  let told: number | null = null
  const tells = [75, 75, 90, null, 75, 100, 90, 100].map((reached) => {
    const next = tellShare(reached, told)
    told = next.told
    return next.tells
  })
  expect(tells).toEqual([true, false, true, false, true, true, false, true])
})
