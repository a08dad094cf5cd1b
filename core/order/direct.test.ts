import { expect, test } from 'vitest'
import { BLANK_LINE } from '#core/requisition/draft'
import { directReasons } from './direct'

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
