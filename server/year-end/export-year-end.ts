import { sayStage } from '#shared/words/budget'
import { formatYear } from '#shared/words/format'
import type { Context } from '../context'
import { asSheet, type SheetFile } from '../files/as-sheet'
import type { Cell } from '../files/write-sheet'
import { notFound } from '../http/problem'
import { listRunEntries, listRuns } from './reads'

/** Every entry that a run of the end of a year made, as a file with plain decimals. */
export async function exportYearEnd(
  { tx }: Context,
  year: number,
  runId: string,
  as: 'csv' | 'xlsx',
): Promise<SheetFile> {
  const run = (await listRuns(tx, year)).find((r) => r.id === runId)
  if (run === undefined) throw notFound('This run')
  const rows = (await listRunEntries(tx, runId)).map((e): Cell[] => [
    ...[e.department, e.line, formatYear(e.year), String(e.period), e.document, e.title],
    ...[sayStage(e.stage), e.cause, { decimal: e.amount }],
  ])
  const head = ['Department', 'Budget line', 'Fiscal year', 'Period', 'Document', 'About', 'Stage', 'What', 'Amount']
  return asSheet({ name: 'Year end', head, rows }, `end-of-${year}`, as)
}
