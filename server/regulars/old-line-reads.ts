import { sql, type SQL } from 'drizzle-orm'
import type { Day } from '#core/base/day'
import { partOf } from '#core/people/rights'
import type { DecimalText } from '#core/base/decimal'
import type { Tx } from '../db/client'
import { holdsAll, likePattern } from '../db/pattern'
import { SEEN_ORDERS } from '../order/visible'
import { visible, type Reader } from '../document/visible'
import { SEEN_REQUISITIONS } from '../requisition/visible'
import { named, read, readOne, sure, under } from '../db/read'
import { document } from '../db/schema/document'
import { requisitionCoding, requisitionLine } from '../db/schema/requisition'
import { budgetLine } from '../db/schema/budget'
import { requisitions } from '../requisition/visible'
import { orderLine, orderLineSource } from '../db/schema/order'
import { supplier } from '../db/schema/supplier'
import { item } from '../db/schema/catalogue'
import { orders } from '../order/visible'

const c = named(requisitionCoding, 'c')
const b = named(budgetLine, 'b')
const l = named(requisitionLine, 'l')
const r = requisitions('r')
const q = named(requisitionLine, 'q')
const x = named(orderLineSource, 'x')
const s = named(supplier, 's')
const oq = named(orderLine, 'oq')
const ol = named(orderLine, 'ol')
const i = named(item, 'i')
const o = orders('o')

/** A line as it was bought or kept, with what tells it apart. */
export interface OldLine {
  groupId: string
  groupName: string
  groupNote: string
  /** The day of its group, and of the line itself where lines stand without one. */
  groupDay: Day | null
  itemId: string | null
  categoryId: string | null
  description: string
  secondDescription: string
  quantity: DecimalText
  unit: string
  unitPrice: DecimalText | null
  priceBase: DecimalText
  currency: string
  taxCode: string
  supplierId: string | null
  supplierPart: string | null
  account: string | null
  note: string
  day: Day | null
}

type TakenOver = Exclude<keyof OldLine, 'groupId' | 'groupName' | 'groupNote' | 'groupDay' | 'account' | 'note' | 'day'>

/** What of an old line a new one takes over; or, of a table of lines, the columns in which it stands. */
export function asLine<L extends Record<TakenOver, unknown>>(l: L): Pick<L, TakenOver> {
  return {
    itemId: l.itemId,
    categoryId: l.categoryId,
    description: l.description,
    secondDescription: l.secondDescription,
    quantity: l.quantity,
    unit: l.unit,
    unitPrice: l.unitPrice,
    priceBase: l.priceBase,
    currency: l.currency,
    taxCode: l.taxCode,
    supplierId: l.supplierId,
    supplierPart: l.supplierPart,
  }
}

const LINE = {
  ...asLine(l),
  account: sql<string | null>`(select ${b.accountCode} from ${c} join ${b} on ${b.id} = ${c.budgetLineId}
    where ${c.lineId} = ${l.id} order by ${c.position} limit 1)`,
}
/** How many of the newest requests of some departments are looked through. */
const RECENT = 1000
const RECENT_ORDERED = 200
const holds = (words: string, ...columns: SQL[]) =>
  words.trim() === '' ? sql`true` : holdsAll(sql`concat_ws(' ', ${sql.join(columns, sql`, `)})`, likePattern(words))

/** What a department bought last, each thing once, the newest first. */
export function listBought(tx: Tx, departmentIds: readonly string[], words: string, limit: number): Promise<OldLine[]> {
  // Found first, by the index of what was sent last; then their lines alone are read.
  const newest = sql`with r as materialized (select ${r.id}, ${r.number}, ${r.sentAt} from ${r}
    where ${r.kind} = 'requisition' and ${r.departmentId} = any(${sql.param([...departmentIds])}::uuid[])
      and ${r.state} in ('approved', 'part ordered', 'ordered', 'closed')
    order by ${r.sentAt} desc limit ${RECENT})`
  const thing = sql`coalesce(${l.itemId}::text, lower(${l.description}))`
  const once = under(
    'once',
    sql`(${newest} select distinct on (${thing}) ${l.id} as line, ${r.number}, ${r.sentAt} from r
      join ${l} on ${l.requisitionId} = ${r.id} where ${holds(words, sql`${l.description}`, sql`${l.supplierPart}`)}
      order by ${thing}, ${r.sentAt} desc)`,
    document,
  )
  return read(
    tx,
    {
      groupId: sql<string>`'bought'`,
      groupName: sql<string>`''`,
      groupNote: sql<string>`''`,
      groupDay: sql<Day | null>`null`,
      ...LINE,
      note: sure(once.number),
      day: sql<Day>`${once.sentAt}::date::text`,
    },
    sql`from ${once} join ${l} on ${l.id} = once.line order by ${once.sentAt} desc, ${l.description} limit ${limit}`,
  )
}

/** The lines of the newest requests that a person sees. */
export function listRequestLines(
  tx: Tx,
  reader: Reader,
  departmentIds: readonly string[],
  words: string,
  limit: number,
): Promise<OldLine[]> {
  return read(
    tx,
    {
      groupId: r.id,
      groupName: r.title,
      groupNote: sure(r.number),
      groupDay: sql<OldLine['groupDay']>`${r.sentAt}::date::text`,
      ...LINE,
      note: sql<OldLine['note']>`''`,
      day: sql<OldLine['day']>`null`,
    },
    sql`from page r join ${l} on ${l.requisitionId} = ${r.id} order by ${r.sentAt} desc, ${r.id}, ${l.position}`,
    {
      before: sql`with page as (
      select ${r.id}, ${r.number}, ${r.title}, ${r.sentAt} from ${r}
      where ${r.kind} = 'requisition' and ${r.number} is not null and (${r.ownerId} = ${reader.actor.id}
        or ${r.departmentId} = any(${sql.param([...departmentIds])}::uuid[])) and ${visible(SEEN_REQUISITIONS, reader)}
        and (${holds(words, sql`${r.title}`, sql`${r.number}`)} or exists (select 1 from ${q}
          where ${q.requisitionId} = ${r.id} and (${holds(words, sql`${q.description}`)})))
      order by ${r.sentAt} desc limit ${limit})`,
    },
  )
}

const ORDER_LINE = {
  ...asLine({ ...ol, categoryId: i.categoryId, currency: o.currency, supplierId: o.supplierId }),
  account: sql<string | null>`(select ${b.accountCode} from ${x} join ${c} on ${c.lineId} = ${x.requisitionLineId}
    join ${b} on ${b.id} = ${c.budgetLineId}
    where ${x.orderLineId} = ${ol.id} order by ${c.position} limit 1)`,
}

/**
 * The lines of the newest orders that a person sees; of one order where it is named. Whoever does not see all orders is
 * offered those that serve the newest requests of their departments, or of their own.
 */
export function listOrderLinesToTake(
  tx: Tx,
  reader: Reader,
  departmentIds: readonly string[],
  words: string,
  limit: number,
  orderId: string | null = null,
): Promise<OldLine[]> {
  const newest = sql`select ${r.id} from ${r} where ${r.kind} = 'requisition'
    and ${r.state} in ('part ordered', 'ordered', 'closed')
    and (${r.ownerId} = ${reader.actor.id} or ${r.departmentId} = any(${sql.param([...departmentIds])}::uuid[]))
    order by ${r.sentAt} desc limit ${RECENT_ORDERED}`
  const which =
    orderId !== null
      ? sql`and ${o.id} = ${orderId}`
      : partOf(reader.actor.grants, 'see orders') === 'all'
        ? sql``
        : sql`and ${o.id} = any(array(select ${oq.orderId} from ${q} join ${x} on ${x.requisitionLineId} = ${q.id}
            join ${oq} on ${oq.id} = ${x.orderLineId} where ${q.requisitionId} = any(array(${newest}))))`
  return read(
    tx,
    {
      groupId: o.id,
      groupName: sql<OldLine['groupName']>`${o.number} || ' to ' || o.called`,
      groupNote: sql<OldLine['groupNote']>`''`,
      groupDay: sql<OldLine['groupDay']>`${o.sentAt}::date::text`,
      ...ORDER_LINE,
      note: sql<OldLine['note']>`''`,
      day: sql<OldLine['day']>`null`,
    },
    sql`from page o join ${ol} on ${ol.orderId} = ${o.id} left join ${i} on ${i.id} = ${ol.itemId}
    order by ${o.sentAt} desc,
      ${o.id}, ${ol.position}`,
    {
      before: sql`with page as (
      select ${o.id}, ${o.number}, ${o.currency}, ${o.supplierId}, ${s.name} as called, ${o.sentAt} from ${o}
        join ${s} on ${s.id} = ${o.supplierId}
      where ${o.kind} = 'order' and ${o.number} is not null and ${o.blanketId} is null ${which}
        and ${visible(SEEN_ORDERS, reader)}
        and (${holds(words, sql`${o.number}`, sql`${s.name}`)} or exists (select 1 from ${oq}
          where ${oq.orderId} = ${o.id} and (${holds(words, sql`${oq.description}`)})))
      order by ${o.sentAt} desc limit ${limit})`,
    },
  )
}

/** The account from which a department last paid what is called most alike; null where nothing is. */
export async function findUsualAccount(tx: Tx, departmentId: string, words: string): Promise<string | null> {
  const found = await readOne(
    tx,
    { account: b.accountCode },
    sql`from (select ${l.id} as line, similarity(lower(${l.description}), ${words.toLowerCase()}) as likeness
        from (select ${r.id} from ${r} where ${r.departmentId} = ${departmentId} and ${r.number} is not null
          order by ${r.sentAt} desc nulls last limit 1000) r join ${l} on ${l.requisitionId} = ${r.id}) alike
      join ${c} on ${c.lineId} = alike.line and ${c.position} = 0 join ${b} on ${b.id} = ${c.budgetLineId}
    where alike.likeness >= 0.4 order by alike.likeness desc limit 1`,
  )
  return found?.account ?? null
}
