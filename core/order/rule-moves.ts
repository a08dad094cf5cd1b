/** How a rule of ordering by itself stands. */
export const RULE_STATES = ['draft', 'asked', 'in force', 'paused', 'ended'] as const
export type RuleState = (typeof RULE_STATES)[number]

/**
 * What may be done with a rule, from which states, and what it leads to. Whatever changes what it says leads back to a
 * draft, which orders nothing. Source: ours.
 */
export const RULE_MOVES = {
  change: { from: ['draft', 'asked', 'in force', 'paused'], to: 'draft' },
  ask: { from: ['draft'], to: 'asked' },
  confirm: { from: ['asked'], to: 'in force' },
  'send back': { from: ['asked'], to: 'draft' },
  pause: { from: ['in force'], to: 'paused' },
  'let go on': { from: ['paused'], to: 'in force' },
  end: { from: ['draft', 'asked', 'in force', 'paused'], to: 'ended' },
  'take up again': { from: ['ended'], to: 'draft' },
} as const satisfies Record<string, { readonly from: readonly RuleState[]; readonly to: RuleState }>
export type RuleMove = keyof typeof RULE_MOVES
export const RULE_MOVE_NAMES = Object.keys(RULE_MOVES) as [RuleMove, ...RuleMove[]]

export const isRuleMoveFrom = (move: RuleMove, state: RuleState): boolean =>
  (RULE_MOVES[move].from as readonly RuleState[]).includes(state)
