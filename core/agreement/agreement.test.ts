import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { add, money, negate, subtract } from '#core/base/money'
import { leftOf, openNet, refusedDraw, warningsAtIssue, warningsAtSending, type DrawnOn } from './ceiling'
import { agreementFor, agreementStanding, misfitsOf, type Agreement, type Draw } from './fit'

const pumps: Agreement = {
  ...{ id: 'a', number: 'A-26-00001', name: 'Pumps', supplierId: 'corrigan', currency: 'EUR' },
  ...{ startsOn: '2026-01-01', endsOn: '2026-12-31', fixes: 'items', itemIds: ['seal', 'impeller'] },
  ...{ departmentIds: [], isClosed: false },
}
const draw: Draw = {
  ...{ supplierId: 'corrigan', currency: 'EUR', day: '2026-06-01' },
  ...{ branches: [['water', 'operations']], itemIds: ['seal'] },
}
const codes = (a: Partial<Agreement>, d: Partial<Draw> = {}) =>
  misfitsOf({ ...pumps, ...a }, { ...draw, ...d }).map((m) => m.code)

describe('what may draw on an agreement', () => {
  // Source: rules of calculation, agreements.
  test('the day lies within the term, both ends', () => {
    for (const day of ['2026-01-01', '2026-12-31']) expect(codes({}, { day })).toEqual([])
    expect(codes({}, { day: '2025-12-31' })).toEqual(['not-begun'])
    expect(codes({}, { day: '2027-01-01' })).toEqual(['ended'])
  })
  test('supplier and currency are the same, and it is not closed', () => {
    expect(codes({}, { supplierId: 'other' })).toEqual(['other-supplier'])
    expect(codes({}, { supplierId: null })).toEqual(['other-supplier'])
    expect(codes({}, { currency: 'USD' })).toEqual(['other-currency'])
    expect(codes({ isClosed: true })).toEqual(['closed'])
  })
  test('of one that fixes items every item stands in it; of a sum nothing has to', () => {
    expect(codes({}, { itemIds: ['seal', null, 'valve', 'impeller'] })).toEqual(['not-in-it'])
    expect(misfitsOf(pumps, { ...draw, itemIds: ['seal', null, 'valve'] })).toEqual([{ code: 'not-in-it', lines: 2 }])
    expect(codes({ fixes: 'sum' }, { itemIds: ['seal', null, 'valve'] })).toEqual([])
  })
  test('of several departments each may draw, by itself or by one above it', () => {
    expect(codes({ departmentIds: ['operations'] })).toEqual([])
    expect(codes({ departmentIds: ['water'] }, { branches: [['water'], ['shop']] })).toEqual(['other-department'])
  })
  test('says everything that is wrong at once', () => {
    expect(codes({ isClosed: true }, { day: '2027-01-01', itemIds: [null] })).toEqual(['closed', 'ended', 'not-in-it'])
  })
  test('by itself the one of the items goes before a sum, and of two alike neither is taken', () => {
    const sum: Agreement = { ...pumps, id: 's', fixes: 'sum', itemIds: [] }
    expect(agreementFor([sum, pumps], draw)?.id).toBe('a')
    expect(agreementFor([sum, pumps], { ...draw, itemIds: [null] })?.id).toBe('s')
    expect(agreementFor([sum, { ...sum, id: 't' }], { ...draw, itemIds: [null] })).toBeNull()
    expect(agreementFor([pumps, { ...pumps, id: 'b' }, sum], draw)).toBeNull()
    expect(agreementFor([], draw)).toBeNull()
  })
  test('where it stands on a day', () => {
    const on = (day: string, isClosed = false) => agreementStanding({ ...pumps, isClosed }, day)
    expect([on('2025-12-31'), on('2026-01-01'), on('2026-12-31'), on('2027-01-01')]).toEqual([
      ...['to come', 'in force', 'in force', 'ended'],
    ])
    expect(on('2026-06-01', true)).toBe('closed')
  })
})

describe('the ceiling of an agreement', () => {
  const of = (more: Partial<DrawnOn> = {}): DrawnOn => ({
    ...{ ceiling: money('1000.00 EUR'), drawn: money('600.00 EUR'), reserved: money('150.00 EUR') },
    ...{ warnPercent: '80', endsOn: '2026-12-31', warnDays: 30 },
    ...more,
  })
  const far = '2026-06-01'
  test('sending warns beyond drawn, reserved and this; issuing refuses beyond drawn and this', () => {
    expect(leftOf(of())).toEqual(money('250.00 EUR'))
    expect(warningsAtSending(of(), money('250.00 EUR'), far)).toEqual([])
    expect(warningsAtSending(of(), money('250.01 EUR'), far)).toEqual([
      { code: 'passes-ceiling', by: money('0.01 EUR') },
    ])
    expect(refusedDraw(of(), money('400.00 EUR'))).toBeNull()
    expect(refusedDraw(of(), money('400.01 EUR'))).toEqual(money('0.01 EUR'))
  })
  test('what brings drawn to the share, or past it, warns', () => {
    expect(warningsAtIssue(of(), money('199.99 EUR'), far)).toEqual([])
    expect(warningsAtIssue(of(), money('200.00 EUR'), far).map((w) => w.code)).toEqual(['share-reached'])
    expect(warningsAtIssue(of({ warnPercent: null }), money('400.00 EUR'), far)).toEqual([])
  })
  test('near its end it warns, on its last day too and not after it', () => {
    const on = (day: string) => warningsAtSending(of(), money('1.00 EUR'), day).map((w) => w.code)
    expect(on('2026-11-30')).toEqual([])
    expect(on('2026-12-01')).toEqual(['ends-soon'])
    expect(on('2026-12-31')).toEqual(['ends-soon'])
    expect(on('2027-01-01')).toEqual([])
  })
  test('without a ceiling nothing is passed', () => {
    expect(leftOf(of({ ceiling: null }))).toBeNull()
    expect(warningsAtSending(of({ ceiling: null }), money('9999.00 EUR'), far)).toEqual([])
    expect(refusedDraw(of({ ceiling: null }), money('9999.00 EUR'))).toBeNull()
  })
  test('what lowers is never refused, however far it is over', () => {
    const over = of({ drawn: money('1500.00 EUR') })
    expect(refusedDraw(over, money('-1.00 EUR'))).toBeNull()
    expect(refusedDraw(over, money('0.00 EUR'))).toBeNull()
    expect(refusedDraw(over, money('1.00 EUR'))).toEqual(money('501.00 EUR'))
  })
  test('what is open of a line counts with what is taken off in proportion', () => {
    const line = { quantity: '4', unitPrice: '100', priceBase: '1', currency: 'EUR' }
    const adjustments = [{ kind: 'allowance' as const, amount: '40' }]
    expect(openNet({ ...line, adjustments, open: '1' })).toEqual(money('90.00 EUR'))
  })
  test('property: an order that is let through never brings drawn beyond the ceiling', () => {
    const cents = fc.integer({ min: -50_000, max: 200_000 }).map((c) => money(`${(c / 100).toFixed(2)} EUR`))
    fc.assert(
      fc.property(fc.array(cents, { maxLength: 30 }), (amounts) => {
        let drawn = money('0.00 EUR')
        for (const amount of amounts) {
          const refused = refusedDraw(of({ drawn }), amount)
          const after = add(drawn, amount)
          if (refused === null) drawn = after
          else expect(subtract(after, refused)).toEqual(money('1000.00 EUR'))
          expect(leftOf(of({ drawn, reserved: negate(drawn) }))).toEqual(money('1000.00 EUR'))
          const isWithin = Number(drawn.amount) <= 1000
          expect(isWithin).toBe(true)
        }
      }),
    )
  })
})
