import { expect, test } from 'vitest'
import { money } from '#core/base/money'
import type { DeskLine } from '#shared/contract/order'
import { groupingOf, groupLines } from './group-lines'

const line = (id: string, supplier: string | null, more: Partial<DeskLine> = {}) =>
  ({
    ...{ id, supplier, shipTo: 'Yard', needBy: '2026-12-08', number: 'R-26-00002' },
    ...{ currency: 'EUR', net: money('10.00 EUR') },
    ...more,
  }) as DeskLine
const ids = (groups: ReturnType<typeof groupLines>) =>
  groups.map((g) => `${g.shared}: ${g.list.map((l) => l.id).join(' ')}`)

test('lines stand together by what they share, each once, with their sums by currency', () => {
  const lines = [
    line('a', 'Salts', { shipTo: 'Yard', needBy: '2026-12-09' }),
    line('b', 'Pumps', { shipTo: 'Boat', number: 'R-26-00001' }),
    line('c', 'Salts', { currency: 'DKK', net: money('7.00 DKK') }),
    line('d', null),
  ]
  expect(ids(groupLines(lines, ''))).toEqual(['Salts: a c', 'Pumps: b', ': d'])
  expect(ids(groupLines(lines, 'place'))).toEqual(['Boat: b', 'Yard: a c d'])
  expect(ids(groupLines(lines, 'day'))).toEqual(['2026-12-08: b c d', '2026-12-09: a'])
  expect(ids(groupLines(lines, 'request'))).toEqual(['R-26-00001: b', 'R-26-00002: a c d'])
  expect(groupLines(lines, '')[0]?.sums).toEqual([money('10.00 EUR'), money('7.00 DKK')])
})

test('an address that names no such grouping means by supplier', () => {
  expect([groupingOf('day'), groupingOf(''), groupingOf('constructor'), groupingOf('moon')]).toEqual([
    'day',
    '',
    '',
    '',
  ])
})
