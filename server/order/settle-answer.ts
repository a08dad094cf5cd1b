import { dec } from '#core/base/decimal'
import { holdsFor, type AnsweredLine } from '#core/order/answer'
import type { LineWish } from '#core/order/change'
import type { OrderState } from '#core/order/moves'
import { appendEvent } from '../audit/store'
import type { Context } from '../context'
import { findWaitingAnswer } from './answer-reads'
import { endAnswer, setPromised } from './answer-store'
import type { OrderRow } from './reads'

/** An answer holds from now on: what was promised is written down. The order is acknowledged by whoever calls. */
export async function letHold(
  ctx: Context,
  order: Pick<OrderRow, 'id' | 'number'>,
  answer: { readonly id: string; readonly byName: string; readonly lines: readonly LineWish[] },
): Promise<void> {
  await endAnswer(ctx.tx, answer.id, { outcome: 'holds', now: ctx.now })
  const comes = answer.lines.filter((l) => !dec(l.quantity).isZero())
  await setPromised(ctx.tx, order.id, comes)
  await appendEvent(ctx, {
    type: 'order acknowledged',
    subjectKind: 'order',
    subjectId: order.id,
    after: { answerId: answer.id, by: answer.byName },
  })
}

/**
 * What an order is once a revision of it is sent: acknowledged where it says what its supplier answered, else to be
 * acknowledged anew. An answer that waited is over either way.
 */
export async function settleRevised(
  ctx: Context,
  order: OrderRow,
  lines: readonly AnsweredLine[],
): Promise<OrderState> {
  const waiting = await findWaitingAnswer(ctx.tx, order.id)
  if (waiting !== null && holdsFor(lines, waiting.lines)) {
    await letHold(ctx, order, waiting)
    return 'acknowledged'
  }
  if (waiting !== null) await endAnswer(ctx.tx, waiting.id, { outcome: 'replaced', now: ctx.now })
  return order.state === 'acknowledged' ? 'issued' : order.state
}
