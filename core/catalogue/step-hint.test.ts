import { expect, test } from 'vitest'
import { stepHint } from './step-hint'

const step = (from: string, unitPrice: string) => ({ from, unitPrice, validFrom: null, validUntil: null })
const item = { prices: [step('1', '31.50'), step('10', '27.90')], priceBase: '1', currency: 'EUR' }

test('six at 31.50 are 189.00; four more and all ten are 279.00 (common practice, no source)', () => {
  expect(stepHint(item, '6', '2026-11-27')).toEqual({
    net: { amount: '189.00', currency: 'EUR' },
    next: { more: '4', at: '10', price: '27.90', net: { amount: '279.00', currency: 'EUR' } },
  })
})
test('at the last step there is no next; without a price there is nothing', () => {
  expect(stepHint(item, '12', '2026-11-27')?.next).toBeNull()
  expect(stepHint({ ...item, prices: [] }, '1', '2026-11-27')).toBeNull()
})
