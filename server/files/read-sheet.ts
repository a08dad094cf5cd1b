import { CsvError, parse } from 'csv-parse/sync'
import ExcelJS from 'exceljs'
import { invalid, Problem } from '../http/problem'
import { lookIntoZip } from './look-into-zip'
import { isXml, readXmlTable } from './read-xml-table'
import type { ReadFor, Sheet } from './sheet'

/** What is wrong with a CSV, by the reader's own code. */
export const BROKEN: Record<string, string | undefined> = {
  CSV_QUOTE_NOT_CLOSED: 'a quotation mark is never closed',
  CSV_MAX_RECORD_SIZE: 'a row does not end',
}

const PLAIN: ReadFor = { base: 'EUR', mark: '.' }
const LARGEST_SHEET = 4 * 1024 * 1024
const MOST_ROWS = 5000
const MOST_COLUMNS = 60
const MOST_UNPACKED = 80 * 1024 * 1024

/**
 * Reads a table from a file: CSV (RFC 4180, also with semicolons or tabs, in UTF-8, UTF-16 or
 * Windows-1252), the first sheet of an XLSX, or XML of a form that is known. What it is, its content
 * decides. Refuses with a sentence what is broken, too large, or none of them.
 */
export async function readSheet(bytes: Buffer, reader: ReadFor = PLAIN): Promise<Sheet> {
  if (bytes.length > LARGEST_SHEET)
    throw new Problem(
      413,
      'too-large',
      'This file is larger than 4 MB. Take out what is not needed, or paste the range.',
    )
  if (bytes.length === 0) throw invalid('This file is empty.')
  const isZip = bytes.subarray(0, 4).equals(Buffer.from('PK\u0003\u0004'))
  const sheet = isZip ? await readXlsx(bytes) : isXml(bytes) ? readXmlTable(bytes, reader) : readCsv(bytes)
  const rows = sheet.rows.map((r) => {
    const last = r.findLastIndex((c) => c.trim() !== '')
    return r.slice(0, last + 1)
  })
  const end = rows.findLastIndex((r) => r.length > 0)
  if (end < 0) throw invalid('There is no row in this file.')
  if (end >= MOST_ROWS)
    throw new Problem(
      422,
      'too-many-rows',
      `This file has more than ${MOST_ROWS.toLocaleString('en')} rows; divide it.`,
    )
  if (rows.some((r) => r.length > MOST_COLUMNS))
    throw invalid(`This file has more than ${MOST_COLUMNS} columns; take out what is not needed.`)
  return { rows: rows.slice(0, end + 1), notes: sheet.notes }
}

export function decodeText(bytes: Buffer): { text: string; notes: string[] } {
  const [a, b] = [bytes[0], bytes[1]]
  if (a === 0xff && b === 0xfe) return { text: new TextDecoder('utf-16le').decode(bytes), notes: [] }
  if (a === 0xfe && b === 0xff) return { text: new TextDecoder('utf-16be').decode(bytes), notes: [] }
  try {
    return { text: new TextDecoder('utf-8', { fatal: true }).decode(bytes), notes: [] }
  } catch {
    return {
      text: new TextDecoder('windows-1252').decode(bytes),
      notes: ['The file is not in UTF-8 and was read as Windows-1252; look at its accents.'],
    }
  }
}

/** The sign that divides the first lines into the most columns, outside quotation marks. */
export function delimiterOf(text: string): string {
  const sample = text
    .slice(0, 20_000)
    .replace(/"(?:[^"]|"")*"/g, '')
    .split(/\r?\n/)
    .filter((l) => l.trim() !== '')
    .slice(0, 10)
  const counts = [',', ';', '\t', '|'].map((sign) => ({
    sign,
    least: Math.min(...sample.map((l) => l.split(sign).length - 1)),
    all: sample.reduce((n, l) => n + l.split(sign).length - 1, 0),
  }))
  return counts.reduce((x, y) => (y.least > x.least || (y.least === x.least && y.all > x.all) ? y : x)).sign
}

function readCsv(bytes: Buffer): Sheet {
  const { text, notes } = decodeText(bytes)
  // A text has none of these; a program, a picture or a PDF has.
  if (/[\u0000-\u0008\u000e-\u001f]/.test(text.slice(0, 100_000)))
    throw new Problem(415, 'wrong-type', 'By its content this is neither a CSV nor an XLSX file.')
  try {
    return {
      rows: parse(text, {
        delimiter: delimiterOf(text),
        bom: true,
        relax_column_count: true,
        skip_empty_lines: false,
        max_record_size: 200_000,
        to: MOST_ROWS + 1,
      }),
      notes,
    }
  } catch (cause) {
    if (!(cause instanceof CsvError)) throw cause
    const row = typeof cause.lines === 'number' ? ` in or before line ${cause.lines}` : ''
    throw new Problem(
      422,
      'invalid',
      `This CSV is broken${row}: ${BROKEN[cause.code] ?? 'a quotation mark stands where none may'}.`,
      [],
      { cause },
    )
  }
}

/** What of a sheet is no cell, and costs as much as its ranges say. */
const NO_CELLS = ['cols', 'dataValidations', 'conditionalFormatting', 'rowBreaks', 'colBreaks', 'sheetViews', 'extLst']
/** Cells that merges of a sheet may cover, before they are left out: each is filled with what the first shows. */
const MOST_MERGED = 100_000
const MERGE = /<(?:\w+:)?mergeCell\b[^<>]*?\bref\s*=\s*["']([A-Z]+)(\d+):([A-Z]+)(\d+)["']/g
const LONGEST_MERGE = 200

/** How many cells the merges cover in the sheet that says the most; null where the file is too large unpacked. */
function countMerged(bytes: Buffer): number | null {
  const merged = new Map<string, number>()
  const ends = new Map<string, string>()
  const fits = lookIntoZip(bytes, MOST_UNPACKED, (entry, piece) => {
    if (!entry.includes('worksheets/')) return
    // A merge may begin in one piece and end in the next: the end of each is looked at again, what was found is not.
    const text = (ends.get(entry) ?? '') + Buffer.from(piece.buffer, piece.byteOffset, piece.length).toString('latin1')
    let read = 0
    for (const found of text.matchAll(MERGE)) {
      merged.set(entry, (merged.get(entry) ?? 0) + areaOf(found))
      read = found.index + found[0].length
    }
    ends.set(entry, text.slice(Math.max(read, text.length - LONGEST_MERGE)))
  })
  return fits ? Math.max(0, ...merged.values()) : null
}

function areaOf([, left = '', top = '', right = '', bottom = '']: readonly string[]): number {
  const column = (letters: string) => [...letters].reduce((n, c) => n * 26 + c.charCodeAt(0) - 64, 0)
  return (Math.abs(column(right) - column(left)) + 1) * (Math.abs(Number(bottom) - Number(top)) + 1)
}

async function readXlsx(bytes: Buffer): Promise<Sheet> {
  const book = new ExcelJS.Workbook()
  let merged: number | null
  try {
    merged = countMerged(bytes)
    if (merged !== null)
      await book.xlsx.load(bytes as unknown as ArrayBuffer, {
        ignoreNodes: merged > MOST_MERGED ? [...NO_CELLS, 'mergeCells'] : NO_CELLS,
      })
  } catch (cause) {
    throw new Problem(
      422,
      'invalid',
      'This XLSX file is broken, or is another kind of file: open and save it anew.',
      [],
      { cause },
    )
  }
  if (merged === null) throw new Problem(413, 'too-large', 'Unpacked, this file is larger than Rekko takes.')
  const [sheet] = book.worksheets
  if (sheet === undefined) throw invalid('There is no sheet in this file.')
  // Each is counted over all rows whenever it is asked for.
  const { rowCount, columnCount } = sheet
  if (rowCount > MOST_ROWS || columnCount > MOST_COLUMNS)
    throw invalid(
      `The first sheet of this file has more than ${MOST_ROWS.toLocaleString('en')} rows or ${MOST_COLUMNS} ` +
        `columns; take out what is not needed.`,
    )
  let formulas = 0
  const rows: string[][] = []
  for (let r = 1; r <= rowCount; r += 1) {
    const cells: string[] = []
    // Looked up and never made: a lone cell far below would bring forth all above it.
    const row = sheet.findRow(r)
    for (let c = 1; c <= columnCount; c += 1) {
      const { text, wasFormula } = cellText(row?.findCell(c)?.value)
      if (wasFormula) formulas += 1
      cells.push(text)
    }
    rows.push(cells)
  }
  const notes = [
    ...(merged > MOST_MERGED ? ['Merged cells cover too much of it: each was read as its first cell alone.'] : []),
    ...(book.worksheets.length > 1
      ? [`Only the first of ${book.worksheets.length} sheets, “${sheet.name}”, was read.`]
      : []),
    ...(formulas > 0
      ? [
          `${formulas} ${formulas === 1 ? 'formula was' : 'formulas were'} read as what ` +
            `${formulas === 1 ? 'it' : 'they'} last came to.`,
        ]
      : []),
  ]
  return { rows, notes }
}

/** A number as a cell shows it: 15 digits are what a spreadsheet keeps; more would show its binary rest. */
const numberText = (n: number) =>
  Number.isFinite(n) ? (Math.abs(n) < 1e15 ? String(Number(n.toPrecision(15))) : n.toFixed(0)) : ''

function cellText(value: ExcelJS.CellValue): { text: string; wasFormula: boolean } {
  const plain = (text: string) => ({ text: text.slice(0, 4000), wasFormula: false })
  if (value === null || value === undefined) return plain('')
  if (typeof value === 'number') return plain(numberText(value))
  if (value instanceof Date) return plain(value.toISOString().slice(0, 10))
  if (typeof value !== 'object') return plain(String(value))
  if ('richText' in value) return plain(value.richText.map((t) => t.text).join(''))
  if ('formula' in value || 'sharedFormula' in value)
    return { text: cellText(value.result ?? null).text, wasFormula: true }
  if ('text' in value)
    return plain(typeof value.text === 'string' ? value.text : cellText(value.text as ExcelJS.CellValue).text)
  return plain('')
}
