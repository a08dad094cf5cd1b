import { stopRoute } from '../approval/stop-route'
import { appendEvent } from '../audit/store'
import type { Context } from '../context'
import { setState } from '../document/store'
import { tell } from '../document/tell'
import { notifyChange } from '../live/notify'
import { ORDER } from './kind'
import { requireTray } from './lay-tray'

/** Takes an order back from those who decide, or that they approved: it is a tray again, and may be changed. */
export async function takeOrderBack(
  ctx: Context,
  id: string,
  version: number,
): Promise<{ id: string; version: number }> {
  await requireTray(ctx, id, version, 'withdraw')
  const order = await ORDER.lock(ctx, id, version)
  for (const actorId of await stopRoute(ctx, id)) {
    const told = { code: 'withdrawn', by: ctx.actor.name, number: null, title: order.title } as const
    await tell(ctx, actorId, order, told, { path: '/decide' })
  }
  await setState(ctx.tx, id, 'draft', ctx.now)
  await appendEvent(ctx, {
    type: 'withdrawn',
    subjectKind: 'order',
    subjectId: id,
    before: { state: order.state },
    after: { state: 'draft' },
  })
  await notifyChange(ctx.tx, { kind: 'order', id })
  return { id, version: order.version + 1 }
}
