import { expect, test } from 'vitest'
import { money } from '#core/base/money'
import type { BudgetLineFacts } from './available'
import { checkTransfer, whoDecides, type TransferLine } from './transfer'

const line = (id: string, holderId: string | null, more: Partial<TransferLine> = {}): TransferLine => ({
  ...{ id, name: id, fiscalYear: 2026, retired: false, holderId },
  ...more,
})
const eur = (amount: string) => money(`${amount} EUR`)
const withMoney = (
  l: TransferLine,
  given: string,
  reserved = '0.00',
  below = '0.00',
): TransferLine & BudgetLineFacts => ({
  ...l,
  code: '',
  control: 'tells',
  mayFallBelow: eur(below),
  span: 'year',
  periods: [
    {
      ...{ period: 1, budgeted: eur(given), adjustments: eur('0.00'), reserved: eur(reserved) },
      ...{ committed: eur('0.00'), spent: eur('0.00') },
    },
  ],
})

// Common practice, no source: proposing is the yes for one’s own line.
test('the holder of the other line decides; finance where one holds both, or nobody holds the other', () => {
  const by = (from: string | null, to: string | null, id: string, isFinance = false) =>
    whoDecides(line('from', from), line('to', to), { id, isFinance })
  expect(by('tomas', 'kaveh', 'kaveh')).toEqual({ by: 'person', personId: 'tomas' })
  expect(by('tomas', 'kaveh', 'tomas')).toEqual({ by: 'person', personId: 'kaveh' })
  expect(by('tomas', 'tomas', 'tomas')).toEqual({ by: 'finance' })
  expect(by(null, 'kaveh', 'kaveh')).toEqual({ by: 'finance' })
  expect(by('tomas', 'kaveh', 'greta')).toBeNull()
  expect(by('tomas', 'kaveh', 'greta', true)).toEqual({ by: 'person', personId: 'tomas' })
  expect(by(null, 'kaveh', 'greta', true)).toEqual({ by: 'finance' })
})
test('nothing moves that is not there, to the cent and whatever the control of the line', () => {
  const from = withMoney(line('from', 'a'), '100.00', '40.00')
  const codes = (amount: string, giver = from, to = line('to', 'b'), reason = 'for sleeves') =>
    checkTransfer(giver, to, { amount: eur(amount), period: 1, reason })
  expect(codes('60.00')).toEqual([])
  expect(codes('60.01')).toEqual([{ code: 'not-there', name: 'from', by: eur('0.01'), left: eur('60.00') }])
  expect(codes('65.00', withMoney(line('from', 'a'), '100.00', '40.00', '5.00'))).toEqual([])
  expect(codes('0.00')).toEqual([{ code: 'amount-missing' }])
  expect(codes('-1.00')).toEqual([{ code: 'amount-missing' }])
  expect(codes('1.00', from, from)).toEqual([{ code: 'same-line' }])
  expect(codes('1.00', from, line('to', 'b', { fiscalYear: 2027 }))).toEqual([{ code: 'other-year' }])
  expect(codes('1.00', from, line('to', 'b', { retired: true }))).toEqual([{ code: 'retired', name: 'to' }])
  expect(codes('1.00', from, line('to', 'b'), ' ')).toEqual([{ code: 'reason-missing' }])
})
