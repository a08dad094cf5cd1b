/** With its keys in one order: a database gives them back in its own. */
function ordered(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(ordered)
  if (typeof value !== 'object' || value === null) return value
  return Object.fromEntries(
    Object.entries(value)
      .filter(([, v]) => v !== undefined)
      .sort(([a], [b]) => (a < b ? -1 : 1))
      .map(([key, v]) => [key, ordered(v)]),
  )
}

/** Whether two values say the same, whatever the order of their keys. */
export const saysSame = (a: unknown, b: unknown): boolean => JSON.stringify(ordered(a)) === JSON.stringify(ordered(b))

/** One difference between two lists of entries. */
export type EntryChange<T> =
  | { readonly what: 'added'; readonly entry: T }
  | { readonly what: 'changed'; readonly was: T; readonly entry: T }
  | { readonly what: 'gone'; readonly entry: T }
  | { readonly what: 'moved' }

/** Every difference between two lists whose entries are known by an id; `moved` is of those that stayed. */
export function entryChanges<T>(
  before: readonly T[],
  after: readonly T[],
  idOf: (entry: T) => string,
): EntryChange<T>[] {
  const [was, is] = [new Map(before.map((e) => [idOf(e), e])), new Map(after.map((e) => [idOf(e), e]))]
  const stayed = (list: readonly T[], other: ReadonlyMap<string, T>) =>
    list
      .map(idOf)
      .filter((id) => other.has(id))
      .join('\n')
  return [
    ...after.flatMap((entry): EntryChange<T>[] => {
      const old = was.get(idOf(entry))
      if (old === undefined) return [{ what: 'added', entry }]
      return saysSame(old, entry) ? [] : [{ what: 'changed', was: old, entry }]
    }),
    ...before.flatMap((entry): EntryChange<T>[] => (is.has(idOf(entry)) ? [] : [{ what: 'gone', entry }])),
    ...(stayed(before, is) === stayed(after, was) ? [] : [{ what: 'moved' } as const]),
  ]
}

/**
 * What somebody wrote over one version of a list, carried over to a newer one: their changes, additions and removals on
 * top of what others changed meanwhile, in the newer one's order. Of an entry that both changed, what they wrote
 * stands.
 */
export function mergeEntries<T>(
  base: readonly T[],
  mine: readonly T[],
  newest: readonly T[],
  idOf: (entry: T) => string,
): T[] {
  const [old, own] = [new Map(base.map((e) => [idOf(e), e])), new Map(mine.map((e) => [idOf(e), e]))]
  const kept = newest.flatMap((e): T[] => {
    const written = own.get(idOf(e))
    if (written === undefined) return old.has(idOf(e)) ? [] : [e]
    return [saysSame(written, old.get(idOf(e))) ? e : written]
  })
  const there = new Set(kept.map(idOf))
  return [...kept, ...mine.filter((e) => !there.has(idOf(e)) && !saysSame(e, old.get(idOf(e))))]
}
