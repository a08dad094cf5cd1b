import { dec } from '#core/base/decimal'
import { fiscalPeriod } from '#core/base/day'
import { isNegative, zero } from '#core/base/money'
import { cancelsWhole, type Rest } from '#core/order/change'
import { listPayingLines, lockBudgetLines, readStandings } from '../budget/reads'
import type { NewEntry } from '../budget/store'
import type { Context } from '../context'
import type { RequisitionLineRow, RequisitionRow } from '../requisition/reads'
import { entriesOfLine, reservationEntries, worthOfOpen } from '../requisition/reservation'
import type { ComputedChange } from './compute-change'
import { committedOf, passedBy, type AskedLines, type PlannedMoney } from './plan-money'
import type { OrderRow } from './reads'

/** By how much requisition lines move when an order is changed. */
export interface QuantityMove {
  readonly lineId: string
  readonly ordered: string
  readonly cancelled: string
}

/** What is ordered less goes back to be ordered again, or is over; what is ordered more was still open. */
export function quantityMoves(c: Pick<ComputedChange, 'lines'>, rest: Rest): QuantityMove[] {
  return c.lines.flatMap((l) =>
    l.moved.map(({ requisitionLineId: lineId, by: ordered }) => {
      const isLess = dec(ordered).isNegative()
      return { lineId, ordered, cancelled: isLess && rest === 'ends' ? dec(ordered).negated().toFixed() : '0' }
    }),
  )
}

/** A requisition line once a change is made. */
export function lineAfter(line: RequisitionLineRow, moves: readonly QuantityMove[]): RequisitionLineRow {
  const own = moves.filter((m) => m.lineId === line.id)
  const after = (kept: string, of: (m: QuantityMove) => string) =>
    own.reduce((s, m) => s.plus(dec(of(m))), dec(kept)).toFixed()
  return {
    ...line,
    ordered: after(line.ordered, (m) => m.ordered),
    cancelled: after(line.cancelled, (m) => m.cancelled),
  }
}

/**
 * Works out what a change of an issued order moves: what each line is worth from now on instead of what stands
 * committed, and what of its requisitions is reserved again, or no more. Budget lines are held only against a change
 * that takes more from them than it gives back. Nothing is written; the budget lines are locked where it is to be.
 */
export async function planChangeMoney(
  ctx: Context,
  order: OrderRow,
  c: ComputedChange,
  moves: readonly QuantityMove[],
  requisitions: readonly RequisitionRow[],
  isLocked: boolean,
): Promise<PlannedMoney> {
  const currency = c.organisation.baseCurrency
  const today = fiscalPeriod(c.today, c.organisation.fiscalStartMonth)
  const asked: AskedLines = new Map(
    requisitions.flatMap((r) => r.lines.map((line) => [line.id, { line, period: r.period ?? today.period }] as const)),
  )
  const served = new Set(c.lines.flatMap((l) => l.sources.map((s) => s.requisitionLineId)))
  const budgetIds = [
    ...new Set([...served].flatMap((id) => asked.get(id)?.line.codings.map((x) => x.budgetLineId) ?? [])),
  ]
  const payers = isLocked
    ? await lockBudgetLines(ctx.tx, budgetIds, currency)
    : await listPayingLines(ctx.tx, { departmentId: null, fiscalYear: 0, ids: budgetIds }, currency)
  const budgetLines = new Map(payers.map((l) => [l.id, l]))
  const cause = cancelsWhole(c.lines) ? 'order cancelled' : 'order changed'

  const moved = new Set(moves.map((m) => m.lineId))
  // A direct order never reserved anything.
  const reservedAs = requisitions
    .filter((r) => !r.isDirect)
    .map((requisition) => {
      const touched = requisition.lines.filter((l) => moved.has(l.id))
      const period = requisition.period ?? today.period
      return {
        requisition,
        lineIds: touched.map((l) => l.id),
        worth: new Map(touched.map((l) => [l.id, worthOfOpen(lineAfter(l, moves), currency, period)])),
      }
    })
  const entries: NewEntry[] = await reservationEntries(ctx, reservedAs, cause, currency)
  const standings = await readStandings(
    ctx.tx,
    'committed',
    c.lines.map((l) => l.id),
    currency,
  )
  // The money for a call-off is held by its blanket order.
  const holding = order.blanketId === null ? c.lines : []
  for (const line of holding) {
    const stands = standings.get(line.id) ?? []
    const released = line.sources.flatMap((s) => asked.get(s.requisitionLineId)?.line.atYearEnd.map((y) => y.released))
    const isOff = dec(line.quantity).isZero()
    const worth = isOff ? [] : committedOf({ ...line, currency: order.currency, perBase: c.perBase }, asked, currency)
    // What a year end released of it stays released.
    const kept = worth.map((w, at) =>
      released[at] === true && !stands.some((s) => s.codingAt === at) ? { ...w, amount: zero(currency) } : w,
    )
    const about = { documentKind: 'order' as const, documentId: order.id, lineId: line.id, cause }
    for (const e of entriesOfLine('committed', stands, kept)) entries.push({ ...e, ...about })
  }
  // What comes back from an order is reserved again whatever the budget says.
  const judged = entries.filter((e) => e.stage !== 'reserved' || isNegative(e.amount))
  return { entries, passed: passedBy(judged, budgetLines, currency), budgetLines }
}
