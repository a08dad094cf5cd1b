import { expect, test } from 'vitest'
import { byTray, trayFor } from './tray-for'

const line = (
  id: string,
  supplierId: string | null,
  shipToId = 'yard',
  currency = 'EUR',
  agreement: string | null = null,
) => ({ id, supplierId, shipToId, currency, agreement, conditions: { placedAs: null as string | null } })
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

test('what draws on several agreements is parted, and fits a tray that draws alike or whose buyer said so', () => {
  const lines = [line('a', 'pumps', 'yard', 'EUR', 'A-1'), line('b', 'pumps'), line('c', null)]
  expect(ids(byTray(lines, null))).toEqual(['a c', 'b'])
  const tray = (id: string, number: string | null, agreementSaid = false) => ({
    ...{ ...line(id, 'pumps'), supplierId: 'pumps' },
    ...{
      agreement: number === null ? null : { id: number, number, name: '', left: null, warnings: [] },
      agreementSaid,
    },
  })
  const at = (which: number, trays: ReturnType<typeof tray>[]) =>
    trayFor(lines.slice(which, which + 1), trays, null)?.id ?? null
  expect(at(0, [tray('1', null), tray('2', 'A-1')])).toBe('2')
  expect(at(1, [tray('1', 'A-1')])).toBeNull()
  expect(at(1, [tray('1', 'A-1', true)])).toBe('1')
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

test('what was placed elsewhere already takes more only where it is at hand', () => {
  const trays = [{ ...line('1', 'pumps'), conditions: { placedAs: '4711' } }, line('2', 'pumps')] as never[]
  const at = (atHand: string | null) =>
    (trayFor([line('a', 'pumps')], trays, atHand) as { id: string } | null)?.id ?? null
  expect([at(null), at('1')]).toEqual(['2', '1'])
  expect(trayFor([line('a', 'pumps')], trays.slice(0, 1), null)).toBeNull()
})
