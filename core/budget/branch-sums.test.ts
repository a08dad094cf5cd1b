import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { moneyOf, sum } from '#core/base/money'
import { branchSums, type PlacedDepartment } from './branch-sums'

const m = (amount: string) => moneyOf(amount, 'EUR')
const line = (departmentId: string, given: string, spent = '0.00') => ({
  departmentId,
  ...{ given: m(given), spent: m(spent), committed: m('0.00'), reserved: m('0.00') },
  available: m((Number(given) - Number(spent)).toFixed(2)),
})
const TREE: PlacedDepartment[] = [
  { id: 'trust', name: 'Trust', parentId: null },
  { id: 'care', name: 'Animal Care', parentId: 'trust' },
  { id: 'rescue', name: 'Rescue Centre', parentId: 'care' },
  { id: 'water', name: 'Water Systems', parentId: 'trust' },
]
const shown = (found: ReturnType<typeof branchSums>) =>
  found.map((d) => [d.id, d.depth, d.given.amount, d.available.amount, d.hasBelow])

describe('branchSums', () => {
  // Written by hand, no source.
  it('adds up what is below, each department below the one that it is part of', () => {
    const lines = [line('care', '100.00', '30.00'), line('rescue', '50.00', '60.00'), line('water', '7.50')]
    expect(shown(branchSums(TREE, lines, 'EUR'))).toEqual([
      ['trust', 0, '157.50', '67.50', true],
      ['care', 1, '150.00', '60.00', true],
      ['rescue', 2, '50.00', '-10.00', false],
      ['water', 1, '7.50', '7.50', false],
    ])
  })
  it('leaves out what has no line below it, and what only says again what one below it says', () => {
    expect(shown(branchSums(TREE, [line('rescue', '50.00')], 'EUR'))).toEqual([['rescue', 0, '50.00', '50.00', false]])
    expect(shown(branchSums(TREE, [line('care', '1.00'), line('rescue', '2.00')], 'EUR'))).toEqual([
      ['care', 0, '3.00', '3.00', true],
      ['rescue', 1, '2.00', '2.00', false],
    ])
    expect(branchSums(TREE, [], 'EUR')).toEqual([])
  })
  it('takes departments in a circle, and those above which nobody is known, as part of nothing', () => {
    const circle: PlacedDepartment[] = [
      { id: 'a', name: 'A', parentId: 'b' },
      { id: 'b', name: 'B', parentId: 'a' },
      { id: 'c', name: 'C', parentId: 'b' },
      { id: 'd', name: 'D', parentId: 'gone' },
    ]
    const lines = ['a', 'b', 'c', 'd'].map((id) => line(id, '1.00'))
    expect(shown(branchSums(circle, lines, 'EUR'))).toEqual([
      ['a', 0, '1.00', '1.00', false],
      ['b', 0, '2.00', '2.00', true],
      ['c', 1, '1.00', '1.00', false],
      ['d', 0, '1.00', '1.00', false],
    ])
  })
  it('loses no line and counts none twice, whatever the tree', () => {
    const ids = ['a', 'b', 'c', 'd', 'e', 'f']
    const parent = fc.option(fc.constantFrom(...ids), { nil: null })
    const lines = fc.array(fc.record({ of: fc.constantFrom(...ids), cents: fc.integer({ min: 0, max: 99999 }) }))
    fc.assert(
      fc.property(fc.tuple(parent, parent, parent, parent, parent, parent), lines, (parents, drawn) => {
        const tree = ids.map((id, i) => ({ id, name: id, parentId: parents[i] ?? null }))
        const all = drawn.map((l) => line(l.of, (l.cents / 100).toFixed(2)))
        const found = branchSums(tree, all, 'EUR')
        const whole = (of: readonly { given: { amount: string; currency: string } }[]) =>
          sum(
            of.map((x) => x.given),
            'EUR',
          ).amount
        expect(whole(found.filter((d) => d.depth === 0))).toBe(whole(all))
        for (const l of all) expect(found.map((d) => d.id)).toContain(l.departmentId)
        expect(new Set(found.map((d) => d.id)).size).toBe(found.length)
      }),
    )
  })
})
