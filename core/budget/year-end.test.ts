import fc from 'fast-check'
import { expect, test } from 'vitest'
import { add, isZero, money, sum, type Money } from '#core/base/money'
import { carriedOutcome, openOf, yearEndEntries, type OpenStanding, type YearEndChoice } from './year-end'

const eur = (amount: string) => money(`${amount} EUR`)
const standing = (more: Partial<OpenStanding> = {}): OpenStanding => ({
  ...{ stage: 'reserved', documentKind: 'requisition', documentId: 'r1', lineId: 'l1' },
  ...{ budgetLineId: 'pumps', codingAt: 0, period: 8, amount: eur('120.00') },
  ...more,
})
const NEXT = new Map([
  ['pumps', 'pumps next'],
  ['waste', 'waste next'],
])

// Common practice, no source: what is promised at the end of a year is taken along to the next, or lapses.
test('what is carried stands in the first period of the next year; what is released stands nowhere', () => {
  const open = [
    standing(),
    standing({ stage: 'committed', documentKind: 'order', documentId: 'o1', lineId: 'l2', amount: eur('30.00') }),
    standing({ budgetLineId: 'waste', codingAt: 1, amount: eur('7.50') }),
    standing({ budgetLineId: 'tools', amount: eur('1.00') }),
  ]
  const choices = new Map<string, YearEndChoice>([
    ['pumps', 'carry'],
    ['waste', 'release'],
  ])
  const said = yearEndEntries(open, choices, NEXT).map((e) => [
    ...[e.stage, e.documentId, e.budgetLineId, e.codingAt, e.period, e.amount.amount, e.cause],
  ])
  expect(said).toEqual([
    ['reserved', 'r1', 'pumps', 0, 8, '-120.00', 'carried'],
    ['reserved', 'r1', 'pumps next', 0, 1, '120.00', 'carried'],
    ['committed', 'o1', 'pumps', 0, 8, '-30.00', 'carried'],
    ['committed', 'o1', 'pumps next', 0, 1, '30.00', 'carried'],
    ['reserved', 'r1', 'waste', 1, 8, '-7.50', 'released'],
  ])
  expect(() => yearEndEntries(open, new Map([['tools', 'carry']]), NEXT)).toThrow(/it is not/)
  expect(openOf(open, 'EUR')).toEqual({
    reserved: eur('128.50'),
    committed: eur('30.00'),
    open: eur('158.50'),
    documents: 2,
  })
})

test('the line of the next year is passed by what is carried without its money, and never with it', () => {
  const period = (n: number, budgeted: string) => ({
    ...{ period: n, budgeted: eur(budgeted), adjustments: eur('0.00') },
    ...{ reserved: eur('0.00'), committed: eur('0.00'), spent: eur('0.00') },
  })
  const line = (span: 'year' | 'period', below = '0.00') => ({
    ...{ span, mayFallBelow: eur(below), periods: [period(1, '100.00'), period(2, '100.00')] },
  })
  expect(carriedOutcome(line('year'), eur('200.00'), false)).toEqual({
    ...{ before: eur('200.00'), after: eur('0.00'), isPassed: false },
  })
  expect(carriedOutcome(line('year'), eur('200.01'), false).isPassed).toBe(true)
  expect(carriedOutcome(line('year', '0.01'), eur('200.01'), false).isPassed).toBe(false)
  // Judged by its first month where months are judged by themselves.
  expect(carriedOutcome(line('period'), eur('100.01'), false).isPassed).toBe(true)
  expect(carriedOutcome(line('period'), eur('100.01'), true)).toEqual({
    ...{ before: eur('100.00'), after: eur('100.00'), isPassed: false },
  })
})

test('property: nothing stays on a line that was chosen, and as much is carried as stood there', () => {
  const some = fc.array(
    fc.record({
      stage: fc.constantFrom('reserved' as const, 'committed' as const),
      budgetLineId: fc.constantFrom('pumps', 'waste', 'tools'),
      documentId: fc.constantFrom('a', 'b', 'c'),
      lineId: fc.constantFrom('1', '2'),
      codingAt: fc.nat(2),
      period: fc.integer({ min: 1, max: 12 }),
      amount: fc.integer({ min: -500, max: 50000 }).map((c) => eur((c / 100).toFixed(2))),
    }),
    { maxLength: 30 },
  )
  const choice = fc.constantFrom('carry' as const, 'release' as const, undefined)
  fc.assert(
    fc.property(some, choice, choice, (found, pumps, waste) => {
      const open = found.map((f) => standing(f))
      const choices = new Map<string, YearEndChoice>()
      if (pumps !== undefined) choices.set('pumps', pumps)
      if (waste !== undefined) choices.set('waste', waste)
      const entries = yearEndEntries(open, choices, NEXT)
      const total = (of: readonly { amount: Money }[]) =>
        sum(
          of.map((e) => e.amount),
          'EUR',
        )
      for (const line of ['pumps', 'waste', 'tools']) {
        const stood = open.filter((s) => s.budgetLineId === line)
        const left = add(total(stood), total(entries.filter((e) => e.budgetLineId === line)))
        if (choices.has(line)) expect(isZero(left)).toBe(true)
        else expect(left).toEqual(total(stood))
        const there = total(entries.filter((e) => e.budgetLineId === NEXT.get(line)))
        expect(there).toEqual(choices.get(line) === 'carry' ? total(stood) : eur('0.00'))
      }
      expect(entries.every((e) => e.period === 1 || open.some((s) => s.period === e.period))).toBe(true)
    }),
  )
})
