import { sql } from 'drizzle-orm'
import type { DecimalText } from '#core/base/decimal'
import type { Tx } from '../db/client'
import { UTC } from '../db/moments'
import { rows } from '../db/rows'
import { REQUISITIONS } from '../requisition/visible'
import { ORDERS } from './visible'

export interface LinkedOrder {
  id: string
  number: string
  supplier: string
  issuedAt: string
  net: DecimalText
  currency: string
  lineIds: string[]
  pdf: boolean
  channel: string | null
  sentAt: string | null
  others: string[]
}

/** Issued orders that serve a requisition. */
export function listLinkedOrders(tx: Tx, requisitionId: string): Promise<LinkedOrder[]> {
  return rows<LinkedOrder>(
    tx,
    sql`
    select o.id, o.number, o.title as supplier, ${UTC('o.sent_at')} as "issuedAt", o.net, o.currency,
      array_agg(distinct l.id) as "lineIds", v.pdf_hash is not null as pdf, g.channel, ${UTC('g.sent_at')} as "sentAt",
      coalesce((select array_agg(distinct r2.number)
        from order_line ol2 join order_line_source x2 on x2.order_line_id = ol2.id
          join requisition_line l2 on l2.id = x2.requisition_line_id
            join ${REQUISITIONS} r2 on r2.id = l2.requisition_id
        where ol2.order_id = o.id and r2.id <> ${requisitionId}), '{}') as others
    from requisition_line l join order_line_source x on x.requisition_line_id = l.id
      join order_line ol on ol.id = x.order_line_id join ${ORDERS} o on o.id = ol.order_id
      left join order_revision v on v.order_id = o.id and v.revision = o.revision
      left join order_sending g on g.order_id = v.order_id and g.revision = v.revision
    where l.requisition_id = ${requisitionId} and o.sent_at is not null
    group by o.id, o.number, o.title, o.sent_at, o.net, o.currency, v.pdf_hash, g.channel, g.sent_at
    order by o.sent_at`,
  )
}

/** The buyers of the issued orders that serve a requisition. */
export function listOrderBuyers(tx: Tx, requisitionId: string): Promise<{ id: string; name: string }[]> {
  return rows(
    tx,
    sql`
    select distinct p.id, p.name from requisition_line l join order_line_source x on x.requisition_line_id = l.id
      join order_line ol on ol.id = x.order_line_id
      join ${ORDERS} o on o.id = ol.order_id join person p on p.id = o.owner_id
    where l.requisition_id = ${requisitionId} and o.sent_at is not null order by p.name`,
  )
}

/** What stands for a requisition in each stage, its share of orders included. */
export async function readMoney(
  tx: Tx,
  requisitionId: string,
): Promise<{ stage: 'reserved' | 'committed' | 'spent'; amount: DecimalText }[]> {
  return rows(
    tx,
    sql`
    select e.stage, sum(e.amount)::text as amount from budget_entry e
    where e.document_id = ${requisitionId} or (e.document_kind = 'order' and e.document_id in (
      select ol.order_id from requisition_line l join order_line_source x on x.requisition_line_id = l.id
        join order_line ol on ol.id = x.order_line_id where l.requisition_id = ${requisitionId}))
    group by e.stage having sum(e.amount) <> 0 order by e.stage`,
  )
}
