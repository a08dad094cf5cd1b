import { sql, type SQL } from 'drizzle-orm'
import type { Day } from '#core/base/day'
import type { DecimalText } from '#core/base/decimal'
import { moneyOf } from '#core/base/money'
import { BY_AMOUNT } from '#core/base/unit'
import { OPEN_ORDER_STATES, soonDays } from '#core/order/overdue'
import type { OrderHead, OrdersAsked } from '#shared/contract/order'
import type { Tx } from '../db/client'
import { PAGE_KEY, UTC } from '../db/moments'
import { visible, type Reader } from '../document/visible'
import { SEEN_REQUISITIONS } from '../requisition/visible'
import { isAnswered, isUnanswered } from './answer-reads'
import { hasLeft } from './call-off-reads'
import { isFound } from './search-reads'
import { seesWhole, SEEN_ORDERS } from './visible'
import { isThere, named, read, readOne, sure } from '../db/read'
import { orderChange, orderLine, orderLineSource, orderSending } from '../db/schema/order'
import { requisitionLine } from '../db/schema/requisition'
import { whatAsks } from '../requisition/visible'
import { orders } from '../order/visible'
import { person } from '../db/schema/people'

const x = named(orderLineSource, 'x')
const q = named(requisitionLine, 'q')
const l = named(orderLine, 'l')
const r = whatAsks('r')
const ol = named(orderLine, 'ol')
const o = orders('o')
const g = named(orderSending, 'g')
const b = named(person, 'b')
const w = orders('w')
const h = named(orderChange, 'h')

/** What is written of a line of an order, whatever became of it. */
export interface WrittenLine {
  id: string
  itemId: string | null
  description: string
  secondDescription: string
  note: string
  discountPercent: DecimalText | null
  discountAmount: DecimalText | null
  quantity: DecimalText
  unit: string
  unitPrice: DecimalText
  priceBase: DecimalText
  taxCode: string
  taxRate: DecimalText
  needBy: string
  /** Of a call-off: the line of its blanket order of which it is a part. */
  blanketLineId: string | null
}

/** The columns of what is written of a line, under the name by which a statement calls it. */
export const lineColumns = (of: typeof l) => ({
  id: of.id,
  itemId: of.itemId,
  description: of.description,
  secondDescription: of.secondDescription,
  note: of.note,
  discountPercent: of.discountPercent,
  discountAmount: of.discountAmount,
  quantity: of.quantity,
  unit: of.unit,
  unitPrice: of.unitPrice,
  priceBase: of.priceBase,
  taxCode: of.taxCode,
  taxRate: of.taxRate,
  needBy: of.needBy,
  blanketLineId: of.blanketLineId,
})

export interface OrderLineRow extends WrittenLine {
  position: number
  promisedOn: string | null
  supplierPart: string | null
  net: DecimalText
  sources: { requisitionId: string; number: string; quantity: DecimalText }[]
}
export function listOrderLines(tx: Tx, orderId: string): Promise<OrderLineRow[]> {
  return read(
    tx,
    {
      ...lineColumns(l),
      position: l.position,
      promisedOn: l.promisedOn,
      supplierPart: l.supplierPart,
      net: l.net,
      sources: sql<
        OrderLineRow['sources']
      >`(select coalesce(json_agg(json_build_object('requisitionId', ${r.id}, 'number', ${r.number}, 'quantity',
        trim_scale(${x.quantity})::text) order by ${r.number}), '[]')
       from ${x} join ${q} on ${q.id} = ${x.requisitionLineId}
         join ${r} on ${r.id} = ${q.requisitionId}
       where ${x.orderLineId} = ${l.id})`,
    },
    sql`from ${l} where ${l.orderId} = ${orderId} order by ${l.position}`,
  )
}

/** The requisitions `r` that an order serves and a person may know of: all where they see the order whole. */
const servedTo = (orderId: string, reader: Reader): SQL => sql`
  select distinct ${q.requisitionId} as served from ${ol} join ${x} on ${x.orderLineId} = ${ol.id}
    join ${q} on ${q.id} = ${x.requisitionLineId} join ${r} on ${r.id} = ${q.requisitionId}
  where ${ol.orderId} = ${orderId}
    and (exists (select 1 from ${o} where ${o.id} = ${orderId} and ${seesWhole(reader.actor)})
      or ${visible(SEEN_REQUISITIONS, reader)})`

/**
 * What colleagues wrote for colleagues alone on the requisitions that an order serves, as far as the reader sees
 * these.
 */
export function listInternalNotes(
  tx: Tx,
  orderId: string,
  reader: Reader,
): Promise<{ number: string; note: string }[]> {
  return read(
    tx,
    { number: sure(r.number), note: r.noteInternal, place: sql<number>`0` },
    sql`from ${r}
    where ${r.id} in (select served from seen) and ${r.noteInternal} <> ''
    union all
    select ${r.number}, ${q.description} || ': ' || ${q.noteInternal}, ${q.position} + 1
    from ${ol} join ${x} on ${x.orderLineId} = ${ol.id}
      join ${q} on ${q.id} = ${x.requisitionLineId} join ${r} on ${r.id} = ${q.requisitionId}
    where ${ol.orderId} = ${orderId} and ${q.requisitionId} in (select served from seen) and ${q.noteInternal} <> ''
    order by 1, 3`,
    { before: sql`with seen as (${servedTo(orderId, reader)})` },
  )
}

export interface DeliveryRow {
  shipToDetail: string
  attention: string
  telephone: string
  instructions: string
}

/** What was asked of the delivery by the requisitions that an order serves, as far as the reader sees these. */
export function listDeliveries(tx: Tx, orderId: string, reader: Reader): Promise<DeliveryRow[]> {
  return read(
    tx,
    { shipToDetail: r.shipToDetail, attention: r.attention, telephone: r.telephone, instructions: r.instructions },
    sql`from ${r}
    where ${r.id} in (${servedTo(orderId, reader)}) order by ${r.number}`,
  )
}

/** Whether a person sees an order whole, or at least every requisition that it serves. */
export async function seesAllOf(tx: Tx, orderId: string, reader: Reader): Promise<boolean> {
  const found = await readOne(
    tx,
    {
      all: sql<boolean>`not exists (
      select 1 from ${ol} join ${x} on ${x.orderLineId} = ${ol.id}
        join ${q} on ${q.id} = ${x.requisitionLineId}
      where ${ol.orderId} = ${orderId} and ${q.requisitionId} not in (${servedTo(orderId, reader)}))`,
    },
    sql``,
  )
  return found?.all ?? false
}

/** Which orders are listed. */
export interface OrderQuery {
  readonly whose: 'all' | 'own'
  readonly sort?: OrdersAsked['sort']
  readonly state: OrdersAsked['state']
  readonly words: string
  /** Moments of issue; the last is not included. */
  readonly from: Date | null
  readonly until: Date | null
  /** The day by which it is overdue. */
  readonly today: Day
}

/** What became of the last sent state of an order `o`: whether it has left. */
const MAILED = sql<boolean>`coalesce((select ${g.outcome} = 'sent' from ${g}
        where ${g.orderId} = ${o.id} and ${g.revision} = ${o.revision} order by ${g.laidAt} limit 1), false)`
const CHANGING = sql<boolean>`exists (select 1 from ${h} where ${h.orderId} = ${o.id} and ${h.isUnderWay})`
/** That an order `o` stands and something of it is needed in some days. */
const isNeeded = (days: SQL): SQL => sql`(${o.state} = any(${sql.param([...OPEN_ORDER_STATES])})
  and not ${o.isBlanket} and ${isThere(sql`from ${l} where ${l.orderId} = ${o.id} and ${l.quantity} > 0 and ${days}`)})`
const STATES: Readonly<Record<Exclude<OrderQuery['state'], 'overdue' | 'expired' | 'due soon'>, SQL>> = {
  any: sql`true`,
  issued: sql`${o.state} in ('issued', 'acknowledged')`,
  unanswered: isUnanswered(o),
  answered: isAnswered(o),
  acknowledged: sql`${o.state} = 'acknowledged'`,
  changing: CHANGING,
  unsent: sql`(${o.isSent} and not ${MAILED})`,
  cancelled: sql`${o.state} = 'cancelled'`,
}

/** That an order `o` stands and its expiry is past. */
const isExpired = (today: Day): SQL =>
  sql`(${o.state} = any(${sql.param([...OPEN_ORDER_STATES])}) and ${o.expiresOn} < ${today}
    and (not ${o.isBlanket} or ${hasLeft(o)}))`

function isInState(state: OrderQuery['state'], today: Day): SQL {
  const { from, until } = soonDays(today)
  if (state === 'overdue') return sql`(${isNeeded(sql`${l.needBy} < ${from}`)} or ${isExpired(today)})`
  if (state === 'expired') return isExpired(today)
  if (state === 'due soon') return isNeeded(sql`${l.needBy} between ${from} and ${until}`)
  return STATES[state]
}

/** That an order `o` is of a sort; by amount is one whose every line is. */
const SORTS: Readonly<Record<NonNullable<OrdersAsked['sort']>, SQL>> = {
  blanket: sql`${o.isBlanket}`,
  'call-off': sql`${o.blanketId} is not null`,
  'by amount': sql`not ${isThere(sql`from ${l} where ${l.orderId} = ${o.id} and ${l.unit} <> ${BY_AMOUNT}`)}`,
  direct: isThere(sql`from ${r} where ${r.id} = ${o.id}`),
  'placed elsewhere': sql`${o.placedAs} is not null`,
}

/** The conditions under which an order `o` of a buyer `b` is asked for. */
function isAsked(query: OrderQuery, reader: Reader): SQL {
  const conditions = [
    isInState(query.state, query.today),
    ...(query.sort === undefined ? [] : [SORTS[query.sort]]),
    ...(query.whose === 'own' ? [sql`${o.ownerId} = ${reader.actor.id}`] : []),
    ...(query.words.trim() === '' ? [] : [isFound(query.words, o, b, reader)]),
    ...(query.from === null ? [] : [sql`${o.sentAt} >= ${query.from.toISOString()}`]),
    ...(query.until === null ? [] : [sql`${o.sentAt} < ${query.until.toISOString()}`]),
  ]
  return sql.join(conditions, sql` and `)
}

/** Issued orders that a person sees and asks for, newest first; a page after the key of the one before. */
export async function listOrderPage(
  tx: Tx,
  reader: Reader,
  query: OrderQuery,
  after: { readonly moment: string; readonly id: string } | null,
  limit: number,
): Promise<{ orders: OrderHead[]; next: string | null }> {
  const from =
    after === null ? sql`` : sql`and (${o.sentAt}, ${o.id}) < (${after.moment}::timestamptz, ${after.id}::uuid)`
  const found = await read(
    tx,
    {
      id: o.id,
      number: sure(o.number),
      state: o.state,
      supplier: o.title,
      buyer: b.name,
      currency: o.currency,
      net: sure(o.net),
      issuedAt: UTC(o.sentAt),
      mailed: MAILED,
      needBy: sql<string | null>`(select min(${l.needBy})::text from ${l}
        where ${l.orderId} = ${o.id} and ${l.quantity} > 0)`,
      ...{ expiresOn: o.expiresOn, placedAs: o.placedAs, isSent: o.isSent, isBlanket: o.isBlanket },
      isUsedUp: sql<boolean>`(${o.isBlanket} and not ${hasLeft(o)})`,
      calledFrom: sql<string | null>`(select ${w.number} from ${w} where ${w.id} = ${o.blanketId})`,
      revision: o.revision,
      isChanging: CHANGING,
      isAnswered: isAnswered(o),
      remindedAt: sql<string | null>`${UTC(o.remindedAt)}`,
      key: PAGE_KEY(o.sentAt, o.id),
    },
    sql`from ${o} join ${b} on ${b.id} = ${o.ownerId}
    where ${o.kind} = 'order' and ${o.sentAt} is not null and ${visible(SEEN_ORDERS, reader)}
      and ${isAsked(query, reader)} ${from}
    order by ${o.sentAt} desc, ${o.id} desc limit ${limit + 1}`,
  )
  const page = found.slice(0, limit)
  return {
    orders: page.map(({ key: _, ...o }) => ({ ...o, net: moneyOf(o.net, o.currency).amount })),
    next: found.length > limit ? (page.at(-1)?.key ?? null) : null,
  }
}
