import type { Right } from '#core/people/rights'
import type { ListReason } from './reason'

/** The lists that an organisation keeps, each as a place of its own and as a file. */
export const LIST_NAMES = [
  'places',
  'departments',
  'accounts',
  'categories',
  'taxes',
  'holidays',
  'rates',
  'people',
  'roles',
  'limits',
  'suppliers',
  'items',
  'budget-lines',
  'opening',
  'jobs',
  'parts',
  'reasons',
] as const
export type ListName = (typeof LIST_NAMES)[number]

/** How a cell is read, and what may stand in it. */
export type ColumnKind =
  | { readonly is: 'text'; readonly most: number }
  | { readonly is: 'e-mail' | 'currency' | 'day' | 'unit' | 'tax number' }
  /** Prices by quantity: “4.20; 10: 3.90”. */
  | { readonly is: 'steps' }
  /** `least` to `most`, both inside, with at most so many decimals. */
  | {
      readonly is: 'number'
      readonly least: string
      readonly most: string
      readonly decimals: number
      /** An amount in the base currency. */
      readonly isMoney?: boolean
    }
  | { readonly is: 'choice'; readonly among: readonly string[] }
  /** Several of a few words, with commas between. */
  | { readonly is: 'choices'; readonly among: readonly string[] }
  /** An entry of a list, by its key or its name; `several` with commas between. */
  | { readonly is: 'entry'; readonly of: ListName; readonly several?: boolean }

export interface ListColumn {
  readonly key: string
  /** Its heading in files, and its label. */
  readonly name: string
  /** Other headings that mean it, in lower case. */
  readonly also: readonly string[]
  readonly kind: ColumnKind
  /** What stands in a new entry where nothing is said; null where something has to be said. */
  readonly initial: string | null
  readonly help: string
}

/** A list: what it is called, who keeps it, what tells its entries apart, and its columns. */
export interface ListDefinition {
  readonly name: ListName
  readonly right: Right
  /** The columns that together tell entries apart, whatever their case. */
  readonly key: readonly string[]
  /**
   * Columns that together tell entries apart as well, where a file does not say the key: a new entry without one is
   * called by them, with a hyphen between.
   */
  readonly otherKey?: readonly string[]
  readonly columns: readonly ListColumn[]
  /**
   * What is written when an entry is retired: it stays where it was used and is offered no more. Null where an entry
   * holds for its day alone and there is nothing to retire.
   */
  readonly retire: { readonly column: string; readonly as: 'today' | { readonly text: string } } | null
  /** A list of which the columns of this one that tell its entries apart name one together. */
  readonly within?: ListName
  /** What is wrong with an entry as a whole, whose columns are sound each by itself. */
  readonly check?: (values: Values) => readonly ListReason[]
}

/** An entry as texts by column, each in its one plain form: "" where nothing is said. */
export type Values = Readonly<Record<string, string>>

/** One spelling for each key, by which entries are the same. */
export function keyOf(list: ListDefinition, values: Values): string {
  return list.key.map((k) => (values[k] ?? '').trim().toLowerCase()).join(' / ')
}

/** True where a row does not say its key, and other columns may tell which entry it means. */
export const isKeyless = (list: ListDefinition, values: Values): boolean =>
  list.otherKey !== undefined && list.key.every((k) => (values[k] ?? '') === '')

/** One spelling of the other columns that tell entries apart; null where one of them is not said. */
export function otherKeyOf(list: ListDefinition, values: Values): string | null {
  const texts = (list.otherKey ?? []).map((k) => (values[k] ?? '').trim().toLowerCase())
  return texts.length === 0 || texts.includes('') ? null : texts.join(' / ')
}

/** True when an entry was retired: it has left, or is offered no more, by `today` (a day) or for good. */
export function isRetired(list: ListDefinition, values: Values, today: string): boolean {
  if (list.retire === null) return false
  const at = values[list.retire.column] ?? ''
  return list.retire.as === 'today' ? at !== '' && at <= today : at === list.retire.as.text
}
