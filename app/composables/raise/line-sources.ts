import type { LineSource } from '#shared/contract/regulars'

/** The line sources in the order in which they are offered; the contract's list, which this must name whole. */
export const LINE_SOURCE_NAMES = ['regulars', 'bought', 'requests', 'orders', 'templates'] as const satisfies readonly LineSource[]
export type LineSourceName = LineSource

/** What each is called, after "take lines from". */
export const SOURCE_NAMES: Record<LineSource, string> = { regulars: 'regulars', bought: 'bought before', requests: 'earlier requests', orders: 'orders', templates: 'templates' }
