import type { Day } from '#core/base/day'
import { lineNet } from '#core/base/line-net'
import { add, isNegative, subtract, sum, zero, type Money } from '#core/base/money'
import type { PriceStep } from '#core/catalogue/price'
import { freightOf, type FreightTerms } from './freight'
import { mergeParts, type MergedLine, type TrayPart } from './merge'

/** What the worth of an order rests on: steps of the items that have any, what bringing it costs, its currency. */
export interface WorthFacts {
  readonly prices: ReadonlyMap<string, readonly PriceStep[]>
  readonly terms: FreightTerms
  readonly currency: string
  readonly today: Day
}

export interface Worth {
  readonly lines: readonly (MergedLine & { readonly net: Money })[]
  readonly goods: Money
  readonly freight: Money
  /** Goods and freight, without tax. */
  readonly net: Money
}

/** What parts cost as one order: merged, at the prices of their totals, with freight once. All are in its currency. */
export function worthOf(parts: readonly TrayPart[], { prices, terms, currency, today }: WorthFacts): Worth {
  const lines = mergeParts(parts, prices, today).map((l) => ({ ...l, net: lineNet({ ...l, currency }) }))
  const goods = sum(
    lines.map((l) => l.net),
    currency,
  )
  const freight = freightOf(lines.length === 0 ? null : goods, terms) ?? zero(currency)
  return { lines, goods, freight, net: add(goods, freight) }
}

/** What parts cost as one order for each requisition, freight and price breaks included. */
export function worthAlone(parts: readonly TrayPart[], facts: WorthFacts): Money {
  return sum(
    byRequisition(parts).map((own) => worthOf(own, facts).net),
    facts.currency,
  )
}

/**
 * What an order of `net`, with freight, saves against one order for each requisition; never less than nothing. Source:
 * rules of calculation, consolidation.
 */
export function savedTogether(asked: readonly TrayPart[], net: Money, facts: WorthFacts): Money {
  const saved = subtract(worthAlone(asked, facts), net)
  return isNegative(saved) ? zero(facts.currency) : saved
}

/** Parts by the requisition that they belong to, in the order given. */
export function byRequisition<P extends TrayPart>(parts: readonly P[]): P[][] {
  const found = new Map<string, P[]>()
  for (const p of parts) {
    const own = found.get(p.requisitionId)
    if (own === undefined) found.set(p.requisitionId, [p])
    else own.push(p)
  }
  return [...found.values()]
}
