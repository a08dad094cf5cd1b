import { expect, test } from 'vitest'
import { sayPayers } from './payer'
import { waysOf } from './ways'

const name = (id: string) => ({ f: 'Filters', s: 'Salt' })[id] ?? 'unknown'
const coding = (budgetLineId: string, value: string | null) => ({ budgetLineId, value })

test.each([
  [{ splitMethod: 'percent', codings: [coding('f', null)] }, ['Filters']],
  [{ splitMethod: 'percent', codings: [coding('f', '62.5'), coding('s', '37.5')] }, ['62,5 % Filters', '37,5 % Salt']],
  [{ splitMethod: 'share', codings: [coding('f', null), coding('s', null)] }, ['Filters', 'Salt']],
  [{ splitMethod: 'quantity', codings: [coding('f', '4'), coding('x', '2')] }, ['4 of Filters', '2 of unknown']],
  [{ splitMethod: 'amount', codings: [coding('f', '870'), coding('s', null)] }, ['870 of Filters', 'Salt']],
] as const)('who pays is said with their parts, in the reader’s ways: %j', (payer, said) => {
  expect(sayPayers(payer, name, waysOf('de-DE'))).toEqual(said)
})
