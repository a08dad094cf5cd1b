import { ONE, dec, type DecimalText } from '#core/base/decimal'
import { minorUnits } from '#core/base/currency'
import type { Money } from '#core/base/money'
import { dayOf, daysBetween, type Day } from '#core/base/day'
import { isByAmount, unitName } from '#core/base/unit'
import type { Language } from '#core/supplier/language'
import { unitNameIn } from './unit-names'

/** The ways in which one reader has numbers and dates written, by their locale; page and server write the same. */
export interface Ways {
  readonly locale: string
  /** The mark before decimals, as this reader types and reads it. */
  readonly decimalMark: '.' | ','
  /** Figures of a date begin with the month. */
  readonly monthFirst: boolean
  /** Groups thousands and writes a minus sign that is a minus sign: "−1,234.50". */
  readonly decimal: (text: DecimalText) => string
  /** A number to be typed over: with the reader's own mark, without groups. */
  readonly typed: (text: DecimalText) => string
  /** An amount without its currency, with the currency's decimals. */
  readonly amount: (amount: Money) => string
  /** "EUR 1,217.00" */
  readonly money: (amount: Money) => string
  /** An amount kept as plain text, in a currency. */
  readonly kept: (amount: DecimalText, currency: string) => string
  /** A unit price: at least the currency's decimals, more where there are more. */
  readonly price: (price: DecimalText, currency: string) => string
  /** "0.854 GBP to the EUR": as rates are published. */
  readonly rate: (perBase: DecimalText, currency: string, base: string) => string
  /** "6 each", "25 kg" */
  readonly quantity: (quantity: DecimalText, unit: string) => string
  /** "Tuesday 8 December", with the year where it is not that of `today`. */
  readonly day: (day: Day, today: Day) => string
  /** "8 December", with the year where it is not that of `today`. */
  readonly date: (day: Day, today: Day) => string
  /** "8 Dec" for narrow columns, with the year where it is not that of `today`. */
  readonly shortDate: (day: Day, today: Day) => string
  /** "8.12.26", for the columns of a PDF. */
  readonly tinyDate: (day: Day) => string
  /** "December 2026" */
  readonly month: (day: Day) => string
  /** "Dec", where the year is plain. */
  readonly shortMonth: (day: Day) => string
  /** "35 %", of a share between 0 and 1. */
  readonly percent: (share: number) => string
  /** "today", "yesterday", "Monday" within the last six days, else "8 Dec". */
  readonly since: (day: Day, today: Day) => string
  /** "Mon 23 Nov, 14:05" */
  readonly moment: (moment: string, timeZone: string, today: Day) => string
  /** The exact moment, for what stands behind a short one. */
  readonly exact: (moment: string, timeZone: string) => string
}

const known = new Map<string, Ways>()

/** The ways of a locale (BCP 47); made once, since making a format costs more than using it. */
export function waysOf(locale: string): Ways {
  const before = known.get(locale)
  if (before !== undefined) return before
  const made = makeWays(Intl.DateTimeFormat.supportedLocalesOf([locale]).length > 0 ? locale : 'en-GB')
  known.set(locale, made)
  return made
}

/** Noon of a day in UTC: no time zone moves it into another. */
const noon = (day: Day): Date => new Date(`${day}T12:00:00Z`)

/** Names of days, months and units come in the language of the words around them, whatever the reader's marks are. */
function makeWays(locale: string, of: Language = 'en'): Ways {
  const language = locale.startsWith(of) ? locale : 'en-GB'
  const parts = new Intl.NumberFormat(locale).formatToParts(-1234567.5)
  const mark = parts.find((p) => p.type === 'decimal')?.value === ',' ? ',' : '.'
  const group = parts.find((p) => p.type === 'group')?.value ?? ''
  /** French says the first of a month as an ordinal (common practice, no source). */
  const first = (text: string) => (language.startsWith('fr') ? text.replace(/^1 /, '1er ') : text)
  const dates = (options: Intl.DateTimeFormatOptions) => {
    const format = new Intl.DateTimeFormat(language, { timeZone: 'UTC', ...options })
    return (day: Day) => first(format.format(noon(day)))
  }
  const weekday = dates({ weekday: 'long' })
  const shortWeekday = dates({ weekday: 'short' })
  const date = dates({ day: 'numeric', month: 'long' })
  const dateOfYear = dates({ day: 'numeric', month: 'long', year: 'numeric' })
  const short = dates({ day: 'numeric', month: 'short' })
  const shortOfYear = dates({ day: 'numeric', month: 'short', year: 'numeric' })
  const sameYear = (day: Day, today: Day) => day.slice(0, 4) === today.slice(0, 4)

  // Groups are laid by hand, from digits to text: a number would lose digits that money has.
  const decimal = (text: DecimalText) => {
    const [whole = '0', rest] = text.replace('-', '').split('.')
    const grouped = whole.replace(/\B(?=(\d{3})+(?!\d))/g, group)
    return `${text.startsWith('-') ? '\u2212' : ''}${grouped}${rest === undefined ? '' : `${mark}${rest}`}`
  }
  const kept = (amount: DecimalText, currency: string) => decimal(dec(amount).toFixed(minorUnits(currency)))
  const ways: Ways = {
    locale,
    decimalMark: mark,
    monthFirst: new Intl.DateTimeFormat(locale).formatToParts(0).find((p) => p.type !== 'literal')?.type === 'month',
    decimal,
    typed: (text) => text.replace('.', mark),
    amount: (m) => decimal(m.amount),
    money: (m) => `${m.currency} ${decimal(m.amount)}`,
    kept,
    price: (price, currency) => {
      const d = dec(price)
      return decimal(d.toFixed(Math.max(minorUnits(currency), d.places())))
    },
    rate: (perBase, currency, base) => `${decimal(perBase)} ${currency} to the ${base}`,
    quantity: (quantity, unit) => {
      const name = of === 'en' ? unitName(unit) : unitNameIn(of, unit)
      // One lump sum is all of it.
      return isByAmount(unit) && dec(quantity).eq(ONE) ? name : `${decimal(dec(quantity).toFixed())} ${name}`
    },
    day: (day, today) => `${weekday(day)} ${ways.date(day, today)}`,
    date: (day, today) => (sameYear(day, today) ? date : dateOfYear)(day),
    shortDate: (day, today) => (sameYear(day, today) ? short : shortOfYear)(day),
    tinyDate: (day) => `${Number(day.slice(8))}.${Number(day.slice(5, 7))}.${day.slice(2, 4)}`,
    month: dates({ month: 'long', year: 'numeric' }),
    shortMonth: dates({ month: 'short' }),
    percent: (share) => `${Math.round(share * 100)} %`,
    since: (day, today) => {
      const ago = daysBetween(day, today)
      if (ago === 0) return 'today'
      if (ago === 1) return 'yesterday'
      return ago > 1 && ago < 7 ? weekday(day) : ways.shortDate(day, today)
    },
    moment: (moment, timeZone, today) => {
      const day = dayOf(new Date(moment), timeZone)
      return (
        `${shortWeekday(day)} ${ways.shortDate(day, today)}, ` +
        `${timeIn(language, timeZone).format(new Date(moment))}`
      )
    },
    exact: (moment, timeZone) => exactIn(language, timeZone).format(new Date(moment)),
  }
  return ways
}

const formats = new Map<string, Intl.DateTimeFormat>()
function once(key: string, make: () => Intl.DateTimeFormat): Intl.DateTimeFormat {
  const format = formats.get(key) ?? make()
  formats.set(key, format)
  return format
}
const timeIn = (locale: string, timeZone: string) =>
  once(
    `time ${locale} ${timeZone}`,
    () => new Intl.DateTimeFormat(locale, { timeZone, hour: '2-digit', minute: '2-digit', hour12: false }),
  )
const exactIn = (locale: string, timeZone: string) =>
  once(
    `exact ${locale} ${timeZone}`,
    () => new Intl.DateTimeFormat(locale, { timeZone, dateStyle: 'full', timeStyle: 'long' }),
  )

/** How the organisation writes to the outside, and what it keeps in documents: in the ways of no one reader. */
export const OUTWARD: Ways = waysOf('en-GB')

/** How it writes to a supplier, in the supplier's language. */
export const OUTWARD_IN: Readonly<Record<Language, Ways>> = {
  en: OUTWARD,
  de: makeWays('de-DE', 'de'),
  fr: makeWays('fr-FR', 'fr'),
}
