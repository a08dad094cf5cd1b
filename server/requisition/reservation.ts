import { ledgerEntries, type BudgetStage, type LedgerEntry, type PeriodStanding } from '#core/budget/ledger'
import { effectsOf, type CodedLine, type Effect } from '#core/budget/effect'
import { dec } from '#core/base/decimal'
import { zero } from '#core/base/money'
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

/** What is to stand reserved for one coding of a line, and in which period of its budget line's year. */
export interface Reserved extends Effect {
  readonly period: number
}

/** The period that a coding of a sent line stands in: its request's, or the one a year end carried it to. */
export const periodOf = (line: RequisitionLineRow, codingAt: number, ofRequest: number): number =>
  line.atYearEnd[codingAt]?.carriedTo ?? ofRequest

/**
 * What is reserved for what is still open of a line, coding by coding; nothing for a line that is wholly ordered or
 * cancelled, nor for a coding that a year end released.
 */
export function worthOfOpen(line: RequisitionLineRow, baseCurrency: string, ofRequest: number): Reserved[] {
  const open = openQuantity({ requested: line.quantity, ordered: line.ordered, cancelled: line.cancelled })
  if (dec(open).isZero()) return []
  return effectsOf(frozenLine(line, baseCurrency), open).map((e, i) => ({
    ...e,
    ...(line.atYearEnd[i]?.released === true ? { amount: zero(baseCurrency) } : {}),
    period: periodOf(line, i, ofRequest),
  }))
}

/** What of a requisition is to stand reserved from now on, of the lines named. */
export interface ReservedAs {
  readonly requisition: Pick<RequisitionRow, 'id' | 'round'>
  readonly lineIds: readonly string[]
  readonly worth: ReadonlyMap<string, readonly Reserved[]>
}

/**
 * The entries that bring the reservations of requisitions to their `worth`, line by line, in one read. What stands in
 * another period than it is to (it was sent again later) is taken back there and put here. Before a requisition
 * was ever sent nothing stands.
 */
export async function reservationEntries(
  ctx: Context,
  to: readonly ReservedAs[],
  cause: string,
  currency: string,
): Promise<NewEntry[]> {
  const sentBefore = to.flatMap((r) => (r.requisition.round === 0 ? [] : r.lineIds))
  const standings =
    sentBefore.length === 0 ? new Map<string, never>() : await readStandings(ctx.tx, 'reserved', sentBefore, currency)
  return to.flatMap(({ requisition, lineIds, worth }) =>
    lineIds.flatMap((lineId) => {
      const about = { documentKind: 'requisition' as const, documentId: requisition.id, lineId, cause }
      return entriesOfLine('reserved', standings.get(lineId) ?? [], worth.get(lineId) ?? []).map((e) => ({
        ...e,
        ...about,
      }))
    }),
  )
}

/**
 * The entries that bring a stage of one document line to its `worth`: what stands in another period than it is to is
 * taken back there and put here.
 */
export function entriesOfLine(
  stage: BudgetStage,
  stands: readonly PeriodStanding[],
  worth: readonly Reserved[],
): (LedgerEntry & { period: number })[] {
  const periods = [...new Set([...stands, ...worth].map((s) => s.period))]
  const elsewhere = (e: Reserved) => ({ ...e, amount: zero(e.amount.currency) })
  return periods.flatMap((period) =>
    ledgerEntries(
      stage,
      stands.filter((s) => s.period === period),
      worth.map((e) => (e.period === period ? e : elsewhere(e))),
    ).map((e) => ({ ...e, period })),
  )
}
