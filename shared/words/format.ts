import { MOST_COUNTED } from '#core/base/count'
import { addDays, weekday, type Day } from '#core/base/day'

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

/** A fiscal year by both its years: 2026/27. */
export const formatYear = (year: number): string => `${year}/${String((year + 1) % 100).padStart(2, '0')}`

/** "a", "a and b", "a, b and c"; or with "or". */
export function listWords(words: readonly string[], link: 'and' | 'or' = 'and'): string {
  return words.length < 2 ? (words[0] ?? '') : `${words.slice(0, -1).join(', ')} ${link} ${words.at(-1)}`
}

/** A word with its article: “an item”, “a place”. */
export const an = (word: string): string => `${/^[aeiou]/i.test(word) ? 'an' : 'a'} ${word}`

export function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1)
}

/** A count that stops at what anybody reads: “more than 1,000” past it, or “1,000+” where there is little room. */
export function formatCounted(count: number, room: 'sentence' | 'badge' = 'sentence'): string {
  if (count <= MOST_COUNTED) return String(count)
  const most = MOST_COUNTED.toLocaleString('en')
  return room === 'badge' ? `${most}+` : `more than ${most}`
}
