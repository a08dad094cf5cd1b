import { misfitsOf, type Draw } from '#core/agreement/fit'
import { dayOf } from '#core/base/day'
import { moneyOf, subtract, zero } from '#core/base/money'
import { drawReasons } from '#core/order/issue'
import type { Reply } from '#shared/contract/all-routes'
import type { agreementRoutes } from '#shared/contract/agreement'
import { sayMisfit } from '#shared/words/agreement'
import { sayIssueReason } from '#shared/words/order'
import { waysOf } from '#shared/words/ways'
import { findAgreement, listAgreementsWith, type AgreementRow } from '../agreement/reads'
import { drawOn } from '../agreement/draw-on'
import { appendEvent } from '../audit/store'
import type { Context } from '../context'
import { touchDocument } from '../document/store'
import { maySee } from '../document/visible'
import { forbidden, notFound, refused, stale } from '../http/problem'
import { notifyChange } from '../live/notify'
import { requireOrganisation } from '../settings/reads'
import { drawingOn, drawOf } from './drawing'
import { listDrawnLines } from './drawn-reads'
import { noteChanged, requireTray } from './lay-tray'
import { requireOwn } from './order-to-change'
import { findOrder, type OrderRow } from './reads'
import { setAgreement } from './store'
import { termsOf } from './tray-agreement'
import { SEEN_ORDERS } from './visible'

/** The agreements with an order's supplier, those it may draw on first, with why it may not on the others. */
export async function listOrderAgreements(
  ctx: Context,
  id: string,
): Promise<Reply<(typeof agreementRoutes)['listOrderAgreements']>> {
  const order = await findOrder(ctx.tx, id)
  if (order === null || !(await maySee(ctx, SEEN_ORDERS, id))) throw notFound('This order')
  const draw = await drawOfOrder(ctx, order)
  const ways = waysOf(ctx.actor.locale)
  const choices = (await listAgreementsWith(ctx.tx, [order.supplierId])).map((a) => ({
    ...{ id: a.id, number: a.number, name: a.name, fixes: a.fixes, endsOn: a.endsOn },
    left: a.ceiling === null ? null : subtract(moneyOf(a.ceiling, a.currency), moneyOf(a.drawn, a.currency)),
    reasons: misfitsOf(a, draw).map((m) => sayMisfit(m, ways)),
  }))
  return {
    agreementId: order.agreementId,
    choices: [...choices.filter((c) => c.reasons.length === 0), ...choices.filter((c) => c.reasons.length > 0)],
  }
}

/**
 * Says on which agreement an order of the actor's own draws; null: on none. What is said stays, whatever is laid on a
 * tray later. One that is issued leaves what it drew on, and draws its net on the other: refused where it does not fit,
 * or where the ceiling would be passed.
 */
export async function setOrderAgreement(
  ctx: Context,
  id: string,
  version: number,
  agreementId: string | null,
): Promise<{ version: number }> {
  const seen = await findOrder(ctx.tx, id)
  if (seen === null || !(await maySee(ctx, SEEN_ORDERS, id))) throw notFound('This order')
  const order = seen.number === null ? await requireTray(ctx, id, version) : await lockIssued(ctx, id, version)
  if (order.agreementId === agreementId && (order.agreementSaid || order.number !== null))
    return { version: order.version }
  // Both are locked in the order of their ids: of two that change places none waits for the other.
  const touched = [order.number === null ? null : order.agreementId, agreementId]
  let to: AgreementRow | null = null
  for (const one of [...new Set(touched.flatMap((t) => t ?? []))].sort()) {
    const locked = await findAgreement(ctx.tx, one, true)
    if (one === agreementId) to = locked
  }
  if (agreementId !== null && to === null) throw notFound('This agreement')
  if (to !== null) await requireRoom(ctx, order, to)
  if (order.number === null) {
    await setAgreement(ctx.tx, id, { agreementId, agreementSaid: true, ...(await termsOf(ctx.tx, order, to)) })
    await noteChanged(ctx, id)
  } else await moveIssued(ctx, order, to)
  await notifyChange(ctx.tx, { kind: 'order', id })
  return { version: order.version + 1 }
}

async function lockIssued(ctx: Context, id: string, version: number): Promise<OrderRow> {
  const order = await findOrder(ctx.tx, id, true)
  if (order === null) throw notFound('This order')
  requireOwn(ctx, order)
  if (order.blanketId !== null)
    throw refused([`It is called off of ${order.blanket ?? ''}, and counted as what that draws on.`], {}, 'called-off')
  if (order.state === 'cancelled') throw forbidden('A cancelled order draws on nothing.')
  if (version !== order.version) throw stale('the order was changed in another window')
  return order
}

/** Refuses an agreement that an order does not fit; of one that is issued also where its net has no room. */
async function requireRoom(ctx: Context, order: OrderRow, to: AgreementRow): Promise<void> {
  const draw = await drawOfOrder(ctx, order)
  const net = moneyOf(order.number === null ? '0' : (order.net ?? '0'), order.currency)
  const reasons = drawReasons(drawingOn(to, draw), net)
  if (reasons.length === 0) return
  const ways = waysOf(ctx.actor.locale)
  throw refused(
    reasons.map((r) => sayIssueReason(r, ways)),
    { reasons },
    'does-not-fit',
  )
}

/** Moves what an issued order drew from one agreement to another, or to none; its papers stay as they were sent. */
async function moveIssued(ctx: Context, order: OrderRow, to: AgreementRow | null): Promise<void> {
  const net = moneyOf(order.net ?? '0', order.currency)
  if (order.agreementId !== null) await drawOn(ctx, order.agreementId, subtract(zero(net.currency), net))
  if (to !== null) await drawOn(ctx, to.id, net)
  const { termsKind, termsDays } = order
  await setAgreement(ctx.tx, order.id, { agreementId: to?.id ?? null, agreementSaid: true, termsKind, termsDays })
  await touchDocument(ctx.tx, order.id, ctx.now)
  await appendEvent(ctx, {
    type: 'agreement said',
    subjectKind: 'order',
    subjectId: order.id,
    before: { agreement: order.agreement },
    after: { agreement: to?.number ?? null },
  })
}

/** What an order draws for: a tray as if it were issued today, an issued one by the day of its issue. */
async function drawOfOrder({ tx, now }: Context, order: OrderRow): Promise<Draw> {
  const { timeZone } = await requireOrganisation(tx)
  const day = dayOf(order.issuedAt === null ? now : new Date(order.issuedAt), timeZone)
  return drawOf(tx, order, await listDrawnLines(tx, order.id), day)
}
