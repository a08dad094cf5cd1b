import type { ListDefinition, ListName, Values } from './list'

/**
 * Whether every word that was typed stands in an entry: in what it says, or in what the entries are called that it
 * names, by `nameOf` (their list and plain text in lower case).
 */
export function wordsFit(
  list: ListDefinition,
  typed: string,
  nameOf: (of: ListName, key: string) => string,
): (values: Values) => boolean {
  const words = typed
    .toLowerCase()
    .split(/\s+/)
    .filter((w) => w !== '')
  const textOf = (values: Values) =>
    list.columns
      .map(({ key, kind }) => {
        const text = values[key] ?? ''
        if (kind.is !== 'entry' || text === '') return text
        return [text, ...text.split(', ').map((t) => nameOf(kind.of, t.toLowerCase()))].join(' ')
      })
      .join(' ')
      .toLowerCase()
  return (values) => {
    if (words.length === 0) return true
    const text = textOf(values)
    return words.every((w) => text.includes(w))
  }
}
