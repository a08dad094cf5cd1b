import { NOTHING, ONE, dec, type DecimalText } from '#core/base/decimal'
import type { Money } from '#core/base/money'
import { lineNet } from '#core/base/line-net'
import { priceFor } from '#core/catalogue/price'
import type { OpenLine } from './consolidate'
import type { OrderTerms } from './order-terms'
import { byRequisition, type WorthFacts } from './worth'

/**
 * Looks for the cheapest way to put requisitions together, at most so many to an order, where price steps, minimum
 * orders and freight interact. Which requisition goes with which is a question of bin packing, so this is a search and
 * no proof: requisitions move and change places while an order below its minimum less, or a lower cost, comes of it,
 * then it is shaken and looks again. Work grows with the number of requisitions and no faster. Costs are compared
 * exactly, in whole parts of a unit of money, and without the rounding of lines; whoever calls weighs what is found
 * with every cent. Its gap to the proven optimum on small cases is in `repack.test.ts` and in the bench.
 */
export function repack(
  orders: readonly (readonly OpenLine[])[],
  mostRequests: number,
  facts: WorthFacts & { readonly terms: OrderTerms },
): OpenLine[][] {
  const requests = byRequisition(orders.flat())
  const loads = loadsOf(requests, facts)
  const index = new Map(requests.map((r, i) => [r[0]?.requisitionId ?? '', i]))
  const start = orders.map((o) => byRequisition(o).map((r) => index.get(r[0]?.requisitionId ?? '') ?? 0))
  const search = new Search(loads, pricesOf(loads, facts), termsOf(facts.terms), mostRequests)
  return search
    .best([start, byItem(loads, mostRequests)])
    .map((members) => [...members].sort((a, b) => a - b).flatMap((m) => requests[m] ?? []))
}

/** Quantities are whole millionths, prices for one whole billionths of a millionth, so costs are their product. */
const QUANTITY_PLACES = 6
const PRICE_PLACES = 15
const COST_PLACES = QUANTITY_PLACES + PRICE_PLACES
/** An order below its minimum counts for more than any cost; how far below only where all else is the same. */
const BELOW = 10n ** 60n
const FINER = 10n ** 12n
/** How often a place is tried for a requisition over the whole search, so many tries in all at least. */
const TRIES = 60
const AT_LEAST = 2_000
/** As many orders are looked at each time. */
const LOOKED_AT = 10

/** What a requisition brings onto an order. */
interface Load {
  /** What it costs wherever it lies. */
  readonly fixed: bigint
  /** Of each item with steps: how much counts for the step, and how much is paid, after percentages. */
  readonly items: ReadonlyMap<string, Amount>
}
interface Amount {
  readonly quantity: bigint
  readonly paid: bigint
}
type Steps = readonly { readonly from: bigint; readonly price: bigint }[]
interface Terms {
  readonly freight: bigint
  readonly freeFrom: bigint | null
  readonly minimum: bigint | null
}

const costOf = (amount: DecimalText): bigint => dec(amount).unitsAt(COST_PLACES)
const termsOf = (t: OrderTerms): Terms => {
  const of = (m: Money | null) => (m === null ? null : costOf(m.amount))
  return { freight: of(t.freight) ?? 0n, freeFrom: of(t.freeFrom), minimum: of(t.minimum) }
}

/** Prices of the items that are wanted, by quantity, per unit of their base. */
function pricesOf(loads: readonly Load[], { prices, today }: WorthFacts): Map<string, Steps> {
  const found = new Map<string, Steps>()
  for (const item of new Set(loads.flatMap((l) => [...l.items.keys()]))) {
    const steps = prices.get(item) ?? []
    const froms = [...new Set(steps.map((s) => s.from))].sort((a, b) => dec(a).comparedTo(dec(b)))
    found.set(
      item,
      froms.flatMap((from) => {
        const step = priceFor(steps, from, today)
        return step === null
          ? []
          : [{ from: dec(from).unitsAt(QUANTITY_PLACES), price: dec(step.unitPrice).unitsAt(PRICE_PLACES) }]
      }),
    )
  }
  return found
}

function loadsOf(requests: readonly (readonly OpenLine[])[], { prices, today }: WorthFacts): Load[] {
  return requests.map((lines) => {
    let fixed = NOTHING
    const items = new Map<string, Amount>()
    for (const l of lines) {
      if (l.itemId === null || l.isByHand || priceFor(prices.get(l.itemId) ?? [], l.quantity, today) === null) {
        fixed = fixed.plus(dec(lineNet(l).amount))
        continue
      }
      let share = ONE
      for (const a of l.adjustments) {
        if (a.percent === undefined) fixed = fixed.minus(dec(a.amount ?? '0'))
        else share = share.minus(dec(a.percent).percent())
      }
      const before = items.get(l.itemId)
      items.set(l.itemId, {
        quantity: (before?.quantity ?? 0n) + dec(l.quantity).unitsAt(QUANTITY_PLACES),
        paid: (before?.paid ?? 0n) + dec(l.quantity).times(share).dividedBy(dec(l.priceBase)).unitsAt(QUANTITY_PLACES),
      })
    }
    return { fixed: fixed.unitsAt(COST_PLACES), items }
  })
}

/** Another beginning: requisitions that want most of the same item together. */
function byItem(loads: readonly Load[], most: number): number[][] {
  const main = loads.map((l) => [...l.items].sort(([, a], [, b]) => (b.paid > a.paid ? 1 : -1))[0]?.[0] ?? '')
  const sorted = loads.map((_, i) => i).sort((a, b) => ((main[a] ?? '') < (main[b] ?? '') ? -1 : 1))
  const orders: number[][] = []
  for (let from = 0; from < sorted.length; from += most) orders.push(sorted.slice(from, from + most))
  return orders
}

/** An order while it is searched for. */
class Order {
  readonly members = new Set<number>()
  readonly items = new Map<string, { quantity: bigint; paid: bigint }>()
  goods = 0n
  value = 0n
}

class Search {
  private orders: Order[] = []
  /** In which order each requisition lies. */
  private place: Order[] = []
  private readonly wanting = new Map<string, number[]>()
  private left: number
  private state = 20_260_401

  constructor(
    private readonly loads: readonly Load[],
    private readonly prices: ReadonlyMap<string, Steps>,
    private readonly terms: Terms,
    private readonly most: number,
  ) {
    loads.forEach((l, i) => {
      for (const item of l.items.keys()) this.wanting.set(item, [...(this.wanting.get(item) ?? []), i])
    })
    this.left = 0
  }

  best(beginnings: readonly (readonly (readonly number[])[])[]): number[][] {
    let found: { value: bigint; orders: number[][] } | null = null
    const keep = () => {
      const value = this.orders.reduce((s, o) => s + o.value, 0n)
      if (found === null || value < found.value)
        found = {
          value,
          orders: this.orders.filter((o) => o.members.size > 0).map((o) => [...o.members]),
        }
    }
    for (const start of beginnings) {
      this.begin(start)
      keep()
      this.left = (TRIES * this.loads.length + AT_LEAST) / beginnings.length
      while (this.left > 0) {
        this.descend()
        keep()
        if (found !== null && this.next(3) === 0) this.begin((found as { orders: number[][] }).orders)
        this.shake()
      }
    }
    return (found as { orders: number[][] } | null)?.orders ?? []
  }

  private begin(start: readonly (readonly number[])[]): void {
    this.place = []
    this.orders = start.map((members) => {
      const order = new Order()
      for (const m of members) this.put(order, m)
      return order
    })
  }

  /** A number from 0 on, below `below`: the same in every run. */
  private next(below: number): number {
    // Linear congruence with the factors of common practice, from memory.
    this.state = (Math.imul(this.state, 1_664_525) + 1_013_904_223) >>> 0
    return Math.floor((this.state / 4_294_967_296) * below)
  }

  private priceAt(item: string, quantity: bigint): bigint {
    const steps = this.prices.get(item) ?? []
    let price = steps[0]?.price ?? 0n
    for (const s of steps) if (s.from <= quantity) price = s.price
    return price
  }

  /** Goods of an order with some of these taken off and put on it. */
  private goodsWith(order: Order, on: Load | null, off: Load | null): bigint {
    let goods = order.goods + (on?.fixed ?? 0n) - (off?.fixed ?? 0n)
    const change = (item: string) => {
      const is = order.items.get(item) ?? { quantity: 0n, paid: 0n }
      const [more, less] = [on?.items.get(item), off?.items.get(item)]
      const quantity = is.quantity + (more?.quantity ?? 0n) - (less?.quantity ?? 0n)
      const paid = is.paid + (more?.paid ?? 0n) - (less?.paid ?? 0n)
      goods += paid * this.priceAt(item, quantity) - is.paid * this.priceAt(item, is.quantity)
    }
    for (const item of on?.items.keys() ?? []) change(item)
    for (const item of off?.items.keys() ?? []) if (on?.items.has(item) !== true) change(item)
    return goods
  }

  /** What an order of so much counts for: less is better. */
  private valueOf(goods: bigint, size: number): bigint {
    if (size === 0) return 0n
    const { freight, freeFrom, minimum } = this.terms
    const cost = goods + (freeFrom !== null && goods >= freeFrom ? 0n : freight)
    const short = minimum !== null && goods < minimum ? minimum - goods : 0n
    return cost * FINER + (short > 0n ? BELOW + short : 0n)
  }

  private valueWith(order: Order, on: Load | null, off: Load | null): bigint {
    const size = order.members.size + (on === null ? 0 : 1) - (off === null ? 0 : 1)
    return size === 0 ? 0n : this.valueOf(this.goodsWith(order, on, off), size)
  }

  private put(order: Order, member: number): void {
    this.change(order, member, 1n)
    order.members.add(member)
    order.value = this.valueOf(order.goods, order.members.size)
    this.place[member] = order
  }

  private take(order: Order, member: number): void {
    this.change(order, member, -1n)
    order.members.delete(member)
    order.value = this.valueOf(order.goods, order.members.size)
  }

  private change(order: Order, member: number, sign: bigint): void {
    const load = this.load(member)
    order.goods = sign > 0n ? this.goodsWith(order, load, null) : this.goodsWith(order, null, load)
    for (const [item, a] of load.items) {
      const is = order.items.get(item) ?? { quantity: 0n, paid: 0n }
      order.items.set(item, { quantity: is.quantity + sign * a.quantity, paid: is.paid + sign * a.paid })
    }
  }

  private load(member: number): Load {
    return this.loads[member] ?? { fixed: 0n, items: new Map() }
  }

  /** Orders that a requisition could go to: some that hold what it wants, and some at random. */
  private candidates(member: number, home: Order): Set<Order> {
    const found = new Set<Order>()
    if (this.orders.length <= LOOKED_AT) for (const o of this.orders) found.add(o)
    else {
      for (const item of this.load(member).items.keys()) {
        const others = this.wanting.get(item) ?? []
        for (let i = 0; i < 3; i += 1) {
          const other = others[this.next(others.length)]
          const order = other === undefined ? undefined : this.place[other]
          if (order !== undefined) found.add(order)
        }
        if (found.size >= LOOKED_AT) break
      }
      while (found.size < 4) found.add(this.orders[this.next(this.orders.length)] ?? home)
    }
    found.delete(home)
    return found
  }

  /** Moves and changes places, each time as well as can be, until nothing gets better by it. */
  private descend(): void {
    for (let improved = true; improved && this.left > 0;) {
      improved = false
      for (let i = 0; i < this.loads.length && this.left > 0; i += 1)
        if (this.improve(this.next(this.loads.length))) improved = true
    }
  }

  private improve(member: number): boolean {
    const home = this.place[member]
    if (home === undefined) return false
    const load = this.load(member)
    const without = this.valueWith(home, null, load)
    let best = 0n
    let move: (() => void) | null = null
    const consider = (gain: bigint, make: () => void) => {
      this.left -= 1
      if (gain <= best) return
      best = gain
      move = make
    }
    for (const order of this.candidates(member, home)) {
      if (order.members.size < this.most)
        consider(home.value + order.value - without - this.valueWith(order, load, null), () => {
          this.take(home, member)
          this.put(order, member)
        })
      for (const other of order.members) {
        const theirs = this.load(other)
        const gain = home.value + order.value - this.valueWith(home, theirs, load) - this.valueWith(order, load, theirs)
        consider(gain, () => {
          this.changePlaces(home, order, member, other)
        })
      }
      this.considerMerging(home, order, consider)
    }
    if (home.members.size > 1) {
      const alone = new Order()
      consider(home.value - without - this.valueWith(alone, load, null), () => {
        this.take(home, member)
        this.put(alone, member)
        this.orders.push(alone)
      })
    }
    if (move === null) return false
    ;(move as () => void)()
    this.orders = this.orders.filter((o) => o.members.size > 0)
    return true
  }

  private changePlaces(home: Order, order: Order, member: number, other: number): void {
    this.take(home, member)
    this.take(order, other)
    this.put(order, member)
    this.put(home, other)
  }

  /** Two orders made one: what single moves do not find where each costs its freight until it is empty. */
  private considerMerging(home: Order, order: Order, consider: (gain: bigint, make: () => void) => void): void {
    if (home.members.size + order.members.size > this.most) return
    const both = new Order()
    for (const m of [...home.members, ...order.members]) {
      this.change(both, m, 1n)
      both.members.add(m)
    }
    consider(home.value + order.value - this.valueOf(both.goods, both.members.size), () => {
      for (const m of [...home.members]) {
        this.take(home, m)
        this.put(order, m)
      }
    })
  }

  /** A few requisitions go elsewhere, whatever it costs. */
  private shake(): void {
    for (let i = 2 + this.next(3); i > 0; i -= 1) {
      const member = this.next(this.loads.length)
      const home = this.place[member]
      const order = this.orders[this.next(this.orders.length)]
      if (home === undefined || order === undefined || order === home) continue
      const [other] = [...order.members]
      if (order.members.size < this.most) {
        this.take(home, member)
        this.put(order, member)
      } else if (other !== undefined) this.changePlaces(home, order, member, other)
    }
    this.orders = this.orders.filter((o) => o.members.size > 0)
  }
}
