import { dec } from '#core/base/decimal'
import { computeDraft } from '#core/requisition/compute'
import { readFacts } from '#shared/contract/draft-facts'
import type { ApprovalOutcome, Decidable, Judged } from '../approval/decidable'
import { appendEntries } from '../budget/store'
import type { Context } from '../context'
import { setState } from '../document/store'
import { requireOrganisation } from '../settings/reads'
import { gatherDraftFacts } from './draft-facts'
import { findRequisition, type RequisitionRow } from './reads'
import { releaseReservation, reserveAgain } from './release'
import { requireMove, requireRequisition } from './require'
import { SEEN_REQUISITIONS } from './visible'

/** Requisitions as documents: who sees them, how they are locked, and how approval knows them. */
export const REQUISITION: Decidable<RequisitionRow> = {
  name: 'requisition',
  called: 'This requisition',
  ...SEEN_REQUISITIONS,
  find: findRequisition,
  lock: requireRequisition,
  lockFor: requireMove,
  path: (id) => `/trail/${id}`,
  changePath: (id) => `/raise/${id}`,
  judge,
  takeOutcome,
  wasActedOn: (r) => (r.lines.some((l) => dec(l.onTray).gt(0)) ? 'A buyer has begun to order it.' : null),
}

async function judge(ctx: Context, r: RequisitionRow): Promise<Judged> {
  const facts = readFacts(await gatherDraftFacts(ctx.tx, r.draft, r, ctx.now, false))
  const { subject } = computeDraft(r.draft, facts)
  // Its own reservation stands already, so over budget is judged as it was when it was sent.
  const overBudget = r.draft.overBudgetReason.trim() !== '' || subject.overBudget
  return { subject: { ...subject, overBudget }, policy: facts.policy, people: facts.people }
}

async function takeOutcome(ctx: Context, r: RequisitionRow, outcome: ApprovalOutcome): Promise<void> {
  if (outcome.state === 'waiting') {
    await setState(ctx.tx, r.id, 'in approval', ctx.now)
    return
  }
  if (outcome.state === 'approved') {
    await setState(ctx.tx, r.id, 'approved', ctx.now)
    return
  }
  const { baseCurrency } = await requireOrganisation(ctx.tx)
  if (outcome.state === 'stopped') {
    await appendEntries(ctx, await releaseReservation(ctx, r, outcome.by, baseCurrency))
    await setState(ctx.tx, r.id, outcome.by, ctx.now)
    return
  }
  if (outcome.undone !== 'approved') await appendEntries(ctx, await reserveAgain(ctx, r, 'taken back', baseCurrency))
  await setState(ctx.tx, r.id, 'in approval', ctx.now)
}
