import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { Decimal } from '#core/base/decimal'
import { money, sum, roundMoney, type Money } from '#core/base/money'
import { checkSplit, divide, splitAmount, withRemainder, type Split } from '#core/base/split'

const amounts = (parts: readonly Money[]) => parts.map((p) => p.amount)

// Check values: common practice, no source.
describe('splits', () => {
  test.each([
    ['100.00 EUR', { method: 'share', values: [null, null, null] }, ['33.34', '33.33', '33.33']],
    ['0.07 EUR', { method: 'percent', values: ['60', '30', '10'] }, ['0.04', '0.02', '0.01']],
    ['0.05 EUR', { method: 'percent', values: ['30', '70'] }, ['0.02', '0.03']],
    ['1200.00 EUR', { method: 'amount', values: ['870', null] }, ['870.00', '330.00']],
    ['500.00 EUR', { method: 'amount', values: ['870', null] }, ['500.00', '0.00']],
    ['-1200.00 EUR', { method: 'amount', values: ['870', null] }, ['-870.00', '-330.00']],
    ['90.00 EUR', { method: 'quantity', values: ['2', '1'] }, ['60.00', '30.00']],
    ['140.00 EUR', { method: 'percent', values: ['60', '40'] }, ['84.00', '56.00']],
  ] as [string, Split, string[]][])('%s by %j', (total, split, expected) => {
    expect(amounts(splitAmount(money(total), split))).toEqual(expected)
  })

  test('for a part of a line, amounts are weights', () => {
    expect(
      amounts(
        splitAmount(money('600.00 EUR'), { method: 'amount', values: ['870', null] }, { whole: money('1200.00 EUR') }),
      ),
    ).toEqual(['435.00', '165.00'])
  })

  test('property: shares always add up to the line, to the last cent, in either sign', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -10_000_000, max: 10_000_000 }),
        fc.array(fc.integer({ min: 0, max: 1000 }), { minLength: 1, maxLength: 12 }),
        (cents, weights) => {
          fc.pre(weights.some((w) => w > 0))
          const total = roundMoney(new Decimal(cents).dividedBy(100), 'EUR')
          const parts = divide(
            total,
            weights.map((w) => new Decimal(w)),
          )
          expect(sum(parts, 'EUR')).toEqual(total)
          parts.forEach((p, i) => {
            const exact = new Decimal(cents).times(weights[i] ?? 0).dividedBy(weights.reduce((a, b) => a + b, 0))
            expect(new Decimal(p.amount).times(100).minus(exact).abs().lt(1)).toBe(true)
          })
        },
      ),
    )
  })

  test('says what is wrong with a split', () => {
    expect(checkSplit({ method: 'percent', values: ['60', '30'] }, '1')).toEqual([
      { code: 'split-not-hundred', sum: '90' },
    ])
    expect(checkSplit({ method: 'quantity', values: ['2', '2'] }, '3')).toEqual([
      { code: 'split-not-quantity', sum: '4', quantity: '3' },
    ])
    expect(checkSplit({ method: 'percent', values: ['110', '-10'] }, '1')).toEqual([{ code: 'split-negative', at: 1 }])
    expect(checkSplit({ method: 'amount', values: [null, '5'] }, '1')).toEqual([{ code: 'split-value-missing', at: 0 }])
    expect(checkSplit({ method: 'percent', values: [] }, '1')).toEqual([{ code: 'split-empty' }])
    expect(checkSplit({ method: 'amount', values: ['870', null] }, '1')).toEqual([])
  })
})

describe('the last coding takes what is left', () => {
  // Percent and quantity by subtraction, amounts by rule 3 (common practice, no source).
  test.each([
    ['percent', ['60', null], '10', ['60', '40']],
    ['percent', ['60', '30', '99'], '10', ['60', '30', '10']],
    ['percent', ['33.3', '33.3', null], '1', ['33.3', '33.3', '33.4']],
    ['percent', ['70', '50', null], '1', ['70', '50', '-20']],
    ['percent', [null, null], '1', [null, '100']],
    ['quantity', ['4', null], '6', ['4', '2']],
    ['quantity', ['4.5', '1', null], '6', ['4.5', '1', '0.5']],
    ['amount', ['870', '5'], '1', ['870', null]],
    ['share', ['1', '2', '3'], '1', [null, null, null]],
    ['percent', ['60'], '1', [null]],
  ] as const)('%s of %j', (method, values, quantity, expected) => {
    expect(withRemainder(method, [...values], quantity)).toEqual(expected)
  })

  test('what is completed so is sound whenever the others leave something (property)', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 0, max: 3000 }), { minLength: 1, maxLength: 3 }),
        fc.constantFrom('percent' as const, 'quantity' as const),
        (cents, method) => {
          const values = withRemainder(method, [...cents.map((c) => (c / 100).toFixed(2)), null], '100')
          expect(checkSplit({ method, values }, '100')).toEqual([])
        },
      ),
    )
  })
})
