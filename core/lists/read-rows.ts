import type { Day } from '#core/base/day'
import { dec } from '#core/base/decimal'
import { isCurrency } from '#core/base/currency'
import { readTypedDay } from '#core/base/typed-day'
import { readTypedNumber } from '#core/base/typed-number'
import { readUnit } from '#core/base/unit'
import { readSteps } from '#core/catalogue/typed-steps'
import { checkTaxNumber } from '#core/supplier/tax-number'
import type { ListReason } from './reason'
import { isKeyless, keyOf, type ListColumn, type ListDefinition, type ListName, type Values } from './list'

/** A row of a file as it was read: only the columns that the file has. */
export interface ListRow {
  /** Where it stands in the file, from 1. */
  readonly at: number
  readonly values: Values
  readonly reasons: readonly ListReason[]
}

/** How whoever brings the file writes numbers and days. */
export interface ListWays {
  readonly mark: '.' | ','
  readonly monthFirst: boolean
  readonly today: Day
}

/** What entries of other lists are called: their plain text by each text that means them, in lower case. */
export type KnownEntries = Readonly<Partial<Record<ListName, ReadonlyMap<string, string>>>>

const heading = (text: string) =>
  text
    .toLowerCase()
    .replace(/[*:.]+$/, '')
    .replace(/\s+/g, ' ')
    .trim()

/** Which column each heading means, by its key; null where it means none. The first of two headings counts. */
export function recogniseColumns(list: ListDefinition, headings: readonly string[]): (string | null)[] {
  const taken = new Set<string>()
  const free = (fits: (c: ListColumn) => boolean) => list.columns.find((c) => !taken.has(c.key) && fits(c))?.key
  const take = (key: string | undefined): string | null => {
    if (key === undefined) return null
    taken.add(key)
    return key
  }
  // Names first: another heading of one column may be the name of the next.
  const byName = headings.map((h) => take(free((c) => heading(c.name) === heading(h))))
  return headings.map((h, i) => byName[i] ?? take(free((c) => c.also.includes(heading(h)))))
}

/** Which columns a file has to name before a new entry can be made, and does not. */
export function lackingColumns(list: ListDefinition, columns: readonly (string | null)[]): ListColumn[] {
  return list.columns.filter((c) => c.initial === null && !columns.includes(c.key))
}

/**
 * Reads rows of cells as entries of a list. Rows without a word are left out. Entries of the same list that the file
 * itself brings may be named in it. Two rows with one key: the second is refused.
 */
export function readRows(
  list: ListDefinition,
  columns: readonly (string | null)[],
  cells: readonly (readonly string[])[],
  ways: ListWays,
  known: KnownEntries,
): ListRow[] {
  const own = new Map(known[list.name])
  const filled = cells.map((row, i) => ({ row, at: i + 2 })).filter(({ row }) => row.some((c) => c.trim() !== ''))
  const plain = (row: readonly string[], key: string) => cellOf(row[columns.indexOf(key)] ?? '')
  if (list.key.length === 1)
    for (const { row } of filled)
      for (const key of [...list.key, 'name']) {
        const text = columns.includes(key) ? plain(row, key).toLowerCase() : ''
        const target = plain(row, list.key[0] ?? '')
        if (text !== '' && target !== '' && !own.has(text)) own.set(text, target)
      }
  const all: KnownEntries = { ...known, [list.name]: own }
  const firstAt = new Map<string, number>()
  return filled.map(({ row, at }) => {
    const reasons: ListReason[] = []
    const values: Record<string, string> = {}
    for (const c of list.columns) {
      const i = columns.indexOf(c.key)
      if (i < 0) continue
      const said = readCell(c, cellOf(row[i] ?? ''), ways, all)
      if (typeof said === 'string') values[c.key] = said
      else reasons.push(said)
    }
    const key = keyOf(list, values)
    const before = firstAt.get(key)
    // A row without a key is told by what else it says: the plan finds whether another says the same.
    if (reasons.length === 0 && before !== undefined && !isKeyless(list, values))
      reasons.push({ code: 'twice', row: before })
    else if (before === undefined) firstAt.set(key, at)
    return { at, values, reasons }
  })
}

/** Without the apostrophe that keeps a spreadsheet from taking a text for a formula. */
const cellOf = (text: string) =>
  text
    .replace(/^'(?=[=+\-@])/, '')
    .replace(/\s+/g, ' ')
    .trim()

const MOST_TAX_NUMBER = 40

/** A cell in its one plain form, or what is wrong with it. */
function readCell(c: ListColumn, text: string, ways: ListWays, known: KnownEntries): string | ListReason {
  const { kind, key: column } = c
  if (text === '') return c.initial ?? { code: 'missing', column }
  switch (kind.is) {
    case 'text':
      return text.length > kind.most ? { code: 'too-long', column, most: kind.most } : text
    case 'e-mail': {
      const mail = text.toLowerCase()
      return /^[^\s@<>"(),;:\\]+@[^\s@<>"(),;:\\.]+(\.[^\s@<>"(),;:\\.]+)+$/.test(mail) && mail.length <= 254
        ? mail
        : { code: 'no-mail', column, text }
    }
    case 'currency':
      return isCurrency(text.toUpperCase()) ? text.toUpperCase() : { code: 'no-currency', column, text }
    case 'tax number':
      if (text.length > MOST_TAX_NUMBER) return { code: 'too-long', column, most: MOST_TAX_NUMBER }
      return checkTaxNumber(text) === 'wrong' ? { code: 'check-digit', column, text } : text
    case 'unit':
      return readUnit(text) ?? { code: 'no-unit', column, text }
    case 'steps':
      return readSteps(text, ways.mark) ?? { code: 'no-steps', column, text }
    case 'day': {
      return readTypedDay(text, ways.today, ways.monthFirst) ?? { code: 'no-day', column, text }
    }
    case 'number':
      return readNumber(column, kind, text, ways.mark)
    case 'choice': {
      const found = kind.among.find((a) => a.toLowerCase() === text.toLowerCase())
      return found ?? { code: 'no-choice', column, text, among: kind.among }
    }
    case 'choices': {
      const said = wordsOf(text).map((w) => w.toLowerCase())
      const wrong = said.find((w) => !kind.among.includes(w))
      return wrong === undefined
        ? kind.among.filter((a) => said.includes(a)).join(', ')
        : { code: 'no-choice', column, text: wrong, among: kind.among }
    }
    case 'entry': {
      const words = kind.several === true ? wordsOf(text) : [text]
      const found = words.map((w) => known[kind.of]?.get(w.toLowerCase()))
      const wrong = words.find((_, i) => found[i] === undefined)
      return wrong === undefined
        ? [...new Set(found.map(String))].sort().join(', ')
        : { code: 'unknown', column, text: wrong }
    }
  }
}

const wordsOf = (text: string) =>
  text
    .split(/[,;]/)
    .map((w) => w.trim())
    .filter((w) => w !== '')

function readNumber(
  column: string,
  kind: { readonly least: string; readonly most: string; readonly decimals: number },
  text: string,
  mark: '.' | ',',
): string | ListReason {
  const number = readTypedNumber(text.replace(/^[A-Z]{3}\s|[\s%]+$/g, ''), mark, Math.max(6, kind.decimals + 1))
  if (number === null) return { code: 'no-number', column, text }
  const d = dec(number)
  if (d.places() > kind.decimals) return { code: 'decimals', column, decimals: kind.decimals }
  if (d.lt(dec(kind.least)) || d.gt(dec(kind.most)))
    return { code: 'beyond', column, least: kind.least, most: kind.most }
  return d.toFixed()
}
