import { expect, test } from 'vitest'
import { money } from '../base/money'
import type { MergedLine } from './merge'
import { stepHints } from './step-hints'

const steps = [
  ['1', '4.00'],
  ['50', '3.20'],
].map(([from = '', unitPrice = '']) => ({ from, unitPrice, validFrom: null, validUntil: null }))
const line = (itemId: string | null, quantity: string, more: Partial<MergedLine> = {}): MergedLine => ({
  ...{ itemId, description: 'Seal', secondDescription: '', notes: [], unit: 'H87', quantity, unitPrice: '4.00' },
  ...{ adjustments: [], priceBase: '1', taxCode: 'V', supplierPart: null, needBy: '2026-12-08', sources: [] },
  ...more,
})
const hints = (...lines: MergedLine[]) => stepHints(lines, new Map([['seal', steps]]), 'EUR', '2026-12-01')

// 42 at 4.00 are 168.00; 50 at 3.20 are 160.00 (by hand).
test('eight more reach the price of 50, and all of them cost less; said once, of the item’s total', () => {
  const [first, second] = hints(line('seal', '30'), line('seal', '12', { needBy: '2027-01-11' }))
  expect(first).toEqual({
    quantity: '42',
    net: money('168.00 EUR'),
    next: { more: '8', at: '50', price: '3.20', net: money('160.00 EUR') },
  })
  expect(second).toBeNull()
  expect(hints(line('seal', '50', { unitPrice: '3.20' }))[0]?.next).toBeNull()
})
test('nothing is said where a price was written by hand, something is taken off, or there is no item', () => {
  expect(hints(line('seal', '42', { unitPrice: '3.90' }), line(null, '42'), line('hose', '42'))).toEqual([
    null,
    null,
    null,
  ])
  expect(hints(line('seal', '42', { adjustments: [{ kind: 'allowance', percent: '5' }] }))).toEqual([null])
})
