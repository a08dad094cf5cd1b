import { randomUUID } from 'node:crypto'
import { fiscalPeriod } from '#core/base/day'
import type { TaxKey } from '#core/base/document-sums'
import { zero } from '#core/base/money'
import { callLines, decideCallOff, type CalledLine, type CallWish } from '#core/order/call-off'
import { ofEachPart } from '#core/order/adjustment'
import { orderSums } from '#core/order/order-sums'
import type { Reply } from '#shared/contract/all-routes'
import type { callOffRoutes } from '#shared/contract/call-off'
import { sayCallReason } from '#shared/words/call-off'
import { waysOf } from '#shared/words/ways'
import { appendEvent } from '../audit/store'
import { channelNamed, CHANNELS } from '../channel/channels'
import type { Context } from '../context'
import { insertDocument, touchDocument } from '../document/store'
import { maySee } from '../document/visible'
import { invalid, notFound, refused, stale } from '../http/problem'
import { notifyChange } from '../live/notify'
import { listShipTos } from '../people/place-reads'
import { enqueue } from '../queue/enqueue'
import { requireTerms } from '../settings/reads'
import { takeNumber } from '../settings/store'
import { readBlanketLines } from './blanket-lines'
import { deliveryDetails } from './delivery-details'
import { firstSnapshot } from './first-snapshot'
import { requireOwn } from './order-to-change'
import { listDeliveries, type OrderLineRow } from './page-reads'
import { findOrder, type OrderRow } from './reads'
import { snapshotLine } from './snapshot-line'
import { insertOrder, insertOrderLines, insertRevision, setIssued } from './store'
import { tellCalledOff } from './tell-called'
import { SEEN_ORDERS } from './visible'

/** What of a blanket order is called off, and where to. */
export interface CallAsked {
  readonly lines: readonly CallWish[]
  readonly shipToId: string
  readonly note: string
}

/**
 * Calls a part of a blanket order off, with one action: an order of its own, with a number and its papers, which goes
 * to the supplier. It moves no money: the blanket order holds it. Under its lock, no more is called off than it orders.
 */
export async function callOff(
  ctx: Context,
  id: string,
  version: number,
  asked: CallAsked,
): Promise<Reply<(typeof callOffRoutes)['callOff']>> {
  const { tx, now } = ctx
  const blanket = await requireBlanket(ctx, id, version)
  const kept = await readBlanketLines(tx, id, blanket.currency)
  if (asked.lines.some((w) => kept.every((l) => l.id !== w.lineId))) throw notFound('A line of this order')
  if ((await listShipTos(tx)).every((s) => s.id !== asked.shipToId)) throw invalid('This place does not exist.')
  const terms = await requireTerms(tx, now)
  const { organisation, today } = terms
  const called = callLines(kept, asked.lines, blanket.currency)
  refuseCall(ctx, blanket, called, today)

  const category = new Map(terms.taxCodes.map((t) => [t.code, t.category]))
  const written = new Map(kept.map((l) => [l.id, l.kept]))
  const goods = called.map((l) => writeLine(l, written.get(l.of.id), category))
  const of = orderSums(goods, { freight: null, freeFrom: null }, blanket.currency, ofEachPart(blanket.adjustments))
  const { sums } = of
  const lines = goods.map((l, i) => ({ ...l, borne: of.borne[i] ?? zero(blanket.currency) }))
  const callId = randomUUID()
  await insertDocument(tx, { id: callId, kind: 'order', title: blanket.supplier, ownerId: blanket.ownerId, now })
  await insertOrder(tx, {
    ...{ id: callId, blanketId: id, supplierId: blanket.supplierId, shipToId: asked.shipToId },
    ...{ currency: blanket.currency, termsKind: blanket.termsKind, termsDays: blanket.termsDays },
    ...{ deliveryTerm: blanket.delivery?.term ?? null, deliveryPlace: blanket.delivery?.place ?? '' },
    adjustments: ofEachPart(blanket.adjustments),
  })
  await insertOrderLines(tx, callId, lines)
  const order = await findOrder(tx, callId)
  if (order === null || blanket.perBase === null) throw new Error('a call-off was not kept')
  const details = asked.shipToId === blanket.shipToId ? deliveryDetails(await listDeliveries(tx, id, ctx)) : []
  const note = asked.note.trim()
  await appendEvent(ctx, {
    type: 'issued',
    subjectKind: 'order',
    subjectId: callId,
    after: { supplier: blanket.supplier, net: sums.net, lines: lines.length, calledFrom: blanket.number },
  })
  await enqueue(tx, 'file-order', { orderId: callId, revision: 0 })
  await touchDocument(tx, id, now)
  await notifyChange(tx, { kind: 'order', id })
  await notifyChange(tx, { kind: 'order', id: callId })
  const { year } = fiscalPeriod(today, organisation.fiscalStartMonth)
  const number = await takeNumber(tx, 'P', year)
  const { perBase } = blanket
  await setIssued(tx, callId, { number, perBase, net: sums.net, freight: of.freight, tax: sums.tax, note, now })
  await appendEvent(ctx, {
    type: 'called off',
    subjectKind: 'order',
    subjectId: id,
    after: { callOffId: callId, number, net: sums.net },
  })
  await tellCalledOff(ctx, blanket, { id: callId, number, net: sums.net })
  await insertRevision(tx, {
    ...{ orderId: callId, revision: 0, issuedById: ctx.actor.id, issuedAt: now },
    snapshot: firstSnapshot(order, {
      ...{ number, today, organisation, details, note, of },
      lines: lines.map((l) => snapshotLine(l, blanket.currency)),
    }),
  })
  return { id: callId, number, net: sums.net }
}

/** A blanket order that is the actor's own, locked, at the version they saw. */
async function requireBlanket(ctx: Context, id: string, version: number): Promise<OrderRow> {
  const order = await findOrder(ctx.tx, id, true)
  if (order === null || !(await maySee(ctx, SEEN_ORDERS, id))) throw notFound('This order')
  requireOwn(ctx, order)
  if (!order.isBlanket) throw refused(['This is no blanket order: nothing is called off of it.'], {}, 'no-blanket')
  if (version !== order.version) throw stale('the order was changed in another window')
  return order
}

function refuseCall(ctx: Context, blanket: OrderRow, lines: readonly CalledLine[], today: string): void {
  const channel = channelNamed(blanket.supplierChannel)
  const { reasons } = decideCallOff({
    ...{ state: blanket.state, expiresOn: blanket.expiresOn, today, currency: blanket.currency, lines },
    supplier: { name: blanket.supplier, isBlocked: blanket.supplierStanding !== 'active', channel },
    isReachable: CHANNELS[channel].addressOf({ email: blanket.supplierEmail }) !== null,
  })
  const ways = waysOf(ctx.actor.locale)
  if (reasons.length > 0)
    throw refused(
      reasons.map((r) => sayCallReason(r, ways)),
      { reasons },
    )
}

/** A line of a call-off with all that its blanket order's says of it. */
function writeLine(
  line: CalledLine,
  kept: OrderLineRow | undefined,
  category: ReadonlyMap<string, TaxKey['category']>,
) {
  if (kept === undefined) throw new Error('a call-off is of no line of its blanket order')
  const { itemId, description, secondDescription, unit, taxCode, taxRate, supplierPart } = kept
  const { quantity, unitPrice, priceBase, adjustments, needBy, net } = line
  return {
    ...{ blanketLineId: kept.id, itemId, description, secondDescription, unit, taxCode, taxRate, supplierPart },
    ...{ quantity, unitPrice, priceBase, adjustments, needBy, net, sources: [] },
    notes: kept.note === '' ? [] : [kept.note],
    tax: { category: category.get(taxCode) ?? 'S', rate: taxRate },
  }
}
