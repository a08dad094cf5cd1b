import { sql, type SQL } from 'drizzle-orm'
import type { DecimalText } from '#core/base/decimal'
import type { OrderAdjustment } from '#core/order/adjustment'
import type { LineWish, Rest } from '#core/order/change'
import type { ChangeState } from '#core/order/change-moves'
import type { Tx } from '../db/client'
import { UTC } from '../db/moments'
import { isThere, named, read, readOne, sure, under } from '../db/read'
import { document } from '../db/schema/document'
import { orderChange, orderLine, orderLineSource, orderRevision } from '../db/schema/order'
import { person } from '../db/schema/people'
import { requisitionLine } from '../db/schema/requisition'
import { isInvolved } from '../approval/involved-reads'
import type { DocumentHead, SeenRows } from '../document/kind'
import { lockDocument } from '../document/store'
import { whatAsks } from '../requisition/visible'
import { lineColumns, type WrittenLine } from './page-reads'
import { directFor, type DirectFor } from './reads'
import type { OrderSnapshot } from './snapshot'
import { orders, SEEN_ORDERS } from './visible'

/** Changes of orders with what their documents hold, under a short name. */
const changes = (name: string) => under(name, sql`(${document} join ${orderChange} using (id))`, document, orderChange)

const c = changes('c')
const o = orders('o')
const b = named(person, 'b')
const l = named(orderLine, 'l')
const x = named(orderLineSource, 'x')
const q = named(requisitionLine, 'q')
const r = whatAsks('r')
const v = named(orderRevision, 'v')
const w = named(person, 'w')

/** Who sees a change: whoever sees the order, whoever decides on it, and whoever was asked about it. */
export const SEEN_CHANGES: SeenRows = {
  row: c,
  visibleTo: (actor) =>
    sql`(${isThere(sql`from ${o} where ${o.id} = ${c.orderId} and ${SEEN_ORDERS.visibleTo(actor)}`)}
      or ${isInvolved(c.id, actor.id)})`,
}

/** A change of an order; its owner is the order's buyer. */
export interface ChangeRow extends DocumentHead {
  kind: 'order change'
  state: ChangeState
  orderId: string
  buyerDepartmentId: string
  directFor: DirectFor | null
  lines: readonly LineWish[]
  shipToId: string | null
  expiresOn: string | null
  adjustments: readonly OrderAdjustment[] | null
  rest: Rest
  reason: string
  note: string
  isUnderWay: boolean
  revision: number | null
}

const CHANGE = {
  id: c.id,
  kind: sql<'order change'>`${c.kind}`,
  number: c.number,
  title: c.title,
  version: c.version,
  state: sql<ChangeState>`${c.state}`,
  ownerId: c.ownerId,
  ownedBy: c.ownedBy,
  orderId: c.orderId,
  buyerDepartmentId: b.departmentId,
  directFor: directFor(c.orderId),
  lines: c.lines,
  ...{ shipToId: c.shipToId, expiresOn: c.expiresOn, adjustments: c.adjustments },
  rest: c.rest,
  reason: c.reason,
  note: c.note,
  isUnderWay: c.isUnderWay,
  revision: c.revision,
}
const oneOf = (tx: Tx, where: SQL): Promise<ChangeRow | null> =>
  readOne(tx, CHANGE, sql`from ${c} join ${b} on ${b.id} = ${c.ownerId} where ${where}`)

/** A change of an order; `lock` takes its row. */
export async function findChange(tx: Tx, id: string, lock = false): Promise<ChangeRow | null> {
  if (lock) await lockDocument(tx, id)
  return oneOf(tx, sql`${c.id} = ${id}`)
}

/** The change of an order that is under way; null where none is. */
export const findUnderWay = (tx: Tx, orderId: string): Promise<ChangeRow | null> =>
  oneOf(tx, sql`${c.orderId} = ${orderId} and ${c.isUnderWay}`)

/** The changes of an order that are in force, the last first. */
export const listInForce = (tx: Tx, orderId: string): Promise<{ id: string; revision: number; reason: string }[]> =>
  read(
    tx,
    { id: c.id, revision: sure(c.revision), reason: c.reason },
    sql`from ${c} where ${c.orderId} = ${orderId} and ${c.revision} is not null order by ${c.revision} desc`,
  )

export interface StandingRow extends WrittenLine {
  net: DecimalText
  borne: DecimalText
  sources: { requisitionLineId: string; requisitionId: string; quantity: DecimalText }[]
}

/**
 * The lines of an issued order with what belongs to which requisition line: in the order of the requisitions, in which
 * they were laid on it and in which the ledger counts their codings.
 */
export const listStanding = (tx: Tx, orderId: string): Promise<StandingRow[]> =>
  read(
    tx,
    {
      ...lineColumns(l),
      ...{ net: l.net, borne: l.borne },
      sources: sql<StandingRow['sources']>`(select coalesce(json_agg(json_build_object('requisitionLineId', ${q.id},
          'requisitionId', ${r.id}, 'quantity', trim_scale(${x.quantity})::text)
          order by ${r.sentAt}::date, ${r.number}, ${q.position}), '[]')
        from ${x} join ${q} on ${q.id} = ${x.requisitionLineId} join ${r} on ${r.id} = ${q.requisitionId}
        where ${x.orderLineId} = ${l.id})`,
    },
    sql`from ${l} where ${l.orderId} = ${orderId} order by ${l.position}`,
  )

export interface SentRow {
  revision: number
  issuedAt: string
  issuedBy: string
  snapshot: OrderSnapshot
}

/** The sent states of an order as they were, the first first. */
export const listSent = (tx: Tx, orderId: string): Promise<SentRow[]> =>
  read(
    tx,
    {
      revision: v.revision,
      issuedAt: UTC(v.issuedAt),
      issuedBy: w.name,
      snapshot: sql<OrderSnapshot>`${v.snapshot}`,
    },
    sql`from ${v} join ${w} on ${w.id} = ${v.issuedById} where ${v.orderId} = ${orderId} order by ${v.revision}`,
  )
