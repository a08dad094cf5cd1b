import { marksOf, type MarkFacts, type RiskMark } from '#core/approval/marks'
import { boundariesFor, findSplit, SPLIT_DAYS } from '#core/approval/splits'
import { dayOf } from '#core/base/day'
import type { RequestDecision } from '#shared/contract/decide'
import { saySplit } from '#shared/words/splits'
import { waysOf } from '#shared/words/ways'
import { judgeAgain } from '../approval/judge-again'
import type { RouteRow } from '../approval/reads'
import type { Context } from '../context'
import { seenAmong } from '../document/visible'
import { REQUISITION } from '../requisition/kind'
import type { RequisitionRow } from '../requisition/reads'
import { SEEN_REQUISITIONS } from '../requisition/visible'
import { requireOrganisation } from '../settings/reads'
import { listNear, nameShared } from './split-reads'

/** Of many others only the newest are told one by one. */
const MOST_SHOWN = 20

/**
 * What makes somebody look twice before they approve a request, and whether it is one of several that make one. Of the
 * others they see title, day and amount; the number leads there only where they may see it anyway.
 */
export async function viewRisks(
  ctx: Context,
  kept: RequisitionRow,
  route: RouteRow,
  prices: MarkFacts['prices'],
): Promise<{ readonly marks: RiskMark[]; readonly split: RequestDecision['split'] }> {
  const organisation = await requireOrganisation(ctx.tx)
  const { subject, policy, people } = await judgeAgain(ctx, REQUISITION, kept, route)
  const boundaries = boundariesFor(subject, policy, people)
  const sentOn = kept.sentAt === null ? people.today : dayOf(new Date(kept.sentAt), organisation.timeZone)
  const of = { ownerId: kept.ownerId, departmentId: subject.departmentId, day: sentOn, days: SPLIT_DAYS }
  const near = await listNear(ctx.tx, of, organisation)
  const own = near.find((r) => r.id === kept.id)
  const split = own === undefined ? null : findSplit({ ...own, amount: subject.amount }, near, boundaries)
  const marks = marksOf({
    overBudget: subject.overBudget,
    newSupplier: subject.codings.some((c) => c.supplier === 'proposed'),
    prices,
    amount: subject.amount,
    boundaries: boundaries.map((b) => b.amount),
    isSplit: split !== null,
  })
  if (split === null) return { marks, split: null }
  const nameOf = (id: string) => people.people.get(id)?.name ?? ''
  const said = {
    nameOf,
    owner: nameOf(kept.ownerId),
    shared: await nameShared(ctx.tx, split.shared.what, split.shared.id),
  }
  const named = new Set(split.others.map((o) => o.id))
  const others = near.filter((r) => named.has(r.id))
  const shown = others.slice(-MOST_SHOWN)
  const seen = await seenAmong(
    ctx,
    SEEN_REQUISITIONS,
    shown.map((o) => o.id),
  )
  const view = {
    sentence: saySplit(split, said, waysOf(ctx.actor.locale)),
    others: shown.map((o) => ({
      id: seen.has(o.id) ? o.id : null,
      number: seen.has(o.id) ? o.number : null,
      title: o.title,
      day: o.sentOn,
      amount: o.amount,
    })),
    more: others.length - shown.length,
  }
  return { marks, split: view }
}
