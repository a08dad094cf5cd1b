import { add, subtract, sum } from '#core/base/money'
import { effectsOf } from '#core/budget/effect'
import { changesBetween, type RequestChange } from '#core/requisition/changes'
import type { PayingLine } from '#core/requisition/draft-facts'
import { recodeSent } from '#core/requisition/decided-change'
import type { Draft, DraftCoding, DraftLine } from '#core/requisition/draft'
import { judgeAgain } from '../approval/judge-again'
import { openRoute } from '../approval/open-route'
import { findRoute } from '../approval/reads'
import { keepEarlier } from '../approval/store'
import { lockBudgetLines } from '../budget/reads'
import { appendEntries, type NewEntry } from '../budget/store'
import type { Context } from '../context'
import { requireOrganisation } from '../settings/reads'
import { whoseRequisition } from './require'
import type { RequisitionLineRow, RequisitionRow } from './reads'
import { frozenLine, reservationEntries, worthOfOpen } from './reservation'
import { rewriteLines, setChanged } from './store'

/** What may be changed of a line while it is decided on, with what its sending froze of it. */
export type ChangeableLine = Pick<DraftLine, 'id' | 'quantity' | 'splitMethod' | 'codings'> &
  Pick<RequisitionLineRow, 'reclaimables' | 'atYearEnd'>

export const changeableOf = (l: RequisitionLineRow): ChangeableLine => ({
  ...{ id: l.id, quantity: l.quantity, splitMethod: l.splitMethod, codings: l.codings },
  ...{ reclaimables: l.reclaimables, atYearEnd: l.atYearEnd },
})

/** A draft whose lines are what they were before, or are now. */
const draftWith = (draft: Draft, lines: readonly ChangeableLine[]): Draft => {
  const by = new Map(lines.map((l) => [l.id, l]))
  return {
    ...draft,
    lines: draft.lines.map((l) => {
      const { quantity, splitMethod, codings } = by.get(l.id) ?? l
      return { ...l, quantity, splitMethod, codings: codings.map(writtenCoding) }
    }),
  }
}
const writtenCoding = ({ budgetLineId, value }: DraftCoding): DraftCoding => ({ budgetLineId, value })

/** What an approval changed, as it was before: kept with it, so that it can be put back. */
export interface ChangedFrom {
  readonly lines: readonly ChangeableLine[]
  readonly overBudget: boolean
}

/** What an approval changed, said from what it was before; nothing where it changed nothing. */
export const changesOf = (from: unknown, now: Draft): RequestChange[] =>
  from === null || from === undefined ? [] : changesBetween(draftWith(now, (from as ChangedFrom).lines), now)

/** How lines of a request in approval are written anew, and what that makes of the decisions on it. */
export interface Rewritten {
  readonly lines: readonly ChangeableLine[]
  /** The approvals that stand go on to stand. */
  readonly keepsEarlier: boolean
  readonly overBudget: boolean
  readonly cause: string
  readonly by?: { readonly decisionId: string; readonly actorId: string }
}

/** What writing lines anew moves, and the budget lines that it is between, locked. */
export interface PlannedRewrite {
  readonly entries: readonly NewEntry[]
  readonly budgetLines: ReadonlyMap<string, PayingLine>
}

/** Works out what writing lines anew moves, with the budget lines locked; nothing is written. */
export async function planRewrite(
  ctx: Context,
  kept: RequisitionRow,
  { lines, cause }: Pick<Rewritten, 'lines' | 'cause'>,
): Promise<PlannedRewrite> {
  const { baseCurrency } = await requireOrganisation(ctx.tx)
  const rows = rowsWith(kept, lines)
  const payers = [...kept.lines, ...rows].flatMap((l) => l.codings.map((c) => c.budgetLineId))
  const locked = await lockBudgetLines(ctx.tx, [...new Set(payers)], baseCurrency)
  const worth = new Map(rows.map((l) => [l.id, worthOfOpen(l, baseCurrency, kept.period ?? 1)]))
  const to = [{ requisition: kept, lineIds: rows.map((l) => l.id), worth }]
  const entries = await reservationEntries(ctx, to, cause, baseCurrency)
  return { entries, budgetLines: new Map(locked.map((l) => [l.id, l])) }
}

/**
 * Writes lines of a request in approval anew: what it reserves follows, and a round of its own begins in which what is
 * frozen of it says so. Its number, state and day stay.
 */
export async function rewriteRequest(
  ctx: Context,
  kept: RequisitionRow,
  { entries, budgetLines }: PlannedRewrite,
  { lines, keepsEarlier: keeps, overBudget, by }: Rewritten,
): Promise<RequisitionRow> {
  const { baseCurrency } = await requireOrganisation(ctx.tx)
  const rows = rowsWith(kept, lines)
  const effects = rows.map((l) => effectsOf(frozenLine(l, baseCurrency)))
  const amount = sum(
    effects.flat().map((e) => e.amount),
    baseCurrency,
  )
  await appendEntries(ctx, entries)
  await rewriteLines(ctx.tx, rows)
  const round = kept.round + 1
  const sentDraft = draftWith(kept.sentDraft ?? kept.draft, rows)
  await setChanged(ctx.tx, kept.id, { round, amount: amount.amount, sentDraft, earlierDraft: kept.sentDraft })
  const next = { ...kept, round, amount: amount.amount, sentDraft, draft: draftWith(kept.draft, rows), lines: rows }
  const route = await findRoute(ctx.tx, kept.id)
  if (route === null) throw new Error('a request in approval has no route')
  const sent = {
    ...{ ...route.sent, amount, overBudget },
    together: add(subtract(route.sent.together ?? route.sent.amount, route.sent.amount), amount),
    codings: recodeSent(route.sent.codings, kept.lines, rows, (id) => {
      const { account = '', project = null } = budgetLines.get(id) ?? {}
      return { account, project }
    }),
  }
  const judged = await judgeAgain(ctx, { whose: whoseRequisition }, next, { sent })
  await openRoute(ctx, next, { ...judged, sent, round, keepsEarlier: keeps, ...(by === undefined ? {} : { by }) })
  return next
}

/** Puts back what an approval that is taken back had changed; the approvals that stood before stand again. */
export async function restoreLines(ctx: Context, kept: RequisitionRow, from: unknown): Promise<void> {
  const as = { ...(from as ChangedFrom), keepsEarlier: true, cause: 'taken back' }
  await keepEarlier(ctx.tx, kept.id, kept.round)
  await rewriteRequest(ctx, kept, await planRewrite(ctx, kept, as), as)
}

function rowsWith(kept: RequisitionRow, lines: readonly ChangeableLine[]): RequisitionLineRow[] {
  const by = new Map(lines.map((l) => [l.id, l]))
  return kept.lines.map((l) => ({ ...l, ...by.get(l.id) }))
}
