import { answerOfMessage } from '#core/order/response'
import { sayResponseReason } from '#shared/words/order-answer'
import type { Context } from '../context'
import { inWorkshop } from '../files/workshop'
import { refused } from '../http/problem'
import { requireOwnOrder, takeAnswerIn, type AnswerTaken } from './answer-order'
import { listStanding } from './change-reads'

/** Takes in the answer that a supplier's program wrote, an OrderResponse of UBL 2.1, to what stands of an order. */
export async function takeResponse(ctx: Context, id: string, version: number, bytes: Buffer): Promise<AnswerTaken> {
  const message = await inWorkshop('read-order-response', bytes)
  const order = await requireOwnOrder(ctx, id, version)
  const { number, currency, revision } = order
  const { value, reasons } = answerOfMessage(message, {
    number: number ?? '',
    currency,
    lines: await listStanding(ctx.tx, id),
  })
  if (value === null) throw refused(reasons.map(sayResponseReason), { reasons }, reasons[0]?.code ?? 'refused')
  return takeAnswerIn(
    ctx,
    order,
    { revision, by: message.by.slice(0, 120), lines: value, note: message.note },
    'response',
  )
}
