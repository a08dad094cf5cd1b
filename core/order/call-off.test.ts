import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { NOTHING, dec } from '#core/base/decimal'
import { moneyOf, type Money } from '#core/base/money'
import {
  callLines,
  decideCallOff,
  leftToCall,
  muchOf,
  type BlanketLine,
  type CalledLine,
  type CallFacts,
  type CallWish,
} from './call-off'
import { changeLines, decideOrderChange, type LineWish, type StandingLine } from './change'

const eur = (amount: string): Money => moneyOf(amount, 'EUR')
const salt = (more: Partial<BlanketLine> = {}): BlanketLine => ({
  ...{ id: 'salt', description: 'Sea salt', unit: 'KGM', quantity: '500', unitPrice: '1.80', priceBase: '1' },
  ...{ adjustments: [], net: eur('900.00'), called: { quantity: '0', net: eur('0.00') } },
  ...more,
})
const repair = (more: Partial<BlanketLine> = {}): BlanketLine => ({
  ...salt(),
  ...{
    id: 'repair',
    description: 'Repairs as needed',
    unit: 'LS',
    quantity: '1',
    unitPrice: '1000',
    net: eur('1000.00'),
  },
  ...more,
})
const wish = (lineId: string, much: string, needBy = '2026-12-10'): CallWish => ({ lineId, much, needBy })
const facts = (lines: readonly CalledLine[], more: Partial<CallFacts> = {}): CallFacts => ({
  ...{ state: 'issued', expiresOn: '2026-12-31', today: '2026-12-01', currency: 'EUR', isReachable: true, lines },
  supplier: { name: 'Brackwater Salts', isBlocked: false, channel: 'e-mail' },
  ...more,
})
const codes = (f: CallFacts) => decideCallOff(f).reasons.map((r) => r.code)

// Written by hand, no source.
describe('what is called off of a blanket order', () => {
  it('is priced as that is: quantities at its price, amounts as one lump sum', () => {
    const [a, b] = callLines([salt(), repair()], [wish('repair', '123.456'), wish('salt', '12.5')], 'EUR')
    expect([a?.of.id, a?.quantity, a?.unitPrice, a?.net.amount]).toEqual(['salt', '12.5', '1.80', '22.50'])
    expect([b?.of.id, b?.quantity, b?.unitPrice, b?.net.amount]).toEqual(['repair', '1', '123.46', '123.46'])
  })
  it('has what is taken off as an amount by its quantity, as a percentage whole', () => {
    const less = salt({ adjustments: [{ kind: 'allowance', amount: '50' }] })
    expect(callLines([less], [wish('salt', '100')], 'EUR')[0]?.net.amount).toBe('170.00')
    const percent = salt({ adjustments: [{ kind: 'allowance', percent: '10' }] })
    expect(callLines([percent], [wish('salt', '100')], 'EUR')[0]?.net.amount).toBe('162.00')
  })
  it('leaves out what comes to nothing', () => {
    expect(callLines([salt(), repair()], [wish('salt', '0'), wish('repair', '0.004')], 'EUR')).toEqual([])
  })
  it('is never more than is left, of whichever line', () => {
    const called = { quantity: '480', net: eur('864.00') }
    expect(leftToCall(salt({ called }))).toBe('20')
    const lines = callLines(
      [salt({ called }), repair({ called: { quantity: '3', net: eur('999.99') } })],
      [...[wish('salt', '20.1'), wish('repair', '0.02')]],
      'EUR',
    )
    expect(decideCallOff(facts(lines)).reasons).toMatchObject([
      { code: 'beyond-blanket', description: 'Sea salt', most: '20' },
      { code: 'beyond-blanket', description: 'Repairs as needed', most: '0.01' },
    ])
    // A blanket order may stand below what was called off of it only if somebody wrote past us: then nothing is left.
    expect(leftToCall(salt({ called: { quantity: '501', net: eur('901.80') } }))).toBe('0')
  })
  it('comes from today until its last day, while it stands and its supplier may be ordered from', () => {
    const of = (needBy: string, more: Partial<CallFacts> = {}) =>
      codes(facts(callLines([salt()], [wish('salt', '1', needBy)], 'EUR'), more))
    expect([of('2026-12-01'), of('2026-12-31'), of('2026-11-30'), of('2027-01-01')]).toEqual([
      ...[[], [], ['day-is-past'], ['after-the-end']],
    ])
    expect(of('2026-12-10', { today: '2026-12-31' })).toEqual(['day-is-past'])
    expect(of('2027-01-02', { today: '2027-01-01' })).toEqual(['order-expired', 'after-the-end'])
    expect(of('2026-12-10', { state: 'acknowledged' })).toEqual([])
    expect(of('2026-12-10', { state: 'cancelled' })).toEqual(['order-state'])
    const supplier = { name: 'Brackwater Salts', isBlocked: true, channel: 'e-mail' as const }
    expect(of('2026-12-10', { supplier, isReachable: false })).toEqual(['supplier-blocked', 'supplier-unreachable'])
    expect(codes(facts([]))).toEqual(['nothing-called'])
  })
  it('never comes to more than the blanket order, whatever is called off after whatever was', () => {
    const steps = fc.array(fc.tuple(fc.integer({ min: 0, max: 40_000 }), fc.boolean()), { maxLength: 20 })
    fc.assert(
      fc.property(steps, (calls) => {
        const blanket = [salt(), repair()]
        const called = new Map(blanket.map((l) => [l.id, l.called]))
        for (const [cents, ofSalt] of calls) {
          const stand = blanket.map((l) => ({ ...l, called: called.get(l.id) ?? l.called }))
          const lines = callLines(
            stand,
            [wish(ofSalt ? 'salt' : 'repair', dec(String(cents)).percent().toFixed())],
            'EUR',
          )
          if (decideCallOff(facts(lines)).value === null) continue
          for (const l of lines) {
            const was = called.get(l.of.id) ?? l.of.called
            const net = eur(dec(was.net.amount).plus(dec(l.net.amount)).toFixed())
            called.set(l.of.id, { quantity: dec(was.quantity).plus(dec(l.quantity)).toFixed(), net })
          }
          for (const l of blanket) {
            const of = called.get(l.id) ?? l.called
            expect(dec(muchOf(l.unit, of)).lte(dec(muchOf(l.unit, l)))).toBe(true)
            const left = dec(leftToCall({ ...l, called: of }))
            expect(left.plus(dec(muchOf(l.unit, of))).eq(dec(muchOf(l.unit, l)))).toBe(true)
            expect(left.lt(NOTHING)).toBe(false)
          }
        }
      }),
    )
  })
})

const standing = (more: Partial<StandingLine>): StandingLine => ({
  ...{ id: 'salt', description: 'Sea salt', quantity: '500', unit: 'KGM', unitPrice: '1.80', priceBase: '1' },
  ...{ adjustments: [], needBy: '2026-12-10', done: '0', sources: [] },
  ...more,
})
const to = (more: Partial<LineWish>): LineWish => ({
  ...{ lineId: 'salt', quantity: '500', unitPrice: '1.80', needBy: '2026-12-10' },
  ...more,
})
function changing(of: StandingLine, wished: LineWish, calledFrom: { expiresOn: string } | null): string[] {
  const lines = changeLines([of], [wished], 'EUR')
  const { reasons } = decideOrderChange({
    ...{ state: 'issued', currency: 'EUR', baseCurrency: 'EUR', perBase: '1', lines, approved: [eur('900.00')] },
    ...{ ordered: lines.map((l) => l.net), goods: lines[0]?.net ?? eur('0'), discounts: eur('0') },
    ...{ netBefore: lines[0]?.was.net ?? eur('0'), net: lines[0]?.net ?? eur('0'), today: '2026-12-01' },
    ...{
      isWaiting: false,
      adjustments: null,
      movesShipTo: false,
      endsOn: null,
      agreement: null,
      isReachable: true,
      buyerId: 'leonie',
      needs: [['rosa']],
    },
    supplier: { name: 'Brackwater Salts', isBlocked: false, channel: 'e-mail' },
    authority: {
      ...{ isDirect: false, directOrders: null, orderingLimit: null, mayIssue: [], deciders: [], decided: null },
      tolerance: { percent: '0', amount: eur('0.00') },
    },
    calledFrom,
  })
  return reasons.map((r) => r.code)
}

describe('a change', () => {
  it('of a blanket order goes down to what was called off, and no further', () => {
    const called = { quantity: '120', net: eur('216.00') }
    const of = standing({ called })
    expect(changing(of, to({ quantity: '120' }), null)).toEqual([])
    expect(changing(of, to({ quantity: '119.9' }), null)).toEqual(['below-called-off'])
    expect(changing(of, to({ quantity: '0' }), null)).toEqual(['below-called-off'])
    expect(changing(standing({ called: null }), to({ quantity: '0' }), null)).toEqual([])
    const amount = standing({ called, unit: 'LS', quantity: '1', unitPrice: '900' })
    expect(changing(amount, to({ quantity: '1', unitPrice: '216' }), null)).toEqual([])
    expect(changing(amount, to({ quantity: '1', unitPrice: '215.99' }), null)).toEqual(['below-called-off'])
  })
  it('of a call-off takes what is left, at the blanket order’s price and within its term, and asks nobody', () => {
    const of = standing({ quantity: '100', mostOfBlanket: '130' })
    const within = { expiresOn: '2026-12-31' }
    expect(changing(of, to({ quantity: '130' }), within)).toEqual([])
    expect(changing(of, to({ quantity: '0' }), within)).toEqual([])
    expect(changing(of, to({ quantity: '131' }), within)).toEqual(['beyond-blanket'])
    expect(changing(of, to({ quantity: '100', unitPrice: '1.70' }), within)).toEqual(['price-of-blanket'])
    expect(changing(of, to({ quantity: '100', needBy: '2027-01-01' }), within)).toEqual(['after-the-end'])
    const amount = standing({ unit: 'LS', quantity: '1', unitPrice: '200', mostOfBlanket: '250' })
    expect(changing(amount, to({ quantity: '1', unitPrice: '250' }), within)).toEqual([])
    expect(changing(amount, to({ quantity: '1', unitPrice: '250.01' }), within)).toEqual(['beyond-blanket'])
  })
})
