import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { documentSums, type TaxKey } from '#core/base/document-sums'
import { add, money, moneyOf, subtract, sum, type Money } from '#core/base/money'
import { adjustmentReasons, type OrderAdjustment } from './adjustment'
import { orderSums } from './order-sums'

const S19: TaxKey = { category: 'S', rate: '19' }
const S7: TaxKey = { category: 'S', rate: '7' }
const FREE = { freight: null, freeFrom: null }
const terms = { freight: money('24.00 EUR'), freeFrom: money('250.00 EUR') }
const amounts = (of: readonly Money[] | undefined) => of?.map((m) => m.amount)
const less = (of: 'percent' | 'amount', value: string): OrderAdjustment => ({
  kind: 'discount',
  of,
  value,
  name: 'Spring',
})
const plus = (of: 'percent' | 'amount', value: string): OrderAdjustment => ({
  kind: 'charge',
  of,
  value,
  name: 'Crate',
})

test('an order has its freight among its charges, and its lines bear it; free of it they bear nothing', () => {
  const line = { net: money('100.00 EUR'), tax: S19 }
  const { sums, freight, borne } = orderSums([line, line], terms, 'EUR')
  expect([sums.lines, sums.charges, sums.net, sums.tax].map((m) => m.amount)).toEqual([
    '200.00',
    '24.00',
    '224.00',
    '42.56',
  ])
  expect([freight.amount, ...(amounts(borne) ?? [])]).toEqual(['24.00', '12.00', '12.00'])
  const free = orderSums([line, line, line], terms, 'EUR')
  expect([free.sums.net.amount, amounts(free.borne)]).toEqual(['300.00', ['0.00', '0.00', '0.00']])
  expect(orderSums([], terms, 'EUR').sums.net.amount).toBe('0.00')
})

describe('what is put on an order, or taken off it', () => {
  const lines = [
    { net: money('100.00 EUR'), tax: S19 },
    { net: money('50.00 EUR'), tax: S7 },
    { net: money('50.01 EUR'), tax: { category: 'S', rate: '19.000' } },
  ]
  test('as a percentage is of the lines of each tax, rounded by itself, and changes the sum that tax is of', () => {
    const { sums, adjustments, adjusted } = orderSums(lines, FREE, 'EUR', [less('percent', '3')])
    expect(adjustments.map((a) => [a.tax.rate, a.base.amount, a.amount.amount])).toEqual([
      ['19', '150.01', '4.50'],
      ['7', '50.00', '1.50'],
    ])
    expect(amounts(adjusted)).toEqual(['-3.00', '-1.50', '-1.50'])
    expect([sums.lines, sums.allowances, sums.net].map((m) => m.amount)).toEqual(['200.01', '6.00', '194.01'])
    // 145.51 at 19 % is 27.6469, 48.50 at 7 % is 3.395: EN 16931-1, BR-S-08 and BR-CO-17.
    expect(sums.byTax.map((t) => [t.taxable.amount, t.tax.amount])).toEqual([
      ['145.51', '27.65'],
      ['48.50', '3.40'],
    ])
  })
  test('as an amount: taken off it is divided over the taxes, put on it has the dearest one', () => {
    const { sums, adjustments, adjusted } = orderSums(lines, FREE, 'EUR', [less('amount', '10'), plus('amount', '6')])
    expect(adjustments.map((a) => [a.kind, a.tax.rate, a.amount.amount])).toEqual([
      ['discount', '19', '7.50'],
      ['discount', '7', '2.50'],
      ['charge', '19', '6.00'],
    ])
    expect(amounts(adjusted)).toEqual(['-1.00', '-2.50', '-0.50'])
    expect(sums.net.amount).toBe('196.01')
  })
  test('stands beside freight, which goes by the goods alone', () => {
    const goods = [{ net: money('250.00 EUR'), tax: S19 }]
    expect(orderSums(goods, terms, 'EUR', [less('percent', '50')]).sums.net.amount).toBe('125.00')
    const [cheap] = [{ net: money('200.00 EUR'), tax: S19 }]
    const dear = orderSums([cheap], terms, 'EUR', [plus('amount', '60')])
    expect([dear.freight.amount, dear.sums.charges.amount, dear.sums.net.amount]).toEqual(['24.00', '84.00', '284.00'])
    expect(amounts(dear.borne)).toEqual(['84.00'])
  })
  test('leaves nothing on an order without lines, and what comes to nothing out', () => {
    expect(orderSums([], FREE, 'EUR', [less('amount', '10'), plus('amount', '10')]).sums.net.amount).toBe('0.00')
    const free = [{ net: money('0.00 EUR'), tax: S19 }]
    expect(orderSums(free, FREE, 'EUR', [less('percent', '5')]).adjustments).toEqual([])
    expect(orderSums(free, FREE, 'EUR', [plus('amount', '5')]).sums.net.amount).toBe('5.00')
  })
  test('has a name, is something, and in whole cents', () => {
    expect(
      adjustmentReasons(
        [less('percent', '100'), plus('percent', '250'), { ...plus('amount', '0.05'), name: 'Pallet' }],
        'EUR',
      ),
    ).toEqual([])
    const wrong = [
      { ...less('percent', '100.5'), name: ' ' },
      plus('amount', '0'),
      { ...less('amount', '-1'), name: 'Autumn' },
      { ...plus('amount', '0.005'), name: 'Pallet' },
      { ...plus('percent', '1'), name: 'Crate ' },
    ]
    expect(adjustmentReasons(wrong, 'EUR').map((r) => [r.code, r.at])).toEqual([
      ['adjustment-unnamed', 0],
      ['adjustment-above-all', 0],
      ['adjustment-nothing', 1],
      ['adjustment-nothing', 2],
      ['adjustment-too-fine', 3],
      ['adjustment-twice', 4],
    ])
    expect(adjustmentReasons([plus('amount', '0.5')], 'JPY')).toEqual([
      { code: 'adjustment-too-fine', at: 0, currency: 'JPY' },
    ])
  })
  test('property: what the lines bear adds up to it, tax by tax, and the sums are those of the standard', () => {
    const line = fc.record({ cents: fc.integer({ min: 0, max: 99_999 }), rate: fc.constantFrom('0', '7', '19') })
    const adjustment = fc.record({
      kind: fc.constantFrom('discount' as const, 'charge' as const),
      of: fc.constantFrom('percent' as const, 'amount' as const),
      value: fc.integer({ min: 1, max: 9999 }).map((n) => (n / 100).toFixed(2)),
      name: fc.constant('x'),
    })
    fc.assert(
      fc.property(
        fc.array(line, { minLength: 1, maxLength: 10 }),
        fc.array(adjustment, { maxLength: 5 }),
        fc.integer({ min: 0, max: 9999 }),
        (all, asked, freight) => {
          const lines = all.map((l) => ({
            net: moneyOf((l.cents / 100).toFixed(2), 'EUR'),
            tax: { category: 'S', rate: l.rate },
          }))
          const freightTerms = { freight: moneyOf((freight / 100).toFixed(2), 'EUR'), freeFrom: null }
          const made = orderSums(lines, freightTerms, 'EUR', asked)
          const { sums, borne } = made
          // EN 16931-1, BR-CO-13: net = lines - allowances + charges.
          expect(sums.net).toEqual(add(subtract(sums.lines, sums.allowances), sums.charges))
          expect(add(made.goods, sum(borne, 'EUR'))).toEqual(sums.net)
          for (const a of made.adjustments) expect(sum(a.shares, 'EUR')).toEqual(a.amount)
          // Each line with what it bears, summed by its own rate, is taxed like the document.
          const felt = lines.map((l, i) => ({ ...l, net: add(l.net, borne[i] ?? l.net) }))
          expect(documentSums(felt, 'EUR').byTax).toEqual(sums.byTax)
          // Percentages are those that the standard's own sums work out for each tax.
          const percents = asked.filter((a) => a.of === 'percent')
          const rates = [...new Set(lines.map((l) => l.tax.rate))]
          const byRate = percents.flatMap((a) =>
            rates.map((rate) => ({
              kind: a.kind === 'discount' ? ('allowance' as const) : ('charge' as const),
              ...{ percent: a.value, tax: { category: 'S', rate } },
            })),
          )
          expect(orderSums(lines, FREE, 'EUR', percents).sums).toEqual(documentSums(lines, 'EUR', byRate))
        },
      ),
    )
  })
})
