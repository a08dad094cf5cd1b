import { describe, expect, test } from 'vitest'
import { nextStandings, reachOf, STANDINGS, warningOn } from './record'

test('a warning is said from its first day to its last, both inside', () => {
  const w = { text: ' no delivery after five ', mode: 'informs' as const, from: '2026-12-01', until: '2026-12-31' }
  expect(['2026-11-30', '2026-12-01', '2026-12-31', '2027-01-01'].map((d) => warningOn(w, d))).toEqual([
    null,
    'no delivery after five',
    'no delivery after five',
    null,
  ])
  expect(warningOn({ ...w, from: null, until: null }, '2026-11-30')).toBe('no delivery after five')
  expect(warningOn({ ...w, text: '  ' }, '2026-12-01')).toBe(null)
})

test('a standing that finance changes can be changed back, and a decided one cannot', () => {
  for (const a of STANDINGS) for (const b of nextStandings(a)) expect(nextStandings(b)).toContain(a)
  expect(nextStandings('merged')).toEqual([])
  expect(nextStandings('refused')).toEqual([])
  expect(nextStandings('proposed')).toEqual([])
})

describe('whether a first order arrives', () => {
  const sound = {
    standing: 'active' as const,
    orderAddress: 'orders@x.example',
    address: '1 Quay',
    termsDays: 30,
    taxNumber: 'DE136695976',
    hasBank: true,
    bankWaits: false,
    paperEnds: null,
    today: '2026-11-27',
  }
  const notThere = (change: Partial<Parameters<typeof reachOf>[0]>) =>
    reachOf({ ...sound, ...change }).flatMap((r) => (r.is === 'there' ? [] : [`${r.part}: ${r.is}`]))
  test.each([
    [{}, []],
    [{ standing: 'on hold' as const }, ['standing: missing']],
    [{ orderAddress: null }, ['channel: missing']],
    [{ address: ' ' }, ['address: look']],
    [{ termsDays: 0 }, ['terms: look']],
    [{ taxNumber: '' }, ['tax number: look']],
    [{ bankWaits: true }, ['bank: look']],
    [{ hasBank: false }, ['bank: look']],
    [{ paperEnds: '2026-11-26' }, ['papers: look']],
    [{ paperEnds: '2026-11-27' }, []],
  ])('%o', (change, parts) => {
    expect(notThere(change)).toEqual(parts)
  })
})
