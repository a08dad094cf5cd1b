import { appendEvent } from '../audit/store'
import type { Context } from '../context'
import { Problem, refused } from '../http/problem'
import { notifyChange } from '../live/notify'
import { laySending } from './lay-sending'
import { lockOrderToChange } from './order-to-change'
import { listRevisions } from './sending-reads'
import { setGoesToSupplier } from './store'

/**
 * Sends what holds of an order once more, as it was sent, to the supplier's address of now; what was kept from its
 * supplier goes to them from then on. Refused while its PDF is
 * made, and while the last sending is still on its way.
 */
export async function resendOrder(ctx: Context, id: string): Promise<{ address: string }> {
  const { order } = await lockOrderToChange(ctx, id, null)
  const last = (await listRevisions(ctx.tx, id)).find((v) => v.revision === order.revision)
  if (last?.pdfHash == null) throw new Problem(409, 'being-made', 'Its PDF is being made, and is sent then.')
  if (last.isWaiting) throw refused(['It is on its way already.'], {}, 'on-its-way')
  const { revision } = order
  if (!order.isSent && order.state === 'cancelled')
    throw refused([`${order.supplier} was never sent this order: there is nothing to cancel there.`])
  if (!order.isSent) await setGoesToSupplier(ctx.tx, id)
  const address = await laySending(ctx.tx, { orderId: id, revision }, ctx.now)
  if (address === '') throw refused([`${order.supplier} has no address for orders; finance can add it.`])
  await appendEvent(ctx, {
    type: order.isSent ? 'sent once more' : 'sent after all',
    subjectKind: 'order',
    subjectId: id,
    after: { revision, to: address },
  })
  await notifyChange(ctx.tx, { kind: 'order', id })
  return { address }
}
