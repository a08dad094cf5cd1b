import { describe, expect, test } from 'vitest'
import { isCovered, whyNotMade, type CoveredLine, type OrderingForm } from './by-itself'
import { RULE_MOVES, RULE_STATES, isRuleMoveFrom, type RuleMove } from './rule-moves'
import { proposeOrders } from './propose'

// The rule is ours: no source outside says how ordering by itself is described.
const FORM: OrderingForm = {
  ...{ kinds: [], departmentIds: [], categoryIds: [], supplierIds: [], price: 'any', upTo: null },
  ...{ time: { each: 'approval' }, mostRequests: null, windowDays: null, byDepartment: false },
  ...{ choose: 'cheapest', waitFor: null },
}
const LINE: CoveredLine = {
  ...{ requisitionLineId: 'l', requisitionId: 'r', number: 'R-1', sentOn: '2026-11-02', supplierId: 'salts' },
  ...{ departmentId: 'rescue', branch: ['rescue', 'care'], kind: 'goods', categories: ['krill', 'food'] },
  ...{ quantity: '10', requested: '10', itemId: 'krill', description: 'Krill', secondDescription: '' },
  ...{ noteToSupplier: '', unit: 'KGM', unitPrice: '4.00', isByHand: false, adjustments: [], priceBase: '1' },
  ...{ currency: 'EUR', taxCode: 'S', supplierPart: null, needBy: '2026-12-01', shipToId: 'yard' },
  agreementId: 'frame',
}

describe('what a rule covers', () => {
  test.each<[string, Partial<OrderingForm>, Partial<CoveredLine>, boolean]>([
    ['anything, where nothing is named', {}, {}, true],
    ['a category above the line’s', { categoryIds: ['food'] }, {}, true],
    ['one of several', { categoryIds: ['salt', 'krill'] }, {}, true],
    ['not another', { categoryIds: ['salt'] }, {}, false],
    ['not a line without a category', { categoryIds: ['food'] }, { categories: [] }, false],
    ['a department above', { departmentIds: ['care'] }, {}, true],
    ['not one beside', { departmentIds: ['boat'] }, {}, false],
    ['not what has no supplier, where one is named', { supplierIds: ['salts'] }, { supplierId: null }, false],
    ['all that is named at once', { supplierIds: ['salts'], kinds: ['service'] }, {}, false],
    ['what an agreement covers', { price: 'agreed' }, {}, true],
    ['not what none covers', { price: 'agreed' }, { agreementId: null }, false],
    ['not a price by hand', { price: 'catalogue' }, { isByHand: true }, false],
    ['not a price by hand under an agreement', { price: 'agreed' }, { isByHand: true }, false],
    ['not free text, at catalogue prices', { price: 'catalogue' }, { itemId: null }, false],
    ['free text, at any price', { price: 'any' }, { itemId: null, agreementId: null }, true],
  ])('%s', (_, form, line, covered) => {
    expect(isCovered({ ...LINE, ...line }, { ...FORM, ...form })).toBe(covered)
  })
})

describe('what is not made', () => {
  const facts = {
    limit: { amount: '3000.00', currency: 'EUR' },
    ...{ baseCurrency: 'EUR', perBase: new Map([['EUR', '1'] as const, ['GBP', '0.8'] as const]) },
    agreedPrice: (agreement: string, item: string) => (agreement === 'frame' && item === 'krill' ? '3.90' : null),
  }
  const order = (line: Partial<CoveredLine> = {}, minimumOrder: string | null = null) => {
    const { orders } = proposeOrders([{ ...LINE, ...line }], FORM, {
      ...{ today: '2026-11-03', baseCurrency: 'EUR', perBase: facts.perBase, prices: new Map() },
      suppliers: new Map([
        ['salts', { standing: 'active', currency: 'EUR', freight: null, freightFreeFrom: null, minimumOrder }],
      ]),
    })
    return orders[0] ?? expect.fail('it is proposed')
  }
  const why = (form: Partial<OrderingForm>, line: Partial<CoveredLine> = {}, minimum: string | null = null) =>
    whyNotMade(order(line, minimum), { ...FORM, ...form }, facts)

  test('up to an amount, itself included, in the base currency', () => {
    expect([why({ upTo: '40' }), why({ upTo: '39.99' })?.code]).toEqual([null, 'above-sum'])
    // 40.00 pounds are 50.00 euros.
    expect(why({ upTo: '50' }, { currency: 'GBP' })).toBeNull()
    expect(why({ upTo: '49.99' }, { currency: 'GBP' })).toMatchObject({ net: { amount: '50.00', currency: 'EUR' } })
  })
  test('what its buyer may not order alone', () => {
    const limited = (amount: string | null) =>
      whyNotMade(order(), FORM, { ...facts, limit: amount === null ? null : { amount, currency: 'EUR' } })
    expect([limited('40.00'), limited('39.99')?.code, limited(null)?.code]).toEqual([
      null,
      'above-limit',
      'above-limit',
    ])
  })
  test('what the supplier would not take', () => {
    expect(why({}, {}, '40')).toBeNull()
    expect(why({}, {}, '40.01')).toMatchObject({ code: 'below-minimum', minimum: { amount: '40.01' } })
  })
  test('what is dearer than agreed, where the rule asks for agreed prices', () => {
    expect(why({ price: 'agreed' })).toMatchObject({ code: 'above-agreed', agreed: { amount: '3.90' } })
    expect(why({ price: 'agreed' }, { unitPrice: '3.90' })).toBeNull()
    expect(why({ price: 'agreed' }, { itemId: 'squid' })).toBeNull()
    expect(why({ price: 'catalogue' })).toBeNull()
  })
})

test('a rule that is over begins anew, and nothing but a confirmed one comes into force', () => {
  const moves = Object.keys(RULE_MOVES) as RuleMove[]
  expect(moves.filter((m) => isRuleMoveFrom(m, 'ended'))).toEqual(['take up again'])
  expect(RULE_MOVES['take up again'].to).toBe('draft')
  expect(moves.filter((m) => RULE_MOVES[m].to === 'in force')).toEqual(['confirm', 'let go on'])
  expect(RULE_STATES.filter((s) => isRuleMoveFrom('let go on', s))).toEqual(['paused'])
  expect(RULE_STATES.filter((s) => isRuleMoveFrom('confirm', s))).toEqual(['asked'])
})
