import { dec, type DecimalText } from './decimal'
import { add, roundMoney, subtract, sum, zero, type Money } from './money'
import type { Adjustment } from './line-net'

/**
 * A tax category by UN/ECE code list 5305 (S standard, Z zero, E exempt, AE reverse charge) and its rate in percent.
 */
export interface TaxKey {
  readonly category: string
  readonly rate: DecimalText
}

export interface TaxSum extends TaxKey {
  readonly taxable: Money
  readonly tax: Money
}

export interface DocumentSums {
  readonly lines: Money
  readonly allowances: Money
  readonly charges: Money
  readonly net: Money
  readonly tax: Money
  readonly total: Money
  readonly byTax: readonly TaxSum[]
}

/** Whether two lines are taxed alike; rates are one whatever their trailing zeros. */
export const isSameTax = (a: TaxKey, b: TaxKey): boolean => keyOf(a) === keyOf(b)

/** Rates are one whatever their trailing zeros. */
const keyOf = (tax: TaxKey) => `${tax.category} ${tax.rate.replace(/(\.\d*?)0+$/, '$1').replace(/\.$/, '')}`

/**
 * The sums of a document of one currency. Tax is worked out once for each category and rate, never
 * for each line. Source: EN 16931-1, BR-CO-10, BR-CO-13 to BR-CO-15 and BR-CO-17.
 */
export function documentSums(
  lines: readonly { readonly net: Money; readonly tax: TaxKey }[],
  currency: string,
  adjustments: readonly (Adjustment & { readonly tax: TaxKey })[] = [],
): DocumentSums {
  const nets = new Map<string, { key: TaxKey; nets: Money[] }>()
  for (const line of lines) {
    const found = nets.get(keyOf(line.tax))
    if (found === undefined) nets.set(keyOf(line.tax), { key: line.tax, nets: [line.net] })
    else found.nets.push(line.net)
  }
  const groups = new Map(
    [...nets].map(([id, g]) => {
      const net = sum(g.nets, currency)
      return [id, { key: g.key, lines: net, taxable: net }]
    }),
  )
  const group = (tax: TaxKey) => {
    const found = groups.get(keyOf(tax)) ?? { key: tax, lines: zero(currency), taxable: zero(currency) }
    groups.set(keyOf(tax), found)
    return found
  }
  let allowances = zero(currency)
  let charges = zero(currency)
  for (const a of adjustments) {
    const g = group(a.tax)
    const value =
      a.percent === undefined
        ? roundMoney(dec(a.amount ?? '0'), currency)
        : roundMoney(dec(g.lines.amount).times(dec(a.percent)).percent(), currency)
    if (a.kind === 'allowance') {
      allowances = add(allowances, value)
      g.taxable = subtract(g.taxable, value)
    } else {
      charges = add(charges, value)
      g.taxable = add(g.taxable, value)
    }
  }
  const byTax = [...groups.values()].map(({ key, taxable }) => ({
    ...key,
    taxable,
    tax: roundMoney(dec(taxable.amount).times(dec(key.rate)).percent(), currency),
  }))
  const lineSum = sum(
    lines.map((l) => l.net),
    currency,
  )
  const net = add(subtract(lineSum, allowances), charges)
  const tax = sum(
    byTax.map((t) => t.tax),
    currency,
  )
  return { lines: lineSum, allowances, charges, net, tax, total: add(net, tax), byTax }
}
