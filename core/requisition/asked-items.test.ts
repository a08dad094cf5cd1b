import fc from 'fast-check'
import { expect, test } from 'vitest'
import { askedMoves } from './asked-items'
import type { Draft } from './draft'

/** Of a draft, only what is counted: its department, and the items of its lines. */
const draftOf = (departmentId: string | null, items: readonly (string | null)[]) =>
  ({ departmentId, lines: items.map((itemId) => ({ itemId })) }) as unknown as Draft
const drafts = fc
  .tuple(fc.option(fc.constantFrom('north', 'south')), fc.array(fc.option(fc.constantFrom('lamp', 'pump', 'seal'))))
  .map(([department, items]) => draftOf(department, items))

/** The other way, by hand: count the lines of the last sending alone. */
function counted({ departmentId, lines }: Draft): Map<string, number> {
  const counts = new Map<string, number>()
  if (departmentId === null) return counts
  for (const { itemId } of lines)
    if (itemId !== null) counts.set(`${itemId} ${departmentId}`, (counts.get(`${itemId} ${departmentId}`) ?? 0) + 1)
  return counts
}

test('lines of free text, and requests without a department, are counted nowhere', () => {
  expect(askedMoves(null, draftOf('north', [null, null]))).toEqual([])
  expect(askedMoves(null, draftOf(null, ['lamp']))).toEqual([])
})

test('another department takes the count with it, and what stays moves nothing', () => {
  expect(askedMoves(draftOf('north', ['lamp', 'lamp']), draftOf('south', ['lamp', 'pump']))).toEqual([
    { itemId: 'lamp', departmentId: 'north', by: -2 },
    { itemId: 'lamp', departmentId: 'south', by: 1 },
    { itemId: 'pump', departmentId: 'south', by: 1 },
  ])
  expect(askedMoves(draftOf('north', ['lamp', 'pump']), draftOf('north', ['pump', 'lamp']))).toEqual([])
})

test('after however many sendings, what was moved is what the last one says', () => {
  fc.assert(
    fc.property(fc.array(drafts), (sendings) => {
      const stands = new Map<string, number>()
      sendings.forEach((now, n) => {
        for (const m of askedMoves(sendings[n - 1] ?? null, now)) {
          const key = `${m.itemId} ${m.departmentId}`
          stands.set(key, (stands.get(key) ?? 0) + m.by)
          if (stands.get(key) === 0) stands.delete(key)
        }
      })
      const last = sendings.at(-1)
      expect(stands).toEqual(last === undefined ? new Map() : counted(last))
    }),
  )
})
