import type { Context } from '../context'
import { asSheet } from '../files/as-sheet'
import type { Cell } from '../files/write-sheet'
import { listBudgets } from './list-budgets'

/** The budget lines that a person may look at as a file, with plain decimals. */
export async function exportBudgets(
  ctx: Context,
  asked: { readonly year?: number | undefined; readonly until: 'year' | 'now'; readonly as: 'csv' | 'xlsx' },
): Promise<{ bytes: Buffer; name: string; mime: string }> {
  const { lines, year, currency } = await listBudgets(ctx, asked.year, asked.until)
  const table = {
    name: 'Budgets',
    head: [
      ...['Fiscal year', 'Department', 'Budget line', 'Code', 'Holder', 'Given', 'Of it moved in', 'Spent', 'Ordered'],
      ...['Asked for', 'Left', 'Expected at most', 'Currency'],
    ],
    rows: lines.map((l): Cell[] => [
      ...[String(year), l.department, l.name, l.code, l.holder ?? ''],
      ...[l.given, l.moved, l.spent, l.committed, l.reserved, l.available].map((m): Cell => ({ decimal: m.amount })),
      l.forecast === null ? null : { decimal: l.forecast.most.amount },
      currency,
    ]),
  }
  return asSheet(table, `budgets-${year}`, asked.as)
}
