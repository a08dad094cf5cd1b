import { expect, test } from 'vitest'
import type { MayChange } from '#core/approval/policy-form'
import { changeLines, recodeSent, type LineChange } from './decided-change'
import { BLANK_LINE, type DraftLine } from './draft'

const line = (id: string, more: Partial<DraftLine> = {}): DraftLine => ({
  ...BLANK_LINE,
  ...{ id, description: `thing ${id}`, quantity: '10', codings: [{ budgetLineId: 'pumps', value: null }] },
  ...more,
})
const TWO = [
  { budgetLineId: 'pumps', value: '6' },
  { budgetLineId: 'waste', value: '4' },
]
const change = (
  changes: readonly LineChange[],
  may: MayChange = 'quantities and payers',
  lines = [line('a'), line('b')],
) => changeLines(lines, changes, may, () => new Set(['pumps', 'waste']))
const codes = (of: ReturnType<typeof change>) => ('reasons' in of ? of.reasons.map((r) => r.code) : [])

test('less of a line keeps what was decided; another payer does not', () => {
  const less = change([{ lineId: 'a', quantity: '4.5' }])
  expect(less).toMatchObject({ isLess: true })
  expect('lines' in less && less.lines.map((l) => l.quantity)).toEqual(['4.5', '10'])
  const paid = change([{ lineId: 'b', budgetLineId: 'waste' }])
  expect(paid).toMatchObject({ isLess: false })
  expect('lines' in paid && paid.lines.map((l) => l.codings)).toEqual([
    [{ budgetLineId: 'pumps', value: null }],
    [{ budgetLineId: 'waste', value: null }],
  ])
  expect(
    change([
      { lineId: 'a', quantity: '1' },
      { lineId: 'b', budgetLineId: 'waste' },
    ]),
  ).toMatchObject({
    isLess: false,
  })
})
test('never more, never nothing, never what the policy does not allow, never what is no change', () => {
  expect(codes(change([{ lineId: 'a', quantity: '10.01' }]))).toEqual(['not-less'])
  expect(codes(change([{ lineId: 'a', quantity: '0' }]))).toEqual(['nothing-left'])
  expect(codes(change([{ lineId: 'a', quantity: '-1' }]))).toEqual(['nothing-left'])
  expect(codes(change([{ lineId: 'a', quantity: '10.000' }]))).toEqual(['nothing-changed'])
  expect(codes(change([{ lineId: 'a', budgetLineId: 'pumps' }]))).toEqual(['nothing-changed'])
  expect(codes(change([]))).toEqual(['nothing-changed'])
  expect(codes(change([{ lineId: 'c', quantity: '1' }]))).toEqual(['unknown-line'])
  expect(codes(change([{ lineId: 'a', budgetLineId: 'tools' }]))).toEqual(['payer-not-open'])
  expect(codes(change([{ lineId: 'a', quantity: '1' }], 'nothing'))).toEqual(['not-allowed'])
  expect(codes(change([{ lineId: 'a', budgetLineId: 'waste' }], 'quantities'))).toEqual(['not-allowed'])
})
test('what is divided by amounts or quantities is not made less, unless one pays for all of it', () => {
  for (const splitMethod of ['amount', 'quantity'] as const) {
    const lines = [line('a', { splitMethod, codings: TWO })]
    expect(codes(change([{ lineId: 'a', quantity: '5' }], 'quantities', lines))).toEqual(['split-by-parts'])
    expect(
      change([{ lineId: 'a', quantity: '5', budgetLineId: 'waste' }], 'quantities and payers', lines),
    ).toMatchObject({
      lines: [{ quantity: '5', splitMethod: 'percent', codings: [{ budgetLineId: 'waste', value: null }] }],
    })
  }
  const shared = [line('a', { splitMethod: 'share', codings: TWO.map((c) => ({ ...c, value: null })) })]
  expect(change([{ lineId: 'a', quantity: '5' }], 'quantities', shared)).toMatchObject({ isLess: true })
})

test('what is frozen of a request follows who pays, and nothing else of it', () => {
  const coding = (budgetLineId: string, account: string, category: string) => ({
    ...{ budgetLineId, account, project: null, category, supplier: 'known' as const, currency: 'GBP' },
  })
  const sent = [coding('pumps', '610', 'a'), coding('pumps', '610', 'b'), coding('waste', '616', 'b')]
  const was = [line('a'), line('b', { codings: TWO })]
  const payer = (id: string) => ({ account: `of ${id}`, project: 'P1' })
  expect(recodeSent(sent, was, was, payer)).toEqual(sent)
  const alone = [line('a'), line('b', { codings: [{ budgetLineId: 'tools', value: null }] })]
  const recoded = recodeSent(sent, was, alone, payer)
  expect(recoded).toEqual([sent[0], { ...coding('tools', 'of tools', 'b'), project: 'P1' }])
  // And back again.
  expect(recodeSent(recoded, alone, was, payer).map((c) => [c.budgetLineId, c.category])).toEqual([
    ['pumps', 'a'],
    ['pumps', 'b'],
    ['waste', 'b'],
  ])
})
