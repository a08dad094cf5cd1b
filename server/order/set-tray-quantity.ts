import { NOTHING, dec, type DecimalText } from '#core/base/decimal'
import { moveSources } from '#core/order/change'
import { leftToLay } from '#core/requisition/line-progress'
import { waysOf } from '#shared/words/ways'
import type { Context } from '../context'
import { notFound, refused } from '../http/problem'
import { notifyChange } from '../live/notify'
import { findRequisitions } from '../requisition/reads'
import { moveQuantities } from '../requisition/store'
import { noteChanged, noteServed, refuseDirect, requireTray, takeOffTray } from './lay-tray'
import { addToParts, deleteParts } from './store'
import { keepTrayAgreement } from './tray-agreement'
import { findRequisitionsOfLines, listParts } from './tray-reads'

/**
 * How many of one line of a tray are to be ordered there: less goes back to the Desk, from the last of its requests
 * backwards; more comes from there, for the first that still needs something, and never beyond what was asked for.
 */
export async function setTrayQuantity(
  ctx: Context,
  orderId: string,
  { lineIds, quantity }: { readonly lineIds: readonly string[]; readonly quantity: DecimalText },
): Promise<void> {
  const { tx } = ctx
  const owners = await findRequisitionsOfLines(tx, lineIds)
  const requisitions = await findRequisitions(tx, [...new Set(owners.values())], true)
  refuseDirect(await requireTray(ctx, orderId, null))
  if (dec(quantity).isZero()) {
    await takeOffTray(ctx, orderId, lineIds)
    return
  }
  const parts = (await listParts(tx, [orderId])).filter((p) => lineIds.includes(p.requisitionLineId))
  const [first] = parts
  if (first === undefined || parts.length !== new Set(lineIds).size) throw notFound('A line on this tray')
  const lines = new Map(requisitions.flatMap((r) => r.lines.map((l) => [l.id, l] as const)))
  const openOf = (id: string): DecimalText => {
    const l = lines.get(id)
    return l === undefined ? '0' : leftToLay({ ...l, requested: l.quantity })
  }
  const sources = parts.map((p) => ({ ...p, open: openOf(p.requisitionLineId) }))
  const total = sources.reduce((s, p) => s.plus(dec(p.quantity)), NOTHING)
  const { sources: after, moved } = moveSources(sources, dec(quantity).minus(total))
  if (after.some((s) => dec(s.open).isNegative())) {
    const most = sources.reduce((s, p) => s.plus(dec(p.open)), total).toFixed()
    const says = waysOf(ctx.actor.locale).quantity(most, first.unit)
    throw refused([`Of “${first.description}” ${says} can be ordered.`], {}, 'too-much')
  }
  if (moved.length === 0) return
  const off = after.filter((s) => dec(s.quantity).isZero()).map((s) => s.requisitionLineId)
  await deleteParts(tx, orderId, off)
  await addToParts(
    tx,
    orderId,
    moved.filter((m) => !off.includes(m.requisitionLineId)),
  )
  await moveQuantities(
    tx,
    moved.map((m) => ({ lineId: m.requisitionLineId, onTray: m.by })),
  )
  if (off.length > 0) await keepTrayAgreement(ctx, orderId, 'less')
  const isLess = dec(quantity).lt(total)
  const touched = new Set(moved.flatMap((m) => owners.get(m.requisitionLineId) ?? []))
  await noteServed(
    ctx,
    [...touched],
    isLess ? { type: 'taken off a tray', before: { orderId } } : { type: 'put on a tray', after: { orderId } },
  )
  await noteChanged(ctx, orderId)
  await notifyChange(tx, { kind: 'order', id: orderId })
}
