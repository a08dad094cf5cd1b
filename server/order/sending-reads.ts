import { sql } from 'drizzle-orm'
import type { Tx } from '../db/client'
import { UTC } from '../db/moments'
import { row, rows } from '../db/rows'
import type { OrderSnapshot } from './snapshot'

/** Locks a revision whose PDF is still to be made; null when it was made or another server has it. */
export function lockUnfiledRevision(
  tx: Tx,
  orderId: string,
  revision: number,
): Promise<{ snapshot: OrderSnapshot } | null> {
  return row<{ snapshot: OrderSnapshot }>(
    tx,
    sql`
    select snapshot from order_revision
    where order_id = ${orderId} and revision = ${revision} and pdf_hash is null for update skip locked`,
  )
}

/** How the supplier of an order is reached. */
export async function findReach(tx: Tx, orderId: string): Promise<{ channel: string; email: string | null }> {
  const found = await row<{ channel: string; email: string | null }>(
    tx,
    sql`select s.channel, s.email from purchase_order o join supplier s on s.id = o.supplier_id
      where o.id = ${orderId}`,
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
  return row<WaitingSending>(
    tx,
    sql`
    select s.id, s.order_id as "orderId", s.channel, s.address, s.reference, v.pdf_hash as "pdfHash", v.snapshot
    from order_sending s join order_revision v on v.order_id = s.order_id and v.revision = s.revision
    where s.id = ${id} and s.outcome = 'waiting' for update of s skip locked`,
  )
}

/** Sendings that wait: a task may have been lost with its server. */
export async function listWaitingSendings(tx: Tx, limit: number): Promise<string[]> {
  const found = await rows<{ id: string }>(
    tx,
    sql`select id from order_sending where outcome = 'waiting' order by laid_at limit ${limit}`,
  )
  return found.map((s) => s.id)
}

/** Attachments that the supplier is to have with an order: those so marked on the requisitions it serves. */
export function listSupplierFiles(tx: Tx, orderId: string): Promise<{ hash: string; name: string }[]> {
  return rows(
    tx,
    sql`
    select a.file_hash as hash, min(a.name) as name from attachment a where a.for_supplier and a.document_id in (
      select q.requisition_id from order_line ol join order_line_source x on x.order_line_id = ol.id
        join requisition_line q on q.id = x.requisition_line_id where ol.order_id = ${orderId})
    group by a.file_hash order by 2`,
  )
}

export interface RevisionRow {
  revision: number
  issuedAt: string
  issuedBy: string
  pdfHash: string | null
  channel: string | null
  address: string | null
  sentAt: string | null
  lastError: string | null
}

/** The sent states of an order, newest first, with how far each came over its channel. */
export function listRevisions(tx: Tx, orderId: string): Promise<RevisionRow[]> {
  return rows<RevisionRow>(
    tx,
    sql`
    select v.revision, ${UTC('v.issued_at')} as "issuedAt", p.name as "issuedBy", v.pdf_hash as "pdfHash",
      s.channel, s.address, ${UTC('s.sent_at')} as "sentAt", s.last_error as "lastError"
    from order_revision v join person p on p.id = v.issued_by_id
      left join order_sending s on s.order_id = v.order_id and s.revision = v.revision
    where v.order_id = ${orderId} order by v.revision desc`,
  )
}
