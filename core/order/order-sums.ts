import { documentSums, type DocumentSums, type TaxKey } from '#core/base/document-sums'
import { add, sum, zero, type Money } from '#core/base/money'
import { borneOf, layAdjustments, type LaidAdjustment, type OrderAdjustment } from './adjustment'
import { freightOf, layFreight, type FreightTerms } from './freight'

export interface OrderSums {
  /** Freight is among its charges. */
  readonly sums: DocumentSums
  /** The lines alone. */
  readonly goods: Money
  readonly freight: Money
  /** That the freight carries; null where nothing is asked for it. */
  readonly freightTax: TaxKey | null
  readonly adjustments: readonly LaidAdjustment[]
  /** What each line bears of the adjustments, less where they take off; and with what it bears of the freight. */
  readonly adjusted: readonly Money[]
  readonly borne: readonly Money[]
}

/** The sums of an order with its freight and adjustments, and what its lines bear of those. */
export function orderSums(
  lines: readonly { readonly net: Money; readonly tax: TaxKey }[],
  terms: FreightTerms,
  currency: string,
  asked: readonly OrderAdjustment[] = [],
): OrderSums {
  const goods = sum(
    lines.map((l) => l.net),
    currency,
  )
  const freight = freightOf(lines.length === 0 ? null : goods, terms)
  const laid = freight === null ? null : layFreight(freight, lines)
  const adjustments = layAdjustments(asked, lines, currency)
  const adjusted = borneOf(adjustments, lines.length, currency)
  const sums = documentSums(lines, currency, [
    ...adjustments.map(({ kind, amount: { amount }, tax }) => ({
      ...{ kind: kind === 'discount' ? ('allowance' as const) : kind, amount, tax },
    })),
    ...(freight === null || laid === null ? [] : [{ kind: 'charge' as const, amount: freight.amount, tax: laid.tax }]),
  ])
  return {
    ...{ sums, goods, adjustments, adjusted },
    freight: laid === null ? zero(currency) : (freight ?? zero(currency)),
    freightTax: laid?.tax ?? null,
    borne: adjusted.map((a, i) => add(a, laid?.shares[i] ?? zero(currency))),
  }
}
