/** What a reason that an organisation has prepared may be picked for. */
export const REASON_USES = ['all', 'approving', 'sending back', 'rejecting', 'asking'] as const
export type ReasonUse = (typeof REASON_USES)[number]
