import { sql, type SQL } from 'drizzle-orm'
import type { Column } from 'drizzle-orm'

/** How alike a misspelt word must be to count (`word_similarity`). */
export const ALIKE = 0.45

/** What people type, as it is looked for. */
export interface LookedFor {
  /** Each word as a pattern for `ilike`: `*` and `?` stand for any signs, all else for itself. */
  readonly words: readonly string[]
  /** Patterns of a document's number: a part of it, or the number itself where zeros were left out (R-26-61). */
  readonly numbers: readonly string[]
}

/** Reads what people type as patterns for `ilike`. */
export function likePattern(typed: string): LookedFor {
  const text = typed.trim()
  const pattern = text
    .replace(/[\\%_]/g, '\\$&')
    .replaceAll('*', '%')
    .replaceAll('?', '_')
  const words = pattern.split(/\s+/).map((w) => `%${w}%`)
  // With a wildcard in it a number is meant whole.
  if (/[*?]/.test(text)) return { words, numbers: [pattern] }
  const short = /^(\p{L}+-\d{2}-)(\d{1,4})$/u.exec(text)
  const whole = short === null ? [] : [`${short[1] ?? ''}${(short[2] ?? '').padStart(5, '0')}`]
  return { words, numbers: [`%${pattern}%`, ...whole] }
}

/** Whether a number is one that was looked for: an index of trigrams answers it; unknown where there is no number. */
export const isNumber = (number: Column | SQL, { numbers }: LookedFor): SQL =>
  sql`(${number} ilike any(${sql.param([...numbers])}::text[]))`

/** As `isNumber`, among other conditions: false where there is no number. */
export const isNumbered = (number: Column | SQL, looked: LookedFor): SQL =>
  sql`coalesce(${isNumber(number, looked)}, false)`

/** Whether every word stands somewhere in a text, in whatever order; each is a condition of its own, for the index. */
export const holdsAll = (text: Column | SQL, { words }: LookedFor): SQL =>
  sql`(${sql.join(
    words.map((w) => sql`${text} ilike ${w}`),
    sql` and `,
  )})`

/**
 * Whether a word typed, or one much like it, stands in a text: `<%` is what an index of trigrams answers, with the
 * likeness that the connection sets.
 */
export const isAlike = (words: string, text: Column | SQL): SQL => sql`(${words} <% ${text})`
