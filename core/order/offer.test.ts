import { describe, expect, test } from 'vitest'
import { money } from '../base/money'
import { inOrder, judgeOffer, offerReasons, othersThan, type LineToSource, type OfferedItem } from './offer'

const TODAY = '2026-12-02'
const steps = (...of: (readonly [from: string, unitPrice: string, since?: string])[]) =>
  of.map(([from, unitPrice, since]) => ({ from, unitPrice, validFrom: since ?? null, validUntil: null }))
const LINE: LineToSource = {
  ...{ itemId: 'own', quantity: '4', requested: '4', unit: 'H87', currency: 'EUR', needBy: '2026-12-10' },
  ...{ unitPrice: '31.50', priceBase: '1', isByHand: false, adjustments: [] },
}
const OWN: OfferedItem = {
  ...{ itemId: 'own', standing: 'active', unit: 'H87', priceBase: '1', currency: 'EUR', leadDays: 6 },
  ...{ packSize: null, prices: steps(['1', '31.50'], ['10', '27.90']), stopped: null, terms: null },
}
const THEIRS: OfferedItem = { ...OWN, itemId: 'theirs', leadDays: 2, prices: steps(['1', '29']) }
const judge = (item: Partial<OfferedItem>, line: Partial<LineToSource> = {}) =>
  judgeOffer({ ...LINE, ...line }, { ...THEIRS, ...item }, TODAY, new Set())
const both = (line: Partial<LineToSource> = {}) => [judge(OWN, line), judge(THEIRS, line)]

// 4 at 31.50 are 126.00, at 29 they are 116.00; 10 at 27.90 are 279.00, at 29 they are 290.00 (by hand).
test('the cheapest changes with the quantity, and what another saves is never less than nothing', () => {
  expect(othersThan(both(), 'own')).toMatchObject({ fitting: [{ itemId: 'theirs' }], saves: money('10.00 EUR') })
  expect(othersThan(both({ quantity: '10', requested: '10' }), 'own').saves).toEqual(money('0.00 EUR'))
  expect(inOrder(both()).map((o) => o.itemId)).toEqual(['theirs', 'own'])
  expect(inOrder(both({ quantity: '10', requested: '10' })).map((o) => o.itemId)).toEqual(['own', 'theirs'])
})

test('what was asked for costs what was agreed for it: a price by hand, and what was taken off the whole of it', () => {
  expect(judge(OWN, { isByHand: true, unitPrice: '30' }).net).toEqual(money('120.00 EUR'))
  const off = { adjustments: [{ kind: 'allowance' as const, amount: '8' }] }
  // Half of the line bears half of the 8.00: 2 at 31.50 are 63.00, less 4.00.
  expect(judge(OWN, { ...off, quantity: '2' }).net).toEqual(money('59.00 EUR'))
  // Another supplier agreed to nothing.
  expect(judge(THEIRS, { ...off, isByHand: true, unitPrice: '1' }).net).toEqual(money('116.00 EUR'))
})

test('a price per hundred is compared by what it comes to, and in whole cents', () => {
  const per100 = judge({ priceBase: '100', prices: steps(['1', '18.90']) }, { quantity: '7', requested: '7' })
  // 7 at 18.90 per 100 is 1.32 (rules of calculation).
  expect(per100.net).toEqual(money('1.32 EUR'))
})

describe('what keeps a line from being ordered of another', () => {
  const codes = (item: Partial<OfferedItem>, line: Partial<LineToSource> = {}) =>
    offerReasons({ ...LINE, ...line }, { ...THEIRS, ...item }, TODAY).map((r) => r.code)
  test.each([
    [{}, []],
    [{ unit: 'BX' }, ['offer-other-unit']],
    [{ currency: 'NOK' }, ['offer-other-currency']],
    [{ standing: 'blocked' }, ['offer-of-inactive']],
    [{ standing: 'proposed' }, ['offer-of-inactive']],
    [{ stopped: 'Recalled' }, ['offer-stopped']],
    [{ prices: [] }, ['offer-without-price']],
    [{ prices: steps(['1', '20', '2026-12-03']) }, ['offer-without-price']],
    [{ prices: steps(['1', '20', '2026-12-02']) }, []],
  ] as const)('%o: %o', (item, expected) => {
    expect(codes(item)).toEqual(expected)
  })
  test('what cannot be taken saves nothing and stands last, however cheap it is', () => {
    const offers = [judge({ ...OWN }), judge({ prices: steps(['1', '1']), standing: 'blocked' })]
    expect(othersThan(offers, 'own')).toEqual({ fitting: [], saves: null })
    expect(inOrder(offers).map((o) => o.itemId)).toEqual(['own', 'theirs'])
  })
})

test('it is here after so many business days, on the day that it is needed still in time', () => {
  // Wednesday the 2nd: six business days later is Thursday the 10th; with a holiday in between the 11th.
  expect(judge(OWN)).toMatchObject({ arrives: '2026-12-10', isLate: false })
  expect(judgeOffer(LINE, OWN, TODAY, new Set(['2026-12-08']))).toMatchObject({ arrives: '2026-12-11', isLate: true })
  expect(judge({ leadDays: 0 }).arrives).toBe(TODAY)
})

test('freight, the least order, the next step and packs are those of this quantity alone', () => {
  const terms = { freight: money('12.50 EUR'), freeFrom: money('116.00 EUR'), minimum: money('150.00 EUR') }
  expect(judge({ terms })).toMatchObject({ freight: null, minimum: money('150.00 EUR') })
  expect(judge({ terms }, { quantity: '3' })).toMatchObject({ freight: money('12.50 EUR') })
  expect(judge({ terms }, { quantity: '6' })).toMatchObject({ minimum: null })
  expect(judge({ packSize: '3' }).packs).toEqual({ packs: '2', holds: '6', isWhole: false })
  expect(judge({ packSize: '2' }).packs).toBeNull()
  expect(judge(OWN).next).toEqual({ more: '6', at: '10', price: '27.90', net: money('279.00 EUR') })
  expect(judge(OWN, { isByHand: true }).next).toBeNull()
})
