import type { Draft } from '#core/requisition/draft'

/** Why what is being written cannot be ordered as it stands, without a request. */
export type DirectReason =
  | { readonly code: 'direct-sent-before' | 'direct-several-suppliers' | 'direct-several-currencies' }
  | { readonly code: 'direct-no-supplier'; readonly lineId: string; readonly description: string }
  /** Nobody orders for their own need alone. */
  | { readonly code: 'direct-own-need' }

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
