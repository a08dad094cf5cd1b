import { sql, type SQL, type SQLWrapper } from 'drizzle-orm'
import type { MessageAdjustment } from '#core/order/message'
import type { Tx } from '../db/client'
import { UTC } from '../db/moments'
import type { OrderSnapshot } from './snapshot'
import { named, read, readOne, sure } from '../db/read'
import { orderLine, orderLineSource, orderRevision, orderSending, purchaseOrder } from '../db/schema/order'
import { supplier } from '../db/schema/supplier'
import { attachment } from '../db/schema/document'
import { requisitionLine } from '../db/schema/requisition'
import { person } from '../db/schema/people'

const o = named(purchaseOrder, 'o')
const s = named(supplier, 's')
const g = named(orderSending, 'g')
const e = named(orderSending, 'e')
const v = named(orderRevision, 'v')
const a = named(attachment, 'a')
const ol = named(orderLine, 'ol')
const x = named(orderLineSource, 'x')
const q = named(requisitionLine, 'q')
const p = named(person, 'p')

const unfiled = (orderId: string, revision: number) => sql`from ${orderRevision}
  where ${orderRevision.orderId} = ${orderId} and ${orderRevision.revision} = ${revision}
  and ${orderRevision.pdfHash} is null`

/** A revision whose PDF is still to be made; null when it was made. */
export function findUnfiledRevision(
  tx: Tx,
  orderId: string,
  revision: number,
): Promise<{ snapshot: OrderSnapshot } | null> {
  return readOne(tx, { snapshot: sql<OrderSnapshot>`${orderRevision.snapshot}` }, unfiled(orderId, revision))
}

/** Locks a revision whose PDF is still to be kept; false when it is kept or another server has it. */
export async function lockUnfiledRevision(tx: Tx, orderId: string, revision: number): Promise<boolean> {
  const locked = sql`${unfiled(orderId, revision)} for update skip locked`
  return (await readOne(tx, { orderId: orderRevision.orderId }, locked)) !== null
}

/** What is taken off an issued order, or put on it, as it was sent last. */
export async function findSentAdjustments(tx: Tx, orderId: string): Promise<readonly MessageAdjustment[]> {
  const sent = await readOne(
    tx,
    { adjustments: sql<readonly MessageAdjustment[] | null>`${v.snapshot} -> 'adjustments'` },
    sql`from ${v} where ${v.orderId} = ${orderId} order by ${v.revision} desc limit 1`,
  )
  return sent?.adjustments ?? []
}

/** How the supplier of an order is reached. */
export async function findReach(tx: Tx, orderId: string): Promise<{ channel: string; email: string | null }> {
  const found = await readOne(
    tx,
    { channel: s.channel, email: s.email },
    sql`from ${o} join ${s} on ${s.id} = ${o.supplierId}
      where ${o.id} = ${orderId}`,
  )
  return found ?? { channel: 'e-mail', email: null }
}

export interface WaitingSending {
  id: string
  orderId: string
  channel: string
  address: string
  reference: string
  pdfHash: string
  snapshot: OrderSnapshot
}

/** Locks a sending that is still to be handed over; null when it was, or another server has it. */
export function lockWaitingSending(tx: Tx, id: string): Promise<WaitingSending | null> {
  return readOne(
    tx,
    {
      id: g.id,
      orderId: g.orderId,
      channel: g.channel,
      address: g.address,
      reference: g.reference,
      pdfHash: sure(v.pdfHash),
      snapshot: sql<OrderSnapshot>`${v.snapshot}`,
    },
    sql`from ${g} join ${v} on ${v.orderId} = ${g.orderId} and ${v.revision} = ${g.revision}
    where ${g.id} = ${id} and ${g.outcome} = 'waiting' for update of g skip locked`,
  )
}

/** Sendings that wait: a task may have been lost with its server. */
export async function listWaitingSendings(tx: Tx, limit: number): Promise<string[]> {
  const found = await read(
    tx,
    { id: orderSending.id },
    sql`from ${orderSending} where ${orderSending.outcome} = 'waiting' order by ${orderSending.laidAt} limit ${limit}`,
  )
  return found.map((s) => s.id)
}

/** Attachments that the supplier is to have with an order: those so marked on the requisitions it serves. */
export function listSupplierFiles(tx: Tx, orderId: string): Promise<{ hash: string; name: string }[]> {
  return read(
    tx,
    { hash: a.fileHash, name: sql<string>`min(${a.name})` },
    sql`from ${a} where ${a.forSupplier} and ${a.documentId} in (
      select ${q.requisitionId} from ${ol} join ${x} on ${x.orderLineId} = ${ol.id}
        join ${q} on ${q.id} = ${x.requisitionLineId} where ${ol.orderId} = ${orderId})
    group by ${a.fileHash} order by 2`,
  )
}

/** The id of the last sending of a sent state. */
export const lastSendingOf = (of: { readonly orderId: SQLWrapper; readonly revision: SQLWrapper }): SQL =>
  sql`(select ${e.id} from ${e} where ${e.orderId} = ${of.orderId} and ${e.revision} = ${of.revision}
    order by ${e.laidAt} desc, ${e.id} limit 1)`

export interface RevisionRow {
  revision: number
  issuedAt: string
  issuedBy: string
  pdfHash: string | null
  channel: string | null
  address: string | null
  sentAt: string | null
  lastError: string | null
  /** Its last sending is not handed over yet, and is still tried. */
  isWaiting: boolean
  /** How often it was laid out. */
  sendings: number
}

/** The sent states of an order, newest first, with how far each came over its channel. */
export function listRevisions(tx: Tx, orderId: string): Promise<RevisionRow[]> {
  return read(
    tx,
    {
      revision: v.revision,
      issuedAt: UTC(v.issuedAt),
      issuedBy: p.name,
      pdfHash: v.pdfHash,
      channel: g.channel,
      address: g.address,
      sentAt: UTC(g.sentAt),
      lastError: g.lastError,
      isWaiting: sql<boolean>`coalesce(${g.outcome} = 'waiting', false)`,
      sendings: sql<number>`(select count(*) from ${e} where ${e.orderId} = ${v.orderId}
        and ${e.revision} = ${v.revision})::int`,
    },
    sql`from ${v} join ${p} on ${p.id} = ${v.issuedById} left join ${g} on ${g.id} = ${lastSendingOf(v)}
    where ${v.orderId} = ${orderId} order by ${v.revision} desc`,
  )
}
