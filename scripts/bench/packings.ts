import highsOf from 'highs'
import type { DecimalText } from '#core/base/decimal'
import type { OpenLine } from '#core/order/consolidate'
import { minimumMissed, type OrderTerms } from '#core/order/order-terms'
import { byRequisition, worthOf, type WorthFacts } from '#core/order/worth'

/** Ways of putting requisitions together, weighed one by one: what a search is compared with on small cases. */
export interface Packing {
  readonly lines: readonly OpenLine[]
  readonly mostRequests: number
  readonly facts: WorthFacts & { readonly terms: OrderTerms }
}

/** A made-up group: several items with steps, freight that may be spared, a minimum, all from one seed. */
export function makePacking(seed: number, requests: number): Packing {
  let state = seed
  const next = (below: number) => {
    state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0
    return Math.floor((state / 4_294_967_296) * below)
  }
  const step = (from: number, cents: number) => ({
    from: String(from),
    unitPrice: (cents / 100).toFixed(2),
    validFrom: null,
    validUntil: null,
  })
  const items = Math.max(3, Math.floor(requests / 3))
  const prices = new Map(
    Array.from({ length: items }, (_, i) => {
      const cents = 300 + next(4000)
      const [ten, fifty] = [Math.floor(cents * 0.9), Math.floor(cents * 0.78)]
      return [`item${i}`, [step(1, cents), step(10, ten), step(25, fifty)]]
    }),
  )
  const lines = Array.from({ length: requests }, (_, r) =>
    Array.from({ length: 1 + next(3) }, (_, l): OpenLine => {
      const itemId = next(6) === 0 ? null : `item${next(items)}`
      const quantity = String(1 + next(12))
      return {
        requisitionLineId: `l${r}-${l}`,
        requisitionId: `r${r}`,
        number: `r${String(r).padStart(6, '0')}`,
        sentOn: '2026-11-20',
        supplierId: 'pumps',
        departmentId: 'water',
        quantity,
        requested: quantity,
        itemId,
        description: itemId ?? 'something else',
        secondDescription: '',
        noteToSupplier: '',
        isByHand: false,
        adjustments: next(5) === 0 ? [{ kind: 'allowance', percent: '2.5' }] : [],
        unit: 'H87',
        unitPrice: prices.get(itemId ?? '')?.[0]?.unitPrice ?? '17.35',
        priceBase: '1',
        currency: 'EUR',
        taxCode: 'S',
        supplierPart: null,
        needBy: `2026-12-0${1 + next(3)}`,
        shipToId: 'hall',
        agreementId: null,
      }
    }),
  ).flat()
  const euros = (amount: DecimalText) => ({ amount, currency: 'EUR' })
  const terms = {
    freight: euros('24.00'),
    freeFrom: next(2) === 0 ? euros('500.00') : null,
    minimum: next(2) === 0 ? euros('120.00') : null,
  }
  return { lines, mostRequests: 2 + next(3), facts: { prices, terms, currency: 'EUR', today: '2026-11-25' } }
}

/** An order below its minimum weighs more than any cost of these cases, in cents. */
const BELOW = 100_000_000

/** What an order of these requisitions counts for, in cents. */
export function weigh(lines: readonly OpenLine[], facts: Packing['facts']): number {
  const worth = worthOf(lines, facts)
  return Number(worth.net.amount.replace('.', '')) + (minimumMissed(worth.goods, facts.terms) === null ? 0 : BELOW)
}

/** Every order that may be made of the requisitions: which they are, as bits, and what it counts for. */
function columnsOf({ lines, mostRequests, facts }: Packing): Map<number, number> {
  const requests = byRequisition(lines)
  const columns = new Map<number, number>()
  for (let bits = 1; bits < 1 << requests.length; bits += 1) {
    const chosen = requests.filter((_, i) => (bits >> i) & 1)
    if (chosen.length <= mostRequests) columns.set(bits, weigh(chosen.flat(), facts))
  }
  return columns
}

/** The least that any partition counts for, by trying all: for each set, the best order that holds its first. */
export function bestByTrying(packing: Packing): number {
  const columns = columnsOf(packing)
  const all = (1 << byRequisition(packing.lines).length) - 1
  const best = new Map<number, number>([[0, 0]])
  const leastOf = (set: number): number => {
    const known = best.get(set)
    if (known !== undefined) return known
    const first = set & -set
    let least = Infinity
    for (const [bits, value] of columns)
      if ((bits & first) !== 0 && (bits & ~set) === 0) least = Math.min(least, value + leastOf(set & ~bits))
    best.set(set, least)
    return least
  }
  return leastOf(all)
}

/** The same by a solver of the registry: set partitioning, its gap 0. Source: HiGHS, npm `highs`. */
export async function bestBySolver(packing: Packing): Promise<number> {
  const columns = [...columnsOf(packing)]
  const requests = byRequisition(packing.lines).length
  const cover = Array.from({ length: requests }, (_, r) => {
    const holding = columns.flatMap(([bits], i) => ((bits >> r) & 1 ? [`x${i}`] : []))
    return ` r${r}: ${holding.join(' + ')} = 1`
  })
  const model = [
    'Minimize',
    ` cost: ${columns.map(([, value], i) => `${value} x${i}`).join(' + ')}`,
    'Subject To',
    ...cover,
    'Binary',
    ` ${columns.map((_, i) => `x${i}`).join(' ')}`,
    'End',
  ].join('\n')
  const highs = await highsOf()
  const solved = highs.solve(model, { mip_rel_gap: 0, mip_abs_gap: 0, output_flag: false })
  if (solved.Status !== 'Optimal') throw new Error(`the solver ended with ${solved.Status}`)
  // Counted from what it chose: its own sum is a float.
  return columns.reduce((s, [, value], i) => {
    const chosen = solved.Columns[`x${i}`]
    return 'Primal' in (chosen ?? {}) && Math.round((chosen as { Primal: number }).Primal) === 1 ? s + value : s
  }, 0)
}
