import { sayChangeReason } from '#shared/words/order-change'
import { waysOf } from '#shared/words/ways'
import type { Context } from '../context'
import { notFound, refused } from '../http/problem'
import type { ChangedOrder } from './change-order'
import { findChange } from './change-reads'
import { computeChange } from './compute-change'
import { makeChange } from './make-change'
import { lockOrderToChange } from './order-to-change'

/** Makes a change that is approved, as its buyer; refused with every reason where something is in its way by now. */
export async function makeApproved(ctx: Context, changeId: string): Promise<ChangedOrder & { revision: number }> {
  const seen = await findChange(ctx.tx, changeId)
  if (seen === null) throw notFound('This change')
  const locked = await lockOrderToChange(ctx, seen.orderId, null)
  const { order, served, underWay } = locked
  if (underWay?.id !== changeId || underWay.state !== 'approved')
    throw refused(['This change is not approved any more.'], {}, 'wrong-state')
  const of = { buyerId: ctx.actor.id, underWay, isOther: false }
  const c = await computeChange(ctx.tx, order, served, underWay, of, ctx.now)
  const { reasons } = c.verdict
  if (reasons.length > 0)
    throw refused(
      reasons.map((r) => sayChangeReason(r, waysOf(ctx.actor.locale))),
      { reasons },
    )
  const { revision } = await makeChange(ctx, locked, underWay, c)
  return { id: order.id, version: order.version + 1, number: order.number ?? '', revision, state: 'in force' }
}
