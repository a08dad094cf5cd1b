import { sql, type Column, type SQL } from 'drizzle-orm'
import type { DecimalText } from '#core/base/decimal'
import type { OrderConditions } from '#core/order/conditions'
import type { OrderState } from '#core/order/moves'
import type { Language } from '#core/supplier/language'
import type { Tx } from '../db/client'
import type { DocumentHead } from '../document/kind'
import { lockDocument } from '../document/store'
import { UTC } from '../db/moments'
import { named, read, readOne } from '../db/read'
import { agreement } from '../db/schema/agreement'
import { supplier } from '../db/schema/supplier'
import { person, shipTo } from '../db/schema/people'
import { orders } from '../order/visible'
import { requisition, requisitionLine } from '../db/schema/requisition'
import { orderLine, orderLineSource, trayPart } from '../db/schema/order'
import type { OrderAdjustment } from '#core/order/adjustment'

const s = named(supplier, 's')
const b = named(person, 'b')
const t = named(shipTo, 't')
const o = orders('o')
const a = named(agreement, 'a')
const l = named(requisitionLine, 'l')
const q = named(requisition, 'q')
const n = named(person, 'n')
const x = named(orderLineSource, 'x')
const ol = named(orderLine, 'ol')
const w = orders('w')

/** For whom a direct order was written, and of which department it is. */
export interface DirectFor {
  readonly id: string
  readonly name: string
  readonly departmentId: string
}

/** For whom the order with an id was written, where it asks itself for what it orders. */
export const directFor = (orderId: Column): SQL<DirectFor | null> => sql`(
  select json_build_object('id', ${n.id}, 'name', ${n.name}, 'departmentId', ${q.departmentId})
  from ${q} join ${n} on ${n.id} = ${q.raisedById} where ${q.id} = ${orderId})`

/** Whose an order is to whoever decides: its buyer's; a direct one is decided on as a request of whoever it is for. */
export const whoseOrder = (of: {
  readonly ownerId: string
  readonly buyerDepartmentId: string
  readonly directFor: DirectFor | null
}): { raisedById: string; departmentId: string; ownerId?: string } =>
  of.directFor === null
    ? { raisedById: of.ownerId, departmentId: of.buyerDepartmentId }
    : { raisedById: of.ownerId, departmentId: of.directFor.departmentId, ownerId: of.directFor.id }

/** An order with its supplier and ship-to; its owner is its buyer. */
export interface OrderRow extends DocumentHead {
  kind: 'order'
  state: OrderState
  buyer: string
  /** Of a direct order, which asks for what it orders itself: for whom it was written. */
  directFor: DirectFor | null
  buyerDepartmentId: string
  issuesItself: boolean
  supplierId: string
  supplier: string
  supplierEmail: string | null
  supplierChannel: string
  supplierStanding: string
  supplierAddress: string
  supplierNumber: string
  supplierCurrency: string
  /** What the supplier asks for bringing an order, in its currency. */
  supplierFreight: DecimalText | null
  freightFreeFrom: DecimalText | null
  minimumOrder: DecimalText | null
  supplierLanguage: Language
  shipToId: string
  shipTo: string
  shipToAddress: string
  currency: string
  termsKind: 'net' | 'month-end'
  termsDays: number
  /** Its buyer said how it is paid. */
  termsSaid: boolean
  delivery: OrderConditions['delivery']
  expiresOn: string | null
  placedAs: string | null
  isSent: boolean
  isBlanket: boolean
  /** Of a call-off: the blanket order of which it is a part, and its number. */
  blanketId: string | null
  blanket: string | null
  adjustments: readonly OrderAdjustment[]
  note: string
  revision: number
  /** Units of its currency for one of the base, since it was issued. */
  perBase: DecimalText | null
  net: DecimalText | null
  freight: DecimalText
  tax: DecimalText | null
  issuedAt: string | null
  /** When its supplier was asked last for an answer. */
  remindedAt: string | null
  agreementId: string | null
  /** Its number with us, and the one with the supplier; of a call-off, of what its blanket order draws on. */
  agreement: string | null
  theirAgreement: string | null
  /** Its buyer said on which it draws: its lines do not change that. */
  agreementSaid: boolean
  /** The run that made it by itself, and the name of its rule. */
  runId: string | null
  rule: string | null
}

const ORDER = {
  id: o.id,
  kind: sql<'order'>`${o.kind}`,
  number: o.number,
  title: o.title,
  version: o.version,
  state: sql<OrderState>`${o.state}`,
  ownerId: o.ownerId,
  ownedBy: o.ownedBy,
  buyer: b.name,
  directFor: directFor(o.id),
  buyerDepartmentId: b.departmentId,
  issuesItself: o.issuesItself,
  supplierId: o.supplierId,
  supplier: s.name,
  supplierEmail: s.email,
  supplierChannel: s.channel,
  supplierStanding: s.standing,
  supplierAddress: s.address,
  supplierNumber: s.number,
  supplierCurrency: s.currency,
  supplierFreight: s.freight,
  freightFreeFrom: s.freightFreeFrom,
  minimumOrder: s.minimumOrder,
  supplierLanguage: s.language,
  shipToId: o.shipToId,
  shipTo: t.name,
  shipToAddress: sql<string>`${t.street} || ', ' || ${t.postcode} || ' ' || ${t.town} || ', '
    || ${t.country}`,
  currency: o.currency,
  termsKind: o.termsKind,
  termsDays: o.termsDays,
  termsSaid: o.termsSaid,
  delivery: sql<OrderConditions['delivery']>`case when ${o.deliveryTerm} is not null
    then json_build_object('term', ${o.deliveryTerm}, 'place', ${o.deliveryPlace}) end`,
  expiresOn: o.expiresOn,
  placedAs: o.placedAs,
  isSent: o.isSent,
  isBlanket: o.isBlanket,
  blanketId: o.blanketId,
  blanket: sql<string | null>`(select ${w.number} from ${w} where ${w.id} = ${o.blanketId})`,
  adjustments: o.adjustments,
  note: o.note,
  revision: o.revision,
  perBase: o.perBase,
  net: o.net,
  freight: o.freight,
  tax: o.tax,
  issuedAt: UTC(o.sentAt),
  remindedAt: sql<string | null>`${UTC(o.remindedAt)}`,
  agreementId: o.agreementId,
  agreement: sql<string | null>`${a.number}`,
  theirAgreement: sql<string | null>`nullif(${a.theirNumber}, '')`,
  agreementSaid: o.agreementSaid,
  runId: o.runId,
  rule: o.rule,
}
const FROM = sql`from ${o} join ${s} on ${s.id} = ${o.supplierId} join ${b} on ${b.id} = ${o.ownerId}
  join ${t} on ${t.id} = ${o.shipToId} left join ${a} on ${a.id} = coalesce(${o.agreementId},
    (select ${w.agreementId} from ${w} where ${w.id} = ${o.blanketId}))`

/** On which conditions an order is placed. */
export const conditionsOf = (order: OrderRow): OrderConditions => ({
  terms: { kind: order.termsKind, days: order.termsDays },
  ...{ delivery: order.delivery, expiresOn: order.expiresOn, placedAs: order.placedAs, isSent: order.isSent },
  ...{ isBlanket: order.isBlanket, adjustments: order.adjustments },
})

/** An order with its supplier and ship-to; `lock` takes its row. */
export async function findOrder(tx: Tx, id: string, lock = false): Promise<OrderRow | null> {
  if (lock) await lockDocument(tx, id)
  return readOne(tx, ORDER, sql`${FROM} where ${o.id} = ${id}`)
}

/** The trays of a buyer, and what of them was sent to be decided on and is not issued; oldest first. */
export function listTrays(tx: Tx, buyerId: string): Promise<OrderRow[]> {
  return read(
    tx,
    ORDER,
    sql`${FROM} where ${o.ownerId} = ${buyerId} and ${o.number} is null and ${o.state} <> 'cancelled'
      order by ${o.createdAt}, ${o.id}`,
  )
}

/** Requisitions that an order serves. */
export async function listServed(tx: Tx, orderId: string): Promise<string[]> {
  const found = await read(
    tx,
    { id: l.requisitionId },
    sql`from ${l} where ${l.id} in (
      select ${x.requisitionLineId} from ${x} join ${ol} on ${ol.id} = ${x.orderLineId}
        where ${ol.orderId} = ${orderId}
      union select ${trayPart.requisitionLineId} from ${trayPart} where ${trayPart.orderId} = ${orderId}) order by 1`,
    { distinct: true },
  )
  return found.map((f) => f.id)
}

/** The order of a supplier that was placed elsewhere under a number, as it is compared; null where none was. */
export const findPlacedAs = (
  tx: Tx,
  supplierId: string,
  placedKey: string,
  besidesId: string,
): Promise<{ id: string; number: string | null } | null> =>
  readOne(
    tx,
    { id: o.id, number: o.number },
    sql`from ${o} where ${o.placedKey} = ${placedKey} and ${o.supplierId} = ${supplierId} and ${o.id} <> ${besidesId}`,
  )
