import { expect, test } from 'vitest'
import { priceEffect } from './price-effect'

const one = (unitPrice: string) => [{ from: '1', unitPrice }]
const bought = (...quantities: string[]) => quantities.map((quantity) => ({ quantity }))

test('a year at last year’s portions: 6 and 4 at 0.50 more are 5.00 dearer (common practice, no source)', () => {
  expect(priceEffect(bought('6', '4'), one('31.50'), one('32.00'), '1', 'EUR')).toBe('5.00')
})
test('each portion counts at its own step, before and after', () => {
  const before = [...one('10'), { from: '10', unitPrice: '8' }]
  const after = [...one('10'), { from: '20', unitPrice: '8' }]
  // Twelve at once cost 96.00 and will cost 120.00; five cost 50.00 either way; twenty 160.00 either way.
  expect(priceEffect(bought('12', '5', '20'), before, after, '1', 'EUR')).toBe('24.00')
})
test('cheaper is negative; a price per hundred is divided and rounded as a line is', () => {
  expect(priceEffect(bought('7'), one('18.90'), one('11.00'), '100', 'EUR')).toBe('-0.55')
})
test('without a price before or after there is nothing to compare', () => {
  expect(priceEffect(bought('7'), [], one('1'), '1', 'EUR')).toBeNull()
  expect(priceEffect(bought('7'), one('1'), [], '1', 'EUR')).toBeNull()
})
