import { describe, expect, test } from 'vitest'
import { dec } from '#core/base/decimal'
import { daysBetween } from '#core/base/day'
import { subtract, sum } from '#core/base/money'
import { groupLines, type OpenLine } from './consolidate'
import { proposeOrders, type ProposalFacts, type ProposalOptions } from './propose'

const TODAY = '2026-11-25'
const supplier = (more: object = {}) => ({
  standing: 'active',
  currency: 'EUR',
  freight: null,
  freightFreeFrom: null,
  minimumOrder: null,
  ...more,
})
const step = (from: string, unitPrice: string) => ({ from, unitPrice, validFrom: null, validUntil: null })
const facts = (more: Partial<ProposalFacts> = {}): ProposalFacts => ({
  today: TODAY,
  baseCurrency: 'EUR',
  perBase: new Map([
    ['EUR', '1'],
    ['GBP', '0.8'],
  ]),
  prices: new Map([['sleeve', [step('1', '31.50'), step('10', '28.00')]]]),
  suppliers: new Map([
    ['pumps', supplier()],
    ['salts', supplier()],
    ['held', supplier({ standing: 'on hold' })],
  ]),
  ...more,
})
const ALL: ProposalOptions = {
  windowDays: null,
  mostRequests: null,
  byDepartment: false,
  choose: 'cheapest',
  waitFor: null,
}
let made = 0
const line = (requisitionId: string, more: Partial<OpenLine> = {}): OpenLine => {
  made += 1
  const quantity = more.quantity ?? '1'
  return {
    requisitionLineId: `l${made}`,
    requisitionId,
    number: requisitionId,
    sentOn: '2026-11-20',
    supplierId: 'pumps',
    departmentId: 'water',
    agreementId: null,
    quantity,
    requested: quantity,
    itemId: 'sleeve',
    description: 'Sleeve',
    secondDescription: '',
    noteToSupplier: '',
    isByHand: false,
    adjustments: [],
    unit: 'H87',
    unitPrice: '31.50',
    priceBase: '1',
    currency: 'EUR',
    taxCode: 'S',
    supplierPart: null,
    needBy: '2026-12-08',
    shipToId: 'hall',
    ...more,
  }
}
const requestsOf = (p: ReturnType<typeof proposeOrders>) =>
  p.orders.map((o) => new Set(o.parts.map((l) => l.requisitionId)).size)

describe('what may share an order', () => {
  test('is of one supplier, place, currency and agreement, and of one department where that is set', () => {
    const lines = [
      line('a'),
      line('b', { shipToId: 'boat' }),
      line('c', { currency: 'GBP' }),
      line('d', { supplierId: 'salts' }),
      line('e', { departmentId: 'animals' }),
      line('f', { supplierId: null }),
      line('g', { agreementId: 'A-26-00001' }),
    ]
    const groups = (byDepartment: boolean) =>
      groupLines(lines, { windowDays: null, mostRequests: null, byDepartment }).map((g) =>
        g.map((l) => l.requisitionId).join(''),
      )
    expect(groups(false)).toEqual(['ae', 'b', 'c', 'd', 'g'])
    expect(groups(true)).toEqual(['a', 'b', 'c', 'd', 'e', 'g'])
  })

  test('is needed within a window that the earliest day opens, its last day included', () => {
    const lines = ['2026-12-15', '2026-12-01', '2026-12-08', '2026-12-09', '2026-12-16'].map((needBy, i) =>
      line(`r${i}`, { needBy }),
    )
    const days = groupLines(lines, { windowDays: 7, mostRequests: null, byDepartment: false }).map((g) =>
      g
        .map((l) => l.needBy.slice(8))
        .sort()
        .join(' '),
    )
    expect(days).toEqual(['01 08', '09 15 16'])
  })
})

describe('a proposal', () => {
  test('of eleven requisitions with at most five to an order is three: of five, five and one', () => {
    // Common practice, no source.
    const lines = Array.from({ length: 11 }, (_, i) => line(`r${String(i).padStart(2, '0')}`, { itemId: null }))
    const p = proposeOrders(lines, { ...ALL, mostRequests: 5 }, facts())
    expect(requestsOf(p)).toEqual([5, 5, 1])
    expect(p.orders[0]?.parts.map((l) => l.number)).toEqual(['r00', 'r01', 'r02', 'r03', 'r04'])
  })

  test('goes by the day sent, then by number, whatever the order of the lines', () => {
    const lines = [
      line('c', { sentOn: '2026-11-19', itemId: null }),
      line('a', { sentOn: '2026-11-20', itemId: null }),
      line('b', { sentOn: '2026-11-19', itemId: null }),
    ]
    for (const some of [lines, [...lines].reverse()]) {
      const p = proposeOrders(some, { ...ALL, mostRequests: 1 }, facts())
      expect(p.orders.map((o) => o.parts[0]?.number)).toEqual(['b', 'c', 'a'])
    }
  })

  test('saves the lower price of ten and the freight of all but one, against one order for each requisition', () => {
    const terms = supplier({ freight: '24.00', freightFreeFrom: '500.00' })
    const p = proposeOrders(
      [line('a', { quantity: '6' }), line('b', { quantity: '4', needBy: '2026-12-10' })],
      ALL,
      facts({ suppliers: new Map([['pumps', terms]]) }),
    )
    // Alone 189.00 + 24.00 and 126.00 + 24.00; together ten at 28.00 and 24.00. Worked by hand.
    expect(p.orders.map((o) => [o.worth.goods.amount, o.worth.net.amount, o.saved.amount])).toEqual([
      ['280.00', '304.00', '59.00'],
    ])
    expect([p.net.amount, p.saved.amount, p.belowOldest.amount]).toEqual(['304.00', '59.00', '0.00'])
    expect(p.orders[0]?.worth.lines).toHaveLength(2)
  })

  test('finds who belongs together where a cap parts them: those whose items reach the step', () => {
    const lines = [
      line('a', { quantity: '5' }),
      line('b', { itemId: null, unitPrice: '10.00' }),
      line('c', { itemId: null, unitPrice: '10.00' }),
      line('d', { quantity: '5' }),
    ]
    const two = { ...ALL, mostRequests: 2 }
    const p = proposeOrders(lines, two, facts())
    expect(p.orders.map((o) => o.parts.map((l) => l.requisitionId).join('')).sort()).toEqual(['ad', 'bc'])
    expect(p.belowOldest.amount).toBe('35.00')
    const old = proposeOrders(lines, { ...two, choose: 'oldest' }, facts())
    expect(old.orders.map((o) => o.parts.map((l) => l.requisitionId).join(''))).toEqual(['ab', 'cd'])
    expect(subtract(old.net, p.net).amount).toBe('35.00')
  })

  test('marks what is below the minimum; the cheapest plan keeps it where it can, with requisitions whole', () => {
    const lines = Array.from({ length: 6 }, (_, i) => line(`r${i}`, { itemId: null, unitPrice: '40.00' }))
    const some = facts({ suppliers: new Map([['pumps', supplier({ minimumOrder: '100.00' })]]) })
    const options = { ...ALL, mostRequests: 4 }
    const oldest = proposeOrders(lines, { ...options, choose: 'oldest' }, some)
    expect(oldest.orders.map((o) => o.belowMinimum?.amount ?? null)).toEqual([null, '100.00'])
    const cheapest = proposeOrders(lines, options, some)
    expect(requestsOf(cheapest)).toEqual([3, 3])
    expect(cheapest.orders.every((o) => o.belowMinimum === null)).toBe(true)
    const one = proposeOrders(lines.slice(0, 1), options, some)
    expect(one.orders[0]?.belowMinimum?.amount).toBe('100.00')
  })

  test('leaves lines without a supplier, with one that is on hold, and with one whose terms have no rate', () => {
    const dollars = supplier({ currency: 'USD', freight: '50.00' })
    const p = proposeOrders(
      [line('a', { supplierId: null }), line('b', { supplierId: 'held' }), line('c', { supplierId: 'far' }), line('d')],
      ALL,
      facts({
        suppliers: new Map([
          ['pumps', supplier()],
          ['held', supplier({ standing: 'on hold' })],
          ['far', dollars],
        ]),
      }),
    )
    expect(p.left.map((l) => [l.line.requisitionId, l.reason.code])).toEqual([
      ['a', 'no-supplier'],
      ['b', 'supplier-not-active'],
      ['c', 'no-rate'],
    ])
    expect(requestsOf(p)).toEqual([1])
  })

  test('waits for more up to and including the last day, and only below the value', () => {
    const waits = (sentOn: string, unitPrice: string) =>
      proposeOrders(
        [line('a', { sentOn, itemId: null, unitPrice })],
        { ...ALL, waitFor: { value: '250.00', days: 5 } },
        facts(),
      ).left.map((l) => (l.reason.code === 'waits-for-more' ? l.reason.until : ''))
    expect(waits('2026-11-20', '249.99')).toEqual(['2026-11-25'])
    expect(waits('2026-11-19', '249.99')).toEqual([])
    expect(waits('2026-11-20', '250.00')).toEqual([])
  })
})

test('over many worlds no line is lost or doubled, caps and windows hold, and the cheapest costs no more', () => {
  let state = 7
  const next = (below: number) => {
    state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0
    return state % below
  }
  for (let world = 0; world < 60; world += 1) {
    const requests = 1 + next(9)
    const lines = Array.from({ length: requests * 2 }, () =>
      line(`r${next(requests)}`, {
        quantity: String(1 + next(9)),
        itemId: next(3) === 0 ? null : 'sleeve',
        supplierId: ['pumps', 'salts', null, 'held'][next(4)] ?? null,
        needBy: `2026-12-${String(1 + next(28)).padStart(2, '0')}`,
      }),
    )
    const terms = supplier({ freight: '15.00', freightFreeFrom: '400.00', minimumOrder: '60.00' })
    const some = facts({
      suppliers: new Map([
        ['pumps', terms],
        ['salts', supplier()],
        ['held', supplier({ standing: 'on hold' })],
      ]),
    })
    const options = { ...ALL, windowDays: 10, mostRequests: 1 + next(4) }
    const p = proposeOrders(lines, options, some)
    const seen = [...p.orders.flatMap((o) => o.parts), ...p.left.map((l) => l.line)].map((l) => l.requisitionLineId)
    expect(seen.sort()).toEqual(lines.map((l) => l.requisitionLineId).sort())
    for (const o of p.orders) {
      expect(new Set(o.parts.map((l) => l.requisitionId)).size).toBeLessThanOrEqual(options.mostRequests)
      const days = o.parts.map((l) => l.needBy).sort()
      expect(daysBetween(days[0] ?? '', days.at(-1) ?? '')).toBeLessThanOrEqual(10)
      const laid = o.worth.lines.flatMap((l) => l.sources)
      expect(laid.map((s) => s.requisitionLineId).sort()).toEqual(o.parts.map((l) => l.requisitionLineId).sort())
    }
    for (const group of groupLines(lines, options))
      for (const id of new Set(group.map((l) => l.requisitionId))) {
        const own = group.filter((l) => l.requisitionId === id).map((l) => l.requisitionLineId)
        const holders = p.orders.filter((o) => o.parts.some((l) => own.includes(l.requisitionLineId)))
        expect(holders.length).toBeLessThanOrEqual(1)
      }
    const oldest = proposeOrders(lines, { ...options, choose: 'oldest' }, some)
    const below = (x: typeof p) => x.orders.filter((o) => o.belowMinimum !== null).length
    expect(below(p)).toBeLessThanOrEqual(below(oldest))
    if (below(p) === below(oldest)) expect(dec(p.net.amount).lte(dec(oldest.net.amount))).toBe(true)
    expect(subtract(oldest.net, p.net)).toEqual(p.belowOldest)
    expect(p.net).toEqual(
      sum(
        p.orders.map((o) => o.worth.net),
        'EUR',
      ),
    )
  }
})
