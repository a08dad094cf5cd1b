import { capped, type OpenLine } from '#core/order/consolidate'
import { proposeOrders, type ProposalFacts, type ProposalOptions } from '#core/order/propose'
import { repack } from '#core/order/repack'
import { bestBySolver, makePacking, weigh } from './packings'

const OPTIONS: ProposalOptions = {
  windowDays: 14,
  mostRequests: 4,
  byDepartment: false,
  choose: 'cheapest',
  waitFor: null,
}

/** So many lines that wait, of as many suppliers and places as there would be: about forty requests to a group. */
function manyLines(lines: number): { readonly lines: OpenLine[]; readonly facts: ProposalFacts } {
  const found: OpenLine[] = []
  const prices = new Map<string, ProposalFacts['prices'] extends ReadonlyMap<string, infer S> ? S : never>()
  const suppliers = new Map<string, ProposalFacts['suppliers'] extends ReadonlyMap<string, infer S> ? S : never>()
  for (let group = 0; found.length < lines; group += 1) {
    const packing = makePacking(group + 1, 40)
    for (const [item, steps] of packing.facts.prices) prices.set(`${group}-${item}`, steps)
    suppliers.set(`s${group}`, {
      ...{ standing: 'active', currency: 'EUR', freight: '24.00', freightFreeFrom: '500.00', minimumOrder: '120.00' },
    })
    for (const l of packing.lines)
      found.push({
        ...l,
        requisitionLineId: `${group}-${l.requisitionLineId}`,
        requisitionId: `${group}-${l.requisitionId}`,
        supplierId: `s${group}`,
        itemId: l.itemId === null ? null : `${group}-${l.itemId}`,
      })
  }
  const perBase = new Map([['EUR', '1']])
  return {
    lines: found.slice(0, lines),
    facts: { today: '2026-11-25', baseCurrency: 'EUR', perBase, prices, suppliers },
  }
}

/** How far the search stays from the proven optimum, what it gains over age alone, and how it grows. */
export async function benchProposals(): Promise<[what: string, figure: string, aim: string][]> {
  let [found, best, met] = [0, 0, 0]
  const cases = 60
  for (let seed = 101; seed < 101 + cases; seed += 1) {
    const packing = makePacking(seed, 8 + (seed % 4))
    const { lines, mostRequests, facts } = packing
    const worth = (orders: readonly (readonly OpenLine[])[]) => orders.reduce((s, o) => s + weigh(o, facts), 0)
    const [search, solved] = [
      worth(repack(capped(lines, mostRequests), mostRequests, facts)),
      await bestBySolver(packing),
    ]
    found += search
    best += solved
    if (search === solved) met += 1
  }
  const gap: [string, string, string] = [
    `proposals of ${cases} groups of 8 to 11 requests: the search meets the proven optimum in ${met}`,
    `${(((found - best) / best) * 100).toFixed(3)} % above`,
    '–',
  ]
  const time = (count: number) => {
    const { lines, facts } = manyLines(count)
    const from = performance.now()
    const p = proposeOrders(lines, OPTIONS, facts)
    return { ms: performance.now() - from, orders: p.orders.length }
  }
  time(2_000)
  const [small, large] = [time(10_000), time(100_000)]
  const growth: [string, string, string] = [
    `proposals for 100,000 lines (${large.orders} orders, ${Math.round(large.ms)} ms) against 10,000 ` +
      `(${Math.round(small.ms)} ms)`,
    `${(large.ms / small.ms).toFixed(1)} times`,
    'at most 12 times',
  ]
  return [gap, growth]
}
