import { expect, test } from 'vitest'
import { rebaseRates } from './reference-rates'

const day = '2026-11-26'
const rate = (currency: string, perBase: string) => ({ day, currency, perBase })

test('rates for the euro stay as they are where the euro is ours', () => {
  expect(rebaseRates([rate('USD', '1.0843')], 'EUR', 'EUR')).toEqual([rate('USD', '1.0843')])
})
test('for another base each is divided by its rate, and the euro is one of them', () => {
  // 1 / 0.8 and 1.2 / 0.8: by hand.
  expect(rebaseRates([rate('USD', '1.2'), rate('GBP', '0.8')], 'EUR', 'GBP')).toEqual([
    rate('EUR', '1.25'),
    rate('USD', '1.5'),
  ])
})
test('a day on which our own currency has no rate cannot be turned', () => {
  expect(
    rebaseRates([rate('USD', '1.2'), rate('GBP', '0.8'), { ...rate('USD', '1.3'), day: '2026-11-25' }], 'EUR', 'GBP'),
  ).toBeNull()
})
