import { stringify } from 'csv-stringify/sync'
import ExcelJS from 'exceljs'
import { safeCell } from '#shared/words/cell'

/** A table to be kept: names of columns, and cells of text, or of numbers written as decimals. */
export interface Table {
  readonly name: string
  readonly head: readonly string[]
  readonly rows: readonly (readonly Cell[])[]
}
export type Cell = string | null | { readonly decimal: string }

const textOf = (cell: Cell): string => (cell === null ? '' : typeof cell === 'string' ? safeCell(cell) : cell.decimal)

/** CSV by RFC 4180, in UTF-8 with a mark in front for spreadsheets; no cell can act as a formula. */
export function writeCsv(table: Table): Buffer {
  const rows = [table.head.map(safeCell), ...table.rows.map((r) => r.map(textOf))]
  return Buffer.from(stringify(rows, { bom: true, record_delimiter: '\r\n' }))
}

/** More rows of it, without a head. */
export const writeCsvRows = (rows: Table['rows']): Buffer =>
  Buffer.from(
    stringify(
      rows.map((r) => r.map(textOf)),
      { record_delimiter: '\r\n' },
    ),
  )

/** XLSX with one sheet; decimals are numbers there, texts are texts. */
export async function writeXlsx(table: Table): Promise<Buffer> {
  const book = new ExcelJS.Workbook()
  const sheet = book.addWorksheet(table.name, { views: [{ state: 'frozen', ySplit: 1 }] })
  sheet.addRow([...table.head]).font = { bold: true }
  for (const row of table.rows)
    sheet.addRow(row.map((c) => (c === null ? null : typeof c === 'string' ? safeCell(c) : Number(c.decimal))))
  table.head.forEach((h, i) => {
    const column = sheet.getColumn(i + 1)
    column.width = Math.min(
      50,
      Math.max(h.length, ...table.rows.slice(0, 200).map((r) => textOf(r[i] ?? null).length)) + 2,
    )
    if (table.rows.some((r) => typeof r[i] === 'object' && r[i] !== null)) column.numFmt = '#,##0.00'
  })
  return Buffer.from(await book.xlsx.writeBuffer())
}
