import { expect, test } from 'vitest'
import { answerOfMessage, type ResponseLine, type ResponseMessage } from './response'

const line = (id: string, more: object = {}) => ({
  ...{ id, quantity: '10', unit: 'H87', unitPrice: '12.50', priceBase: '1', needBy: '2026-12-08' },
  ...more,
})
const order = {
  number: 'P-26-00012',
  currency: 'EUR',
  lines: [line('a'), line('off', { quantity: '0' }), line('c', { priceBase: '100', unitPrice: '250' })],
}
const said = (number: string, more: Partial<ResponseLine> = {}): ResponseLine => ({
  ...{ number, status: 'changed', quantity: null, unit: null, unitPrice: null, priceBase: null, day: null },
  ...more,
})
const message = (more: Partial<ResponseMessage> = {}): ResponseMessage => ({
  ...{ order: 'P-26-00012', says: 'with changes', by: 'Jo', note: '', currency: 'EUR', day: null, lines: [] },
  ...more,
})
const answer = (more: Partial<ResponseMessage>) => answerOfMessage(message(more), order).value
const codes = (more: Partial<ResponseMessage>) => answerOfMessage(message(more), order).reasons.map((r) => r.code)

test('accepted or refused as a whole, every line that is ordered says so', () => {
  expect(answer({ says: 'accepted', day: '2026-12-01' })).toEqual([
    { lineId: 'a', quantity: '10', unitPrice: '12.50', needBy: '2026-12-01' },
    { lineId: 'c', quantity: '10', unitPrice: '250', needBy: '2026-12-01' },
  ])
  expect(answer({ says: 'refused' })?.map((l) => l.quantity)).toEqual(['0', '0'])
})

test('lines keep their places; a price for another base quantity becomes one for the order’s', () => {
  const lines = [
    said('1', { quantity: '4', day: '2026-12-20' }),
    said('3', { unitPrice: '2.60', priceBase: '1', unit: 'H87' }),
  ]
  expect(answer({ lines })).toEqual([
    { lineId: 'a', quantity: '4', unitPrice: '12.50', needBy: '2026-12-20' },
    { lineId: 'c', quantity: '10', unitPrice: '260', needBy: '2026-12-08' },
  ])
  // Without a base quantity a price is for one (UBL 2.1).
  expect(answer({ lines: [said('3', { unitPrice: '2.5' })] })?.[1]?.unitPrice).toBe('250')
  expect(answer({ lines: [said('1', { status: 'refused' })] })?.[0]?.quantity).toBe('0')
  expect(answer({ lines: [said('1', { status: 'accepted', quantity: '3' })] })?.[0]?.quantity).toBe('10')
})

test('the number is the order’s whatever its case, spaces and punctuation; everything in the way is said', () => {
  expect(codes({ order: 'p 26/00012' })).toEqual([])
  expect(codes({ order: 'P-26-00013', currency: 'DKK' })).toEqual(['other-order', 'other-currency'])
  expect(codes({ says: 'only-arrived' })).toEqual(['only-arrived'])
  const wrong = [
    said('9'),
    said('x'),
    said('1', { status: 'added' }),
    said('1', { unit: 'KGM' }),
    said('1', { quantity: 'many' }),
    said('1', { unitPrice: '-1' }),
    said('1', { priceBase: '0' }),
    said('1', { day: '2026-02-30' }),
  ]
  expect(codes({ lines: wrong })).toEqual([
    ...['unknown-line', 'unknown-line', 'line-added', 'other-unit', 'unreadable', 'unreadable', 'unreadable'],
    'unreadable',
  ])
})
