import { dec, type DecimalText } from '#core/base/decimal'
import { minorUnits } from '#core/base/currency'
import { type Money } from '#core/base/money'
import { addDays, dayOf, daysBetween, weekday, type Day } from '#core/base/day'
import { unitName } from '#core/base/unit'

const MONTHS = [
  'January',
  'February',
  'March',
  'April',
  'May',
  'June',
  'July',
  'August',
  'September',
  'October',
  'November',
  'December',
]
const DAYS = ['Sunday', 'Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday']

/** Groups thousands and writes a minus sign that is a minus sign: "−1,234.50". */
export function formatDecimal(text: DecimalText): string {
  const [whole = '0', rest] = text.replace('-', '').split('.')
  const grouped = whole.replace(/\B(?=(\d{3})+(?!\d))/g, ',')
  return `${text.startsWith('-') ? '\u2212' : ''}${grouped}${rest === undefined ? '' : `.${rest}`}`
}

/** An amount without its currency, with the currency's decimals. */
export function formatAmount(amount: Money): string {
  return formatDecimal(amount.amount)
}

/** "EUR 1,217.00" */
export function formatMoney(amount: Money): string {
  return `${amount.currency} ${formatAmount(amount)}`
}

/** An amount kept as plain text, in a currency. */
export function formatKept(amount: DecimalText, currency: string): string {
  return formatDecimal(dec(amount).toFixed(minorUnits(currency)))
}

/** A unit price: at least the currency's decimals, more where there are more. */
export function formatPrice(price: DecimalText, currency: string): string {
  const d = dec(price)
  return formatDecimal(d.toFixed(Math.max(minorUnits(currency), d.decimalPlaces())))
}

/** "6 each", "25 kg" */
export function formatQuantity(quantity: DecimalText, unit: string): string {
  return `${formatDecimal(dec(quantity).toFixed())} ${unitName(unit)}`
}

/** "Tuesday 8 December", with the year where it is not that of `today`. */
export function formatDay(day: Day, today: Day): string {
  return `${DAYS[weekday(day)]} ${formatDate(day, today)}`
}

/** "8 December", with the year where it is not that of `today`. */
export function formatDate(day: Day, today: Day): string {
  const year = day.slice(0, 4) === today.slice(0, 4) ? '' : ` ${day.slice(0, 4)}`
  return `${Number(day.slice(8, 10))} ${MONTHS[Number(day.slice(5, 7)) - 1]}${year}`
}

/** "8 Dec" for narrow columns, with the year where it is not that of `today`. */
export function formatShortDate(day: Day, today: Day): string {
  const year = day.slice(0, 4) === today.slice(0, 4) ? '' : ` ${day.slice(0, 4)}`
  return `${Number(day.slice(8, 10))} ${MONTHS[Number(day.slice(5, 7)) - 1]?.slice(0, 3)}${year}`
}

/** "today", "yesterday", "Monday" within the last six days, else "8 Dec". */
export function formatSince(day: Day, today: Day): string {
  const ago = daysBetween(day, today)
  if (ago === 0) return 'today'
  if (ago === 1) return 'yesterday'
  if (ago > 1 && ago < 7) return DAYS[weekday(day)] ?? day
  return formatShortDate(day, today)
}

/** "14:05" of a moment in a time zone. */
function formatTime(moment: string, timeZone: string): string {
  return new Intl.DateTimeFormat('en-GB', { timeZone, hour: '2-digit', minute: '2-digit', hour12: false }).format(
    new Date(moment),
  )
}

/** "Mon 23 Nov, 14:05" */
export function formatMoment(moment: string, timeZone: string, today: Day): string {
  const day = dayOf(new Date(moment), timeZone)
  return `${DAYS[weekday(day)]?.slice(0, 3)} ${formatShortDate(day, today)}, ${formatTime(moment, timeZone)}`
}

/** The exact moment, for what stands behind a short one. */
export function formatExact(moment: string, timeZone: string): string {
  return new Intl.DateTimeFormat('en-GB', { timeZone, dateStyle: 'full', timeStyle: 'long' }).format(new Date(moment))
}

/** A readable size: "84 kB". */
export function formatSize(bytes: number): string {
  return bytes < 1000
    ? `${bytes} bytes`
    : bytes < 1_000_000
      ? `${Math.round(bytes / 1000)} kB`
      : `${(bytes / 1_000_000).toFixed(1)} MB`
}

/** The days of a month as weeks from Monday, for a calendar; days of other months fill the edges. */
export function weeksOf(month: Day): Day[][] {
  const first = `${month.slice(0, 7)}-01`
  const start = addDays(first, -((weekday(first) + 6) % 7))
  return Array.from({ length: 6 }, (_, w) => Array.from({ length: 7 }, (_, d) => addDays(start, w * 7 + d)))
}

export function formatMonth(day: Day): string {
  return `${MONTHS[Number(day.slice(5, 7)) - 1]} ${day.slice(0, 4)}`
}

/** "one", "two" ... "twelve", else digits: for sentences. */
export function inWords(n: number): string {
  return (
    ['no', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine', 'ten', 'eleven', 'twelve'][n] ??
    String(n)
  )
}

/** "one line", "14 lines" */
export function formatCount(n: number, one: string, many: string): string {
  return `${inWords(n)} ${n === 1 ? one : many}`
}

/** "a", "a and b", "a, b and c"; or with "or". */
export function listWords(words: readonly string[], link: 'and' | 'or' = 'and'): string {
  return words.length < 2 ? (words[0] ?? '') : `${words.slice(0, -1).join(', ')} ${link} ${words.at(-1)}`
}

export function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1)
}
