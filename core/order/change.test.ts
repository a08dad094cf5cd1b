import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { dec } from '#core/base/decimal'
import { moneyOf, type Money } from '#core/base/money'
import { changeLines, decideOrderChange, type LineWish, type OrderChangeFacts, type StandingLine } from './change'
import { needsDecision } from './issue'
import { CHANGE_MOVES, CHANGE_STATES, isChangeMoveFrom } from './change-moves'

const eur = (amount: string): Money => moneyOf(amount, 'EUR')
const line = (more: Partial<StandingLine> = {}): StandingLine => ({
  ...{ id: 'a', description: 'Pump seal', quantity: '10', unit: 'H87', unitPrice: '12.50', priceBase: '1' },
  ...{ adjustments: [], needBy: '2026-12-01', done: '0' },
  sources: [
    { requisitionLineId: 'first', quantity: '6', open: '0' },
    { requisitionLineId: 'second', quantity: '4', open: '3' },
  ],
  ...more,
})
const wish = (quantity: string, more: Partial<LineWish> = {}): LineWish => ({
  ...{ lineId: 'a', quantity, unitPrice: '12.50', needBy: '2026-12-01' },
  ...more,
})
const changed = (of: StandingLine, to: LineWish) => {
  const [found] = changeLines([of], [to], 'EUR')
  if (found === undefined) throw new Error('no line')
  return found
}

// Written by hand, no source.
describe('the lines of an order after a change', () => {
  it('take what is ordered less from the last requisition backwards', () => {
    const { moved, sources, net, was } = changed(line(), wish('5'))
    expect(moved).toEqual([
      { requisitionLineId: 'first', by: '-1' },
      { requisitionLineId: 'second', by: '-4' },
    ])
    expect(sources.map((s) => [s.quantity, s.open])).toEqual([
      ['5', '1'],
      ['0', '7'],
    ])
    expect([was.net.amount, net.amount]).toEqual(['125.00', '62.50'])
  })
  it('give what is ordered more to whoever still needs it, and are the same where nothing is', () => {
    expect(changed(line(), wish('12')).moved).toEqual([{ requisitionLineId: 'second', by: '2' }])
    expect(changed(line(), wish('10.000')).isChanged).toBe(false)
    expect(changed(line(), wish('10', { needBy: '2026-12-02' })).isChanged).toBe(true)
  })
  it('lower what is taken off as an amount with the quantity; a line that is off costs nothing', () => {
    const with5 = line({ adjustments: [{ kind: 'allowance', amount: '5' }] })
    expect(changed(with5, wish('4')).net.amount).toBe('48.00')
    expect(changed(with5, wish('0')).net.amount).toBe('0.00')
  })
  it('lose no quantity and double none, whatever is wished after whatever was', () => {
    const steps = fc.array(fc.integer({ min: 0, max: 13 }), { minLength: 1, maxLength: 8 })
    fc.assert(
      fc.property(steps, (quantities) => {
        let at = line()
        const asked = ['6', '7']
        for (const q of quantities) {
          const next = changed(at, wish(String(q)))
          if (next.sources.some((s) => dec(s.open).isNegative()) || dec(at.quantity).isZero()) continue
          const sum = next.sources.reduce((s, x) => s.plus(dec(x.quantity)), dec('0'))
          expect(sum.eq(dec(next.quantity))).toBe(true)
          next.sources.forEach((s, i) => {
            expect(dec(s.quantity).plus(dec(s.open)).toFixed()).toBe(asked[i])
            expect(dec(s.quantity).isNegative()).toBe(false)
          })
          at = next
        }
      }),
    )
  })
})

const facts = (to: LineWish, more: Partial<OrderChangeFacts> = {}, of = line()): OrderChangeFacts => {
  const lines = changeLines([of], [to], 'EUR')
  return {
    ...{ state: 'issued', currency: 'EUR', baseCurrency: 'EUR', perBase: '1', lines, isWaiting: false },
    ...{ ordered: lines.map((l) => l.net), goods: lines[0]?.net ?? eur('0.00'), discounts: eur('0.00') },
    ...{ approved: [eur('125.00')], netBefore: lines[0]?.was.net ?? eur('0.00'), net: lines[0]?.net ?? eur('0.00') },
    ...{
      today: '2026-11-28',
      movesShipTo: false,
      adjustments: null,
      endsOn: null,
      agreement: null,
      calledFrom: null,
      isReachable: true,
      buyerId: 'leonie',
      needs: [['owen']],
    },
    supplier: { name: 'Corrigan Pumps', isBlocked: false, channel: 'e-mail' },
    authority: {
      ...{
        isDirect: false,
        directOrders: null,
        orderingLimit: eur('3000.00'),
        mayIssue: [],
        deciders: [],
        decided: null,
      },
      tolerance: { percent: '5', amount: eur('50.00') },
    },
    ...more,
  }
}
const codes = (f: OrderChangeFacts) => decideOrderChange(f).reasons.map((r) => r.code)

describe('whether an issued order may be changed', () => {
  it('may by its buyer, within what was approved and its limit', () => {
    expect(codes(facts(wish('9')))).toEqual([])
    expect(codes(facts(wish('10', { unitPrice: '13.12' })))).toEqual([])
    // 5 % of 125.00 are 6.25; 131.30 is 6.30 above.
    expect(codes(facts(wish('10', { unitPrice: '13.13' })))).toEqual(['above-approved'])
  })
  it('holds what grows against what was decided last, never against what stands', () => {
    const dearer = wish('10', { unitPrice: '13.50' })
    const decided = { amount: eur('130.00'), lines: [eur('130.00')] }
    const { authority } = facts(dearer)
    // It crept to 131.25 within the tolerance of 125.00; 135.00 is within that of the 130.00 that were decided.
    const crept = line({ unitPrice: '13.125' })
    expect(codes(facts(dearer, {}, crept))).toEqual(['above-approved'])
    expect(codes(facts(dearer, { authority: { ...authority, decided } }, crept))).toEqual([])
    expect(codes(facts(wish('10', { unitPrice: '13.66' }), { authority: { ...authority, decided } }, crept))).toEqual([
      'above-approved',
    ])
  })
  it('asks nobody for what makes nothing dearer, whatever the limit, the supplier and whose need it is', () => {
    const { authority } = facts(wish('9'))
    const poor = {
      ...{ authority: { ...authority, orderingLimit: null }, needs: [['leonie']] },
      supplier: { name: 'Corrigan Pumps', isBlocked: true, channel: 'e-mail' as const },
    }
    expect(codes(facts(wish('9'), poor))).toEqual([])
    expect(codes(facts(wish('0'), poor))).toEqual([])
    expect(codes(facts(wish('10', { needBy: '2026-12-24' }), poor))).toEqual([])
    expect(codes(facts(wish('11'), poor))).toEqual([
      'supplier-blocked',
      'own-need-alone',
      'above-ordering-limit',
      'above-approved',
    ])
  })
  it('stops at what was asked for, at what came, at a line that is off, and while another change waits', () => {
    expect(codes(facts(wish('14'), { approved: [eur('175.00')] }))).toEqual(['more-than-asked'])
    expect(decideOrderChange(facts(wish('14'))).reasons[0]).toMatchObject({ most: '13' })
    expect(codes(facts(wish('3'), {}, line({ done: '4' })))).toEqual(['below-done'])
    expect(codes(facts(wish('4'), {}, line({ done: '4' })))).toEqual([])
    const off = line({ quantity: '0', sources: line().sources.map((s) => ({ ...s, quantity: '0', open: '9' })) })
    expect(codes(facts(wish('2'), {}, off))).toContain('line-is-off')
    expect(codes(facts(wish('9'), { isWaiting: true }))).toEqual(['change-waits'])
    expect(codes(facts(wish('10')))).toEqual(['nothing-changes'])
    expect(codes(facts(wish('10'), { movesShipTo: true }))).toEqual([])
    expect(codes(facts(wish('9'), { isReachable: false }))).toEqual(['supplier-unreachable'])
    expect(codes(facts(wish('10', { needBy: '2026-11-27' })))).toEqual(['day-is-past'])
    // A day that has passed meanwhile, and stays, bars nothing.
    expect(codes(facts(wish('9', { needBy: '2026-11-01' }), {}, line({ needBy: '2026-11-01' })))).toEqual([])
  })
  it('follows the table: of which something came, it is not cancelled', () => {
    expect(codes(facts(wish('9'), { state: 'part received' }))).toEqual([])
    expect(codes(facts(wish('0'), { state: 'part received' }))).toEqual(['order-state'])
    expect(codes(facts(wish('9'), { state: 'cancelled' }))).toEqual(['order-state'])
  })
  it('may be sent for a decision where nothing but authority is in its way', () => {
    const reasons = (f: OrderChangeFacts) => decideOrderChange(f).reasons
    expect(needsDecision(reasons(facts(wish('10', { unitPrice: '20' }))))).toBe(true)
    expect(needsDecision(reasons(facts(wish('14', { unitPrice: '20' }))))).toBe(false)
    expect(needsDecision([])).toBe(false)
  })
})

// A second time by hand: rules of calculation, what may happen.
it('a change moves only along its table', () => {
  const table = Object.keys(CHANGE_MOVES).map((move) => [
    move,
    CHANGE_STATES.filter((s) => isChangeMoveFrom(move as keyof typeof CHANGE_MOVES, s)),
  ])
  expect(Object.fromEntries(table)).toEqual({
    send: ['draft'],
    approve: ['in approval'],
    sendBack: ['in approval'],
    ask: ['in approval'],
    handOn: ['in approval'],
    answer: ['in approval'],
    putInForce: ['draft', 'approved'],
    throwAway: ['draft', 'in approval', 'approved'],
  })
})
