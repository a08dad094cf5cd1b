import { addDays, type Day } from '../base/day'

/** A line is put aside for so many days at most: what is put aside for good is cancelled. */
const LONGEST_ASIDE = 366

export type AsideReason = { readonly code: 'aside-not-later' } | { readonly code: 'aside-too-long'; readonly most: Day }

/** Why a line may not be put aside until a day: on that day it waits again. */
export function asideReasons(until: Day, today: Day): AsideReason[] {
  const most = addDays(today, LONGEST_ASIDE)
  if (until <= today) return [{ code: 'aside-not-later' }]
  return until > most ? [{ code: 'aside-too-long', most }] : []
}
