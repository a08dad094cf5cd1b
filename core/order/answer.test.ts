import { describe, expect, test } from 'vitest'
import { decideAnswer, holdsFor, wishesOf, type AnswerFacts } from './answer'

const line = (id: string, more: object = {}) => ({
  ...{ id, description: `Part ${id}`, unit: 'H87', quantity: '10', unitPrice: '12.50', needBy: '2026-12-08' },
  ...more,
})
const facts = (more: Partial<AnswerFacts> = {}): AnswerFacts => ({
  state: 'issued',
  revision: 0,
  lines: [line('a'), line('b', { quantity: '4' }), line('off', { quantity: '0' })],
  currency: 'EUR',
  today: '2026-11-25',
  answered: 0,
  isTaken: false,
  before: 0,
  ...more,
})
const wish = (lineId: string, more: object = {}) => ({
  ...{ lineId, quantity: lineId === 'b' ? '4' : '10', unitPrice: '12.50', needBy: '2026-12-08' },
  ...more,
})
const codes = (given: Parameters<typeof decideAnswer>[0], more: Partial<AnswerFacts> = {}) =>
  decideAnswer(given, facts(more)).reasons.map((r) => r.code)

describe('an answer', () => {
  test('that names nothing accepts all, but what was taken off', () => {
    const { value, reasons } = decideAnswer([], facts())
    expect(reasons).toEqual([])
    expect(value?.lines.map((l) => l.lineId)).toEqual(['a', 'b'])
    expect(value?.differences).toEqual([])
  })

  test('with an earlier day is a promise; with a later one, another quantity or price it differs', () => {
    const differs = (more: object) => decideAnswer([wish('a', more)], facts()).value?.differences.map((d) => d.what)
    expect(differs({ needBy: '2026-12-01' })).toEqual([])
    expect(differs({ needBy: '2026-12-08' })).toEqual([])
    expect(differs({ needBy: '2026-12-09' })).toEqual(['day'])
    expect(differs({ quantity: '9' })).toEqual(['quantity'])
    expect(differs({ quantity: '10.000', unitPrice: '12.5' })).toEqual([])
    expect(differs({ unitPrice: '12.00', needBy: '2026-12-10' })).toEqual(['price', 'day'])
    expect(differs({ quantity: '0' })).toEqual(['quantity'])
  })

  test('is refused for an order that is over, another by now, or answered for good', () => {
    expect(codes([], { state: 'cancelled' })).toEqual(['order-state'])
    expect(codes([], { state: 'draft' })).toEqual(['order-state'])
    expect(codes([], { revision: 1 })).toEqual(['order-revised'])
    expect(codes([], { isTaken: true })).toEqual(['answer-holds'])
    expect(codes([], { state: 'acknowledged', revision: 2, answered: 2 })).toEqual([])
    expect([codes([], { before: 49 }), codes([], { before: 50 })]).toEqual([[], ['answered-too-often']])
  })

  test('is refused for lines that are not ordered, and days that are past, unless the order asked for them', () => {
    expect(codes([wish('off', { quantity: '1' })])).toEqual(['unknown-line'])
    expect(codes([wish('x')])).toEqual(['unknown-line'])
    expect(codes([wish('a', { needBy: '2026-11-24' })])).toEqual(['day-is-past'])
    expect(codes([wish('a', { needBy: '2026-11-25' })])).toEqual([])
    const late = { lines: [line('a', { needBy: '2026-11-20' })] }
    expect(codes([], late)).toEqual([])
  })
})

describe('what an order becomes by an answer', () => {
  const given = [wish('a', { needBy: '2026-12-01' }), wish('b', { quantity: '3', needBy: '2026-12-20' })]
  test('is only what is not as it stands; an earlier day is kept as a promise alone', () => {
    expect(wishesOf([line('a'), line('b', { quantity: '4' })], given)).toEqual([given[1]])
  })
  test('is then what the answer holds for, and for nothing else', () => {
    const after = [line('a'), line('b', { quantity: '3', needBy: '2026-12-20' }), line('off', { quantity: '0' })]
    expect(holdsFor(after, given)).toBe(true)
    expect(holdsFor([line('a'), line('b', { quantity: '4' })], given)).toBe(false)
    expect(holdsFor([line('a'), line('b', { quantity: '3', needBy: '2026-12-19' })], given)).toBe(false)
    expect(holdsFor([line('a', { unitPrice: '12.49' }), after[1] ?? line('b')], given)).toBe(false)
    const refused = [wish('a', { quantity: '0' })]
    expect(holdsFor([line('a', { quantity: '0' })], refused)).toBe(true)
    expect(holdsFor([line('a')], refused)).toBe(false)
    expect(wishesOf([line('a')], [wish('a', { quantity: '0', needBy: '2027-01-01' })])).toMatchObject([
      { quantity: '0', needBy: '2026-12-08' },
    ])
  })
})
