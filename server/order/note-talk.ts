import type { TalkWay } from '#core/order/talk'
import { appendEvent } from '../audit/store'
import type { Context } from '../context'
import { notifyChange } from '../live/notify'
import { requireVisibleOrder } from './read-order'
import { insertTalk } from './talk-store'

/** Notes what was said with the supplier about an issued order; whoever buys may, whosever the order is. */
export async function noteTalk(
  ctx: Context,
  id: string,
  said: { readonly way: TalkWay; readonly with: string; readonly text: string },
): Promise<void> {
  const order = await requireVisibleOrder(ctx, id)
  const [talkedWith, text] = [said.with.trim(), said.text.trim()]
  await insertTalk(ctx.tx, { orderId: order.id, byId: ctx.actor.id, at: ctx.now, way: said.way, talkedWith, text })
  await appendEvent(ctx, {
    type: 'spoken about',
    subjectKind: 'order',
    subjectId: order.id,
    after: { way: said.way, with: talkedWith, text },
  })
  await notifyChange(ctx.tx, { kind: 'order', id: order.id })
}
