import { expect, test } from 'vitest'
import type { RequestChange } from '#core/requisition/changes'
import { sayChange } from './changes'
import { waysOf } from './ways'

test.each<[RequestChange, string]>([
  [{ code: 'line-added', what: 'Krill' }, 'new: Krill'],
  [{ code: 'line-removed', what: 'Krill' }, 'gone: Krill'],
  [{ code: 'quantity', what: 'Sleeve', unit: 'H87', from: '7', to: '1200' }, 'Sleeve: 7 → 1,200 each'],
  [{ code: 'price', what: 'Sleeve', currency: 'EUR', from: '31.5', to: '30' }, 'Sleeve: 31.50 → 30.00 EUR'],
  [{ code: 'price', what: 'Sleeve', currency: 'JPY', from: null, to: '900' }, 'Sleeve: not known → 900 JPY'],
  [{ code: 'line-otherwise', what: 'Pump', parts: ['supplier', 'who pays'] }, 'Pump: another supplier and who pays'],
  [{ code: 'need-by', from: null, to: '2026-12-11' }, 'needed by no day → 11 December 2026'],
  [{ code: 'otherwise', parts: ['reason', 'place', 'notes'] }, 'another reason, place and notes'],
])('%o', (change, said) => {
  expect(sayChange(change, waysOf('en-GB'))).toBe(said)
})
