import { lockBudgetLines } from '../budget/reads'
import type { NewEntry } from '../budget/store'
import type { Context } from '../context'
import type { RequisitionRow } from './reads'
import { reservationEntries, worthOfOpen, type ReservedAs } from './reservation'

function budgetLinesOf(kept: RequisitionRow): string[] {
  return [...new Set(kept.lines.flatMap((l) => l.codings.map((c) => c.budgetLineId)))]
}

function reservedAs(requisition: RequisitionRow, worth: ReservedAs['worth']): ReservedAs {
  return { requisition, lineIds: requisition.lines.map((l) => l.id), worth }
}

/** Locks the budget lines of a requisition and gives back all that is reserved for it. */
export async function releaseReservation(
  ctx: Context,
  kept: RequisitionRow,
  cause: string,
  currency: string,
): Promise<NewEntry[]> {
  await lockBudgetLines(ctx.tx, budgetLinesOf(kept), currency)
  return reservationEntries(ctx, [reservedAs(kept, new Map())], cause, currency)
}

/** Locks them and reserves again what is open: what comes back is never refused for money. */
export async function reserveAgain(
  ctx: Context,
  kept: RequisitionRow,
  cause: string,
  currency: string,
): Promise<NewEntry[]> {
  await lockBudgetLines(ctx.tx, budgetLinesOf(kept), currency)
  const worth = new Map(kept.lines.map((l) => [l.id, worthOfOpen(l, currency, kept.period ?? 1)]))
  return reservationEntries(ctx, [reservedAs(kept, worth)], cause, currency)
}
