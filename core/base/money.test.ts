import fc from 'fast-check'
import currencyCodes from 'currency-codes'
import { describe, expect, test } from 'vitest'
import { dec, Decimal, HUNDRED } from '#core/base/decimal'
import { minorUnits } from '#core/base/currency'
import {
  add,
  convert,
  exchange,
  covers,
  isNegative,
  money,
  negate,
  roundMoney,
  subtract,
  sum,
  times,
} from '#core/base/money'

describe('money', () => {
  test('minor units agree with ISO 4217 as published in the registry package currency-codes', () => {
    for (const { code, digits } of currencyCodes.data)
      if (!['XAU', 'XXX'].includes(code) && digits > 0) expect([code, minorUnits(code)]).toEqual([code, digits])
    expect(['JPY', 'KRW', 'ISK', 'KWD', 'HUF', 'IDR', 'COP'].map(minorUnits)).toEqual([0, 0, 0, 3, 2, 2, 2])
  })

  test('rounds half away from zero to the minor unit, in mirror images (common practice, no source)', () => {
    expect(roundMoney(dec('1.005'), 'EUR').amount).toBe('1.01')
    expect(roundMoney(dec('-1.005'), 'EUR').amount).toBe('-1.01')
    expect(roundMoney(dec('2.5'), 'JPY').amount).toBe('3')
    expect(roundMoney(dec('0.0005'), 'KWD').amount).toBe('0.001')
  })

  test('there is no minus zero', () => {
    expect(roundMoney(dec('-0.001'), 'EUR').amount).toBe('0.00')
    expect(negate(money('0.00 EUR')).amount).toBe('0.00')
    expect(isNegative(roundMoney(dec('-0.004'), 'EUR'))).toBe(false)
  })

  test('currencies do not mix, and too many decimals are refused', () => {
    expect(() => add(money('1.00 EUR'), money('1.00 GBP'))).toThrow(TypeError)
    expect(() => money('1.005 EUR')).toThrow(RangeError)
    expect(() => money('abc EUR')).toThrow(RangeError)
  })

  test('a limit covers up to and including itself; none covers nothing (common practice, no source)', () => {
    expect(covers(money('2000.00 EUR'), money('2000.00 EUR'))).toBe(true)
    expect(covers(money('2000.00 EUR'), money('2000.01 EUR'))).toBe(false)
    expect(covers(null, money('0.01 EUR'))).toBe(false)
  })

  test('conversion rounds once, at the end', () => {
    expect(convert(money('100.00 GBP'), '0.854', 'EUR').amount).toBe('117.10')
    // 7.4592 is what 3.125 times it is divided by: half a cent, away from zero (rules of calculation, exchange).
    expect(convert(money('23.31 DKK'), '7.4592', 'EUR').amount).toBe('3.13')
    expect(convert(money('-23.31 DKK'), '7.4592', 'EUR').amount).toBe('-3.13')
    // Through the base and rounded once: by two roundings it would be 2.68.
    expect(exchange(money('23.31 DKK'), { from: '7.4592', to: '0.855' }, 'GBP').amount).toBe('2.67')
  })

  test('property: sums are exact where binary floats are not', () => {
    fc.assert(
      fc.property(fc.array(fc.bigInt({ min: -(10n ** 12n), max: 10n ** 12n }), { maxLength: 40 }), (cents) => {
        const amounts = cents.map((c) => roundMoney(Decimal.ofUnits(c, 2), 'EUR'))
        const total = sum(amounts, 'EUR')
        expect(dec(total.amount).times(HUNDRED).toFixed()).toBe(cents.reduce((a, b) => a + b, 0n).toString())
        expect(amounts.reduce(subtract, total).amount).toBe('0.00')
      }),
    )
  })
})

test('an amount as often as it occurs is what adding it comes to', () => {
  fc.assert(
    fc.property(fc.integer({ min: -9_999_999, max: 9_999_999 }), fc.integer({ min: 0, max: 60 }), (cents, count) => {
      const amount = money(`${(cents / 100).toFixed(2)} EUR`)
      expect(times(amount, count)).toEqual(
        sum(
          Array.from({ length: count }, () => amount),
          'EUR',
        ),
      )
    }),
  )
})
