import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { money, type Money, add, sum } from '#core/base/money'
import { lineNet, netUnitPrice } from '#core/base/line-net'
import { documentSums } from '#core/base/document-sums'

const line = (quantity: string, unitPrice: string, more: object = {}) =>
  lineNet({ quantity, unitPrice, priceBase: '1', currency: 'EUR', ...more })
const S19 = { category: 'S', rate: '19' }
const S7 = { category: 'S', rate: '7' }

describe('line net', () => {
  // Check values: common practice, no source.
  test('4 at 312.50 is 1,250.00', () => {
    expect(line('4', '312.50').amount).toBe('1250.00')
  })
  test('1 at 96,400 less 2.5 % is 93,990.00', () => {
    expect(line('1', '96400', { adjustments: [{ kind: 'allowance', percent: '2.5' }] }).amount).toBe('93990.00')
  })
  test('7 at 18.90 per 100 is 1.32', () => {
    expect(line('7', '18.90', { priceBase: '100' }).amount).toBe('1.32')
  })
  test('several percentages stand side by side, each of the gross, each rounded by itself (EN 16931, BT-137)', () => {
    expect(
      line('3', '33.33', {
        adjustments: [
          { kind: 'allowance', percent: '10' },
          { kind: 'charge', percent: '5' },
          { kind: 'allowance', amount: '1.005' },
        ],
      }).amount,
    ).toBe('93.98')
  })
  test('a price with tax becomes a net unit price at 6 decimals', () => {
    expect(netUnitPrice('119', '19')).toBe('100')
    expect(netUnitPrice('9.99', '19')).toBe('8.394958')
  })
})

describe('document sums by EN 16931', () => {
  test('tax is worked out for each category and rate, never for each line (BR-CO-17)', () => {
    // Three lines of 0.10 at 19 %: 0.30 x 19 % = 0.057, rounded 0.06; line by line it would be 0.02 x 3 = 0.06; 0.13 x
    // 5 tells them apart.
    const sums = documentSums(
      Array.from({ length: 5 }, () => ({ net: money('0.13 EUR'), tax: S19 })),
      'EUR',
    )
    expect(sums.tax.amount).toBe('0.12')
    expect(sums.total.amount).toBe('0.77')
  })

  test('the requisition of the lamps: 1,217.00 net at 19 % is 231.23 tax (worked by hand)', () => {
    const sums = documentSums(
      [line('6', '148'), line('6', '31.5'), line('1', '140')].map((net) => ({ net, tax: S19 })),
      'EUR',
    )
    expect([sums.net.amount, sums.tax.amount, sums.total.amount]).toEqual(['1217.00', '231.23', '1448.23'])
  })

  test('document allowances change their category’s sum (BR-CO-10, BR-CO-13 to BR-CO-15)', () => {
    const sums = documentSums(
      [
        { net: money('1000.00 EUR'), tax: S19 },
        { net: money('200.00 EUR'), tax: S7 },
      ],
      'EUR',
      [
        { kind: 'allowance', percent: '10', tax: S19 },
        { kind: 'charge', amount: '15', tax: S7 },
      ],
    )
    expect(sums.net.amount).toBe('1115.00')
    expect(sums.byTax.map((t) => [t.rate, t.taxable.amount, t.tax.amount])).toEqual([
      ['19', '900.00', '171.00'],
      ['7', '215.00', '15.05'],
    ])
    expect(sums.total.amount).toBe('1301.05')
  })

  test('property: total = net + tax, and net = lines - allowances + charges, whatever stands in it', () => {
    const anyLine = fc.record({
      cents: fc.integer({ min: -1_000_000, max: 1_000_000 }),
      rate: fc.constantFrom('0', '7', '19', '20'),
    })
    fc.assert(
      fc.property(fc.array(anyLine, { maxLength: 30 }), (lines) => {
        const nets = lines.map((l): { net: Money; tax: { category: string; rate: string } } => ({
          net: money(`${(l.cents / 100).toFixed(2)} EUR`),
          tax: { category: 'S', rate: l.rate },
        }))
        const sums = documentSums(nets, 'EUR')
        expect(sums.total).toEqual(add(sums.net, sums.tax))
        expect(sums.net).toEqual(
          sum(
            sums.byTax.map((t) => t.taxable),
            'EUR',
          ),
        )
        const mirrored = documentSums(
          nets.map((l) => ({ ...l, net: money(`${(-Number(l.net.amount)).toFixed(2)} EUR`) })),
          'EUR',
        )
        expect(Number(mirrored.total.amount) + Number(sums.total.amount)).toBeCloseTo(0, 6)
      }),
    )
  })
})
