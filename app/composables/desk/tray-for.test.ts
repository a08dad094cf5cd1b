import { expect, test } from 'vitest'
import { byTray, trayFor } from './tray-for'

const line = (id: string, supplierId: string | null, shipToId = 'yard', currency = 'EUR') => ({
  id,
  supplierId,
  shipToId,
  currency,
})
const ids = (groups: readonly { id: string }[][]) => groups.map((g) => g.map((l) => l.id).join(' '))

test('lines for several places, suppliers and currencies are parted, in the order given', () => {
  const lines = [
    line('a', 'pumps'),
    line('b', 'pumps', 'boat'),
    line('c', 'salts'),
    line('d', 'pumps', 'yard', 'GBP'),
    line('e', 'pumps'),
  ]
  expect(ids(byTray(lines, null))).toEqual(['a e', 'b', 'c', 'd'])
})

test('a line without a supplier takes the one chosen, or the only one among them, and no other', () => {
  expect(ids(byTray([line('a', 'pumps'), line('b', null)], null))).toEqual(['a b'])
  expect(ids(byTray([line('a', 'pumps'), line('b', null)], 'salts'))).toEqual(['a', 'b'])
  expect(ids(byTray([line('a', 'pumps'), line('b', null), line('c', 'salts')], null))).toEqual(['a', 'b', 'c'])
})

test('the tray at hand is taken where the lines fit, else one of the same supplier and place, else a new one', () => {
  const trays = [line('1', 'pumps'), line('2', 'pumps'), line('3', 'salts')] as never[]
  const at = (lines: ReturnType<typeof line>[], atHand: string | null) =>
    (trayFor(lines, trays, atHand) as { id: string } | null)?.id ?? null
  expect(at([line('a', 'pumps')], '2')).toBe('2')
  expect(at([line('a', 'pumps')], '3')).toBe('1')
  expect(at([line('a', 'pumps', 'boat')], '2')).toBeNull()
  expect(at([line('a', null)], null)).toBeNull()
  expect(at([line('a', null)], '3')).toBe('3')
})
