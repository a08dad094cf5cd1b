import { expect, test } from 'vitest'
import { comparedNumber, conditionReasons, DELIVERY_TERMS, type OrderConditions } from './conditions'

const good: OrderConditions = {
  terms: { kind: 'net', days: 30 },
  ...{ delivery: null, expiresOn: null, placedAs: null, isSent: true, isBlanket: false, adjustments: [] },
}
const codes = (more: Partial<OrderConditions>) =>
  conditionReasons({ ...good, ...more }, 'EUR', '2026-12-01').map((r) => r.code)

// Rules of calculation, numbers and kinds: compared without case, spaces and punctuation.
test('numbers given elsewhere are compared without case, spaces and punctuation, in any script', () => {
  const alike = ['PO 4711/b', 'po-4711-B', ' Po4711.b ', 'ＰＯ４７１１Ｂ']
  expect([...new Set(alike.map(comparedNumber))]).toEqual(['po4711b'])
  expect(comparedNumber('№ 12')).toBe('no12')
  expect([comparedNumber('Ä-1') === comparedNumber('A-1'), comparedNumber(' -/. ')]).toEqual([false, ''])
})
test('an order is placed by itself and sent, or was placed under a number that says something', () => {
  expect(codes({})).toEqual([])
  expect(codes({ isSent: false })).toEqual(['sent-nowhere'])
  expect(codes({ isSent: false, placedAs: '4711' })).toEqual([])
  expect(codes({ placedAs: ' - ' })).toEqual(['number-says-nothing'])
})
test('the last day belongs to the time in which it may come; a term of delivery needs its place', () => {
  expect(codes({ expiresOn: '2026-12-01' })).toEqual([])
  expect(codes({ expiresOn: '2026-11-30' })).toEqual(['expiry-is-past'])
  expect(codes({ delivery: { term: 'DAP', place: ' ' } })).toEqual(['no-delivery-place'])
})
// Incoterms 2020 has eleven rules (International Chamber of Commerce; from memory).
test('the terms of delivery are the eleven of Incoterms 2020', () => {
  expect(new Set(DELIVERY_TERMS).size).toBe(11)
})
