import { addDays, type Day } from '#core/base/day'

/** How often a repeating requisition is raised. */
export const RHYTHMS = ['week', 'two weeks', 'month', 'quarter', 'year'] as const
export type Rhythm = (typeof RHYTHMS)[number]

const MONTHS = { month: 1, quarter: 3, year: 12 } as const

/**
 * The next time of a rhythm after a day, counted from the day it began with, so that the 31st comes
 * back after a short month, in which the last day stands for it. Common practice, no source.
 */
export function nextOf(rhythm: Rhythm, start: Day, after: Day): Day {
  for (let n = 1; ; n += 1) {
    const day =
      rhythm === 'week'
        ? addDays(start, 7 * n)
        : rhythm === 'two weeks'
          ? addDays(start, 14 * n)
          : addMonths(start, MONTHS[rhythm] * n)
    if (day > after) return day
  }
}

function addMonths(day: Day, months: number): Day {
  const at = Number(day.slice(0, 4)) * 12 + Number(day.slice(5, 7)) - 1 + months
  const [year, month] = [Math.floor(at / 12), (at % 12) + 1]
  const last = new Date(Date.UTC(year, month, 0)).getUTCDate()
  const text = (n: number, width: number) => String(n).padStart(width, '0')
  return `${text(year, 4)}-${text(month, 2)}-${text(Math.min(Number(day.slice(8, 10)), last), 2)}`
}
