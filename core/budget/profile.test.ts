import fc from 'fast-check'
import { expect, test } from 'vitest'
import { money, moneyOf, sum } from '#core/base/money'
import { checkProfile, spreadEvenly, spreadLike } from './profile'

const eur = (amount: string) => money(`${amount} EUR`)
const said = (all: readonly { amount: string }[] | null) => all?.map((m) => m.amount) ?? null

// Rules of calculation, splits: the largest remainder, ties to the earlier; worked by hand.
test('a year is spread evenly, or as another year went, to the last cent', () => {
  expect(said(spreadEvenly(eur('100.00'), 12))).toEqual([
    ...['8.34', '8.34', '8.34', '8.34'],
    ...['8.33', '8.33', '8.33', '8.33', '8.33', '8.33', '8.33', '8.33'],
  ])
  expect(said(spreadLike(eur('100.00'), [eur('1'), eur('0'), eur('2')]))).toEqual(['33.33', '0.00', '66.67'])
  expect(spreadLike(eur('100.00'), [eur('0'), eur('0')])).toBeNull()
  expect(spreadLike(eur('100.00'), [eur('5'), eur('-1')])).toBeNull()
})
test('by hand the months come to what the year was given', () => {
  expect(checkProfile([eur('60'), eur('40')], eur('100'))).toEqual([])
  expect(checkProfile([eur('60'), eur('41')], eur('100'))).toEqual([{ code: 'another-sum', more: eur('1.00') }])
  expect(checkProfile([eur('110'), eur('-10')], eur('100'))).toEqual([{ code: 'below-nothing' }])
})
test('property: however it is spread, it is the year', () => {
  const cents = fc.integer({ min: 0, max: 10_000_000 }).map((n) => moneyOf((n / 100).toFixed(2), 'EUR'))
  fc.assert(
    fc.property(cents, fc.array(cents, { minLength: 12, maxLength: 12 }), (year, went) => {
      const like = spreadLike(year, went)
      expect(checkProfile(spreadEvenly(year, 12), year)).toEqual([])
      if (like !== null) expect([sum(like, 'EUR'), checkProfile(like, year)]).toEqual([year, []])
    }),
  )
})
