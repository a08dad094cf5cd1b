import { expect, test } from 'vitest'
import { draftWorth } from './draft-worth'

const line = (quantity: string, unitPrice: string | null, more: object = {}) => ({
  quantity,
  unitPrice,
  priceBase: '1',
  discount: null,
  currency: 'EUR',
  ...more,
})
const rates = new Map([
  ['EUR', '1'],
  ['GBP', '0.854'],
])

test('a draft is worth its lines less what is taken off, at their rates; without a price or rate, nothing', () => {
  const lines = [
    line('4', '10.00'),
    line('1', '100.00', { currency: 'GBP', discount: { of: 'percent', value: '10' } }),
    line('1', null),
    line('1', '5.00', { currency: 'USD' }),
    line('', '5.00'),
  ]
  // 40.00, and 90.00 pounds at 0.854 to the euro: 105.3864...
  expect(draftWorth(lines, rates, 'EUR')).toEqual({ amount: '145.39', currency: 'EUR' })
})
