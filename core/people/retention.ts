/** What of people is kept for a number of days only, by its kind. Documents, decisions and events stay for good. */
export const KEPT_KINDS = ['sessions', 'notices', 'letters', 'people'] as const
export type KeptKind = (typeof KEPT_KINDS)[number]

/** How many days each kind is kept after it ended; null is for good. */
export type Retention = Readonly<Record<KeptKind, number | null>>

/** The longest that can be said, in days: thirty years. */
export const MOST_KEPT_DAYS = 10_958
