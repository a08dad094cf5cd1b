import type { ListDefinition, ListName, Values } from '#core/lists/list'

/** What an entry is called: its name, or what tells it apart, by the names of what it names. */
export function sayEntry(
  list: ListDefinition,
  values: Values,
  nameOf: (of: ListName, key: string) => string | undefined,
): string {
  if ((values.name ?? '') !== '') return values.name ?? ''
  return list.key
    .map((k) => {
      const kind = list.columns.find((c) => c.key === k)?.kind
      const text = values[k] ?? ''
      return kind?.is === 'entry' ? (nameOf(kind.of, text) ?? text) : text
    })
    .filter((t) => t !== '')
    .slice(0, 2)
    .join(', ')
}
