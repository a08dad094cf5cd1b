import { NOTHING, ONE, dec, type DecimalText } from '#core/base/decimal'
import type { Money } from '#core/base/money'
import { lineNet } from '#core/base/line-net'
import { adjustmentsOfPart } from '#core/budget/effect'
import { priceFor } from '#core/catalogue/price'
import type { OpenLine } from './consolidate'
import type { OrderTerms } from './order-terms'
import { PackSearch, type Amount, type Load, type Steps, type Terms } from './pack-search'
import { byRequisition, type WorthFacts } from './worth'

/**
 * Looks for the cheapest way to put requisitions together, at most so many to an order, where price steps, minimum
 * orders and freight interact. Which requisition goes with which is a question of bin packing, so this is a search and
 * no proof, whose work grows with the number of requisitions and no faster. Costs are compared exactly, but without the
 * rounding of lines; whoever calls weighs what is found with every cent. Its gap to the proven optimum on small cases
 * is in `repack.test.ts` and in the bench.
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
  const search = new PackSearch(loads, pricesOf(loads, facts), termsOf(facts.terms), mostRequests)
  return search
    .best([start, byItem(loads, mostRequests)])
    .map((members) => [...members].sort((a, b) => a - b).flatMap((m) => requests[m] ?? []))
}

/** Quantities are whole millionths, prices for one whole billionths of a millionth, so costs are their product. */
const QUANTITY_PLACES = 6
const PRICE_PLACES = 15
const COST_PLACES = QUANTITY_PLACES + PRICE_PLACES
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
      const adjustments = adjustmentsOfPart(l.adjustments, l.quantity, l.requested)
      if (l.itemId === null || l.isByHand || priceFor(prices.get(l.itemId) ?? [], l.quantity, today) === null) {
        fixed = fixed.plus(dec(lineNet({ ...l, adjustments }).amount))
        continue
      }
      let share = ONE
      for (const a of adjustments) {
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

const inOrder = <T extends string | bigint>(a: T, b: T): number => (a < b ? -1 : a > b ? 1 : 0)

/** Another beginning: requisitions that want most of the same item together. */
function byItem(loads: readonly Load[], most: number): number[][] {
  const main = loads.map((l) => [...l.items].sort(([, a], [, b]) => inOrder(b.paid, a.paid))[0]?.[0] ?? '')
  const sorted = loads.map((_, i) => i).sort((a, b) => inOrder(main[a] ?? '', main[b] ?? ''))
  const orders: number[][] = []
  for (let from = 0; from < sorted.length; from += most) orders.push(sorted.slice(from, from + most))
  return orders
}
