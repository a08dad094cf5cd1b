import { sql } from 'drizzle-orm'
import type { BudgetStage } from '#core/budget/ledger'
import type { DecimalText } from '#core/base/decimal'
import type { Tx } from '../db/client'
import { UTC } from '../db/moments'
import { named, read, sure } from '../db/read'
import { approvalSeat } from '../db/schema/approval'
import { orderLine, orderLineSource, orderRevision, orderSending, trayPart } from '../db/schema/order'
import { requisitionCoding, requisitionLine } from '../db/schema/requisition'
import { requisitions } from '../requisition/visible'
import { orders } from '../order/visible'
import { lastSendingOf } from '../order/sending-reads'
import { person } from '../db/schema/people'
import { budgetEntry } from '../db/schema/budget'

const ol2 = named(orderLine, 'ol2')
const x2 = named(orderLineSource, 'x2')
const l2 = named(requisitionLine, 'l2')
const l = named(requisitionLine, 'l')
const x = named(orderLineSource, 'x')
const ol = named(orderLine, 'ol')
const v = named(orderRevision, 'v')
const g = named(orderSending, 'g')
const r2 = requisitions('r2')
const o = orders('o')
const p = named(person, 'p')
const e = named(budgetEntry, 'e')
const c = named(requisitionCoding, 'c')
const a = named(approvalSeat, 'a')
const t = named(trayPart, 't')

export interface LinkedOrder {
  id: string
  number: string
  supplier: string
  state: string
  issuedAt: string
  net: DecimalText
  currency: string
  lineIds: string[]
  lines: { net: DecimalText; borne: DecimalText; sources: { requisitionId: string; quantity: DecimalText }[] }[]
  pdf: boolean
  channel: string | null
  sentAt: string | null
  others: string[]
  /** The rule that made it by itself. */
  rule: string | null
  /** The number under which it was placed elsewhere; and whether it goes to its supplier. */
  placedAs: string | null
  isSent: boolean
}

/** Issued orders that serve a requisition. */
export function listLinkedOrders(tx: Tx, requisitionId: string): Promise<LinkedOrder[]> {
  return read(
    tx,
    {
      id: o.id,
      number: sure(o.number),
      supplier: o.title,
      state: o.state,
      issuedAt: UTC(o.sentAt),
      net: sure(o.net),
      currency: o.currency,
      lineIds: sql<LinkedOrder['lineIds']>`array_agg(distinct ${l.id})`,
      lines: sql<LinkedOrder['lines']>`(
        select json_agg(json_build_object('net', trim_scale(${ol2.net})::text,
          'borne', trim_scale(${ol2.borne})::text, 'sources', (
          select json_agg(json_build_object('requisitionId', ${l2.requisitionId}, 'quantity',
            trim_scale(${x2.quantity})::text) order by ${l2.id})
          from ${x2} join ${l2} on ${l2.id} = ${x2.requisitionLineId} where ${x2.orderLineId} = ${ol2.id})))
        from ${ol2} where ${ol2.orderId} = ${o.id})`,
      pdf: sql<LinkedOrder['pdf']>`${v.pdfHash} is not null`,
      channel: g.channel,
      sentAt: UTC(g.sentAt),
      others: sql<LinkedOrder['others']>`coalesce((select array_agg(distinct ${r2.number})
        from ${ol2} join ${x2} on ${x2.orderLineId} = ${ol2.id}
          join ${l2} on ${l2.id} = ${x2.requisitionLineId}
            join ${r2} on ${r2.id} = ${l2.requisitionId}
        where ${ol2.orderId} = ${o.id} and ${r2.id} <> ${requisitionId}), '{}')`,
      ...{ rule: o.rule, placedAs: o.placedAs, isSent: o.isSent },
    },
    sql`from ${l} join ${x} on ${x.requisitionLineId} = ${l.id}
      join ${ol} on ${ol.id} = ${x.orderLineId} join ${o} on ${o.id} = ${ol.orderId}
      left join ${v} on ${v.orderId} = ${o.id} and ${v.revision} = ${o.revision}
      left join ${g} on ${g.id} = ${lastSendingOf(v)}
    where ${l.requisitionId} = ${requisitionId} and ${o.sentAt} is not null
    group by ${o.id}, ${o.number}, ${o.title}, ${o.state}, ${o.sentAt}, ${o.net}, ${o.currency}, ${v.pdfHash},
    ${g.channel}, ${g.sentAt}, ${o.rule}, ${o.placedAs}, ${o.isSent}
    order by ${o.sentAt}`,
  )
}

/** Orders that are decided on, or approved and not issued, on which something of a requisition lies; and by whom. */
export function listOrdersDecided(tx: Tx, requisitionId: string): Promise<{ state: string; waits: string[] }[]> {
  return read(
    tx,
    {
      state: o.state,
      waits: sql<string[]>`array(select distinct ${p.name} from ${a} join ${p} on ${p.id} = ${a.actorId}
        where ${a.documentId} = ${o.id} and ${a.state} = 'open' order by 1)`,
    },
    sql`from ${o} where ${o.number} is null and ${o.state} in ('in approval', 'approved') and ${o.id} in (
      select ${t.orderId} from ${t} join ${l} on ${l.id} = ${t.requisitionLineId}
      where ${l.requisitionId} = ${requisitionId}) order by ${o.createdAt}`,
  )
}

/** The buyers of the issued orders that serve a requisition. */
export function listOrderBuyers(tx: Tx, requisitionId: string): Promise<{ id: string; name: string }[]> {
  return read(
    tx,
    { id: p.id, name: p.name },
    sql`from ${l} join ${x} on ${x.requisitionLineId} = ${l.id}
      join ${ol} on ${ol.id} = ${x.orderLineId}
      join ${o} on ${o.id} = ${ol.orderId} join ${p} on ${p.id} = ${o.ownerId}
    where ${l.requisitionId} = ${requisitionId} and ${o.sentAt} is not null order by ${p.name}`,
    { distinct: true },
  )
}

/**
 * Every entry that moved money for a requisition. Of an order that serves several, those of its own codings: an order
 * line's entries count its sources' codings through, in the order in which the sources were laid on it.
 */
export function listMovedMoney(tx: Tx, requisitionId: string): Promise<{ stage: BudgetStage; amount: DecimalText }[]> {
  const ofOrders = sql`array(select ${x.orderLineId} from ${x} join ${l} on ${l.id} = ${x.requisitionLineId}
    where ${l.requisitionId} = ${requisitionId})`
  const codings = sql`(select count(*) from ${c} where ${c.lineId} = ${l2.id})`
  const source = sql`(
    select ${x2.orderLineId} as of_line, ${l2.requisitionId} as served, ${codings} as parts,
      sum(${codings}) over (partition by ${x2.orderLineId}
        order by ${r2.sentAt}::date, ${r2.number}, ${l2.position}) as upto
    from ${x2} join ${l2} on ${l2.id} = ${x2.requisitionLineId} join ${r2} on ${r2.id} = ${l2.requisitionId}
    where ${x2.orderLineId} = any(${ofOrders}))`
  return read(
    tx,
    { stage: e.stage, amount: e.amount },
    sql`from ${e} where ${e.documentId} = ${requisitionId}
    union all
    select ${e.stage}, ${e.amount} from ${source} s join ${e} on ${e.lineId} = s.of_line
    where s.served = ${requisitionId} and ${e.documentKind} = 'order'
      and ${e.codingAt} >= s.upto - s.parts and ${e.codingAt} < s.upto`,
  )
}
