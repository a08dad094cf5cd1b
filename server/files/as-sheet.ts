import { inWorkshop } from './workshop'
import { writeCsv, type Table } from './write-sheet'

/** A file on its way to whoever asked for it. */
export interface SheetFile {
  readonly bytes: Buffer
  readonly name: string
  readonly mime: string
}

/** A table as a file of that name, without its ending. */
export async function asSheet(table: Table, name: string, as: 'csv' | 'xlsx'): Promise<SheetFile> {
  return as === 'csv'
    ? { bytes: writeCsv(table), name: `${name}.csv`, mime: 'text/csv; charset=utf-8' }
    : {
        bytes: await inWorkshop('write-xlsx', table),
        name: `${name}.xlsx`,
        mime: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
      }
}
