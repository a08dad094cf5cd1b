import { randomUUID } from 'node:crypto'
import { dayOf } from '#core/base/day'
import { dec } from '#core/base/decimal'
import { decideAnswer, type AnswerWay } from '#core/order/answer'
import type { LineWish } from '#core/order/change'
import { sayAnswerReason } from '#shared/words/order-answer'
import { appendEvent } from '../audit/store'
import type { Context } from '../context'
import { maySee } from '../document/visible'
import { setState } from '../document/store'
import { tell } from '../document/tell'
import { environment } from '../environment'
import { invalid, notFound, refused, stale } from '../http/problem'
import { notifyChange } from '../live/notify'
import { REKKO } from '../people/actor'
import { requireOrganisation } from '../settings/reads'
import { readAnswerKey } from './answer-key'
import { findWaitingAnswer, listAnswers, type AnswerRow } from './answer-reads'
import { endAnswer, insertAnswer } from './answer-store'
import { listStanding } from './change-reads'
import { requireOwn } from './order-to-change'
import { findOrder, type OrderRow } from './reads'
import { letHold } from './settle-answer'
import { SEEN_ORDERS } from './visible'

/** What a supplier says to an order. */
export interface AnswerGiven {
  /** The sent state that is answered. */
  readonly revision: number
  /** Who says it. */
  readonly by: string
  readonly lines: readonly LineWish[]
  readonly note: string
}
/** Whether it holds at once, or waits for the buyer. */
export interface AnswerTaken {
  readonly outcome: 'holds' | 'waits'
}

/** The order that a supplier's link opens, locked where asked; 404 where it opens none. */
export async function requireByKey(ctx: Context, key: string, lock: boolean): Promise<OrderRow> {
  const id = readAnswerKey(environment().sessionSecret, key)
  const order = id === null ? null : await findOrder(ctx.tx, id, lock)
  if (order?.number == null) throw notFound('This order')
  return order
}

/** A supplier answers by the link in its mail. */
export async function answerByLink(ctx: Context, key: string, given: AnswerGiven): Promise<AnswerTaken> {
  const order = await requireByKey(ctx, key, true)
  return takeAnswerIn({ ...ctx, actor: REKKO }, order, given, 'link')
}

/** The buyer types in what the supplier said otherwise. */
export async function typeAnswerIn(
  ctx: Context,
  id: string,
  version: number,
  given: AnswerGiven,
): Promise<AnswerTaken> {
  return takeAnswerIn(ctx, await requireOwnOrder(ctx, id, version), given, 'buyer')
}

/** Locks an issued order of the actor's own, at the version they saw. */
export async function requireOwnOrder(ctx: Context, id: string, version: number): Promise<OrderRow> {
  const order = await findOrder(ctx.tx, id, true)
  if (order === null || !(await maySee(ctx, SEEN_ORDERS, id))) throw notFound('This order')
  requireOwn(ctx, order)
  if (version !== order.version) throw stale('the order was changed in another window')
  return order
}

/**
 * Takes an answer in: what is as it was ordered acknowledges the order at once, what is not waits for the buyer. An
 * answer that waited gives way to it.
 */
export async function takeAnswerIn(
  ctx: Context,
  order: OrderRow,
  given: AnswerGiven,
  way: AnswerWay,
): Promise<AnswerTaken> {
  const { tx, now } = ctx
  const byName = given.by.trim()
  if (byName === '') throw invalid('Say who answers.', [{ field: 'by', message: 'is empty' }])
  const { timeZone } = await requireOrganisation(tx)
  const answers = await listAnswers(tx, order.id)
  const { value, reasons } = decideAnswer(given.lines, {
    state: order.state,
    revision: order.revision,
    lines: await listStanding(tx, order.id),
    currency: order.currency,
    today: dayOf(now, timeZone),
    answered: given.revision,
    isTaken: order.state === 'acknowledged',
    before: answers.length,
  })
  if (value === null) throw refused(reasons.map(sayAnswerReason), { reasons }, reasons[0]?.code ?? 'refused')
  const waiting = await findWaitingAnswer(tx, order.id)
  // Pressed twice, it is one answer.
  if (waiting !== null && isSame(waiting, { byName, lines: value.lines, note: given.note.trim() }))
    return { outcome: 'waits' }
  if (waiting !== null) await endAnswer(tx, waiting.id, { outcome: 'replaced', now })
  const isAsOrdered = value.differences.length === 0
  const answer = { id: randomUUID(), byName, lines: value.lines }
  await insertAnswer(tx, {
    ...{ ...answer, orderId: order.id, revision: order.revision, way, note: given.note.trim() },
    ...{ enteredById: way === 'link' ? null : ctx.actor.id, givenAt: now, outcome: 'waits' },
  })
  await appendEvent(ctx, {
    type: answers.length === 0 ? 'order answered' : 'order answered again',
    subjectKind: 'order',
    subjectId: order.id,
    after: { answerId: answer.id, revision: order.revision, way, by: byName, differences: value.differences },
  })
  // What waits leaves the order as it is, and whoever is writing a change of it goes on.
  if (isAsOrdered) {
    await letHold(ctx, order, answer)
    await setState(tx, order.id, 'acknowledged', now)
  }
  // What comes as ordered is no news to whoever issues forty orders a day.
  if (way === 'link' && (!isAsOrdered || given.note.trim() !== ''))
    await tell(
      ctx,
      order.ownerId,
      order,
      {
        ...{ code: 'order-answered', supplier: order.supplier, number: order.number ?? '', by: byName },
        ...{ differences: value.differences, note: given.note.trim() },
      },
      { path: `/orders/${order.id}` },
    )
  await notifyChange(tx, { kind: 'order', id: order.id })
  return { outcome: isAsOrdered ? 'holds' : 'waits' }
}

type Said = Pick<AnswerRow, 'byName' | 'lines' | 'note'>
const isSame = (a: Said, b: Said): boolean =>
  a.byName === b.byName && a.note === b.note && JSON.stringify(plain(a.lines)) === JSON.stringify(plain(b.lines))
const plain = (lines: readonly LineWish[]) =>
  lines.map((l) => [l.lineId, dec(l.quantity).toFixed(), dec(l.unitPrice).toFixed(), l.needBy])
