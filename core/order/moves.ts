/** The states of a purchase order. */
export type OrderState =
  | 'draft'
  | 'in approval'
  | 'approved'
  | 'issued'
  | 'acknowledged'
  | 'part received'
  | 'received'
  | 'closed'
  | 'cancelled'

/** All that may happen to an order in this part of the work: routes, buttons and tests read it. */
export const ORDER_MOVES = {
  fill: { from: ['draft'], to: 'draft' },
  throwAway: { from: ['draft'], to: null },
  issue: { from: ['draft', 'approved'], to: 'issued' },
} as const satisfies Record<string, { readonly from: readonly OrderState[]; readonly to: OrderState | null }>
export type OrderMoveName = keyof typeof ORDER_MOVES
