import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { Decimal, HUNDRED, NOTHING, ONE, dec } from '#core/base/decimal'
import { money, sum, roundMoney, type Money } from '#core/base/money'
import { checkSplit, divide, splitAmount, withRemainder, type Split, type SplitMethod } from '#core/base/split'

const amounts = (parts: readonly Money[]) => parts.map((p) => p.amount)

// Check values: common practice, no source.
const of = (quantity: string) => ({ quantity, net: null })

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
          const total = roundMoney(Decimal.ofUnits(BigInt(cents), 2), 'EUR')
          const parts = divide(
            total,
            weights.map((w) => dec(String(w))),
          )
          expect(sum(parts, 'EUR')).toEqual(total)
          parts.forEach((p, i) => {
            const exact = dec(String(cents * (weights[i] ?? 0))).dividedBy(
              dec(String(weights.reduce((a, b) => a + b, 0))),
            )
            expect(dec(p.amount).times(HUNDRED).minus(exact).abs().lt(ONE)).toBe(true)
          })
        },
      ),
    )
  })

  test('says what is wrong with a split', () => {
    expect(checkSplit({ method: 'percent', values: ['60', '30'] }, of('1'))).toEqual([
      { code: 'split-not-hundred', sum: '90' },
    ])
    expect(checkSplit({ method: 'quantity', values: ['2', '2'] }, of('3'))).toEqual([
      { code: 'split-not-quantity', sum: '4', quantity: '3' },
    ])
    expect(checkSplit({ method: 'percent', values: ['110', '-10'] }, of('1'))).toEqual([
      { code: 'split-negative', at: 1 },
    ])
    expect(checkSplit({ method: 'amount', values: [null, '5'] }, of('1'))).toEqual([
      { code: 'split-value-missing', at: 0 },
    ])
    expect(checkSplit({ method: 'percent', values: [] }, of('1'))).toEqual([{ code: 'split-empty' }])
    expect(checkSplit({ method: 'amount', values: ['870', null] }, of('1'))).toEqual([])
  })

  // What is given away by amount beyond the line is refused and never cut silently (rules of calculation, splits).
  test('amounts never exceed the line, and a lone coding pays for all of it', () => {
    const by = (method: SplitMethod, values: (string | null)[], net: string, quantity = '1') =>
      checkSplit({ method, values }, { quantity, net: money(net) }).map((r) => r.code)
    expect(by('amount', ['0.92', null], '0.91 EUR')).toEqual(['split-not-amount'])
    expect(by('amount', ['0.91', null], '0.91 EUR')).toEqual([])
    expect(by('amount', ['0.45', '0.45'], '0.91 EUR')).toEqual(['split-not-amount'])
    expect(by('amount', ['0.45', '0.46'], '0.91 EUR')).toEqual([])
    expect(by('amount', ['0.92', null], '-0.91 EUR')).toEqual(['split-not-amount'])
    expect(by('percent', ['101'], '1.00 EUR')).toEqual(['split-not-hundred'])
    expect(by('percent', ['100'], '1.00 EUR')).toEqual([])
    expect(by('percent', [null], '1.00 EUR')).toEqual([])
    expect(by('quantity', ['2'], '1.00 EUR', '3')).toEqual(['split-not-quantity'])
    expect(by('quantity', ['0', '0'], '0.00 EUR', '0')).toEqual(['split-nothing'])
  })
  test('amounts are rounded one by one, and the last takes what is left', () => {
    const parts = (total: string, ...values: (string | null)[]) =>
      splitAmount(money(total), { method: 'amount', values }).map((m) => m.amount)
    expect(parts('100.00 EUR', '33.335', '33.335', null)).toEqual(['33.34', '33.34', '33.32'])
    expect(parts('3 JPY', '0.5', '0.5', null)).toEqual(['1', '1', '1'])
  })
  test('remainders are compared as fractions: 0.04 by 10, 1 and 1 is 0.04, 0.00 and 0.00', () => {
    const weights = ['10', '1', '1'].map(dec)
    expect(divide(money('0.04 EUR'), weights).map((m) => m.amount)).toEqual(['0.04', '0.00', '0.00'])
    expect(() => divide(money('0.04 EUR'), [NOTHING, NOTHING])).toThrow('all 0')
    expect(divide(money('0.00 EUR'), [NOTHING]).map((m) => m.amount)).toEqual(['0.00'])
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
          expect(checkSplit({ method, values }, of('100'))).toEqual([])
        },
      ),
    )
  })
})
