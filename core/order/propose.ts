import { addDays, type Day } from '#core/base/day'
import type { DecimalText } from '#core/base/decimal'
import { add, compare, convert, moneyOf, subtract, sum, zero, type Money } from '#core/base/money'
import type { PriceStep } from '#core/catalogue/price'
import { capped, groupLines, type Group, type Grouping, type OpenLine } from './consolidate'
import { minimumMissed, termsIn, type OrderTerms, type SupplierTerms } from './order-terms'
import { repack } from './repack'
import { byRequisition, worthAlone, worthOf, type Worth, type WorthFacts } from './worth'

export interface ProposalOptions extends Grouping {
  /** Where not all of a group fit on one order: who is ordered together is chosen by cost, or by age alone. */
  readonly choose: 'cheapest' | 'oldest'
  /** An order of less waits for more, so many days from when its oldest requisition was sent; in the base currency. */
  readonly waitFor: { readonly value: DecimalText; readonly days: number } | null
}

export interface ProposalFacts {
  readonly today: Day
  readonly baseCurrency: string
  readonly perBase: ReadonlyMap<string, DecimalText>
  readonly prices: ReadonlyMap<string, readonly PriceStep[]>
  /** By supplier. */
  readonly suppliers: ReadonlyMap<string, ProposalSupplier>
}

export interface ProposalSupplier extends SupplierTerms {
  readonly standing: string
}

/** Why a line is in no proposed order. */
export type LeftReason =
  | { readonly code: 'no-supplier' }
  | { readonly code: 'supplier-not-active'; readonly standing: string }
  | { readonly code: 'no-rate'; readonly currency: string }
  | { readonly code: 'waits-for-more'; readonly value: Money; readonly goods: Money; readonly until: Day }

export interface ProposedOrder {
  readonly supplierId: string
  readonly shipToId: string
  readonly currency: string
  readonly parts: readonly OpenLine[]
  readonly worth: Worth
  readonly needBy: Day
  /** Against one order for each requisition; below nothing where ordering together is dearer. */
  readonly saved: Money
  /** The supplier's minimum, where the goods are worth less. */
  readonly belowMinimum: Money | null
}

export interface Proposal {
  readonly orders: readonly ProposedOrder[]
  readonly left: readonly { readonly line: OpenLine; readonly reason: LeftReason }[]
  /** In the base currency. */
  readonly net: Money
  readonly saved: Money
  /** How much less it is than the same lines put together oldest first. */
  readonly belowOldest: Money
}

/**
 * Proposes orders for approved lines, with what each saves and why a line is left. Requisitions stay together within
 * their group. Where a cap parts a group, the cheapest plan takes the place of oldest first where it leaves fewer
 * orders below the supplier's minimum, or as many and costs less, to the cent. Source: rules of calculation,
 * consolidation.
 */
export function proposeOrders(lines: readonly OpenLine[], options: ProposalOptions, facts: ProposalFacts): Proposal {
  const { baseCurrency: base } = facts
  const orders: ProposedOrder[] = []
  const left: { line: OpenLine; reason: LeftReason }[] = []
  const leave = (group: Group, reason: LeftReason) => {
    for (const line of group) left.push({ line, reason })
  }
  leave(
    lines.filter((l) => l.supplierId === null),
    { code: 'no-supplier' },
  )
  let belowOldest = zero(base)
  for (const group of groupLines(lines, options)) {
    const [first] = group
    const supplier = facts.suppliers.get(first?.supplierId ?? '')
    if (first === undefined || supplier === undefined) continue
    if (supplier.standing !== 'active') {
      leave(group, { code: 'supplier-not-active', standing: supplier.standing })
      continue
    }
    const { currency } = first
    const perBase = facts.perBase.get(currency)
    const terms = termsIn(supplier, currency, facts.perBase)
    if (perBase === undefined || terms === null) {
      leave(group, { code: 'no-rate', currency: perBase === undefined ? currency : supplier.currency })
      continue
    }
    const worths = { prices: facts.prices, terms, currency, today: facts.today }
    const plan = planGroup(group, options, worths)
    belowOldest = add(belowOldest, convert(plan.belowOldest, perBase, base))
    for (const { parts, worth } of plan.orders) {
      const waits = waitingFor(parts, convert(worth.goods, perBase, base), options, facts)
      if (waits === null) orders.push(proposed(parts, worth, worths))
      else leave(parts, waits)
    }
  }
  const inBase = (of: (o: ProposedOrder) => Money) =>
    sum(
      orders.map((o) => convert(of(o), facts.perBase.get(o.currency) ?? '1', base)),
      base,
    )
  return { orders, left, net: inBase((o) => o.worth.net), saved: inBase((o) => o.saved), belowOldest }
}

interface Planned {
  readonly parts: readonly OpenLine[]
  readonly worth: Worth
}
type Worths = WorthFacts & { readonly terms: OrderTerms }

/** The orders of one group: oldest first, or a cheaper plan where one is found. */
function planGroup(
  group: Group,
  { choose, mostRequests }: ProposalOptions,
  facts: Worths,
): { readonly orders: readonly Planned[]; readonly belowOldest: Money } {
  const weigh = (orders: readonly (readonly OpenLine[])[]): Planned[] =>
    orders.map((parts) => ({ parts, worth: worthOf(parts, facts) }))
  const oldest = weigh(capped(group, mostRequests))
  const nothing = { orders: oldest, belowOldest: zero(facts.currency) }
  if (choose === 'oldest' || mostRequests === null || mostRequests < 2 || oldest.length < 2) return nothing
  const found = weigh(
    repack(
      oldest.map((o) => o.parts),
      mostRequests,
      facts,
    ),
  )
  const [is, was] = [judge(found, facts), judge(oldest, facts)]
  const isBetter = is.below < was.below || (is.below === was.below && compare(is.net, was.net) < 0)
  return isBetter ? { orders: found, belowOldest: subtract(was.net, is.net) } : nothing
}

/** How good a plan is: how many of its orders are below the minimum, and what it costs. */
function judge(orders: readonly Planned[], facts: Worths): { readonly below: number; readonly net: Money } {
  return {
    below: orders.filter((o) => minimumMissed(o.worth.goods, facts.terms) !== null).length,
    net: sum(
      orders.map((o) => o.worth.net),
      facts.currency,
    ),
  }
}

function proposed(parts: readonly OpenLine[], worth: Worth, facts: Worths): ProposedOrder {
  const [first] = parts
  return {
    supplierId: first?.supplierId ?? '',
    shipToId: first?.shipToId ?? '',
    currency: facts.currency,
    parts,
    worth,
    needBy: parts.map((p) => p.needBy).sort()[0] ?? facts.today,
    saved: byRequisition(parts).length < 2 ? zero(facts.currency) : subtract(worthAlone(parts, facts), worth.net),
    belowMinimum: minimumMissed(worth.goods, facts.terms),
  }
}

/** Why an order of so much is left for now; null where it is not. Its last day belongs to the waiting. */
function waitingFor(
  parts: readonly OpenLine[],
  goods: Money,
  { waitFor }: ProposalOptions,
  { today, baseCurrency }: ProposalFacts,
): LeftReason | null {
  if (waitFor === null) return null
  const value = moneyOf(waitFor.value, baseCurrency)
  const until = addDays(parts.map((p) => p.sentOn).sort()[0] ?? today, waitFor.days)
  return compare(goods, value) < 0 && today <= until ? { code: 'waits-for-more', value, goods, until } : null
}
