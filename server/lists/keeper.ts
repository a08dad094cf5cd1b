import type { Day } from '#core/base/day'
import type { ListName, Values } from '#core/lists/list'
import type { Context } from '../context'
import type { Tx } from '../db/client'

/** An entry of a list as it is kept. */
export interface KeptEntry {
  readonly id: string
  readonly values: Values
}

/** The ids of entries of every list, by their plain text in lower case. */
export type EntryIds = (list: ListName, text: string) => string | null

/** How the entries of one list are read and written; what they mean is checked before. */
export interface ListKeeper {
  /** Every entry as it stands today, retired ones too, in the order of the page. */
  readonly read: (tx: Tx, today: Day) => Promise<KeptEntry[]>
  /** The entries that some rows mean, of a list that may be long; others are read whole. */
  readonly find?: (
    tx: Tx,
    meant: { readonly keys: readonly string[]; readonly others: readonly string[] },
    today: Day,
  ) => Promise<KeptEntry[]>
  /** How many entries a list that may be long has, retired ones too, and how many of them are. */
  readonly count?: (tx: Tx) => Promise<{ count: number; retired: number }>
  /** The first entries of such a list in which every word stands, in the order of the page. */
  readonly look?: (tx: Tx, words: readonly string[], most: number, today: Day) => Promise<KeptEntry[]>
  /** The next entries behind one (from the first on), of a list that may be long, in the order of the page. */
  readonly page?: (tx: Tx, after: KeptEntry | null, most: number, today: Day) => Promise<KeptEntry[]>
  /** Writes new entries, under ids that are given. */
  readonly insert: (tx: Tx, entries: readonly KeptEntry[], ids: EntryIds, today: Day) => Promise<void>
  /** Writes entries that are there over; what has prices keeps the old ones up to yesterday. */
  readonly update: (tx: Tx, entries: readonly KeptEntry[], ids: EntryIds, today: Day) => Promise<void>
  /**
   * Takes an entry away that nothing names; the database refuses where something does. Left out where what is there was
   * felt elsewhere already, and is retired instead.
   */
  readonly remove?: (tx: Tx, id: string) => Promise<void>
  /** What follows from entries that were written, beyond the list itself. */
  readonly follow?: (ctx: Context, entries: readonly KeptEntry[], ids: EntryIds) => Promise<void>
  /** The id of a new entry, where it is known by what it says; others get one of their own. */
  readonly newId?: (values: Values) => string
}

/** Entries a statement writes at most: each brings a handful of values, and a statement holds 65,535. */
const AT_ONCE = 1000

export async function inParts<T>(all: readonly T[], write: (some: T[]) => Promise<unknown>): Promise<void> {
  for (let i = 0; i < all.length; i += AT_ONCE) await write(all.slice(i, i + AT_ONCE))
}

/** Runs statements one after the other without waiting between them; what failed first is told. */
export async function together(statements: readonly PromiseLike<unknown>[]): Promise<void> {
  await Promise.all(statements)
}

/** The plain text of a value: nothing is "". */
export const textOf = (value: string | number | null): string => (value === null ? '' : String(value))
/** A plain text as it is kept: "" is nothing. */
export const orNull = (text: string | undefined): string | null => (text === undefined || text === '' ? null : text)
export const yesNo = (is: boolean): string => (is ? 'yes' : 'no')
/** Several plain texts in one, as `readRows` reads them. */
export const joined = (texts: readonly string[]): string => [...texts].sort().join(', ')
export const parted = (text: string | undefined): string[] => (text ?? '').split(', ').filter((t) => t !== '')
