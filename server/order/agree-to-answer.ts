import { wishesOf } from '#core/order/answer'
import type { Rest } from '#core/order/change'
import { appendEvent } from '../audit/store'
import type { Context } from '../context'
import { touchDocument } from '../document/store'
import { invalid, refused } from '../http/problem'
import { notifyChange } from '../live/notify'
import { postMails } from '../mail/post-mail'
import { requireOrganisation } from '../settings/reads'
import { pathOf } from './answer-path'
import { findWaitingAnswer, type AnswerRow } from './answer-reads'
import { endAnswer } from './answer-store'
import { changeOrder, type ChangedOrder } from './change-order'
import { listStanding } from './change-reads'
import { lockOrderToChange } from './order-to-change'
import type { OrderRow } from './reads'

/**
 * The buyer agrees to what a supplier answered: the order is changed to it, as a revision of its own, or once whoever
 * decides has approved. In force, the answer holds.
 */
export async function agreeToAnswer(
  ctx: Context,
  id: string,
  version: number,
  { answerId, rest, asks }: { readonly answerId: string; readonly rest: Rest; readonly asks: boolean },
): Promise<ChangedOrder> {
  const { order } = await lockOrderToChange(ctx, id, version)
  const answer = await requireWaiting(ctx, order, answerId)
  return changeOrder(ctx, id, version, {
    lines: wishesOf(await listStanding(ctx.tx, id), answer.lines),
    shipToId: null,
    rest,
    reason: `${order.supplier} answered so${answer.note === '' ? '' : `: ${answer.note}`}`.slice(0, 500),
    note: '',
    asks,
  })
}

/** The buyer does not agree: the supplier is told why, and may answer anew. */
export async function declineAnswer(
  ctx: Context,
  id: string,
  version: number,
  { answerId, text }: { readonly answerId: string; readonly text: string },
): Promise<{ id: string; version: number }> {
  const said = text.trim()
  if (said === '')
    throw invalid('Say why, so that the supplier can answer anew.', [{ field: 'text', message: 'is empty' }])
  const { order } = await lockOrderToChange(ctx, id, version)
  const answer = await requireWaiting(ctx, order, answerId)
  const { now, tx } = ctx
  await endAnswer(tx, answer.id, { outcome: 'declined', said, now })
  await touchDocument(tx, id, now)
  await appendEvent(ctx, {
    type: 'answer declined',
    subjectKind: 'order',
    subjectId: id,
    after: { answerId, text: said },
  })
  const { name } = await requireOrganisation(tx)
  if (order.supplierEmail !== null)
    await postMails(tx, [
      {
        ...{ personId: null, toName: order.supplier, toAddress: order.supplierEmail, path: pathOf(order) },
        ...{ aboutKind: 'order', aboutId: id, notBefore: now, now },
        told: {
          ...{ code: 'answer-declined', supplier: order.supplier, number: order.number ?? '' },
          ...{ organisation: name, buyer: order.buyer, text: said },
        },
      },
    ])
  await notifyChange(tx, { kind: 'order', id })
  return { id, version: order.version + 1 }
}

async function requireWaiting(ctx: Context, order: OrderRow, answerId: string): Promise<AnswerRow> {
  const answer = await findWaitingAnswer(ctx.tx, order.id)
  if (answer?.id !== answerId)
    throw refused(['This answer does not wait any more: another came, or the order was changed.'], {}, 'answer-is-over')
  return answer
}
