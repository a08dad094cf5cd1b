import type { Day } from '#core/base/day'
import { LISTS } from '#core/lists/definitions'
import { keyOf, LIST_NAMES, type ListDefinition, type ListName, type Values } from '#core/lists/list'
import type { KnownEntries } from '#core/lists/read-rows'
import type { Tx } from '../db/client'
import { findEntries } from './find-entries'
import type { EntryIds, KeptEntry } from './keeper'
import { KEEPERS } from './keepers'

/** The lists that a list's entries name, itself among them where it does. */
export function namedBy(list: ListDefinition): ListName[] {
  const named = list.columns.flatMap((c) => (c.kind.is === 'entry' ? [c.kind.of] : []))
  return LIST_NAMES.filter((n) => named.includes(n))
}

/** Entries of other lists that this one names, as they stand. */
export type Neighbours = ReadonlyMap<ListName, readonly KeptEntry[]>

/**
 * They are read whole, but lists that may be long: of those the ones that are named. `own` stands for the list itself.
 */
export async function readNeighbours(
  tx: Tx,
  list: ListDefinition,
  own: readonly KeptEntry[],
  today: Day,
  named: (of: ListName) => readonly string[],
): Promise<Neighbours> {
  const found = new Map<ListName, readonly KeptEntry[]>()
  for (const name of new Set([...namedBy(list), ...(list.within === undefined ? [] : [list.within])])) {
    const keeper = KEEPERS[name]
    if (name === list.name) found.set(name, own)
    else if (keeper.find === undefined) found.set(name, await keeper.read(tx, today))
    else found.set(name, await findEntries(tx, LISTS[name], { keys: named(name), others: [] }, today))
  }
  return found
}

/** The plain texts by which some entries name those of a list, in lower case. */
export function labelsIn(list: ListDefinition, entries: readonly Values[], of: ListName): string[] {
  const columns = list.columns.filter((c) => c.kind.is === 'entry' && c.kind.of === of)
  const texts = columns.flatMap((c) => entries.flatMap((v) => (v[c.key] ?? '').toLowerCase().split(', ')))
  return [...new Set(texts)].filter((t) => t !== '')
}

/** The texts by which rows of cells name entries of a list, in lower case. */
export function textsIn(
  list: ListDefinition,
  columns: readonly (string | null)[],
  cells: readonly (readonly string[])[],
  of: ListName,
): string[] {
  const at = list.columns.flatMap((c) => (c.kind.is === 'entry' && c.kind.of === of ? [columns.indexOf(c.key)] : []))
  const texts = at.filter((i) => i >= 0).flatMap((i) => cells.map((row) => (row[i] ?? '').trim().toLowerCase()))
  return [...new Set(texts)].filter((t) => t !== '')
}

/** The plain text by which an entry is named elsewhere. */
export const labelOf = (name: ListName, entry: KeptEntry) => entry.values[LISTS[name].key[0] ?? ''] ?? ''

/** How entries are called, by their list and plain text in lower case. */
export function namesOf(neighbours: Neighbours): Map<string, string> {
  return new Map(
    [...neighbours].flatMap(([name, entries]) =>
      entries.map((e) => [`${name} ${labelOf(name, e).toLowerCase()}`, e.values.name ?? ''] as const),
    ),
  )
}

/** Whether some entries of a list name one of another. */
export function namedIn(list: ListDefinition, entries: readonly KeptEntry[]): (of: ListName, label: string) => boolean {
  const named = new Set<string>()
  for (const c of list.columns)
    if (c.kind.is === 'entry')
      for (const e of entries)
        for (const t of (e.values[c.key] ?? '').split(', ')) named.add(`${c.kind.of} ${t.toLowerCase()}`)
  return (of, label) => named.has(`${of} ${label.toLowerCase()}`)
}

/** What may be written to name an entry: its key, or its name where only one is called so. */
export function knownOf(neighbours: Neighbours): KnownEntries {
  return Object.fromEntries(
    [...neighbours].map(([name, entries]) => {
      const known = new Map<string, string>()
      const called = new Map<string, number>()
      for (const e of entries) {
        const n = (e.values.name ?? '').toLowerCase()
        called.set(n, (called.get(n) ?? 0) + 1)
      }
      for (const e of entries) {
        const n = (e.values.name ?? '').toLowerCase()
        if (called.get(n) === 1) known.set(n, labelOf(name, e))
      }
      for (const e of entries) known.set(labelOf(name, e).toLowerCase(), labelOf(name, e))
      return [name, known]
    }),
  )
}

/** Whether what an entry is within is there, by the columns that name it together. */
export function withinOf(list: ListDefinition, neighbours: Neighbours): (values: Values) => boolean {
  if (list.within === undefined) return () => true
  const of = LISTS[list.within]
  const there = new Set((neighbours.get(list.within) ?? []).map((e) => keyOf(of, e.values)))
  return (values) => there.has(keyOf(of, values))
}

/** Finds the ids of entries by their plain text, or their key; entries that are about to be added among them. */
export function idsOf(neighbours: Neighbours, list: ListName, added: readonly KeptEntry[]): EntryIds {
  const ids = new Map<string, string>()
  const put = (name: ListName, e: KeptEntry) => {
    ids.set(`${name} ${labelOf(name, e).toLowerCase()}`, e.id)
    ids.set(`${name} ${keyOf(LISTS[name], e.values)}`, e.id)
  }
  for (const [name, entries] of neighbours) for (const e of entries) put(name, e)
  for (const e of added) put(list, e)
  return (name, text) => (text === '' ? null : (ids.get(`${name} ${text.toLowerCase()}`) ?? null))
}
