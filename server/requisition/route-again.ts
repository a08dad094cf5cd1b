import { isDeepStrictEqual } from 'node:util'
import { progressOf } from '#core/approval/progress'
import { computeDraft } from '#core/requisition/compute'
import { makeRoute } from '#core/approval/route'
import { moneyOf } from '#core/base/money'
import { readFacts } from '#shared/contract/draft-facts'
import { findRoute, listDecisions } from '../approval/reads'
import { updateRoute, writeSeats } from '../approval/store'
import { appendEvent } from '../audit/store'
import { type Context } from '../context'
import { notifyChange } from '../live/notify'
import { gatherDraftFacts } from './draft-facts'
import { findRequisition } from './reads'
import { setState } from './store'
import { tell } from './tell'

/**
 * Works the steps that are not yet decided out anew, after people, absences or policy changed. The
 * amount that was sent stays, and so do the decisions made. Nothing is written when nothing changes.
 */
export async function routeAgain(ctx: Context, id: string): Promise<boolean> {
  const kept = await findRequisition(ctx.tx, id, true)
  const route = await findRoute(ctx.tx, id)
  if (kept === null || route === null || kept.state !== 'in approval') return false
  const facts = readFacts(await gatherDraftFacts(ctx.tx, kept.draft, kept, ctx.now, false))
  const { subject } = computeDraft(kept.draft, facts)
  const sent = moneyOf(route.amount, route.currency)
  // Its own reservation stands already, so over budget is judged as it was when it was sent.
  const overBudget = kept.draft.overBudgetReason.trim() !== '' || subject.overBudget
  const fresh = makeRoute({ ...subject, amount: sent, overBudget }, facts.policy, facts.people)
  // Compared as values: the database keeps the route's fields in an order of its own.
  if (isDeepStrictEqual(JSON.parse(JSON.stringify([fresh.steps, fresh.held])), [route.route.steps, route.route.held]))
    return false
  const approvals = (await listDecisions(ctx.tx, id)).filter((d) => d.outcome === 'approved' && !d.takenBack)
  const progress = progressOf(fresh, approvals)
  await updateRoute(ctx.tx, route.id, {
    state: progress.state === 'approved' ? 'approved' : progress.state === 'held' ? 'held' : 'open',
    route: fresh,
  })
  const asked = await writeSeats(ctx.tx, route.id, id, progress, ctx.now)
  await appendEvent(ctx, {
    type: 'routed again',
    subjectKind: 'requisition',
    subjectId: id,
    after: { open: progress.open.map((s) => s.actorId) },
  })
  if (progress.state === 'approved') await setState(ctx.tx, id, 'approved', ctx.now)
  for (const { actorId } of asked) {
    await tell(ctx, actorId, kept, {
      subject: `For your decision: ${kept.draft.title}`,
      sentence: `${kept.number ?? ''}, ${kept.draft.title}, now waits for you.`,
      path: `/decide/${id}`,
    })
  }
  await notifyChange(ctx.tx, { kind: 'requisition', id })
  return true
}
