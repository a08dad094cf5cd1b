import { expect, test } from 'vitest'
import { bestBySolver, bestByTrying, makePacking, weigh } from '../../scripts/bench/packings'
import { capped } from './consolidate'
import { repack } from './repack'
import { byRequisition } from './worth'

test('the search finds what trying all and a solver of the registry find, on small cases', async () => {
  const missed: string[] = []
  for (let seed = 1; seed <= 30; seed += 1) {
    const packing = makePacking(seed, 4 + (seed % 6))
    const { lines, mostRequests, facts } = packing
    const [tried, solved] = [bestByTrying(packing), await bestBySolver(packing)]
    // Source: HiGHS, npm `highs`, with its gap set to 0.
    expect(solved).toBe(tried)
    const found = repack(capped(lines, mostRequests), mostRequests, facts)
    const value = found.reduce((s, o) => s + weigh(o, facts), 0)
    if (value !== tried) missed.push(`${seed}: ${value} and not ${tried}`)
    expect(found.every((o) => byRequisition(o).length <= mostRequests)).toBe(true)
    expect(
      found
        .flat()
        .map((l) => l.requisitionLineId)
        .sort(),
    ).toEqual(lines.map((l) => l.requisitionLineId).sort())
  }
  expect(missed).toEqual([])
})

test('the search comes to the same in every run', () => {
  const { lines, mostRequests, facts } = makePacking(99, 40)
  const run = () => repack(capped(lines, mostRequests), mostRequests, facts)
  expect(run()).toEqual(run())
})
