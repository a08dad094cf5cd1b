import { describe, expect, test } from 'vitest'
import { money, sum } from '#core/base/money'
import { nextStep, priceFor } from '#core/catalogue/price'
import { orderLineEffects } from '#core/order/effects'
import { decideIssue, needsDecision, type IssueFacts } from '#core/order/issue'
import { mergeParts, type TrayPart } from '#core/order/merge'
import { isFor } from '#core/approval/policy'
import { orderSubject, whoseNeed, whoseNeedAlone } from '#core/order/subject'

const STEPS = [
  { from: '1', unitPrice: '31.50', validFrom: null, validUntil: null },
  { from: '10', unitPrice: '27.90', validFrom: null, validUntil: null },
  { from: '50', unitPrice: '26.40', validFrom: '2026-01-01', validUntil: '2026-06-30' },
]
const TODAY = '2026-11-25'

describe('price breaks', () => {
  test('from ten includes ten; a step holds only on its days; below the smallest the smallest holds', () => {
    expect(['0.5', '1', '9.999', '10', '60'].map((q) => priceFor(STEPS, q, TODAY)?.unitPrice)).toEqual([
      '31.50',
      '31.50',
      '31.50',
      '27.90',
      '27.90',
    ])
    expect(priceFor(STEPS, '60', '2026-06-30')?.unitPrice).toBe('26.40')
    expect(priceFor([], '1', TODAY)).toBeNull()
    expect(nextStep(STEPS, '6', TODAY)?.from).toBe('10')
    expect(nextStep(STEPS, '10', TODAY)).toBeNull()
  })
})

const part = (requisitionLineId: string, quantity: string, more: Partial<TrayPart> = {}): TrayPart => ({
  requisitionLineId,
  requisitionId: `r-${requisitionLineId}`,
  quantity,
  itemId: 'sleeve',
  description: 'Sleeve',
  secondDescription: '',
  noteToSupplier: '',
  isByHand: false,
  adjustments: [],
  requested: quantity,
  unit: 'H87',
  unitPrice: '31.50',
  priceBase: '1',
  currency: 'EUR',
  taxCode: 'S',
  supplierPart: null,
  needBy: '2026-12-08',
  shipToId: 'hall',
  ...more,
})
const prices = new Map([['sleeve', STEPS]])

describe('lines on a tray', () => {
  test('merge for the same item, unit, need-by and ship-to, and reach the price for ten together', () => {
    const [line, ...more] = mergeParts([part('a', '6'), part('b', '4')], prices, TODAY)
    expect(more).toEqual([])
    expect(line).toMatchObject({
      quantity: '10',
      unitPrice: '27.90',
      sources: [
        { requisitionLineId: 'a', quantity: '6' },
        { requisitionLineId: 'b', quantity: '4' },
      ],
    })
  })
  test('over several need-by dates they stay apart, and the break follows the item’s total all the same', () => {
    const lines = mergeParts([part('a', '6'), part('b', '4', { needBy: '2026-12-20' })], prices, TODAY)
    expect(lines.map((l) => [l.quantity, l.unitPrice])).toEqual([
      ['6', '27.90'],
      ['4', '27.90'],
    ])
  })
  test('free text never merges', () => {
    expect(
      mergeParts([part('a', '1', { itemId: null }), part('b', '1', { itemId: null })], prices, TODAY),
    ).toHaveLength(2)
  })
})

describe('what an order line commits', () => {
  test('is divided over its sources by quantity and over their codings, and adds up to the line', () => {
    const one = {
      split: { method: 'percent' as const, values: [null] },
      codings: [{ budgetLineId: 'a', reclaimable: '100' }],
      whole: money('189.00 EUR'),
    }
    const two = {
      split: { method: 'percent' as const, values: ['50', '50'] },
      codings: [
        { budgetLineId: 'b', reclaimable: '100' },
        { budgetLineId: 'c', reclaimable: '0' },
      ],
      whole: money('126.00 EUR'),
    }
    const line = {
      quantity: '10',
      unitPrice: '27.90',
      priceBase: '1',
      currency: 'EUR',
      taxRate: '19',
      borne: money('0.00 EUR'),
      perBase: '1',
      baseCurrency: 'EUR',
    }
    const effects = orderLineEffects(line, [
      { ...one, quantity: '6' },
      { ...two, quantity: '4' },
    ])
    expect(effects.map((e) => [e.budgetLineId, e.amount.amount])).toEqual([
      ['a', '167.40'],
      ['b', '55.80'],
      ['c', '66.40'],
    ])
    const free = orderLineEffects({ ...line, taxRate: '0' }, [
      { ...one, quantity: '7' },
      { ...two, quantity: '3' },
    ])
    expect(
      sum(
        free.map((e) => e.amount),
        'EUR',
      ),
    ).toEqual(money('279.00 EUR'))
    // 24.00 of freight on the line: 303.00, six and four tenths of it, and 19 % of what c keeps.
    const brought = orderLineEffects({ ...line, borne: money('24.00 EUR') }, [
      { ...one, quantity: '6' },
      { ...two, quantity: '4' },
    ])
    expect(brought.map((e) => e.amount.amount)).toEqual(['181.80', '60.60', '72.11'])
  })
})

describe('issuing', () => {
  const good: IssueFacts = {
    state: 'draft',
    buyerId: 'leonie',
    orderingLimit: money('3000.00 EUR'),
    mayIssue: [{ personId: 'h', name: 'Harriet Voss' }],
    supplier: {
      name: 'Corrigan',
      channel: 'e-mail',
      reachable: true,
      blocked: false,
      freightWithoutRate: null,
    },
    ...{
      isSent: true,
      expiresOn: null,
      today: '2026-12-01',
      isDirect: false,
      directOrders: { upTo: null },
      closedPeriod: null,
    },
    filesSize: 14_000_000,
    hasShipTo: true,
    currency: 'EUR',
    ...{ net: money('3000.00 EUR'), goods: money('3000.00 EUR'), discounts: money('0.00 EUR') },
    perBase: '1',
    baseCurrency: 'EUR',
    lines: [{ description: 'Sleeve', ordered: money('100.00 EUR'), approved: money('100.00 EUR') }],
    needs: [['owen']],
    sameShipTo: true,
    agreement: null,
    tolerance: { percent: '5', amount: money('50.00 EUR') },
    deciders: [{ personId: 't', name: 'Tomas Brandt' }],
    decided: null,
  }
  const codes = (change: Partial<IssueFacts>) => decideIssue({ ...good, ...change }).reasons.map((r) => r.code)
  test('up to and including the limit it is allowed', () => {
    expect(decideIssue(good)).toEqual({ value: 'issued', reasons: [] })
  })
  test('what was placed elsewhere and is sent nowhere needs no address and no room in a mail', () => {
    const supplier = { name: 'Corrigan', channel: 'e-mail' as const, blocked: false, freightWithoutRate: null }
    const far = { supplier: { ...supplier, reachable: false }, filesSize: 14_000_001 }
    expect(codes(far)).toEqual(['supplier-unreachable', 'files-too-large'])
    expect(codes({ ...far, isSent: false })).toEqual([])
  })
  test('on its last day it is issued, from the day after it is not', () => {
    expect(codes({ expiresOn: '2026-12-01' })).toEqual([])
    expect(codes({ expiresOn: '2026-11-30' })).toEqual(['order-expired'])
  })
  test('a cent above it is refused, naming who may', () => {
    expect(decideIssue({ ...good, net: money('3000.01 EUR') })).toMatchObject({
      value: null,
      reasons: [{ code: 'above-ordering-limit', who: [{ name: 'Harriet Voss' }] }],
    })
    expect(codes({ orderingLimit: null })).toEqual(['above-ordering-limit'])
  })
  test('within a tolerance means within the percentage and within the amount', () => {
    const line = (ordered: string, approved: string) => ({
      lines: [{ description: 'x', ordered: money(`${ordered} EUR`), approved: money(`${approved} EUR`) }],
    })
    expect(codes(line('105.00', '100.00'))).toEqual([])
    expect(codes(line('105.01', '100.00'))).toEqual(['above-approved'])
    expect(codes(line('2050.00', '2000.00'))).toEqual([])
    expect(codes(line('2050.01', '2000.00'))).toEqual(['above-approved'])
    expect(codes(line('1.00', '100.00'))).toEqual([])
  })
  // Rules of calculation, splits of approval: 69.49 at 7.77 % allows 5.399373, which is never rounded up.
  test('the tolerance is judged on the order and on each dearer line, in the base currency, not rounded', () => {
    const of = (...lines: [ordered: string, approved: string][]) =>
      lines.map(([ordered, approved]) => ({ description: 'x', ordered: money(ordered), approved: money(approved) }))
    const tight = { percent: '7.77', amount: money('1000.00 EUR') }
    expect(codes({ lines: of(['74.88 EUR', '69.49 EUR']), tolerance: tight })).toEqual([])
    expect(codes({ lines: of(['74.89 EUR', '69.49 EUR']), tolerance: tight })).toEqual(['above-approved'])
    // What one line saves another may not use up beyond its own tolerance.
    expect(codes({ lines: of(['50.00 EUR', '100.00 EUR'], ['106.00 EUR', '100.00 EUR']) })).toEqual(['above-approved'])
    // Each line within its own, the order beyond the amount.
    const many = of(...Array.from({ length: 30 }, (): [string, string] => ['102.00 EUR', '100.00 EUR']))
    expect(decideIssue({ ...good, lines: many }).reasons).toMatchObject([
      { code: 'above-approved', description: null, approved: money('3000.00 EUR'), who: [{ name: 'Tomas Brandt' }] },
    ])
    // 80.00 pounds at 0.80 to the euro were approved as 100.00 euros; at 0.76 they are 105.26.
    const pounds = { currency: 'GBP', net: money('80.00 GBP'), lines: of(['80.00 GBP', '100.00 EUR']) }
    expect(codes({ ...pounds, perBase: '0.80' })).toEqual([])
    expect(codes({ ...pounds, perBase: '0.76' })).toEqual(['above-approved'])
  })
  // Rules of calculation, orders: what was decided last holds, with the tolerance, and counts for the limit too.
  test('what was decided on the order itself holds instead, within the tolerance', () => {
    const order = (ordered: string, decided: string | null) => ({
      state: 'approved' as const,
      net: money(`${ordered} EUR`),
      lines: [{ description: 'x', ordered: money(`${ordered} EUR`), approved: money('100.00 EUR') }],
      decided: decided === null ? null : { amount: money(`${decided} EUR`), lines: [money(`${decided} EUR`)] },
    })
    expect(codes(order('4000.00', null))).toEqual(['above-ordering-limit', 'above-approved'])
    expect(codes(order('4000.00', '4000.00'))).toEqual([])
    // 5 % of 4,000 is 200; the amount of the tolerance, 50, is the nearer.
    expect(codes(order('4050.00', '4000.00'))).toEqual([])
    expect(codes(order('4050.01', '4000.00'))).toEqual(['above-ordering-limit', 'above-approved'])
    expect(needsDecision(decideIssue({ ...good, ...order('4050.01', '4000.00') }).reasons)).toBe(true)
    // Other lines than were decided on are judged by what was approved of them.
    const others = { ...order('4000.00', '4000.00'), decided: { amount: money('4000.00 EUR'), lines: [] } }
    expect(codes(others)).toEqual(['above-approved'])
  })
  test('only authority can be asked for: anything else has to be put right first', () => {
    const { reasons } = decideIssue({ ...good, orderingLimit: null, sameShipTo: false })
    expect([needsDecision(reasons), needsDecision([])]).toEqual([false, false])
  })
  test('an order bars those whose need alone it serves, and is of a kind where its requests are', () => {
    expect(whoseNeedAlone([['a', 'b'], ['b'], ['c', 'b']])).toEqual(['b'])
    expect(whoseNeedAlone([['a'], ['b']])).toEqual([])
    const about = {
      buyer: { id: 'leonie', orderingLimit: money('100.00 EUR') },
      owner: { id: 'leonie', departmentId: 'd' },
      isDirect: false,
      branch: ['d'],
      currency: 'EUR',
      amount: money('10.00 EUR'),
      needs: [['a']],
      parts: [
        { category: 'c', codings: [{ budgetLineId: 'l' }] },
        { category: 'c', codings: [{ budgetLineId: 'l' }] },
      ],
      budgetLines: new Map(),
      hasAgreement: false,
      overBudget: false,
    }
    expect(orderSubject({ ...about, kinds: ['goods', 'goods'] })).toMatchObject({ kind: 'goods', ownedBy: ['a'] })
    const mixed = orderSubject({ ...about, kinds: ['goods', 'travel'] })
    expect([mixed.kind, mixed.codings.length]).toEqual(['', 1])
    expect([mixed.document, mixed.ownerId, mixed.raisedById]).toEqual(['order', 'leonie', 'leonie'])
    // A direct one is decided on as what whoever it is for asks by its buyer; above the buyer's limit as an order too.
    const direct = { ...about, isDirect: true, kinds: ['goods'], owner: { id: 'a', departmentId: 'e' } }
    const asked = orderSubject(direct)
    expect([asked.document, asked.ownerId, asked.raisedById, asked.departmentId]).toEqual([
      ...['requisition', 'a', 'leonie', 'e'],
    ])
    expect(orderSubject({ ...direct, amount: money('100.01 EUR') }).document).toBe('direct order')
  })
  test('a direct order is decided on as a request would be, until then it waits, and then holds as any other', () => {
    const direct = {
      isDirect: true,
      lines: [{ description: 'x', ordered: money('90.00 EUR'), approved: money('90.00 EUR') }],
    }
    const undecided = { ...direct, net: money('90.00 EUR') }
    expect(codes(undecided)).toEqual(['direct-undecided'])
    expect(needsDecision(decideIssue({ ...good, ...undecided }).reasons)).toBe(true)
    // Above the limit of its buyer it is asked for both.
    expect(codes({ ...undecided, net: money('3000.01 EUR') })).toEqual(['above-ordering-limit', 'direct-undecided'])
    const decided = { amount: money('90.00 EUR'), lines: [money('90.00 EUR')] }
    expect(codes({ ...undecided, state: 'approved', decided })).toEqual([])
    const dearer = [{ description: 'x', ordered: money('94.51 EUR'), approved: money('90.00 EUR') }]
    expect(codes({ ...undecided, state: 'approved', decided, lines: dearer })).toEqual(['above-approved'])
    const closedPeriod = { year: 2026, period: 3 }
    expect(codes({ ...undecided, closedPeriod })).toEqual(['direct-period-closed', 'direct-undecided'])
    expect(needsDecision(decideIssue({ ...good, ...undecided, closedPeriod }).reasons)).toBe(false)
  })
  test('of a direct order it is the need of whoever it was written for, not of the buyer who owns it', () => {
    const who = { ownerId: 'leonie', raisedById: 'owen', ownedBy: ['harriet'] }
    expect(whoseNeed({ ...who, isDirect: true })).toEqual(['owen'])
    expect(whoseNeed({ ...who, isDirect: false })).toEqual(['leonie', 'owen', 'harriet'])
  })
  test('a direct order meets the rules for requests, and above its buyer’s limit those for orders', () => {
    const sorts = (document: 'requisition' | 'order' | 'direct order') =>
      (['requests', 'orders', 'both'] as const).filter((documents) => isFor({ documents }, document))
    expect([sorts('requisition'), sorts('order'), sorts('direct order')]).toEqual([
      ['requests', 'both'],
      ['orders', 'both'],
      ['requests', 'orders', 'both'],
    ])
  })
  test('everything that stands in the way is said at once', () => {
    expect(
      codes({
        state: 'issued',
        lines: [],
        hasShipTo: false,
        sameShipTo: false,
        supplier: null,
        needs: [['leonie'], ['owen', 'leonie']],
        perBase: null,
      }),
    ).toEqual([
      'order-state',
      'order-empty',
      'no-ship-to',
      'ship-to-differs',
      'no-supplier',
      'own-need-alone',
      'no-rate',
    ])
    expect(
      codes({
        supplier: {
          name: 'x',
          channel: 'e-mail',
          reachable: false,
          blocked: true,
          freightWithoutRate: 'DKK',
        },
        filesSize: 14_000_001,
        needs: [['leonie'], ['owen']],
      }),
    ).toEqual(['supplier-blocked', 'supplier-unreachable', 'no-rate', 'files-too-large'])
  })
})

describe('what is taken off, said besides and priced by hand', () => {
  const merge = (...parts: TrayPart[]) => mergeParts(parts, prices, TODAY)
  test('keeps apart lines that differ in it, and joins those that do not', () => {
    const five = [{ kind: 'allowance' as const, percent: '5' }]
    expect(
      merge(part('a', '2', { adjustments: five }), part('b', '3', { adjustments: five }), part('c', '1')).map((l) => [
        l.quantity,
        l.adjustments,
      ]),
    ).toEqual([
      ['5', five],
      ['1', []],
    ])
    expect(merge(part('a', '2', { secondDescription: 'blue' }), part('b', '3')).length).toBe(2)
    expect(
      merge(
        part('a', '2', { noteToSupplier: 'in blue' }),
        part('b', '3', { noteToSupplier: 'in blue' }),
        part('c', '1', { noteToSupplier: 'by ship' }),
      ).map((l) => l.notes),
    ).toEqual([['in blue', 'by ship']])
  })
  test('amounts follow the quantity and add up; a price by hand stays, the others reach the break together', () => {
    const off = (amount: string) => [{ kind: 'allowance' as const, amount }]
    expect(
      merge(part('a', '2', { requested: '4', adjustments: off('10') }), part('b', '3', { adjustments: off('1') }))[0]
        ?.adjustments,
    ).toEqual(off('6'))
    expect(
      merge(part('a', '6', { isByHand: true, unitPrice: '20' }), part('b', '6')).map((l) => [l.quantity, l.unitPrice]),
    ).toEqual([
      ['6', '20'],
      ['6', '27.90'],
    ])
  })
})
