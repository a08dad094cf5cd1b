import { expect, test } from 'vitest'
import { wordsThatHold, type OrderWords } from './kept-words'

const WORDS: OrderWords = {
  ...{ supplierId: 's', currency: 'EUR', terms: { kind: 'net', days: 10 }, note: 'By the side door' },
  ...{ delivery: { term: 'DAP', place: 'Quay 4' }, expiresOn: '2026-12-31', isBlanket: true },
  ...{ placedAs: 'B-17', isSent: false },
  adjustments: [
    { kind: 'discount', of: 'percent', value: '3', name: 'Winter account' },
    { kind: 'charge', of: 'amount', value: '12.50', name: 'Crate' },
  ],
}
const TO = { supplierId: 's', currency: 'EUR', today: '2026-12-31', isPlaced: false }

test('all that was said holds for the same supplier, on its last day too, and nothing for another', () => {
  expect(wordsThatHold(WORDS, TO)).toEqual(WORDS)
  expect(wordsThatHold(WORDS, { ...TO, supplierId: 't' })).toBeNull()
})

test('a last day that is past is said no more, and nothing is called off without one', () => {
  expect(wordsThatHold(WORDS, { ...TO, today: '2027-01-01' })).toEqual({ ...WORDS, expiresOn: null, isBlanket: false })
})

test('a number that another order was placed under meanwhile is that one’s: this one is sent again', () => {
  expect(wordsThatHold(WORDS, { ...TO, isPlaced: true })).toEqual({ ...WORDS, placedAs: null, isSent: true })
})

test('amounts of another currency are not carried over, percentages are', () => {
  const held = wordsThatHold(WORDS, { ...TO, currency: 'USD' })
  expect(held?.adjustments).toEqual([WORDS.adjustments[0]])
  expect(held?.currency).toBe('USD')
})
