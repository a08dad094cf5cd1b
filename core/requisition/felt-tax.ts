import { dec, type DecimalText } from '#core/base/decimal'
import { convert, subtract, sum, type Money } from '#core/base/money'

/** How much of the tax on a requisition its budgets feel; the rest is reclaimed. */
export type FeltTax =
  | { readonly code: 'none' }
  | { readonly code: 'all-back' }
  | { readonly code: 'all-felt' }
  | { readonly code: 'part'; readonly felt: Money }

/** Sums are worked out coding by coding and need not agree to the cent with the document's tax (common practice). */
const CENTS = dec('0.05')

/**
 * What the budgets feel of the tax, from the sums by currency and the approval amount, in the base currency. `perBase`
 * gives the rate of a currency; sums without one are not counted.
 */
export function feltTax(
  sums: readonly { readonly currency: string; readonly net: Money; readonly tax: Money }[],
  approvalAmount: Money,
  perBase: (currency: string) => DecimalText | undefined,
): FeltTax {
  const base = approvalAmount.currency
  const total = (part: 'net' | 'tax') =>
    sum(
      sums.flatMap((s) => {
        const rate = perBase(s.currency)
        return rate === undefined ? [] : [convert(s[part], rate, base)]
      }),
      base,
    )
  const all = total('tax')
  const felt = subtract(approvalAmount, total('net'))
  if (dec(all.amount).isZero()) return { code: 'none' }
  if (dec(felt.amount).lte(CENTS)) return { code: 'all-back' }
  return dec(subtract(all, felt).amount).abs().lte(CENTS) ? { code: 'all-felt' } : { code: 'part', felt }
}
