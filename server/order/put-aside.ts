import { dayOf, type Day } from '#core/base/day'
import { dec } from '#core/base/decimal'
import { asideReasons } from '#core/order/aside'
import { isInPart, partOf } from '#core/people/rights'
import { leftToLay } from '#core/requisition/line-progress'
import { checkMove } from '#core/requisition/moves'
import { sayAsideReason } from '#shared/words/order'
import { sayMoveReason } from '#shared/words/requisition'
import { waysOf } from '#shared/words/ways'
import { appendEvents } from '../audit/store'
import type { Context } from '../context'
import { invalid, notFound, refused } from '../http/problem'
import { notifyChanges } from '../live/notify'
import { findRequisitions, type RequisitionLineRow } from '../requisition/reads'
import { setAside } from '../requisition/store'
import { requireOrganisation } from '../settings/reads'
import { findRequisitionsOfLines } from './tray-reads'

export interface PutAside {
  readonly lineIds: readonly string[]
  /** On that day they wait again; null: they wait again at once. */
  readonly until: Day | null
  /** Why, as whoever asked reads it. */
  readonly reason: string
}

/** Puts open lines of the Desk aside until a day, or has them wait again; laid on a tray they are aside no more. */
export async function putAside(ctx: Context, { lineIds, until, reason }: PutAside): Promise<void> {
  const today = dayOf(ctx.now, (await requireOrganisation(ctx.tx)).timeZone)
  const ways = waysOf(ctx.actor.locale)
  const wrong = until === null ? [] : asideReasons(until, today).map((r) => sayAsideReason(r, ways, today))
  if (wrong.length > 0) throw refused(wrong, {}, 'does-not-fit')
  if (new Set(lineIds).size !== lineIds.length) throw invalid('A line is named twice.')
  const owners = await findRequisitionsOfLines(ctx.tx, lineIds)
  const part = partOf(ctx.actor.grants, 'order')
  const requisitions = await findRequisitions(ctx.tx, [...new Set(owners.values())], true)
  const found: RequisitionLineRow[] = []
  const told: { readonly id: string; readonly names: string[] }[] = []
  for (const requisition of requisitions) {
    if (!isInPart(part, requisition.draft)) throw notFound('A line')
    const by = { isOwner: false, isStepHolder: false, isBuyer: true }
    const [barred] = checkMove('order', requisition, by)
    if (barred !== undefined)
      throw refused([`${requisition.number ?? ''}: ${sayMoveReason(barred)}`], {}, 'wrong-state')
    const lines = requisition.lines.filter((l) => lineIds.includes(l.id))
    for (const l of lines)
      if (!dec(leftToLay({ ...l, requested: l.quantity })).isPositive())
        throw refused([`“${l.description}” lies on a tray or is ordered already.`], {}, 'taken')
    found.push(...lines)
    told.push({ id: requisition.id, names: lines.map((l) => l.description) })
  }
  if (found.length !== lineIds.length) throw notFound('A line')
  await setAside(ctx.tx, lineIds, until, until === null ? '' : reason.trim())
  await appendEvents(
    ctx,
    told.map(({ id, names }) => ({
      type: until === null ? 'taken up again' : 'put aside',
      subjectKind: 'requisition',
      subjectId: id,
      after: { names, ...(until === null ? {} : { until, text: reason.trim() }) },
    })),
  )
  await notifyChanges(
    ctx.tx,
    told.map(({ id }) => ({ kind: 'requisition', id })),
  )
}
