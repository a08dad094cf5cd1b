/** A calendar day, "2026-11-25", in the organisation's time zone. */
export type Day = string

const MS = 86_400_000

/** True for a real day between 1900 and 2199. */
export function isDay(text: string): boolean {
  const m = /^(19|20|21)(\d\d)-(\d\d)-(\d\d)$/.exec(text)
  return m !== null && toDay(toMs(text)) === text
}

function toMs(day: Day): number {
  return Date.UTC(Number(day.slice(0, 4)), Number(day.slice(5, 7)) - 1, Number(day.slice(8, 10)))
}

function toDay(ms: number): Day {
  return new Date(ms).toISOString().slice(0, 10)
}

/** Made once for each zone: making a formatter costs far more than using it. */
const DAY_FORMATS = new Map<string, Intl.DateTimeFormat>()

/** The day of a moment in a time zone (IANA name). */
export function dayOf(moment: Date, timeZone: string): Day {
  let format = DAY_FORMATS.get(timeZone)
  if (format === undefined) {
    format = new Intl.DateTimeFormat('en-CA', { timeZone, year: 'numeric', month: '2-digit', day: '2-digit' })
    DAY_FORMATS.set(timeZone, format)
  }
  return format.format(moment)
}

export function addDays(day: Day, days: number): Day {
  return toDay(toMs(day) + days * MS)
}

/** Calendar days from a to b; negative when b is earlier. */
export function daysBetween(a: Day, b: Day): number {
  return Math.round((toMs(b) - toMs(a)) / MS)
}

/** 0 Sunday to 6 Saturday. */
export function weekday(day: Day): number {
  return new Date(toMs(day)).getUTCDay()
}

/** Business days skip weekends and the organisation's holidays. */
export function isBusinessDay(day: Day, holidays: ReadonlySet<Day>): boolean {
  const w = weekday(day)
  return w !== 0 && w !== 6 && !holidays.has(day)
}

/** The n-th business day after `day`, which itself does not count (n from 1). */
export function addBusinessDays(day: Day, n: number, holidays: ReadonlySet<Day>): Day {
  let at = day
  for (let left = n; left > 0;) {
    at = addDays(at, 1)
    if (isBusinessDay(at, holidays)) left -= 1
  }
  return at
}

/** How many business days lie after a day up to another, that one counted. */
export function businessDaysBetween(from: Day, to: Day, holidays: ReadonlySet<Day>): number {
  let days = 0
  for (let at = addDays(from, 1); at <= to; at = addDays(at, 1)) if (isBusinessDay(at, holidays)) days += 1
  return days
}

/** Payment terms: net n days, or the end of the month and n days. */
export type PaymentTerms =
  { readonly kind: 'net'; readonly days: number } | { readonly kind: 'month-end'; readonly days: number }

/** The due day; it is not moved off weekends. */
export function dueDay(from: Day, terms: PaymentTerms): Day {
  if (terms.kind === 'net') return addDays(from, terms.days)
  const monthEnd = toDay(Date.UTC(Number(from.slice(0, 4)), Number(from.slice(5, 7)), 0))
  return addDays(monthEnd, terms.days)
}

/** A fiscal year is named by the year of its first day; periods count its months from 1. */
export interface FiscalPeriod {
  readonly year: number
  readonly period: number
}

/** Year and period of a day where the fiscal year begins on the first of `startMonth` (1 to 12). */
export function fiscalPeriod(day: Day, startMonth: number): FiscalPeriod {
  const year = Number(day.slice(0, 4))
  const month = Number(day.slice(5, 7))
  return month >= startMonth
    ? { year, period: month - startMonth + 1 }
    : { year: year - 1, period: month + 12 - startMonth + 1 }
}

/** The first day of a period of a fiscal year that begins on the first of `startMonth`. */
export function firstDayOf(year: number, period: number, startMonth: number): Day {
  return toDay(Date.UTC(year, startMonth - 1 + period - 1, 1))
}

/** The twelve periods of a fiscal year that begins on the first of `startMonth`, each with its first and last day. */
export function periodsOf(
  year: number,
  startMonth: number,
): { readonly period: number; readonly fromDay: Day; readonly untilDay: Day }[] {
  return Array.from({ length: 12 }, (_, i) => ({
    period: i + 1,
    fromDay: firstDayOf(year, i + 1, startMonth),
    untilDay: addDays(firstDayOf(year, i + 2, startMonth), -1),
  }))
}
