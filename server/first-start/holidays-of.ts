import Holidays from 'date-holidays'
import type { Day } from '#core/base/day'

/** Years, beside this one, for which holidays are entered. */
const YEARS_AHEAD = 2

/** The regions of a country that have public holidays of their own, by name. */
export function regionsOf(country: string): { id: string; name: string }[] {
  const states = (new Holidays().getStates(country, 'en') ?? {}) as Record<string, string>
  return Object.entries(states)
    .map(([id, name]) => ({ id, name }))
    .sort((a, b) => a.name.localeCompare(b.name, 'en'))
}

/** The public holidays of a country, or of one of its regions, that fall on one day: this year's and those ahead. */
export function holidaysOf(country: string, region: string, today: Day): { day: Day; name: string }[] {
  const found = new Map<Day, string>()
  const options = { languages: ['en'], types: ['public' as const] }
  const calendar = region === '' ? new Holidays(country, options) : new Holidays(country, region, options)
  for (let year = Number(today.slice(0, 4)), n = 0; n <= YEARS_AHEAD; n += 1)
    for (const h of calendar.getHolidays(year + n)) found.set(h.date.slice(0, 10), h.name)
  return [...found].map(([day, name]) => ({ day, name }))
}
