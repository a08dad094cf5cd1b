import { isChangeMoveFrom } from '#core/order/change-moves'
import { sayChangeState } from '#shared/words/order-change'
import { stopRoute } from '../approval/stop-route'
import { appendEvent } from '../audit/store'
import type { Context } from '../context'
import { setState, touchDocument } from '../document/store'
import { tell } from '../document/tell'
import { notFound, refused } from '../http/problem'
import { notifyChange } from '../live/notify'
import { findChange } from './change-reads'
import { endChange } from './change-store'
import { lockOrderToChange } from './order-to-change'

/**
 * Throws a change of an order away that is not in force, whether it came back, waits or is approved: whoever was asked
 * hears of it, and the order stands as it was sent.
 */
export async function throwChangeAway(ctx: Context, changeId: string): Promise<{ id: string; version: number }> {
  const seen = await findChange(ctx.tx, changeId)
  if (seen === null) throw notFound('This change')
  const { order, underWay } = await lockOrderToChange(ctx, seen.orderId, null)
  const change = underWay?.id === changeId ? underWay : await findChange(ctx.tx, changeId)
  if (change === null) throw notFound('This change')
  if (!isChangeMoveFrom('throwAway', change.state))
    throw refused([`This change is ${sayChangeState(change.state)}.`], {}, 'wrong-state')
  for (const actorId of await stopRoute(ctx, changeId)) {
    const told = { code: 'withdrawn', by: ctx.actor.name, number: null, title: change.title } as const
    await tell(ctx, actorId, change, told, { path: '/decide' })
  }
  await setState(ctx.tx, changeId, 'cancelled', ctx.now)
  await endChange(ctx.tx, changeId, null)
  await touchDocument(ctx.tx, order.id, ctx.now)
  await appendEvent(ctx, {
    type: 'withdrawn',
    subjectKind: 'order change',
    subjectId: changeId,
    before: { state: change.state },
    after: { state: 'cancelled', orderId: order.id },
  })
  await notifyChange(ctx.tx, { kind: 'order change', id: changeId })
  await notifyChange(ctx.tx, { kind: 'order', id: order.id })
  return { id: order.id, version: order.version + 1 }
}
