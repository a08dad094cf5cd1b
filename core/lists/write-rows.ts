import type { ListDefinition, Values } from './list'

/** A cell of a file: a text, or a number that every reader of the file takes for the same. */
export type ListCell = string | { readonly decimal: string }

/** The headings of a list's file, and a row of cells for each entry, which `readRows` reads back unchanged. */
export function writeRows(
  list: ListDefinition,
  entries: readonly Values[],
  mark: '.' | ',',
): { readonly head: string[]; readonly rows: ListCell[][] } {
  const cell = (text: string, isNumber: boolean): ListCell => {
    if (!isNumber || text === '') return text
    // Where a point before three digits divides thousands, or digits would be lost, the number is written as a text.
    const isPlain = String(Number(text)) === text && (mark === '.' || !/^-?\d{1,3}\.\d{3}$/.test(text))
    return isPlain ? { decimal: text } : text.replace('.', mark)
  }
  return {
    head: list.columns.map((c) => c.name),
    rows: entries.map((e) =>
      list.columns.map((c) => {
        const text = e[c.key] ?? ''
        return c.kind.is === 'steps' ? text.replaceAll('.', mark) : cell(text, c.kind.is === 'number')
      }),
    ),
  }
}
