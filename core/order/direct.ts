import type { DirectOrders } from '#core/approval/policy'
import type { DecimalText } from '#core/base/decimal'
import { compare, convert, type Money } from '#core/base/money'
import type { Draft } from '#core/requisition/draft'

/** Why the policy lets nobody make an order without a request. */
export type DirectBound =
  | { readonly code: 'direct-forbidden' }
  | { readonly code: 'direct-beyond-policy'; readonly upTo: Money; readonly amount: Money }

/** Why an order worth `amount` (base currency, without tax) is not made without a request; "up to" includes it. */
export function directBounds(policy: DirectOrders | undefined, amount: Money | null): DirectBound[] {
  if (policy === undefined) return []
  if (policy === null) return [{ code: 'direct-forbidden' }]
  const { upTo } = policy
  if (upTo === null || amount === null || compare(amount, upTo) <= 0) return []
  return [{ code: 'direct-beyond-policy', upTo, amount }]
}

/** What is written comes to, without tax, in the base currency; null in several currencies, or where no rate leads. */
export function directWorth(
  sums: readonly { readonly net: Money }[],
  perBase: ReadonlyMap<string, DecimalText>,
  baseCurrency: string,
): Money | null {
  const [only, ...others] = sums
  const rate = only === undefined ? undefined : perBase.get(only.net.currency)
  return only === undefined || others.length > 0 || rate === undefined ? null : convert(only.net, rate, baseCurrency)
}

/** Why what is being written cannot be ordered as it stands, without a request. */
export type DirectReason =
  | { readonly code: 'direct-sent-before' | 'direct-several-suppliers' | 'direct-several-currencies' }
  | { readonly code: 'direct-no-supplier'; readonly lineId: string; readonly description: string }
  /** Nobody orders for their own need alone. */
  | { readonly code: 'direct-own-need' }
  | DirectBound

/**
 * Whether what somebody writes may become an order without a request: one order goes to one supplier in one currency,
 * and is for somebody else. What a request for it would lack is missing here too, and stands in its missing list.
 */
export function directReasons(
  draft: Pick<Draft, 'lines'>,
  of: { readonly ownerId: string; readonly buyerId: string; readonly number: string | null },
): DirectReason[] {
  const suppliers = new Set(draft.lines.flatMap((l) => l.supplierId ?? []))
  const [open] = draft.lines.filter((l) => l.supplierId === null)
  return [
    ...(of.number === null ? [] : [{ code: 'direct-sent-before' as const }]),
    ...(of.ownerId === of.buyerId ? [{ code: 'direct-own-need' as const }] : []),
    ...(open === undefined
      ? []
      : [{ code: 'direct-no-supplier' as const, lineId: open.id, description: open.description }]),
    ...(suppliers.size > 1 ? [{ code: 'direct-several-suppliers' as const }] : []),
    ...(new Set(draft.lines.map((l) => l.currency)).size > 1 ? [{ code: 'direct-several-currencies' as const }] : []),
  ]
}
