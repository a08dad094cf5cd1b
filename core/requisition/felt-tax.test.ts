import { expect, test } from 'vitest'
import { money } from '#core/base/money'
import { feltTax } from './felt-tax'

// Common practice, no source: 19 % on 100.00 is 19.00, of which a department feels what it cannot reclaim.
test.each([
  ['0.00', '100.00', { code: 'none' }],
  ['19.00', '100.00', { code: 'all-back' }],
  ['19.00', '119.00', { code: 'all-felt' }],
  ['19.00', '107.60', { code: 'part', felt: money('7.60 EUR') }],
])('of %s tax, %s in all', (tax, all, felt) => {
  const sums = [{ currency: 'EUR', net: money('100.00 EUR'), tax: money(`${tax} EUR`) }]
  expect(feltTax(sums, money(`${all} EUR`), () => '1')).toEqual(felt)
})

test('other currencies count at their rate, and a few cents of rounding are none', () => {
  const sums = [
    { currency: 'GBP', net: money('100.00 GBP'), tax: money('20.00 GBP') },
    { currency: 'EUR', net: money('10.00 EUR'), tax: money('1.90 EUR') },
  ]
  const perBase = (c: string) => (c === 'GBP' ? '0.8' : '1')
  expect(feltTax(sums, money('161.93 EUR'), perBase)).toEqual({ code: 'all-felt' })
  expect(feltTax(sums, money('135.04 EUR'), perBase)).toEqual({ code: 'all-back' })
})
