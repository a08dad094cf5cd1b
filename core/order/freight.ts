import { NOTHING, ONE, dec } from '#core/base/decimal'
import { isSameTax, type TaxKey } from '#core/base/document-sums'
import { compare, isNegative, type Money } from '#core/base/money'
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
  return { tax, shares: overTax(freight, tax, lines) }
}

/** What each line bears of an amount that carries one tax: it is divided over the lines of that tax by their net. */
export const overTax = (
  amount: Money,
  tax: TaxKey,
  lines: readonly { readonly net: Money; readonly tax: TaxKey }[],
): Money[] =>
  divideByWorth(
    amount,
    lines.map((l) => (isSameTax(l.tax, tax) ? l.net : null)),
  )

/** Divides an amount by what each is worth: null and less than nothing bear none, worthless ones alike. */
export function divideByWorth(amount: Money, worth: readonly (Money | null)[]): Money[] {
  const weights = worth.map((w) => (w === null || isNegative(w) ? NOTHING : dec(w.amount)))
  const isWorthless = weights.every((w) => w.isZero())
  return divide(amount, isWorthless ? worth.map((w) => (w === null ? NOTHING : ONE)) : weights)
}
