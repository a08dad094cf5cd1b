import { NOTHING, ONE, dec } from '#core/base/decimal'
import { documentSums, isSameTax, type DocumentSums, type TaxKey } from '#core/base/document-sums'
import { compare, isNegative, sum, zero, type Money } from '#core/base/money'
import { divide } from '#core/base/split'

/** What a supplier asks for bringing an order, in the order's currency; null: nothing, or never free. */
export interface FreightTerms {
  readonly freight: Money | null
  /** The value of goods from which it is free. */
  readonly freeFrom: Money | null
}

/**
 * Freight of an order, once, by the value of its goods without freight and tax: none where nothing is ordered, none
 * from the supplier's freight-free value on. Source: rules of calculation, consolidation.
 */
export function freightOf(goods: Money | null, terms: FreightTerms): Money | null {
  if (goods === null || terms.freight === null) return null
  return terms.freeFrom !== null && compare(goods, terms.freeFrom) >= 0 ? null : terms.freight
}

/** A charge on an order: the tax it carries, and what of it each line bears. */
export interface LaidFreight {
  readonly tax: TaxKey
  /** One for each line, in their order; they add up to the freight. */
  readonly shares: readonly Money[]
}

/**
 * Lays freight on the lines of an order. It carries the tax of its dearest line, of equals the first (common practice,
 * no source), and is divided over the lines of that tax by their net (rules of calculation, what a budget feels). Null
 * where there is no line.
 */
export function layFreight(
  freight: Money,
  lines: readonly { readonly net: Money; readonly tax: TaxKey }[],
): LaidFreight | null {
  const [first, ...others] = lines
  if (first === undefined) return null
  const { tax } = others.reduce((dearest, l) => (compare(l.net, dearest.net) > 0 ? l : dearest), first)
  const bears = lines.map((l) => isSameTax(l.tax, tax))
  const worth = lines.map((l, i) => (bears[i] && !isNegative(l.net) ? dec(l.net.amount) : NOTHING))
  const isWorthless = worth.every((w) => w.isZero())
  const weights = isWorthless ? bears.map((b) => (b ? ONE : NOTHING)) : worth
  return { tax, shares: divide(freight, weights) }
}

/** The sums of an order with its freight among the charges, what of that each line bears, and the tax it carries. */
export function orderSums(
  lines: readonly { readonly net: Money; readonly tax: TaxKey }[],
  terms: FreightTerms,
  currency: string,
): { readonly sums: DocumentSums; readonly freight: readonly Money[]; readonly freightTax: TaxKey | null } {
  const goods = sum(
    lines.map((l) => l.net),
    currency,
  )
  const freight = freightOf(lines.length === 0 ? null : goods, terms)
  const laid = freight === null ? null : layFreight(freight, lines)
  const charges =
    freight === null || laid === null ? [] : [{ kind: 'charge' as const, amount: freight.amount, tax: laid.tax }]
  return {
    sums: documentSums(lines, currency, charges),
    freight: laid?.shares ?? lines.map(() => zero(currency)),
    freightTax: laid?.tax ?? null,
  }
}
