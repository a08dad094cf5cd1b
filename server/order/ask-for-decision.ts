import { freezeSubject } from '#core/approval/policy'
import { makeRoute } from '#core/approval/route'
import { dayOf } from '#core/base/day'
import { convert } from '#core/base/money'
import { needsDecision } from '#core/order/issue'
import { orderSubject } from '#core/order/subject'
import { sayIssueReason } from '#shared/words/order'
import { waysOf } from '#shared/words/ways'
import { openRoute } from '../approval/open-route'
import { findRoute, peopleNamedBy, requirePolicy } from '../approval/reads'
import { appendEvent } from '../audit/store'
import { requireMoney } from '../budget/require-money'
import type { Context } from '../context'
import { setState } from '../document/store'
import { refused } from '../http/problem'
import { notifyChange } from '../live/notify'
import { listBranch } from '../people/place-reads'
import { reachPeople } from '../people/person-reads'
import { findRequisitions, type RequisitionRow } from '../requisition/reads'
import { computeTray, type ComputedTray } from './compute-tray'
import { ORDER } from './kind'
import { requireTray } from './lay-tray'
import { planMoney, requireRate, type PlannedMoney } from './plan-money'
import { listServed, type OrderRow } from './reads'
import { setSentForDecision } from './store'

/**
 * Sends an order that its buyer may not issue alone to whoever decides on it. Refused where it could be issued at once,
 * where anything but authority stands in its way, where a budget refuses it, and where nobody is found who may decide.
 * `issuesItself`: once it is approved it is issued without another press.
 */
export async function askForDecision(
  ctx: Context,
  id: string,
  version: number,
  issuesItself: boolean,
): Promise<{ id: string; version: number; state: string }> {
  // Requisitions are locked before orders, everywhere, in the order of their ids.
  const served = await findRequisitions(ctx.tx, await listServed(ctx.tx, id), true)
  const requisitions = new Map(served.map((r) => [r.id, r]))
  await requireTray(ctx, id, version, 'send')
  const tray = await ORDER.lock(ctx, id, version)
  const computed = await computeTray(ctx.tx, tray, ctx.actor.id, ctx.now)
  const { reasons } = computed.verdict
  if (reasons.length === 0) throw refused(['You may issue this order yourself; nobody has to decide on it.'])
  if (!needsDecision(reasons))
    throw refused(
      reasons.map((r) => sayIssueReason(r, waysOf(ctx.actor.locale))),
      { reasons },
    )
  const planned = await planMoney(ctx, tray, computed, [], requisitions)
  requireMoney(planned, waysOf(ctx.actor.locale))
  const judged = await judge(ctx, tray, computed, planned, served)
  if (makeRoute(judged.subject, judged.policy, judged.people).held !== null)
    throw refused(['Nobody is found who may decide on this order; ask an administrator.'], {}, 'nobody-decides')
  const perBase = requireRate(computed)
  const base = computed.organisation.baseCurrency
  const round = ((await findRoute(ctx.tx, id))?.round ?? 0) + 1
  await setSentForDecision(ctx.tx, id, issuesItself)
  const progress = await openRoute(ctx, tray, {
    round,
    keepsEarlier: false,
    ...judged,
    sent: {
      ...freezeSubject(judged.subject),
      barred: judged.subject.ownedBy,
      lines: computed.lines.map((l) => convert(l.net, perBase, base)),
    },
  })
  const state = progress.state === 'approved' ? 'approved' : 'in approval'
  await appendEvent(ctx, {
    type: round === 1 ? 'sent' : 'sent again',
    subjectKind: 'order',
    subjectId: id,
    before: { state: tray.state },
    after: { state, amount: judged.subject.amount, lines: computed.lines.length },
  })
  if (state === 'approved')
    await ORDER.takeOutcome(ctx, { ...tray, issuesItself }, { state: 'approved', decisionId: null })
  else await setState(ctx.tx, id, state, ctx.now)
  await notifyChange(ctx.tx, { kind: 'order', id })
  return { id, version: tray.version + 1, state }
}

async function judge(
  { tx, now }: Context,
  tray: OrderRow,
  c: ComputedTray,
  planned: PlannedMoney,
  served: readonly RequisitionRow[],
) {
  const { baseCurrency, timeZone } = c.organisation
  const today = dayOf(now, timeZone)
  const policy = await requirePolicy(tx, now, today)
  const holders = [...planned.budgetLines.values()].flatMap((l) => l.holderId ?? [])
  const named = [...new Set([tray.ownerId, ...peopleNamedBy(policy), ...holders])]
  const { people, absences } = await reachPeople(tx, named, baseCurrency, today)
  const lines = new Map(served.flatMap((r) => r.lines.map((l) => [l.id, l] as const)))
  const subject = orderSubject({
    buyer: { id: tray.ownerId, departmentId: tray.buyerDepartmentId },
    branch: await listBranch(tx, tray.buyerDepartmentId),
    currency: tray.currency,
    amount: convert(c.sums.net, requireRate(c), baseCurrency),
    kinds: served.map((r) => r.draft.kind),
    needs: c.parts.map((p) => [p.ownerId, p.raisedById, ...p.ownedBy]),
    parts: c.parts.map((p) => {
      const line = lines.get(p.requisitionLineId)
      return { category: line?.categoryId ?? null, codings: line?.codings ?? [] }
    }),
    budgetLines: planned.budgetLines,
    overBudget: planned.passed.length > 0,
  })
  return { subject, policy, people: { people: new Map(people.map((p) => [p.id, p])), absences, today } }
}
