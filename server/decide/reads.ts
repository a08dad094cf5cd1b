import { sql } from 'drizzle-orm'
import type { Day } from '#core/base/day'
import type { DecimalText } from '#core/base/decimal'
import { moneyOf } from '#core/base/money'
import type { PreparedReason, Slip } from '#shared/contract/decide'
import type { Tx } from '../db/client'
import { SECONDS } from '../db/moments'
import { named, read, sure } from '../db/read'
import { remark } from '../db/schema/document'
import { approvalRoute, approvalSeat, preparedReason } from '../db/schema/approval'
import { person } from '../db/schema/people'
import { requisitions, whatAsks } from '../requisition/visible'
import { orderChange, orderLine, trayPart } from '../db/schema/order'
import { requisitionLine } from '../db/schema/requisition'
import { orders } from '../order/visible'
import { d, SORT, TITLE } from './document-reads'

const m = named(remark, 'm')
const s = named(approvalSeat, 's')
const a = named(approvalRoute, 'a')
const q = named(preparedReason, 'q')
const w = named(person, 'w')
const f = named(person, 'f')
const r = requisitions('r')
const r2 = whatAsks('r2')
const rl = named(requisitionLine, 'rl')
const t = named(trayPart, 't')
const l = named(orderLine, 'l')
const h = named(orderChange, 'h')
const o = orders('o')

/** Reasons that the organisation has prepared, for what each is, in the order of their words. */
export const listPreparedReasons = (tx: Tx): Promise<PreparedReason[]> =>
  read(tx, { text: q.text, use: q.use }, sql`from ${q} where not ${q.retired} order by ${q.text} limit 200`)

/** What waits for a person's decision, oldest first. */
export async function listSlips(tx: Tx, personId: string): Promise<Slip[]> {
  const ofOrder = sql`(select min(coalesce(${rl.needBy}, ${r2.needBy}))::text from ${t}
    join ${rl} on ${rl.id} = ${t.requisitionLineId} join ${r2} on ${r2.id} = ${rl.requisitionId}
    where ${t.orderId} = ${d.id})`
  const ofChange = sql`(select min(${l.needBy})::text from ${h} join ${l} on ${l.orderId} = ${h.orderId}
    where ${h.id} = ${d.id})`
  const found = await read(
    tx,
    {
      id: d.id,
      document: SORT,
      owner: w.name,
      amount: a.amount,
      currency: a.currency,
      title: TITLE,
      needBy: sql<string>`coalesce(${r.needBy}::text, ${ofOrder}, ${ofChange}, '')`,
      since: SECONDS(sql`min(${s.openedAt})`),
      forName: sql<Slip['forName']>`max(${f.name})`,
      version: d.version,
      sent: a.sent,
      asked: sql<Slip['asked']>`exists (select 1 from ${m} where ${m.documentId} = ${d.id} and ${m.kind} = 'question'
      and ${m.answeredAt} is null
        and ${m.personId} = ${personId})`,
    },
    sql`from ${s} join ${d} on ${d.id} = ${s.documentId} join ${a} on ${a.id} = ${s.routeId}
      join ${w} on ${w.id} = ${d.ownerId}
      left join ${r} on ${r.id} = ${d.id} left join ${f} on ${f.id} = ${s.forId}
    where ${s.actorId} = ${personId} and ${s.state} = 'open'
    group by ${d.id}, ${w.name}, ${a.id}, ${d.title}, ${r.needBy}, ${d.version}, ${d.number}, ${d.ownerId}, ${d.kind}
    order by min(${s.openedAt}), ${d.number}, ${d.id}`,
  )
  return found.map(({ sent, ...s }) => ({
    ...s,
    amount: moneyOf(s.amount, s.currency).amount,
    overBudget: sent.overBudget,
    newSupplier: sent.codings.some((c) => c.supplier === 'proposed'),
  }))
}

/** The last prices paid for items, newest first, at most six each: from issued orders. */
export function listPaidPrices(
  tx: Tx,
  itemIds: readonly string[],
): Promise<{ itemId: string; unitPrice: DecimalText; priceBase: DecimalText; currency: string; day: string }[]> {
  return read(
    tx,
    {
      itemId: sure(l.itemId),
      unitPrice: l.unitPrice,
      priceBase: l.priceBase,
      currency: o.currency,
      day: sql<Day>`${o.sentAt}::date::text`,
    },
    sql`from unnest(${sql.param(itemIds as string[])}::uuid[]) as asked(item)
    cross join lateral (
      select ${l.id} as line from ${l} join ${o} on ${o.id} = ${l.orderId}
      where ${l.itemId} = asked.item and ${o.sentAt} is not null and ${l.quantity} > 0
        and ${o.blanketId} is null
      order by ${o.sentAt} desc, ${o.id} limit 6) paid
    join ${l} on ${l.id} = paid.line join ${o} on ${o.id} = ${l.orderId}
    order by ${o.sentAt} desc, ${o.id}`,
  )
}
