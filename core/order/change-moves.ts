/** The states of a change of an issued order: what is sent to the supplier once it is in force. */
export const CHANGE_STATES = ['draft', 'in approval', 'approved', 'in force', 'cancelled'] as const
export type ChangeState = (typeof CHANGE_STATES)[number]

/** All that may happen to a change of an order: routes, buttons and tests read this one table. */
export const CHANGE_MOVES = {
  send: { from: ['draft'], to: 'in approval', by: 'buyer' },
  approve: { from: ['in approval'], to: 'approved', by: 'step holder' },
  sendBack: { from: ['in approval'], to: 'draft', by: 'step holder' },
  ask: { from: ['in approval'], to: 'in approval', by: 'step holder' },
  handOn: { from: ['in approval'], to: 'in approval', by: 'step holder' },
  answer: { from: ['in approval'], to: 'in approval', by: 'buyer or asked' },
  putInForce: { from: ['draft', 'approved'], to: 'in force', by: 'buyer' },
  throwAway: { from: ['draft', 'in approval', 'approved'], to: 'cancelled', by: 'buyer' },
} as const satisfies Record<
  string,
  {
    readonly from: readonly ChangeState[]
    readonly to: ChangeState
    readonly by: 'buyer' | 'step holder' | 'buyer or asked'
  }
>
export type ChangeMoveName = keyof typeof CHANGE_MOVES

/** Whether a move leads on from a state. */
export const isChangeMoveFrom = (move: ChangeMoveName, state: ChangeState): boolean =>
  CHANGE_MOVES[move].from.some((s) => s === state)
