import { randomUUID } from 'node:crypto'
import { dec } from '#core/base/decimal'
import { askedMoves } from '#core/requisition/asked-items'
import { BLANK_DRAFT, type Draft } from '#core/requisition/draft'
import { findRoute } from '../approval/reads'
import { appendEvent } from '../audit/store'
import type { Context } from '../context'
import { listAttachments } from '../document/reads'
import { insertAttachment, turnInto } from '../document/store'
import { refused } from '../http/problem'
import { notifyChange } from '../live/notify'
import { findRequisitions, type RequisitionRow } from '../requisition/reads'
import {
  insertRequisition,
  moveAsked,
  moveQuantities,
  setOrderWords,
  setRaisedBy,
  setUnsent,
} from '../requisition/store'
import { putAway, requireTray } from './lay-tray'
import { wordsOf } from './order-words'
import { deleteOrder, deleteParts } from './store'
import type { OrderRow } from './reads'

/**
 * Takes a direct order off the Desk to be written on: it is a draft again, under the same id. One on which somebody
 * decided stays as it was, cancelled, and what is written on is a copy of it with its files.
 */
export async function writeOn(ctx: Context, id: string, version: number): Promise<{ id: string; version: number }> {
  const [asks] = await findRequisitions(ctx.tx, [id], true)
  const tray = await requireTray(ctx, id, version)
  if (asks === undefined || tray.directFor === null)
    throw refused(['What lies on this tray was asked for by requests: they are changed there.'], {}, 'not-direct')
  const lineIds = asks.lines.map((l) => l.id)
  await deleteParts(ctx.tx, id, lineIds)
  await moveQuantities(
    ctx.tx,
    asks.lines.map((l) => ({ lineId: l.id, onTray: dec(l.onTray).negated().toFixed() })),
  )
  const draft = { ...asks.draft, title: asks.sentDraft?.title ?? asks.draft.title }
  if ((await findRoute(ctx.tx, id)) !== null) return copyOf(ctx, tray, asks, draft)
  await moveAsked(ctx.tx, askedMoves(asks.sentDraft, BLANK_DRAFT))
  await setUnsent(ctx.tx, id)
  await setOrderWords(ctx.tx, id, wordsOf(tray))
  return turnBack(ctx, tray, tray.directFor.id, draft.title)
}

/** The order was nobody's but its buyer's: it is what it was before. */
async function turnBack(
  ctx: Context,
  tray: OrderRow,
  ownerId: string,
  title: string,
): Promise<{ id: string; version: number }> {
  const { id } = tray
  await setRaisedBy(ctx.tx, id, ctx.actor.id)
  await deleteOrder(ctx.tx, id)
  await turnInto(ctx.tx, id, { kind: 'requisition', title, ownerId, now: ctx.now })
  await appendEvent(ctx, { type: 'written on', subjectKind: 'requisition', subjectId: id })
  await notifyChange(ctx.tx, { kind: 'order', id })
  await notifyChange(ctx.tx, { kind: 'requisition', id })
  return { id, version: tray.version + 1 }
}

/** What was decided on stays as it was, cancelled; a copy with its files is written on. */
async function copyOf(
  ctx: Context,
  tray: OrderRow,
  asks: RequisitionRow,
  draft: Draft,
): Promise<{ id: string; version: number }> {
  const { tx, actor, now } = ctx
  // What was asked for by it is over.
  await moveQuantities(
    tx,
    asks.lines.map((l) => ({ lineId: l.id, cancelled: l.quantity })),
  )
  const id = randomUUID()
  const lines = draft.lines.map((l) => ({ ...l, id: randomUUID() }))
  const ownerId = tray.directFor?.id ?? actor.id
  await insertRequisition(tx, id, { ownerId, raisedById: actor.id }, { ...draft, lines }, now)
  await setOrderWords(tx, id, wordsOf(tray))
  for (const a of await listAttachments(tx, tray.id))
    await insertAttachment(tx, {
      ...{ id: randomUUID(), documentId: id, fileHash: a.fileHash, name: a.name, kind: a.kind },
      ...{ forSupplier: a.forSupplier, addedById: actor.id, addedAt: now },
    })
  await putAway(ctx, tray.id)
  await notifyChange(tx, { kind: 'order', id: tray.id })
  return { id, version: 1 }
}
