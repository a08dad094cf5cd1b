import { ledgerEntries } from '#core/budget/ledger'
import { effectsOf, type CodedLine, type Effect } from '#core/budget/effect'
import { dec } from '#core/base/decimal'
import { adjustmentsOf } from '#core/requisition/draft'
import { openQuantity } from '#core/requisition/line-progress'
import type { NewEntry } from '../budget/store'
import { readStandings } from '../budget/reads'
import type { Context } from '../context'
import type { RequisitionLineRow, RequisitionRow } from './reads'

/** A sent line as the budget rules take it, at the rates frozen when it was sent. */
export function frozenLine(line: RequisitionLineRow, baseCurrency: string): CodedLine {
  if (line.perBase === null) throw new Error('a line that was sent has no rate')
  return {
    quantity: line.quantity,
    unitPrice: line.unitPrice ?? '0',
    priceBase: line.priceBase,
    currency: line.currency,
    adjustments: adjustmentsOf(line),
    taxRate: line.taxRate ?? '0',
    perBase: line.perBase,
    baseCurrency,
    split: { method: line.splitMethod, values: line.codings.map((c) => c.value) },
    codings: line.codings.map((c, i) => ({ budgetLineId: c.budgetLineId, reclaimable: line.reclaimables[i] ?? '0' })),
  }
}

/** What is reserved for what is still open of each line; nothing for a line that is wholly ordered or cancelled. */
export function worthOfOpen(line: RequisitionLineRow, baseCurrency: string): Effect[] {
  const open = openQuantity({ requested: line.quantity, ordered: line.ordered, cancelled: line.cancelled })
  return dec(open).isZero() ? [] : effectsOf(frozenLine(line, baseCurrency), open)
}

/**
 * The entries that bring a requisition's reservations to `worth`, line by line. What stands in another
 * period than the document's (it was sent again later) is taken back there and put here. Before a
 * requisition was ever sent nothing stands.
 */
export async function reservationEntries(
  ctx: Context,
  requisition: Pick<RequisitionRow, 'id' | 'round'>,
  to: {
    readonly lineIds: readonly string[]
    readonly worth: ReadonlyMap<string, readonly Effect[]>
    readonly period: number
    readonly cause: string
    readonly currency: string
  },
): Promise<NewEntry[]> {
  const { lineIds, worth, period, cause, currency } = to
  const standings =
    requisition.round === 0 ? new Map<string, never>() : await readStandings(ctx.tx, 'reserved', lineIds, currency)
  const entries: NewEntry[] = []
  for (const lineId of lineIds) {
    const stands = standings.get(lineId) ?? []
    const about = { documentKind: 'requisition' as const, documentId: requisition.id, lineId, cause }
    const elsewhere = [...new Set(stands.filter((s) => s.period !== period).map((s) => s.period))]
    for (const other of elsewhere) {
      for (const e of ledgerEntries(
        'reserved',
        stands.filter((s) => s.period === other),
        [],
      ))
        entries.push({ ...e, ...about, period: other })
    }
    for (const e of ledgerEntries(
      'reserved',
      stands.filter((s) => s.period === period),
      worth.get(lineId) ?? [],
    )) {
      entries.push({ ...e, ...about, period })
    }
  }
  return entries
}
