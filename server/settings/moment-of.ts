import { TZDate } from '@date-fns/tz'
import type { Day } from '#core/base/day'

/** A day and a time of it ("09:30") in a time zone, as a moment. A time that the clock leaves out is moved on. */
export function momentOf(day: Day, time: string, timeZone: string): Date {
  const [year = 0, month = 1, date = 1, hour = 0, minute = 0] = `${day}-${time}`.split(/[-:]/).map(Number)
  // A text is read in the machine's own time zone; numbers are those of the other.
  return new Date(new TZDate(year, month - 1, date, hour, minute, timeZone).getTime())
}

/** The first moment of a day in a time zone. */
export const beginOf = (day: Day, timeZone: string): Date => momentOf(day, '00:00', timeZone)

/** The hour of the day, 0 to 23, of a moment in a time zone. */
export const hourOf = (at: Date, timeZone: string): number => new TZDate(at.getTime(), timeZone).getHours()
