import { addDays, isDay, weekday, type Day } from './day'

const WEEKDAYS = ['monday', 'tuesday', 'wednesday', 'thursday', 'friday', 'saturday', 'sunday']
const MONTHS = [
  'january',
  'february',
  'march',
  'april',
  'may',
  'june',
  'july',
  'august',
  'september',
  'october',
  'november',
  'december',
]

/**
 * A day as people type it: "fri", "11 Dec", "Dec 11 2027", "11.12.", "11/12/26", "2026-12-11", "today", "+5" (days from
 * today), "+2w". Without a year it is the first such day from today on; a weekday is the next one after today. Figures
 * alone are read day first unless `monthFirst`. Null where it is no day. (Common practice, no source.)
 */
export function readTypedDay(typed: string, today: Day, monthFirst = false): Day | null {
  const text = typed.trim().toLowerCase().replace(/,/g, ' ').replace(/\s+/g, ' ')
  if (text === '') return null
  if (text === 'today') return today
  if (text === 'tomorrow') return addDays(today, 1)
  const ahead = /^\+ ?(\d{1,3}) ?(d|days?|w|weeks?)?$/.exec(text)
  if (ahead !== null) return addDays(today, Number(ahead[1]) * (ahead[2]?.startsWith('w') === true ? 7 : 1))
  const named = startsOne(WEEKDAYS, text)
  if (named !== null) return addDays(today, ((named - weekday(today) + 6) % 7) + 1)
  const [year, month, day] = partsOf(text, monthFirst) ?? []
  if (month === undefined || day === undefined) return null
  if (typeof year === 'number') return dayAt(year, month, day)
  const thisYear = Number(today.slice(0, 4))
  // A leap day may be up to eight years away.
  for (let y = thisYear; y <= thisYear + 8; y += 1) {
    const found = dayAt(y, month, day)
    if (found !== null && found >= today) return found
  }
  return null
}

/** Year, if one is said, month and day. */
function partsOf(text: string, monthFirst: boolean): [year: number | null, month: number, day: number] | null {
  const iso = /^(\d{4})-(\d{1,2})-(\d{1,2})$/.exec(text)
  if (iso !== null) return [Number(iso[1]), Number(iso[2]), Number(iso[3])]
  const figures = /^(\d{1,2})[./ -](\d{1,2})[./ -]?(\d{4}|\d{2})?$/.exec(text)
  if (figures !== null) {
    const [first, second] = [Number(figures[1]), Number(figures[2])]
    return [yearOf(figures[3]), ...((monthFirst ? [first, second] : [second, first]) as [number, number])]
  }
  const dayFirst = /^(\d{1,2})(?:st|nd|rd|th)?\.? ?([a-z]{3,})\.? ?(\d{4}|\d{2})?$/.exec(text)
  const worded = dayFirst ?? /^([a-z]{3,})\.? ?(\d{1,2})(?:st|nd|rd|th)? ?(\d{4}|\d{2})?$/.exec(text)
  if (worded === null) return null
  const [day, name] = dayFirst === null ? [worded[2], worded[1]] : [worded[1], worded[2]]
  const month = startsOne(MONTHS, name ?? '')
  return month === null ? null : [yearOf(worded[3]), month, Number(day)]
}

const yearOf = (text: string | undefined): number | null =>
  text === undefined ? null : Number(text) + (text.length === 2 ? 2000 : 0)

/** Which name a text begins, from 1 on, by three letters at least. */
function startsOne(names: readonly string[], text: string): number | null {
  const at = text.length < 3 ? -1 : names.findIndex((n) => n.startsWith(text))
  return at < 0 ? null : at + 1
}

function dayAt(year: number, month: number, day: number): Day | null {
  const text = `${year}-${String(month).padStart(2, '0')}-${String(day).padStart(2, '0')}`
  return isDay(text) ? text : null
}
