import { expect, test } from 'vitest'
import { priceHistory } from './price-history'

const step = (unitPrice: string, validFrom: string | null, validUntil: string | null, from = '1') => ({
  ...{ from, unitPrice, validFrom, validUntil },
})
const STEPS = [
  step('29.80', null, '2026-03-31'),
  step('31.50', '2026-04-01', null),
  step('28.00', '2026-04-01', '2026-06-30', '10'),
]

test('each day on which the price is another stands once, beginning with the first day', () => {
  expect(priceHistory(STEPS, '1', '2026-01-01', '2026-12-31')).toEqual([
    { from: '2026-01-01', unitPrice: '29.80' },
    { from: '2026-04-01', unitPrice: '31.50' },
  ])
})
test('a quantity goes by the steps that it reaches', () => {
  expect(priceHistory(STEPS, '12', '2026-01-01', '2026-12-31').map((p) => p.unitPrice)).toEqual([
    '29.80',
    '28.00',
    '31.50',
  ])
})
test('before the first and after the last price there is none', () => {
  expect(priceHistory([step('5', '2026-02-01', '2026-02-28')], '1', '2026-01-01', '2026-12-31')).toEqual([
    { from: '2026-01-01', unitPrice: null },
    { from: '2026-02-01', unitPrice: '5' },
    { from: '2026-03-01', unitPrice: null },
  ])
  expect(priceHistory([], '1', '2026-01-01', '2026-12-31')).toEqual([{ from: '2026-01-01', unitPrice: null }])
})
