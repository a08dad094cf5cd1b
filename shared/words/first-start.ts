import type { StartingPolicy } from '#core/approval/starting'

/** Each starting policy as the sentence it is chosen by. */
export const STARTING_POLICY_WORDS: Readonly<Record<StartingPolicy, string>> = {
  managers:
    'managers decide by their limits; nobody is asked within the requester’s own limit, and the budget holder too ' +
    'where a budget would be passed',
  'managers and budget holders':
    'managers decide by their limits, and the budget holder of each budget line too, whatever the amount',
  'one approver': 'one person decides on everything: you',
}
