import { sql } from 'drizzle-orm'
import { isId } from '#core/base/id'
import { moneyOf, add } from '#core/base/money'
import { may } from '#core/people/rights'
import { type OrderHead, type OrderView } from '#shared/contract/order'
import { sayTerms } from '#shared/words/terms'
import { type Context } from '../context'
import { rows } from '../db/rows'
import { findFile } from '../files/store'
import { notFound, Problem } from '../http/problem'
import { maySee } from '../requisition/visible'
import { keptAdjustments, moreOf } from './more-of-line'
import {
  findOrder,
  findSnapshot,
  listInternalNotes,
  listOrderLines,
  listRevisions,
  listServed,
  type OrderRow,
} from './reads'

/** Locks nothing; 404 unless the actor sees orders, or a requisition that this one serves. */
async function requireVisibleOrder({ tx, actor }: Context, id: string): Promise<OrderRow> {
  const order = await findOrder(tx, id)
  if (order === null || order.number === null) throw notFound('This order')
  if (may(actor.grants, 'see orders')) return order
  for (const served of await listServed(tx, id)) if (await maySee(tx, actor, served)) return order
  throw notFound('This order')
}

/** An issued order with what each line serves and what became of every sent state. */
export async function readOrder(ctx: Context, id: string): Promise<OrderView> {
  const o = await requireVisibleOrder(ctx, id)
  const net = moneyOf(o.net ?? '0', o.currency)
  const tax = moneyOf(o.tax ?? '0', o.currency)
  return {
    id,
    number: o.number ?? '',
    version: o.version,
    state: o.state,
    supplier: o.supplier,
    supplierEmail: o.supplierEmail,
    buyer: o.buyer,
    shipTo: o.shipTo,
    shipToAddress: o.shipToAddress,
    currency: o.currency,
    terms: sayTerms({ kind: o.termsKind, days: o.termsDays }),
    net,
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
      net: moneyOf(l.net, o.currency),
      sources: l.sources,
    })),
    note: o.note,
    internalNotes: await listInternalNotes(ctx.tx, id),
    deliveryDetails: (await findSnapshot(ctx.tx, id, o.revision))?.shipTo.details.map(String) ?? [],
    revisions: (await listRevisions(ctx.tx, id)).map((v) => ({
      revision: v.revision,
      issuedAt: v.issuedAt,
      issuedBy: v.issuedBy,
      hasPdf: v.pdfHash !== null,
      mailSentAt: v.mailSentAt,
      mailError: v.mailError,
      mailTo: v.mailTo,
    })),
  }
}

/** The PDF of a sent state; 409 while it is being made. */
export async function readOrderPdf(
  ctx: Context,
  id: string,
  revision: number | undefined,
): Promise<{ bytes: Buffer; name: string; mime: string }> {
  const o = await requireVisibleOrder(ctx, id)
  const wanted = (await listRevisions(ctx.tx, id)).find((v) => v.revision === (revision ?? o.revision))
  if (wanted === undefined) throw notFound('This revision')
  const kept = wanted.pdfHash === null ? null : await findFile(ctx.tx, wanted.pdfHash)
  if (kept === null) throw new Problem(409, 'being-made', 'The PDF is being made; look again in a moment.')
  return {
    bytes: kept.bytes,
    mime: kept.mime,
    name: `${o.number ?? 'order'}${wanted.revision === 0 ? '' : `-${wanted.revision}`}.pdf`,
  }
}

/** Issued orders, newest first; a page after the key of the one before. */
export async function listOrders(
  { tx }: Context,
  after: string | undefined,
  limit: number,
): Promise<{ orders: OrderHead[]; next: string | null }> {
  const [moment, id] = (after ?? '').split('_')
  const sound = moment !== undefined && id !== undefined && isId(id) && !Number.isNaN(Date.parse(moment))
  const from = sound ? sql`and (o.issued_at, o.id) < (${moment}::timestamptz, ${id}::uuid)` : sql``
  const found = await rows<OrderHead & { key: string }>(
    tx,
    sql`
    select o.id, o.number, o.state, s.name as supplier, b.name as buyer, o.currency, o.net::text as net,
      to_char(o.issued_at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS"Z"') as "issuedAt", m.sent_at is not null as mailed,
      to_char(o.issued_at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.US"Z"') || '_' || o.id as key
    from purchase_order o join supplier s on s.id = o.supplier_id join person b on b.id = o.buyer_id
      left join order_revision v on v.order_id = o.id and v.revision = o.revision left join outgoing_mail m on m.id = v.mail_id
    where o.issued_at is not null ${from} order by o.issued_at desc, o.id desc limit ${limit + 1}`,
  )
  const page = found.slice(0, limit)
  return { orders: page.map(({ key: _, ...o }) => o), next: found.length > limit ? (page.at(-1)?.key ?? null) : null }
}
