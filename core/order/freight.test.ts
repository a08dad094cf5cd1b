import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { documentSums, type TaxKey } from '#core/base/document-sums'
import { add, money, moneyOf, sum, type Money } from '#core/base/money'
import { freightOf, layFreight } from './freight'

const S19: TaxKey = { category: 'S', rate: '19' }
const S7: TaxKey = { category: 'S', rate: '7.000' }
const terms = { freight: money('24.00 EUR'), freeFrom: money('250.00 EUR') }
const amounts = (of: readonly Money[] | undefined) => of?.map((m) => m.amount)

describe('freight', () => {
  test('once an order, until the goods reach the value from which it is free, that value included', () => {
    expect(freightOf(money('249.99 EUR'), terms)).toEqual(money('24.00 EUR'))
    expect(freightOf(money('250.00 EUR'), terms)).toBeNull()
    expect(freightOf(money('9000.00 EUR'), { ...terms, freeFrom: null })).toEqual(money('24.00 EUR'))
    expect(freightOf(money('1.00 EUR'), { freight: null, freeFrom: money('250.00 EUR') })).toBeNull()
    expect(freightOf(null, terms)).toBeNull()
  })
  test('carries the tax of the dearest line and lies on the lines of that tax by net, largest remainder', () => {
    const lines = [
      { net: money('50.00 EUR'), tax: S19 },
      { net: money('60.00 EUR'), tax: S7 },
      { net: money('60.00 EUR'), tax: { category: 'S', rate: '19.0' } },
      { net: money('30.00 EUR'), tax: { category: 'S', rate: '7' } },
    ]
    const laid = layFreight(money('10.00 EUR'), lines)
    expect(laid?.tax).toEqual(S7)
    expect(amounts(laid?.shares)).toEqual(['0.00', '6.67', '0.00', '3.33'])
  })
  test('lies in equal parts on goods that cost nothing, and on nothing where there is no line', () => {
    const free = { net: money('0.00 EUR'), tax: S19 }
    expect(amounts(layFreight(money('0.05 EUR'), [free, free])?.shares)).toEqual(['0.03', '0.02'])
    expect(layFreight(money('5.00 EUR'), [])).toBeNull()
  })
  test('property: the shares add up, and the order with the charge comes to goods and freight', () => {
    const line = fc.record({ cents: fc.integer({ min: -500, max: 99_999 }), rate: fc.constantFrom('0', '7', '19') })
    fc.assert(
      fc.property(fc.array(line, { minLength: 1, maxLength: 12 }), fc.integer({ min: 0, max: 9999 }), (all, cents) => {
        const lines = all.map((l) => ({
          net: moneyOf((l.cents / 100).toFixed(2), 'EUR'),
          tax: { category: 'S', rate: l.rate },
        }))
        const freight = moneyOf((cents / 100).toFixed(2), 'EUR')
        const laid = layFreight(freight, lines)
        expect(sum(laid?.shares ?? [], 'EUR')).toEqual(freight)
        const sums = documentSums(lines, 'EUR', [{ kind: 'charge', amount: freight.amount, tax: laid?.tax ?? S19 }])
        // EN 16931-1, BR-CO-13: net = lines - allowances + charges.
        expect(sums.net).toEqual(add(sums.lines, freight))
        // Each line with what it bears of the freight, summed by its own rate, is taxed like the document.
        const borne = lines.map((l, i) => ({ ...l, net: add(l.net, laid?.shares[i] ?? freight) }))
        expect(documentSums(borne, 'EUR').total).toEqual(sums.total)
      }),
    )
  })
})
