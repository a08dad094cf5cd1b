import { CsvError, parse } from 'csv-parse/sync'
import { invalid, Problem } from '../http/problem'
import { BROKEN, decodeText, delimiterOf } from './read-sheet'

/** A part of a long table: its rows, and whether there are more behind them. */
export interface RowsRead {
  readonly rows: readonly (readonly string[])[]
  readonly more: boolean
  readonly notes: readonly string[]
}

const MOST_COLUMNS = 60

/**
 * Reads some rows of a CSV from a row on, the first being 0; for files that are too long to be held at once. What is
 * broken is refused with a sentence.
 */
export function readRows(bytes: Buffer, from: number, count: number): RowsRead {
  const { text, notes } = decodeText(bytes)
  if (/[\u0000-\u0008\u000e-\u001f]/.test(text.slice(0, 100_000)))
    throw new Problem(415, 'wrong-type', 'A file this long is read as CSV; by its content this is none.')
  try {
    const rows: string[][] = parse(text, {
      delimiter: delimiterOf(text),
      bom: true,
      relax_column_count: true,
      skip_empty_lines: false,
      max_record_size: 200_000,
      from: from + 1,
      to: from + count + 1,
    })
    if (rows.some((r) => r.length > MOST_COLUMNS))
      throw invalid(`This file has more than ${MOST_COLUMNS} columns; take out what is not needed.`)
    return { rows: rows.slice(0, count), more: rows.length > count, notes }
  } catch (cause) {
    if (!(cause instanceof CsvError)) throw cause
    const row = typeof cause.lines === 'number' ? ` in or before line ${cause.lines}` : ''
    throw new Problem(
      422,
      'invalid',
      `This CSV is broken${row}: ${BROKEN[cause.code] ?? 'a quotation mark stands where none may'}.`,
    )
  }
}
