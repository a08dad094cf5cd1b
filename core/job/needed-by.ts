import { addBusinessDays, type Day } from '#core/base/day'

/** How long something takes of which nobody knows how long it takes, in business days. Common practice, no source. */
const USUAL_LEAD_DAYS = 10

/**
 * By when parts are needed that ask for themselves: on the first day of the job, or as soon as what takes longest can
 * be there where that is later. `leadDays` are the business days that each part takes; null where nobody knows.
 */
export function neededBy(
  startsOn: Day | null,
  leadDays: readonly (number | null)[],
  today: Day,
  holidays: ReadonlySet<Day>,
): Day {
  const longest = Math.max(1, ...leadDays.map((n) => n ?? USUAL_LEAD_DAYS))
  const earliest = addBusinessDays(today, longest, holidays)
  return startsOn !== null && startsOn > earliest ? startsOn : earliest
}
