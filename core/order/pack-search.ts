/** An order below its minimum counts for more than any cost; how far below only where all else is the same. */
const BELOW = 10n ** 60n
const FINER = 10n ** 12n
/** How often a place is tried for a requisition over the whole search, so many tries in all at least. */
const TRIES = 60
const AT_LEAST = 2_000
/** As many orders are looked at each time. */
const LOOKED_AT = 10

/** What a requisition brings onto an order. */
export interface Load {
  /** What it costs wherever it lies. */
  readonly fixed: bigint
  /** Of each item with steps: how much counts for the step, and how much is paid, after percentages. */
  readonly items: ReadonlyMap<string, Amount>
}
export interface Amount {
  readonly quantity: bigint
  readonly paid: bigint
}
/** Prices of an item for one of its base, by the quantity from which each holds. */
export type Steps = readonly { readonly from: bigint; readonly price: bigint }[]
export interface Terms {
  readonly freight: bigint
  readonly freeFrom: bigint | null
  readonly minimum: bigint | null
}

/** An order while it is searched for. */
class Order {
  readonly members = new Set<number>()
  readonly items = new Map<string, { quantity: bigint; paid: bigint }>()
  goods = 0n
  value = 0n
}

/**
 * Puts requisitions together so that fewer orders are below their minimum, then so that all costs less: they move and
 * change places while something gets better by it, then all is shaken and looks again, from the best that was found or
 * from where it is, as long as tries are left.
 */
export class PackSearch {
  private orders: Order[] = []
  /** In which order each requisition lies. */
  private place: Order[] = []
  private readonly wanting = new Map<string, number[]>()
  private left = 0
  private found: { readonly value: bigint; readonly orders: number[][] } | null = null
  private state = 20_260_401

  constructor(
    private readonly loads: readonly Load[],
    private readonly prices: ReadonlyMap<string, Steps>,
    private readonly terms: Terms,
    private readonly most: number,
  ) {
    loads.forEach((l, i) => {
      for (const item of l.items.keys()) {
        const others = this.wanting.get(item)
        if (others === undefined) this.wanting.set(item, [i])
        else others.push(i)
      }
    })
  }

  /** The best that is found from these beginnings: which requisitions lie on each order. */
  best(beginnings: readonly (readonly (readonly number[])[])[]): number[][] {
    for (const start of beginnings) {
      this.begin(start)
      this.keep()
      this.left = (TRIES * this.loads.length + AT_LEAST) / beginnings.length
      while (this.left > 0) {
        this.descend()
        this.keep()
        if (this.found !== null && this.next(3) === 0) this.begin(this.found.orders)
        this.shake()
      }
    }
    return this.found?.orders ?? []
  }

  /** Remembers what lies there now, where nothing better was found. */
  private keep(): void {
    const value = this.orders.reduce((s, o) => s + o.value, 0n)
    if (this.found !== null && this.found.value <= value) return
    this.found = { value, orders: this.orders.filter((o) => o.members.size > 0).map((o) => [...o.members]) }
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
      for (let i = 0; i < this.loads.length && this.left > 0; i += 1) {
        this.left -= 1
        if (this.improve(this.next(this.loads.length))) improved = true
      }
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
