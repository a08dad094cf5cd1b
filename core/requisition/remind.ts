import { REQUISITION_MOVES } from './moves'

const DAY_MS = 86_400_000

/**
 * Whether those a requisition waits for may be reminded again: it waits for somebody besides its owner, and the last
 * reminder was a day (24 hours) ago or longer. Moments are ISO 8601. Common practice, no source.
 */
export function mayRemindAgain(of: {
  readonly state: string
  readonly remindedAt: string | null
  readonly now: string
}): boolean {
  const from: readonly string[] = REQUISITION_MOVES.remind.from
  return from.includes(of.state) && wasLongAgo(of.remindedAt, of.now)
}

/** Whether the last reminder was a day ago or longer, or there was none. */
export function wasLongAgo(remindedAt: string | null, now: string): boolean {
  return remindedAt === null || Date.parse(now) - Date.parse(remindedAt) >= DAY_MS
}
