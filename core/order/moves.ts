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

/** Who may make a move, seen from the order. */
export type OrderMoveBy = 'buyer' | 'step holder' | 'buyer or asked' | 'supplier'

/**
 * All that may happen to an order in this part of the work: routes, buttons and tests read it. `to` is null where it
 * goes altogether, and of a change, which leaves it where it stands.
 */
export const ORDER_MOVES = {
  fill: { from: ['draft'], to: 'draft', by: 'buyer' },
  throwAway: { from: ['draft'], to: null, by: 'buyer' },
  send: { from: ['draft'], to: 'in approval', by: 'buyer' },
  approve: { from: ['in approval'], to: 'approved', by: 'step holder' },
  sendBack: { from: ['in approval'], to: 'draft', by: 'step holder' },
  ask: { from: ['in approval'], to: 'in approval', by: 'step holder' },
  handOn: { from: ['in approval'], to: 'in approval', by: 'step holder' },
  answer: { from: ['in approval'], to: 'in approval', by: 'buyer or asked' },
  withdraw: { from: ['in approval', 'approved'], to: 'draft', by: 'buyer' },
  issue: { from: ['draft', 'approved'], to: 'issued', by: 'buyer' },
  /** Its supplier answers, or its buyer for them. */
  acknowledge: { from: ['issued', 'acknowledged'], to: 'acknowledged', by: 'supplier' },
  change: { from: ['issued', 'acknowledged', 'part received'], to: null, by: 'buyer' },
  /** Of which something came, it can only be closed short. */
  cancel: { from: ['issued', 'acknowledged'], to: 'cancelled', by: 'buyer' },
} as const satisfies Record<
  string,
  { readonly from: readonly OrderState[]; readonly to: OrderState | null; readonly by: OrderMoveBy }
>
export type OrderMoveName = keyof typeof ORDER_MOVES

/** Whether a move leads on from a state. */
export const isOrderMoveFrom = (move: OrderMoveName, state: OrderState): boolean =>
  ORDER_MOVES[move].from.some((s) => s === state)
