import type { ItemFacts } from '#core/supplier/warning'
import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { money } from '#core/base/money'
import { readEntry } from '#core/requisition/entry'
import { isNoMoreThan } from '#core/requisition/compare'
import { computeDraft, type LineMemo } from '#core/requisition/compute'
import type { DraftFacts, PayingLine } from '#core/requisition/draft-facts'
import type { OwnField } from '#core/requisition/own-field'
import { openQuantity, orderedShare, stateFromQuantities } from '#core/requisition/line-progress'
import {
  actsAsOwner,
  checkMove,
  REQUISITION_MOVES,
  REQUISITION_STATES,
  type RequisitionMoveName,
  type RequisitionState,
} from '#core/requisition/moves'
import { proposeTitle } from '#core/requisition/title'
import { BLANK_DRAFT, BLANK_LINE, type Draft, type DraftLine } from '#core/requisition/draft'

describe('the add field', () => {
  test.each([
    ['6 quartz sleeve', { words: 'quartz sleeve', quantity: '6', price: null }],
    ['take away old lamps 140', { words: 'take away old lamps', quantity: null, price: '140' }],
    ['2 x crane, half a day 540.50', { words: 'crane, half a day', quantity: '2', price: '540.5' }],
    ['3*4 hose clamp at 2.35', { words: 'hose clamp', quantity: '12', price: '2.35' }],
    ['CP-QS-25', { words: 'CP-QS-25', quantity: null, price: null }],
    ['25 mm bolt', { words: '25 mm bolt', quantity: null, price: null }],
    ['1234', { words: '1234', quantity: null, price: null }],
    ['', { words: '', quantity: null, price: null }],
  ])('%s', (typed, expected) => {
    expect(readEntry(typed, '.')).toEqual(expected)
  })
})

const LINE: DraftLine = {
  ...BLANK_LINE,
  id: 'l1',
  description: 'Lamp',
  quantity: '6',
  unitPrice: '148',
  codings: [{ budgetLineId: 'pumps', value: null }],
}
const DRAFT: Draft = {
  ...BLANK_DRAFT,
  departmentId: 'ws',
  shipToId: 'yard',
  needBy: '2026-12-08',
  why: 'they are dim',
  lines: [LINE],
}
const budgetLine = (control: PayingLine['control'], budgeted: string): PayingLine => ({
  id: 'pumps',
  name: 'Pumps',
  code: '4100-610',
  control,
  mayFallBelow: money('0.00 EUR'),
  span: 'year',
  departmentId: 'ws',
  account: '610',
  project: null,
  holderId: 'tomas',
  reclaimable: '100',
  fiscalYear: 2026,
  periods: [
    {
      period: 8,
      budgeted: money(`${budgeted} EUR`),
      adjustments: money('0.00 EUR'),
      reserved: money('0.00 EUR'),
      committed: money('0.00 EUR'),
      spent: money('0.00 EUR'),
    },
  ],
})
const facts = (line = budgetLine('asks', '1000.00')): DraftFacts => ({
  today: '2026-11-25',
  baseCurrency: 'EUR',
  fiscalStartMonth: 4,
  closedPeriods: [{ year: 2026, period: 7 }],
  ownerId: 'owen',
  raisedById: 'owen',
  departmentIds: ['ws'],
  ownRecent: [],
  branch: ['ws'],
  budgetLines: new Map([['pumps', line]]),
  taxCodes: new Map([['S', { name: 'Standard', category: 'S', rate: '19' }]]),
  perBase: new Map([['EUR', '1']]),
  suppliers: new Map([
    [
      'bad',
      {
        id: 'bad',
        name: 'Bad',
        standing: 'on hold' as const,
        leadDays: 0,
        warning: null,
        warningMode: 'informs' as const,
      },
    ],
  ]),
  items: new Map(),
  agreements: [],
  holidays: new Set(),
  kinds: new Map([['goods', { code: 'goods', name: 'goods', help: '', series: 'R' }]]),
  ownFields: [],
  rules: [],
  jobs: new Map(),
  attached: [],
  policy: { id: 'p', ending: 'passes', fallbackId: null, ownLimitDays: null, rules: [] },
  people: { people: new Map(), absences: [], today: '2026-11-25' },
})
const codes = (draft: Draft, f = facts()) =>
  computeDraft(draft, f)
    .missing.filter((m) => m.stops)
    .map((m) => m.code)

describe('the verdict on a draft', () => {
  test('a whole draft has nothing missing, and its sums, effect and period', () => {
    const v = computeDraft(DRAFT, facts())
    expect(v.missing).toEqual([])
    expect(v.sums[0]).toMatchObject({ net: money('888.00 EUR'), tax: money('168.72 EUR'), total: money('1056.72 EUR') })
    expect(v.approvalAmount).toEqual(money('888.00 EUR'))
    expect(v.budget[0]).toMatchObject({ before: money('1000.00 EUR'), after: money('112.00 EUR'), passedBy: null })
    expect(v.period).toEqual({ year: 2026, period: 8 })
  })
  test('remembering lines changes nothing, whatever is edited between (property)', () => {
    const line = fc.record({
      quantity: fc.constantFrom('0', '1', '2.5', '-3', '1000'),
      unitPrice: fc.constantFrom(null, '0', '12.35', '400'),
      description: fc.constantFrom('', 'Lamp'),
      unit: fc.constantFrom('H87', 'QQ'),
      supplierId: fc.constantFrom(null, 'bad'),
      taxCode: fc.constantFrom('S', '?'),
      codings: fc.constantFrom(
        [],
        [{ budgetLineId: 'pumps', value: null }],
        [
          { budgetLineId: 'pumps', value: '60' },
          { budgetLineId: 'pumps', value: '40' },
        ],
      ),
    })
    const edits = fc.array(fc.tuple(fc.nat(3), line, fc.boolean()), { maxLength: 12 })
    fc.assert(
      fc.property(edits, (list) => {
        const memo: LineMemo = new Map()
        let draft: Draft = { ...DRAFT, lines: [0, 1, 2, 3].map((i) => ({ ...LINE, id: `l${i}` })) }
        let under = facts()
        for (const [at, change, newFacts] of list) {
          draft = { ...draft, lines: draft.lines.map((l, i) => (i === at ? { ...l, ...change } : l)) }
          if (newFacts) under = facts(budgetLine('refuses', '500.00'))
          expect(computeDraft(draft, under, memo)).toEqual(computeDraft(draft, under))
        }
      }),
    )
  })
  test('what nobody pays for yet counts with its net towards total and route', () => {
    expect(
      computeDraft({ ...DRAFT, lines: [LINE, { ...LINE, id: 'l2', codings: [] }] }, facts()).approvalAmount,
    ).toEqual(money('1776.00 EUR'))
  })
  test('everything is said at once', () => {
    expect(codes({ ...DRAFT, departmentId: null, shipToId: null, needBy: null, why: ' ', lines: [] })).toEqual([
      'no-department',
      'no-need-by',
      'no-ship-to',
      'no-why',
      'no-lines',
    ])
    expect(codes({ ...DRAFT, departmentId: 'other', needBy: '2026-11-24' })).toEqual([
      'department-not-open',
      'need-by-past',
    ])
    expect(
      codes({
        ...DRAFT,
        lines: [
          {
            ...LINE,
            description: '',
            quantity: '0',
            unit: 'QQ',
            unitPrice: null,
            taxCode: '?',
            supplierId: 'bad',
            codings: [],
          },
        ],
      }),
    ).toEqual([
      'line-no-description',
      'line-quantity',
      'line-unit',
      'line-no-price',
      'line-tax',
      'line-supplier-blocked',
      'line-no-coding',
    ])
    expect(
      codes({ ...DRAFT, lines: [{ ...LINE, currency: 'GBP', codings: [{ budgetLineId: 'unknown', value: null }] }] }),
    ).toEqual(['line-currency', 'line-coding-unknown'])
    expect(codes({ ...DRAFT, accountingDate: '2026-10-15' })).toEqual(['period-closed'])
    expect(codes({ ...DRAFT, lines: [{ ...LINE, quantity: '-3' }] })).toEqual(['line-quantity'])
    expect(codes({ ...DRAFT, lines: [{ ...LINE, quantity: '0.0000001' }] })).toEqual(['line-quantity'])
  })
  test('a line that is passed tells, asks why, or refuses', () => {
    const over = { ...DRAFT, lines: [{ ...LINE, quantity: '8' }] }
    expect(codes(over, facts(budgetLine('refuses', '1000.00')))).toEqual(['budget-refuses'])
    expect(codes(over, facts(budgetLine('asks', '1000.00')))).toEqual(['budget-asks'])
    expect(codes({ ...over, overBudgetReason: 'the pool reopens' }, facts(budgetLine('asks', '1000.00')))).toEqual([])
    expect(computeDraft(over, facts(budgetLine('tells', '1000.00'))).missing).toMatchObject([
      { code: 'budget-tells', stops: false, by: money('184.00 EUR') },
    ])
  })
  test('a route that cannot be made stands in the list', () => {
    expect(
      codes(DRAFT, {
        ...facts(),
        policy: { id: 'p', ending: 'fallback', fallbackId: null, ownLimitDays: null, rules: [] },
      }),
    ).toEqual(['route-held'])
  })
})

describe('more that a line and a request may say', () => {
  const line = (change: Partial<DraftLine>) => ({ ...DRAFT, lines: [{ ...LINE, ...change }] })
  // Common practice, no source: 1 at 96,400 less 2.5 % is 93,990.00.
  test('a discount is taken off before tax and budget, by percent or by amount, from nothing to all of it', () => {
    const rich = facts(budgetLine('tells', '1000000.00'))
    const net = (change: Partial<DraftLine>) => computeDraft(line(change), rich).approvalAmount.amount
    expect(net({ quantity: '1', unitPrice: '96400', discount: { of: 'percent', value: '2.5' } })).toBe('93990.00')
    expect(net({ discount: { of: 'amount', value: '88' } })).toBe('800.00')
    expect(net({ discount: { of: 'percent', value: '100' } })).toBe('0.00')
    for (const discount of [
      { of: 'percent', value: '100.1' },
      { of: 'percent', value: '-1' },
      { of: 'amount', value: '888.01' },
      { of: 'amount', value: '0.0000001' },
    ] as const)
      expect([discount.value, codes(line({ discount }), rich)]).toEqual([discount.value, ['line-discount']])
    expect(codes(line({ discount: { of: 'amount', value: '888' } }), rich)).toEqual([])
  })
  test('a price typed with tax has to give the price without, at six decimals', () => {
    expect(codes(line({ quantity: '1', priceWithTax: '119', unitPrice: '100' }))).toEqual([])
    expect(codes(line({ quantity: '1', priceWithTax: '100', unitPrice: '84.033613' }))).toEqual([])
    expect(codes(line({ quantity: '1', priceWithTax: '119', unitPrice: '99' }))).toEqual(['line-price-with-tax'])
  })
  // Holidays of England 2026 by date-holidays: 12-25 and 12-28; three business days after 12-23 are 12-30.
  test('a day before what the longest lead time allows is warned of, and does not stop', () => {
    const lamp: ItemFacts = {
      ...{ id: 'lamp', agreed: false, leadDays: 3, retired: false },
      ...{ warning: null, warningMode: 'informs', successor: null },
    }
    const f = {
      ...facts(),
      today: '2026-12-23',
      holidays: new Set(['2026-12-25', '2026-12-28']),
      items: new Map([['lamp', lamp]]),
    }
    const soon = (needBy: string, change: Partial<DraftLine> = { itemId: 'lamp' }) =>
      computeDraft({ ...line(change), needBy }, f).missing.filter((m) => m.code === 'need-by-soon')
    expect(soon('2026-12-29')).toEqual([
      { at: 'need-by', stops: false, code: 'need-by-soon', earliest: '2026-12-30', name: 'Lamp' },
    ])
    expect(soon('2026-12-30')).toEqual([])
    expect(soon('2026-12-24', { supplierId: null })).toEqual([])
  })
  test('a proposed supplier may be asked for; one on hold, an unknown kind and an unknown job may not', () => {
    const named = (standing: 'active' | 'on hold' | 'proposed') => ({
      ...facts(),
      suppliers: new Map([
        ['s', { id: 's', name: 'S', standing, leadDays: 0, warning: null, warningMode: 'informs' as const }],
      ]),
    })
    expect(codes(line({ supplierId: 's' }), named('proposed'))).toEqual([])
    expect(codes(line({ supplierId: 's' }), named('on hold'))).toEqual(['line-supplier-blocked'])
    // What a policy may ask of how it stands, and of the currency.
    const seen = (supplierId: string | null, standing: 'active' | 'proposed') =>
      computeDraft(line({ supplierId }), named(standing)).subject.codings.map((c) => [c.supplier, c.currency])
    expect([seen('s', 'active'), seen('s', 'proposed'), seen(null, 'active')]).toEqual([
      [['known', 'EUR']],
      [['proposed', 'EUR']],
      [['undecided', 'EUR']],
    ])
    expect(codes({ ...DRAFT, kind: 'elsewhere' })).toEqual(['no-kind'])
    expect(codes({ ...line({ jobId: 'j' }), jobId: 'j' })).toEqual(['job-unknown', 'job-unknown'])
  })
  test('what is chosen in own fields is what rules see, on the whole or a line, where it is asked for', () => {
    const field = (id: string, more: Partial<OwnField> = {}): OwnField => ({
      ...{ id, name: id, help: '', on: 'requisition', type: 'choice', required: false },
      ...{ kinds: [], departmentIds: [], categoryIds: [], choices: ['soon', 'late'] },
      ...more,
    })
    const seen = (fields: OwnField[], own: Draft['own'], lines: Draft['own'][] = []) =>
      computeDraft(
        { ...DRAFT, own, lines: lines.map((o, i) => ({ ...LINE, id: `l${i}`, own: o })) },
        { ...facts(), ownFields: fields },
      ).subject.own
    expect(seen([field('f')], { f: 'soon', g: 'late' })).toEqual({ f: ['soon'] })
    expect(seen([field('f', { kinds: ['travel'] })], { f: 'soon' })).toEqual({})
    expect(seen([field('f', { type: 'text' })], { f: 'soon' })).toEqual({})
    expect(
      seen([field('f', { on: 'line' })], { f: 'soon' }, [{ f: 'late' }, {}, { f: 'soon' }, { f: 'late' }]),
    ).toEqual({
      f: ['late', 'soon'],
    })
    expect(seen([field('f', { on: 'line', categoryIds: ['paint'] })], {}, [{ f: 'late' }])).toEqual({})
  })
  test('an address for once stands instead of a place, and has to be whole', () => {
    const address = { name: 'Hall', street: 'Pier 2', postcode: '', town: 'Southquay', country: '' }
    expect(codes({ ...DRAFT, shipToId: null, address })).toEqual([])
    expect(codes({ ...DRAFT, shipToId: null, address: { ...address, town: ' ' } })).toEqual(['address-unfinished'])
  })
  test(
    'anything but less of it starts the route again: kind, address, notes to the supplier, discount; what ' +
      'colleagues note does not',
    () => {
      for (const change of [
        { kind: 'service' },
        { attention: 'Rosa' },
        { noteToSupplier: 'blue' },
        { justification: 'because' },
        { jobId: 'j' },
        { own: { f: 'x' } },
      ] as const)
        expect(isNoMoreThan(DRAFT, { ...DRAFT, ...change })).toBe(false)
      for (const change of [
        { secondDescription: 'blue' },
        { discount: { of: 'percent', value: '5' } },
        { noteToSupplier: 'blue' },
        { own: { f: 'x' } },
      ] as const)
        expect(isNoMoreThan(DRAFT, line(change))).toBe(false)
      expect(
        isNoMoreThan(DRAFT, {
          ...line({ noteInternal: 'haggle', own: { f: '' } }),
          noteInternal: 'for us',
          readWarnings: ['w'],
        }),
      ).toBe(true)
    },
  )
})

describe('what comes back', () => {
  test('with nothing but lower quantities, lower prices or fewer lines it is no more than before', () => {
    const two = { ...DRAFT, lines: [LINE, { ...LINE, id: 'l2' }] }
    expect(isNoMoreThan(two, two)).toBe(true)
    expect(isNoMoreThan(two, { ...two, lines: [{ ...LINE, quantity: '5', unitPrice: '140' }] })).toBe(true)
  })
  test.each([
    ['more', { lines: [{ ...LINE, quantity: '6.000001' }] }],
    ['dearer', { lines: [{ ...LINE, unitPrice: '148.01' }] }],
    ['another line', { lines: [LINE, { ...LINE, id: 'l9' }] }],
    ['another supplier', { lines: [{ ...LINE, supplierId: 's' }] }],
    ['another payer', { lines: [{ ...LINE, codings: [{ budgetLineId: 'x', value: null }] }] }],
    ['another place', { shipToId: 'hall' }],
    ['another reason', { why: 'changed' }],
    ['another day', { needBy: '2026-12-09' }],
    ['another title', { title: 'changed' }],
    ['another accounting date', { accountingDate: '2026-12-01' }],
    ['another reason for passing the budget', { overBudgetReason: 'changed' }],
    ['another part number', { lines: [{ ...LINE, supplierPart: 'X-1' }] }],
    ['another category', { lines: [{ ...LINE, categoryId: 'c9' }] }],
    ['nothing', { lines: [] }],
  ])('%s starts the route again', (_, change) => {
    expect(isNoMoreThan(DRAFT, { ...DRAFT, ...change })).toBe(false)
  })
})

test('a file that is taken away starts the route again, one that is added does not', () => {
  const files = (then: string[], now: string[]) => isNoMoreThan(DRAFT, DRAFT, { then, now })
  expect([files(['a'], ['a']), files(['a'], ['a', 'b']), files(['a', 'b'], ['b'])]).toEqual([true, true, false])
})

describe('states', () => {
  test('the share that is ordered is by worth in the base currency, and line by line where nothing has a price', () => {
    const weighed = (quantity: string, ordered: string, unitPrice: string | null, perBase: string | null = '1') => ({
      quantity,
      ordered,
      unitPrice,
      priceBase: '1',
      perBase,
    })
    expect(orderedShare([])).toBe(0)
    expect(orderedShare([weighed('13', '10', '7')])).toBeCloseTo(10 / 13, 12)
    expect(orderedShare([weighed('1', '1', '30'), weighed('1', '0', '10')])).toBe(0.75)
    // 100 EUR are ordered, 16,000 JPY at 160 for one EUR are not: half, and not less than a hundredth.
    expect(orderedShare([weighed('1', '1', '100'), weighed('1', '0', '16000', '160')])).toBe(0.5)
    expect(orderedShare([weighed('4', '4', '0'), weighed('2', '1', null, null)])).toBe(0.75)
  })
  test('are worked out from quantities', () => {
    const l = (requested: string, ordered: string, cancelled = '0') => ({ requested, ordered, cancelled })
    expect(stateFromQuantities([l('6', '0'), l('4', '0')])).toBe('approved')
    expect(stateFromQuantities([l('6', '6'), l('4', '1')])).toBe('part ordered')
    expect(stateFromQuantities([l('6', '6'), l('4', '4')])).toBe('ordered')
    expect(stateFromQuantities([l('6', '2', '4'), l('4', '0', '4')])).toBe('ordered')
    expect(stateFromQuantities([l('6', '0', '6')])).toBe('cancelled')
    expect(openQuantity(l('24', '18'))).toBe('6')
  })
  // The table once more, by hand.
  const FROM: Record<RequisitionMoveName, RequisitionState[]> = {
    edit: ['draft', 'sent back', 'withdrawn'],
    throwAway: ['draft'],
    send: ['draft', 'sent back', 'withdrawn'],
    approve: ['in approval'],
    ask: ['in approval'],
    handOn: ['in approval'],
    sendBack: ['in approval'],
    reject: ['in approval'],
    answer: ['in approval', 'approved', 'part ordered'],
    withdraw: ['in approval'],
    order: ['approved', 'part ordered'],
    cancelRest: ['approved', 'part ordered', 'sent back', 'withdrawn'],
    remind: ['in approval', 'approved', 'part ordered'],
    wish: ['approved', 'part ordered', 'ordered'],
    handOver: ['draft', 'in approval', 'approved', 'part ordered', 'ordered', 'sent back', 'withdrawn'],
  }
  test.each(Object.keys(REQUISITION_MOVES) as RequisitionMoveName[])(
    '%s is possible only from where the table says',
    (move) => {
      for (const state of REQUISITION_STATES) {
        const reasons = checkMove(move, { state }, { isOwner: true, isStepHolder: true, isBuyer: true })
        expect([state, reasons.length === 0]).toEqual([state, FROM[move].includes(state)])
      }
    },
  )
  test('whoever raises for somebody else acts as owner while it is a draft, and no longer', () => {
    const acts = (state: RequisitionState) =>
      ['owner', 'raiser', 'other'].filter((p) => actsAsOwner({ state, ownerId: 'owner', raisedById: 'raiser' }, p))
    expect(acts('draft')).toEqual(['owner', 'raiser'])
    for (const state of REQUISITION_STATES.filter((s) => s !== 'draft'))
      expect([state, acts(state)]).toEqual([state, ['owner']])
  })
  test('only whoever is named may make a move', () => {
    expect(checkMove('send', { state: 'draft' }, { isOwner: false, isStepHolder: true, isBuyer: true })).toEqual([
      { code: 'not-yours', stops: true, by: 'owner' },
    ])
    expect(
      checkMove('approve', { state: 'in approval' }, { isOwner: true, isStepHolder: false, isBuyer: true }),
    ).toEqual([{ code: 'not-yours', stops: true, by: 'step holder' }])
    const one = (who: 'isOwner' | 'isBuyer' | 'isStepHolder') =>
      checkMove('handOver', { state: 'approved' }, { isOwner: false, isStepHolder: false, isBuyer: false, [who]: true })
        .length
    expect([one('isOwner'), one('isBuyer'), one('isStepHolder')]).toEqual([0, 0, 1])
    expect(checkMove('order', { state: 'approved' }, { isOwner: true, isStepHolder: true, isBuyer: false })).toEqual([
      { code: 'not-yours', stops: true, by: 'buyer' },
    ])
  })
})

test('a title proposes itself', () => {
  expect(proposeTitle({ lines: [] })).toBe('Nothing yet')
  expect(proposeTitle({ lines: [LINE] })).toBe('Lamp')
  expect(proposeTitle({ lines: [LINE, { ...LINE, description: 'Sleeve' }, { ...LINE, description: ' ' }] })).toBe(
    'Lamp and 1 more',
  )
  const of = (...suppliers: (string | null)[]) =>
    proposeTitle({ lines: suppliers.map((supplierId) => ({ ...LINE, supplierId })) }, (id) =>
      id === 'c' ? 'Corrigan Pumps' : undefined,
    )
  expect([of('c', 'c'), of('c', null), of(null, null), of('c'), of('x', 'x')]).toEqual([
    'Lamp and 1 more from Corrigan Pumps',
    'Lamp and 1 more',
    'Lamp and 1 more',
    'Lamp',
    'Lamp and 1 more',
  ])
})
