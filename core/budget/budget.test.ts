import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { add, money, sum, zero, type Money } from '#core/base/money'
import { effectsOf, type CodedLine } from '#core/budget/effect'
import { checkBudget, figuresFor, type BudgetLineFacts } from '#core/budget/available'
import {
  balanceMoves,
  behindMoves,
  ledgerEntries,
  type DocumentMove,
  standingsOf,
  type Standing,
} from '#core/budget/ledger'

const coded = (more: Partial<CodedLine> = {}): CodedLine => ({
  quantity: '1',
  unitPrice: '140',
  priceBase: '1',
  currency: 'EUR',
  taxRate: '19',
  perBase: '1',
  baseCurrency: 'EUR',
  split: { method: 'percent', values: ['60', '40'] },
  codings: [
    { budgetLineId: 'waste', reclaimable: '100' },
    { budgetLineId: 'pumps', reclaimable: '100' },
  ],
  ...more,
})

describe('what a budget feels', () => {
  test('nothing of the tax where all of it comes back; all of it where none does', () => {
    expect(effectsOf(coded()).map((e) => e.amount.amount)).toEqual(['84.00', '56.00'])
    expect(
      effectsOf(
        coded({
          codings: [
            { budgetLineId: 'a', reclaimable: '0' },
            { budgetLineId: 'b', reclaimable: '60' },
          ],
        }),
      ).map((e) => e.amount.amount),
    ).toEqual(['99.96', '60.26'])
  })

  test('worked out in the line’s currency, then converted and rounded', () => {
    const [effect] = effectsOf(
      coded({
        unitPrice: '438',
        currency: 'GBP',
        perBase: '0.854',
        split: { method: 'percent', values: [null] },
        codings: [{ budgetLineId: 'a', reclaimable: '100' }],
      }),
    )
    expect(effect?.amount).toEqual({ amount: '512.88', currency: 'EUR' })
  })

  test('property: parts leave nothing behind, whatever the parts', () => {
    const parts = fc.array(fc.integer({ min: 1, max: 20 }), { minLength: 1, maxLength: 8 })
    fc.assert(
      fc.property(
        parts,
        fc.integer({ min: 1, max: 99_999 }),
        fc.constantFrom('0', '33.33', '60', '100'),
        (quantities, cents, reclaimable) => {
          const total = quantities.reduce((a, b) => a + b, 0)
          const line = coded({
            quantity: String(total),
            unitPrice: (cents / 100).toFixed(2),
            codings: [
              { budgetLineId: 'a', reclaimable },
              { budgetLineId: 'b', reclaimable: '100' },
            ],
          })
          let stands: Standing[] = []
          const write = (worth: ReturnType<typeof effectsOf>) => {
            const entries = ledgerEntries('reserved', stands, worth)
            const sums = new Map<number, Money>(stands.map((s) => [s.codingAt, s.amount]))
            for (const e of entries) sums.set(e.codingAt, add(sums.get(e.codingAt) ?? zero('EUR'), e.amount))
            stands = [...sums].map(([codingAt, amount]) => ({
              codingAt,
              amount,
              budgetLineId: codingAt === 0 ? 'a' : 'b',
            }))
            for (const s of stands) expect(s.amount.amount.startsWith('-')).toBe(false)
          }
          write(effectsOf(line))
          let left = total
          for (const q of quantities) {
            left -= q
            write(left === 0 ? [] : effectsOf(line, String(left)))
          }
          expect(
            sum(
              stands.map((s) => s.amount),
              'EUR',
            ).amount,
          ).toBe('0.00')
        },
      ),
    )
  })
})

describe('the check of a budget line', () => {
  const nothing = zero('EUR')
  const line = (more: Partial<BudgetLineFacts> = {}): BudgetLineFacts => ({
    id: 'l',
    name: 'Pumps',
    code: '4100-610',
    control: 'refuses',
    mayFallBelow: nothing,
    span: 'year',
    periods: [1, 2, 3].map((period) => ({
      period,
      budgeted: money('400.00 EUR'),
      adjustments: nothing,
      reserved: period === 1 ? money('200.00 EUR') : nothing,
      committed: nothing,
      spent: nothing,
    })),
    ...more,
  })
  const check = (l: BudgetLineFacts, amount: string, period = 1) =>
    checkBudget([{ budgetLineId: 'l', amount: money(amount) }], new Map([['l', l]]), period)[0]

  test('1,060.00 with 1,000.00 left is passed, and says by how much', () => {
    expect(check(line(), '1060.00 EUR')).toMatchObject({
      before: money('1000.00 EUR'),
      after: money('-60.00 EUR'),
      passedBy: money('60.00 EUR'),
    })
  })
  test('the last cent may be taken', () => {
    expect(check(line(), '1000.00 EUR')?.passedBy).toBeNull()
  })
  test('a line may fall below nothing by what it allows', () => {
    expect(check(line({ mayFallBelow: money('50.00 EUR') }), '1050.00 EUR')?.passedBy).toBeNull()
    expect(check(line({ mayFallBelow: money('50.00 EUR') }), '1050.01 EUR')?.passedBy).toEqual(money('0.01 EUR'))
  })
  test('the year, the year up to the period, or the period alone', () => {
    expect(figuresFor(line({ span: 'year' }), 2).available.amount).toBe('1000.00')
    expect(figuresFor(line({ span: 'to date' }), 2).available.amount).toBe('600.00')
    expect(figuresFor(line({ span: 'period' }), 1).available.amount).toBe('200.00')
  })
  test('what lowers a line that is over already is never held against it', () => {
    const over = line({
      periods: [
        {
          period: 1,
          budgeted: nothing,
          adjustments: nothing,
          reserved: nothing,
          committed: nothing,
          spent: money('10.00 EUR'),
        },
      ],
    })
    expect(check(over, '-5.00 EUR')?.passedBy).toBeNull()
    expect(check(over, '0.00 EUR')?.passedBy).toBeNull()
  })
})

describe('what entries add up to (rules of calculation, budget: balances equal the sum of entries)', () => {
  const entry = (codingAt: number, period: number, amount: string) => ({
    budgetLineId: 'a',
    codingAt,
    period,
    amount: money(`${amount} EUR`),
  })

  test('what stands is kept by coding and period, and what came to nothing is left out', () => {
    expect(
      standingsOf([
        entry(1, 2, '0.10'),
        entry(0, 2, '5.00'),
        entry(1, 2, '0.20'),
        entry(0, 2, '-5.00'),
        entry(0, 3, '1.00'),
      ]),
    ).toEqual([entry(0, 3, '1.00'), entry(1, 2, '0.30')])
  })

  test('a balance moves once for each budget line and period, stage by stage', () => {
    const moves = balanceMoves([
      { ...entry(0, 2, '-84.00'), stage: 'reserved' },
      { ...entry(1, 2, '-0.10'), stage: 'reserved' },
      { ...entry(0, 2, '84.20'), stage: 'committed' },
      { ...entry(0, 3, '1.00'), stage: 'reserved' },
    ])
    expect(moves.map((m) => [m.period, m.reserved.amount, m.committed.amount, m.spent.amount])).toEqual([
      [2, '-84.10', '84.20', '0.00'],
      [3, '1.00', '0.00', '0.00'],
    ])
  })
})

describe('how many documents stand behind a budget line', () => {
  const move = (documentId: string, amount: string, more: Partial<DocumentMove> = {}): DocumentMove => ({
    budgetLineId: 'pumps',
    stage: 'reserved',
    documentId,
    amount: money(`${amount} EUR`),
    ...more,
  })
  test('one counts once, with the first that stands of it until nothing does', () => {
    const first = [move('r1', '10.00'), move('r1', '5.00')]
    expect(behindMoves([], first)).toEqual([{ budgetLineId: 'pumps', stage: 'reserved', by: 1 }])
    expect(behindMoves(first, [move('r1', '-10.00')])).toEqual([])
    expect(behindMoves([...first, move('r1', '-10.00')], [move('r1', '-5.00')])).toEqual([
      { budgetLineId: 'pumps', stage: 'reserved', by: -1 },
    ])
    // And again, after it was taken back whole.
    const gone = [...first, move('r1', '-15.00')]
    expect(behindMoves(gone, [move('r1', '2.00')]).map((m) => m.by)).toEqual([1])
    expect(behindMoves([], [move('r1', '2.00'), move('r1', '-2.00')])).toEqual([])
  })
  test('lines, stages and documents apart', () => {
    const added = [
      move('r1', '-10.00'),
      move('o1', '10.00', { stage: 'committed' }),
      move('o1', '3.00', { stage: 'committed', budgetLineId: 'waste' }),
      move('r2', '1.00'),
    ]
    expect(behindMoves([move('r1', '10.00')], added)).toEqual([
      { budgetLineId: 'pumps', stage: 'committed', by: 1 },
      { budgetLineId: 'waste', stage: 'committed', by: 1 },
    ])
  })
})
