import { expect, test } from 'vitest'
import { money } from '#core/base/money'
import { marksOf, type MarkFacts } from './marks'

const facts = (more: Partial<MarkFacts>): MarkFacts => ({
  overBudget: false,
  newSupplier: false,
  prices: [],
  amount: money('940.00 EUR'),
  boundaries: [money('1000.00 EUR')],
  isSplit: false,
  ...more,
})

// Common practice, no source: from 95 of 100 of a limit up to the limit itself.
test.each([
  ['949.99', []],
  ['950.00', ['near a limit']],
  ['1000.00', ['near a limit']],
  ['1000.01', []],
])('%s beside a limit of 1,000.00', (amount, marks) => {
  expect(marksOf(facts({ amount: money(`${amount} EUR`) }))).toEqual(marks)
})
test('dearer than the last time, by however little; the same or less is not', () => {
  expect(marksOf(facts({ prices: [{ now: '3.10', last: '3.1' }] }))).toEqual([])
  expect(
    marksOf(
      facts({
        prices: [
          { now: '3', last: '4' },
          { now: '3.100001', last: '3.1' },
        ],
      }),
    ),
  ).toEqual(['dearer'])
})
test('all that there is, in one order', () => {
  const all = { overBudget: true, newSupplier: true, isSplit: true, amount: money('1000.00 EUR') }
  expect(marksOf(facts(all))).toEqual(['over budget', 'new supplier', 'near a limit', 'may be a part'])
})
