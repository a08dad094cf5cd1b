import { moneyOf, add } from '#core/base/money'
import { answerDifferences, wishesOf } from '#core/order/answer'
import { isCallable } from '#core/order/call-off'
import { isOrderMoveFrom } from '#core/order/moves'
import { may } from '#core/people/rights'
import type { OrderView } from '#shared/contract/order'
import { sayAnswered } from '#shared/words/order-answer'
import { sayConditions } from '#shared/words/conditions'
import { waysOf } from '#shared/words/ways'
import { listAgreementsWith } from '../agreement/reads'
import { listOpenActors } from '../approval/reads'
import type { Context } from '../context'
import { listRemarks } from '../document/reads'
import { maySee } from '../document/visible'
import { findFile } from '../files/store'
import { forbidden, notFound, Problem } from '../http/problem'
import { listAnswers } from './answer-reads'
import { readBlanketLines } from './blanket-lines'
import { listCallOffs } from './call-off-reads'
import { findUnderWay, listInForce, listSent } from './change-reads'
import { listShipTos } from '../people/place-reads'
import { keptAdjustments, moreOf } from './more-of-line'
import { deliveryDetails } from './delivery-details'
import { listDeliveries, listInternalNotes, listOrderLines, seesAllOf } from './page-reads'
import { conditionsOf, findOrder, type OrderRow } from './reads'
import { listRevisions } from './sending-reads'
import { sentName } from './snapshot'
import { listTalks } from './talk-store'
import { ublOf } from './ubl-of'
import { viewDirect } from './view-direct'
import { readParts } from './view-parts'
import { SEEN_ORDERS } from './visible'

/** 404 unless the actor sees it; 409 while it is not issued: its buyer has it on the Desk, others decide on it. */
export async function requireVisibleOrder(ctx: Context, id: string): Promise<OrderRow> {
  const order = await findOrder(ctx.tx, id)
  if (order === null || !(await maySee(ctx, SEEN_ORDERS, id))) throw notFound('This order')
  if (order.number === null)
    throw new Problem(
      409,
      order.ownerId === ctx.actor.id ? 'on-the-desk' : 'not-issued',
      'This order is not issued yet.',
    )
  return order
}

/** An issued order with what each line serves and what became of every sent state. */
export async function readOrder(ctx: Context, id: string): Promise<OrderView> {
  const o = await requireVisibleOrder(ctx, id)
  const net = moneyOf(o.net ?? '0', o.currency)
  const tax = moneyOf(o.tax ?? '0', o.currency)
  const mayChange = o.ownerId === ctx.actor.id && may(ctx.actor.grants, 'order') && isOrderMoveFrom('change', o.state)
  const reasons = new Map((await listInForce(ctx.tx, id)).map((c) => [c.revision, c.reason]))
  return {
    id,
    number: o.number ?? '',
    version: o.version,
    state: o.state,
    supplier: o.supplier,
    buyer: o.buyer,
    direct: await viewDirect(ctx, o),
    shipTo: o.shipTo,
    shipToAddress: o.shipToAddress,
    currency: o.currency,
    // The end of a blanket order is said with what is left of it.
    terms: sayConditions(
      o.isBlanket ? { ...conditionsOf(o), isBlanket: false, expiresOn: null } : conditionsOf(o),
      waysOf(ctx.actor.locale),
      '',
    ),
    ...{ placedAs: o.placedAs, isSent: o.isSent },
    calledFrom: o.blanketId === null ? null : { id: o.blanketId, number: o.blanket ?? '' },
    blanket: await readBlanket(ctx, o),
    agreement:
      o.agreementId === null || o.agreement === null || !may(ctx.actor.grants, 'see orders')
        ? null
        : { id: o.agreementId, number: o.agreement },
    run:
      o.runId === null || o.rule === null || !may(ctx.actor.grants, 'see orders')
        ? null
        : { id: o.runId, rule: o.rule },
    // What is called off is counted as what its blanket order draws on.
    mayDraw: mayChange && o.blanketId === null && (await listAgreementsWith(ctx.tx, [o.supplierId])).length > 0,
    net,
    ...(await readParts(ctx.tx, o)),
    tax,
    total: add(net, tax),
    issuedAt: o.issuedAt ?? '',
    lines: (await listOrderLines(ctx.tx, id)).map((l) => ({
      id: l.id,
      description: l.description,
      more: moreOf({ ...l, notes: l.note === '' ? [] : [l.note], adjustments: keptAdjustments(l) }, o.currency),
      supplierPart: l.supplierPart,
      quantity: l.quantity,
      unit: l.unit,
      unitPrice: l.unitPrice,
      priceBase: l.priceBase,
      needBy: l.needBy,
      promisedOn: l.promisedOn,
      net: moneyOf(l.net, o.currency),
      // A direct order serves itself.
      sources: l.sources.filter((s) => s.requisitionId !== id),
    })),
    note: o.note,
    internalNotes: await listInternalNotes(ctx.tx, o.blanketId ?? id, ctx),
    deliveryDetails: await readDetails(ctx, o),
    revisions: (await listRevisions(ctx.tx, id)).map((v) => ({
      revision: v.revision,
      issuedAt: v.issuedAt,
      issuedBy: v.issuedBy,
      hasPdf: v.pdfHash !== null,
      channel: v.channel,
      sentAt: v.sentAt,
      lastError: v.lastError,
      isWaiting: v.isWaiting,
      sendings: v.sendings,
      address: v.address,
      reason: reasons.get(v.revision) ?? '',
    })),
    buyerId: o.ownerId,
    ...{ expiresOn: o.expiresOn, saidAdjustments: o.adjustments },
    shipToId: o.shipToId,
    mayChange,
    places: mayChange ? (await listShipTos(ctx.tx)).map((s) => ({ id: s.id, name: s.name })) : [],
    change: await readUnderWay(ctx, id),
    answers: await readAnswers(ctx, o),
    talks: may(ctx.actor.grants, 'see orders') ? await listTalks(ctx.tx, id) : [],
    mayNote: may(ctx.actor.grants, 'order'),
    remindedAt: o.remindedAt,
  }
}

/** What was asked of the delivery; a call-off to another place than its blanket order's says nothing of it. */
async function readDetails(ctx: Context, o: OrderRow): Promise<string[]> {
  if (o.blanketId === null) return deliveryDetails(await listDeliveries(ctx.tx, o.id, ctx))
  const blanket = await findOrder(ctx.tx, o.blanketId)
  return blanket?.shipToId === o.shipToId ? deliveryDetails(await listDeliveries(ctx.tx, o.blanketId, ctx)) : []
}

/** Of a blanket order: what was called off, and what of it is left. */
async function readBlanket({ tx, actor }: Context, o: OrderRow): Promise<OrderView['blanket']> {
  if (!o.isBlanket || o.expiresOn === null) return null
  const [lines, callOffs] = [await readBlanketLines(tx, o.id, o.currency), await listCallOffs(tx, o.id)]
  return {
    mayCall: o.ownerId === actor.id && may(actor.grants, 'order') && isCallable(o.state),
    expiresOn: o.expiresOn,
    lines: lines.map(({ kept: _, adjustments, ...l }) => ({ ...l, adjustments: [...adjustments] })),
    callOffs: callOffs.map((c) => ({ ...c, net: moneyOf(c.net, o.currency) })),
  }
}

/** What its supplier answered, in the reader's words. */
async function readAnswers({ tx, actor }: Context, o: OrderRow): Promise<OrderView['answers']> {
  const answers = await listAnswers(tx, o.id)
  if (answers.length === 0) return []
  const lines = await listOrderLines(tx, o.id)
  return answers.map((a) => {
    const waits = a.outcome === 'waits'
    const differences = waits ? answerDifferences(lines, a.lines, o.currency) : []
    return {
      ...{ id: a.id, revision: a.revision, way: a.way, by: a.byName, givenAt: a.givenAt, note: a.note },
      ...{ outcome: a.outcome, said: a.said, lines: [...a.lines] },
      differences: differences.map((d) => sayAnswered(d, waysOf(actor.locale))),
      wishes: waits ? wishesOf(lines, a.lines) : [],
    }
  })
}

/** The change of an order that is under way, with whom it waits for and why it came back. */
async function readUnderWay({ tx }: Context, orderId: string): Promise<OrderView['change']> {
  const c = await findUnderWay(tx, orderId)
  if (c === null) return null
  const remarks = c.state === 'draft' ? (await listRemarks(tx, c.id)).filter((r) => r.kind === 'reason') : []
  return {
    ...{
      id: c.id,
      state: c.state,
      shipToId: c.shipToId,
      expiresOn: c.expiresOn,
      adjustments: c.adjustments,
      rest: c.rest,
      reason: c.reason,
      note: c.note,
    },
    lines: [...c.lines],
    waits: (await listOpenActors(tx, c.id)).map((p) => p.name),
    said: remarks.slice(-1).map((r) => ({ by: r.name, text: r.text })),
  }
}

/** The PDF of a sent state; 409 while it is being made. */
export async function readOrderPdf(
  ctx: Context,
  id: string,
  revision: number | undefined,
): Promise<{ bytes: Buffer; name: string; mime: string }> {
  const o = await requireWholeOrder(ctx, id)
  const wanted = (await listRevisions(ctx.tx, id)).find((v) => v.revision === (revision ?? o.revision))
  if (wanted === undefined) throw notFound('This revision')
  const kept = wanted.pdfHash === null ? null : await findFile(ctx.tx, wanted.pdfHash)
  if (kept === null) throw new Problem(409, 'being-made', 'The PDF is being made; look again in a moment.')
  return {
    bytes: kept.bytes,
    mime: kept.mime,
    name: `${sentName({ number: o.number ?? 'order', revision: wanted.revision })}.pdf`,
  }
}

/** A sent state as UBL, as it lies in its PDF. */
export async function readOrderUbl(
  ctx: Context,
  id: string,
  revision: number | undefined,
): Promise<{ bytes: Buffer; name: string; mime: string }> {
  const o = await requireWholeOrder(ctx, id)
  const wanted = (await listSent(ctx.tx, id)).find((v) => v.revision === (revision ?? o.revision))
  if (wanted === undefined) throw notFound('This revision')
  const { name, mime, text } = ublOf(wanted.snapshot)
  return { bytes: Buffer.from(text, 'utf8'), name, mime }
}

/** An order with all that others wrote for it: 403 where it serves requests that the actor does not see. */
async function requireWholeOrder(ctx: Context, id: string): Promise<OrderRow> {
  const o = await requireVisibleOrder(ctx, id)
  if (!(await seesAllOf(ctx.tx, o.blanketId ?? id, ctx)))
    throw forbidden(`This order also serves others, and its PDF shows what they wrote; ask ${o.buyer} for it.`)
  return o
}
