import { expect, test } from 'vitest'
import { BLANK_LINE } from '#core/requisition/draft'
import { money, moneyOf } from '#core/base/money'
import { directBounds, directReasons, directWorth } from './direct'

const line = (more: Partial<typeof BLANK_LINE> = {}) => ({
  ...BLANK_LINE,
  ...{ id: 'l', description: 'Shaft', supplierId: 's', currency: 'EUR' },
  ...more,
})
const of = { ownerId: 'owen', buyerId: 'leonie', number: null }
const codes = (lines: readonly ReturnType<typeof line>[], who: Partial<Parameters<typeof directReasons>[1]> = {}) =>
  directReasons({ lines }, { ...of, ...who }).map((r) => r.code)

// common practice, no source: one order goes to one supplier in one currency.
test('what one order can hold may be ordered without a request, for somebody else', () => {
  expect(codes([line(), line({ currency: 'EUR' })])).toEqual([])
  expect(codes([line()], { ownerId: 'leonie' })).toEqual(['direct-own-need'])
  expect(codes([line()], { number: 'R-26-00001' })).toEqual(['direct-sent-before'])
})
test('everything in its way is said at once', () => {
  expect(
    directReasons({ lines: [line(), line({ supplierId: 't', currency: 'SEK' }), line({ supplierId: null })] }, of),
  ).toEqual([
    { code: 'direct-no-supplier', lineId: 'l', description: 'Shaft' },
    { code: 'direct-several-suppliers' },
    { code: 'direct-several-currencies' },
  ])
})

// By the policy that the organisation wrote itself: up to an amount includes it.
test('the policy bounds what is ordered without a request, or forbids it', () => {
  const upTo = (policy: Parameters<typeof directBounds>[0], amount: string | null) =>
    directBounds(policy, amount === null ? null : moneyOf(amount, 'EUR')).map((r) => r.code)
  expect([upTo(undefined, '9000.00'), upTo({ upTo: null }, '9000.00')]).toEqual([[], []])
  expect([upTo(null, '0.00'), upTo(null, null)]).toEqual([['direct-forbidden'], ['direct-forbidden']])
  const bound = { upTo: money('500.00 EUR') }
  expect([upTo(bound, '500.00'), upTo(bound, null), upTo(bound, '500.01')]).toEqual([[], [], ['direct-beyond-policy']])
})
test('what is written is worth its net in the base currency, where it is one', () => {
  const rates = new Map([
    ['EUR', '1'],
    ['SEK', '10'],
  ])
  const sum = (text: string) => ({ net: money(text) })
  expect(directWorth([sum('1000.00 SEK')], rates, 'EUR')).toEqual(money('100.00 EUR'))
  expect(directWorth([sum('1000.00 SEK'), sum('1.00 EUR')], rates, 'EUR')).toBeNull()
  expect([directWorth([], rates, 'EUR'), directWorth([sum('5 JPY')], rates, 'EUR')]).toEqual([null, null])
})
