import { dec } from '#core/base/decimal'
import type { ApprovalOutcome, Decidable } from '../approval/decidable'
import { appendEntries } from '../budget/store'
import type { Context } from '../context'
import { setState } from '../document/store'
import { TAKE_BACK_SECONDS } from '../document/tell'
import { enqueue } from '../queue/enqueue'
import { requireOrganisation } from '../settings/reads'
import { findRequisition, type RequisitionRow } from './reads'
import { releaseReservation, reserveAgain } from './release'
import { requireMove, requireRequisition, whoseRequisition } from './require'
import { restoreLines } from './change-lines'
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
  whose: whoseRequisition,
  takeOutcome,
  wasActedOn,
  restore: restoreLines,
  // Its mail is its own, which has more to say.
  tellApproved: (told) => ({ told, mailed: false }),
}

/** What was done since a decision without an event: a buyer laid it on a tray, or its owner began to change it. */
function wasActedOn(r: RequisitionRow): string | null {
  if (r.lines.some((l) => dec(l.onTray).isPositive())) return 'A buyer has begun to order it.'
  // A line that was written anew lost what its sending froze.
  const isWrittenAnew = r.lines.some((l) => l.perBase === null) || r.lines.length !== r.sentDraft?.lines.length
  return isWrittenAnew ? 'It has been changed since.' : null
}

async function takeOutcome(ctx: Context, r: RequisitionRow, outcome: ApprovalOutcome): Promise<void> {
  if (outcome.state === 'waiting') {
    await setState(ctx.tx, r.id, 'in approval', ctx.now)
    return
  }
  if (outcome.state === 'approved') {
    await setState(ctx.tx, r.id, 'approved', ctx.now)
    await enqueue(
      ctx.tx,
      'mail-approved',
      { requisitionId: r.id, decisionId: outcome.decisionId },
      TAKE_BACK_SECONDS + 1,
    )
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
