import { freezeSubject } from '#core/approval/policy'
import { makeRoute } from '#core/approval/route'
import { convert } from '#core/base/money'
import { needsDecision } from '#core/order/issue'
import { sayIssueReason } from '#shared/words/order'
import { waysOf } from '#shared/words/ways'
import { openRoute } from '../approval/open-route'
import { findRoute } from '../approval/reads'
import { appendEvent } from '../audit/store'
import { requireMoney } from '../budget/require-money'
import type { Context } from '../context'
import { setState } from '../document/store'
import { refused } from '../http/problem'
import { notifyChange } from '../live/notify'
import { findRequisitions } from '../requisition/reads'
import { computeTray } from './compute-tray'
import { judgeOrder } from './judge-order'
import { ORDER } from './kind'
import { requireTray } from './lay-tray'
import { planMoney, requireRate } from './plan-money'
import { listServed } from './reads'
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
  const judged = await judgeOrder(ctx, tray, {
    ...{ organisation: computed.organisation, planned, served },
    amount: convert(computed.sums.net, requireRate(computed), computed.organisation.baseCurrency),
    lineIds: computed.parts.map((p) => p.requisitionLineId),
  })
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
      lines: computed.lines.map((l) => convert(l.ordered, perBase, base)),
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
