import { parse } from 'csv-parse/browser/esm/sync'

/** The rows and cells of a range that was copied out of a table; a cell with breaks in it stands in quotes. */
export function cellsOf(text: string): string[][] {
  const quote = text.includes('\t"') || text.startsWith('"') ? '"' : null
  try {
    return parse(text, { delimiter: '\t', relax_quotes: true, relax_column_count: true, quote })
  } catch {
    return text.split(/\r?\n/).map((r) => r.split('\t'))
  }
}
