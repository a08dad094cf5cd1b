import { dayOf } from '#core/base/day'
import { readStartOfClock } from '../../server/clock'

const ZONE = 'Europe/London'
const HALF_HOUR_MS = 1_800_000

/**
 * Where a world made for tests or pictures stands: the moment in REKKO_NOW, or now. Within half an hour before
 * midnight it stands an hour earlier, so that a day does not end while it is looked at.
 */
export function chooseMoment(): Date {
  const given = readStartOfClock({ ...process.env, REKKO_DEMO: '1' })
  if (given !== null) return given
  const now = new Date()
  const soon = new Date(now.getTime() + HALF_HOUR_MS)
  return dayOf(now, ZONE) === dayOf(soon, ZONE) ? now : new Date(now.getTime() - 2 * HALF_HOUR_MS)
}
