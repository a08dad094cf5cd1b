import { dayOf } from '#core/base/day'
import { compare, sum, zero } from '#core/base/money'
import { checkBudget, type BudgetOutcome } from '#core/budget/available'
import { changeLines, type LineChange } from '#core/requisition/decided-change'
import type { PayingLine } from '#core/requisition/draft-facts'
import { sayLineChangeReason } from '#shared/words/decided-change'
import { waysOf } from '#shared/words/ways'
import { writeDecision, type Decided } from '../approval/decide'
import { findOpenSeat, findRoute, requireVersion } from '../approval/reads'
import { listPayingLines } from '../budget/reads'
import { requireMoney } from '../budget/require-money'
import type { Context } from '../context'
import { forbidden, refused } from '../http/problem'
import { requireOrganisation } from '../settings/reads'
import {
  changeableOf,
  changesOf,
  planRewrite,
  rewriteRequest,
  type ChangeableLine,
  type ChangedFrom,
  type PlannedRewrite,
} from './change-lines'
import { REQUISITION } from './kind'
import type { RequisitionLineRow, RequisitionRow } from './reads'
import { requireMove } from './require'

/**
 * Approves a request with less of some lines, or with other budget lines that pay, as far as the policy lets whoever
 * approves. Less leaves the approvals given before; after another payer only this approval counts, and the money moves
 * under lock.
 */
export async function approveChanged(
  ctx: Context,
  id: string,
  version: number,
  changes: readonly LineChange[],
  comment: string,
): Promise<Decided> {
  const { tx, actor, now } = ctx
  const kept = await requireMove(ctx, id, version, 'approve')
  const [seat, route] = [await findOpenSeat(tx, id, actor.id), await findRoute(tx, id)]
  if (seat === null || route === null) throw forbidden('This does not wait for you.')
  const { baseCurrency, timeZone } = await requireOrganisation(tx)
  const { form } = await requireVersion(tx, now, dayOf(now, timeZone))
  const payers = await listPossiblePayers(ctx, kept)
  const changed = changeLines(kept.lines, changes, form.mayChange, (l) => new Set(payersOf(l, payers).map((p) => p.id)))
  if ('reasons' in changed) throw refused(changed.reasons.map(sayLineChangeReason))

  const lines = changed.lines.map((l, i) => frozenAnew(l, kept.lines[i], payers))
  const planned = await planRewrite(ctx, kept, { lines, cause: 'changed' })
  const passed = passedBy(planned, baseCurrency)
  requireMoney({ passed }, waysOf(actor.locale))
  const from: ChangedFrom = { lines: kept.lines.map(changeableOf), overBudget: route.sent.overBudget }
  const decisionId = crypto.randomUUID()
  const next = await rewriteRequest(ctx, kept, planned, {
    ...{ lines, keepsEarlier: changed.isLess, cause: 'changed' },
    overBudget: route.sent.overBudget || (!changed.isLess && passed.length > 0),
    by: { decisionId, actorId: actor.id },
  })
  return writeDecision(ctx, REQUISITION, next, {
    ...{ id: decisionId, forId: seat.forId, outcome: 'approved', said: comment.trim() },
    changed: { changes: changesOf(from, next.draft), from },
  })
}

/** The budget lines that may pay for a request's lines: those of its department, in the year that pays for each. */
export async function listPossiblePayers({ tx }: Context, kept: RequisitionRow): Promise<PayingLine[]> {
  const { baseCurrency } = await requireOrganisation(tx)
  const named = [...new Set(kept.lines.flatMap((l) => l.codings.map((c) => c.budgetLineId)))]
  const now = await listPayingLines(tx, { departmentId: null, fiscalYear: 0, ids: named }, baseCurrency)
  const years = [...new Set(now.map((l) => l.fiscalYear))]
  const found = new Map(now.map((l) => [l.id, l]))
  for (const fiscalYear of years)
    for (const l of await listPayingLines(
      tx,
      { departmentId: kept.draft.departmentId, fiscalYear, ids: [] },
      baseCurrency,
    ))
      found.set(l.id, l)
  return [...found.values()]
}

/** Those of them that may pay for a line. */
export function payersOf(line: Pick<RequisitionLineRow, 'codings'>, payers: readonly PayingLine[]): PayingLine[] {
  const year = payers.find((p) => p.id === line.codings[0]?.budgetLineId)?.fiscalYear
  return payers.filter((p) => p.fiscalYear === year)
}

/** A line with what is frozen of whoever pays now; what a year end did to it holds for them too. */
function frozenAnew(
  line: RequisitionLineRow,
  was: RequisitionLineRow | undefined,
  payers: readonly PayingLine[],
): ChangeableLine {
  if (was === undefined || line.codings === was.codings) return changeableOf(line)
  const carriedTo = was.atYearEnd[0]?.carriedTo ?? null
  return changeableOf({
    ...line,
    reclaimables: line.codings.map((c) => payers.find((p) => p.id === c.budgetLineId)?.reclaimable ?? '0'),
    atYearEnd: line.codings.map(() => ({ carriedTo, released: false })),
  })
}

/** The budget lines that are passed by what is added to them; under the lock. */
function passedBy({ entries, budgetLines }: PlannedRewrite, currency: string): BudgetOutcome[] {
  return [...budgetLines.values()].flatMap((line) => {
    const own = entries.filter((e) => e.budgetLineId === line.id)
    const amount = sum(
      own.map((e) => e.amount),
      currency,
    )
    const [first] = own
    if (first === undefined || compare(amount, zero(currency)) <= 0) return []
    const added = { budgetLineId: line.id, amount }
    return checkBudget([added], budgetLines, first.period).filter((o) => o.passedBy !== null)
  })
}
