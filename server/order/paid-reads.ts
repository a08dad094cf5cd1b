import { sql } from 'drizzle-orm'
import type { DecimalText } from '#core/base/decimal'
import type { Tx } from '../db/client'
import { named, read } from '../db/read'
import { document } from '../db/schema/document'
import { orderLine, purchaseOrder } from '../db/schema/order'

const o = named(orderLine, 'o')
const po = named(purchaseOrder, 'po')
const d = named(document, 'd')

export interface PaidRow {
  day: string
  quantity: DecimalText
  unit: string
  unitPrice: DecimalText
  priceBase: DecimalText
  currency: string
}

/** What was last ordered of items, and at which price. */
export async function listPaid(tx: Tx, itemIds: readonly string[], each: number): Promise<Map<string, PaidRow[]>> {
  if (itemIds.length === 0) return new Map()
  const rows = await read(
    tx,
    {
      itemId: sql<string>`asked.thing`,
      day: sql<string>`paid.sent_on`,
      quantity: sql<DecimalText>`paid.many`,
      unit: sql<string>`paid.measure`,
      unitPrice: sql<DecimalText>`paid.one_costs`,
      priceBase: sql<DecimalText>`paid.per_so_many`,
      currency: sql<string>`paid.coin`,
    },
    sql`from unnest(${sql.param([...itemIds])}::uuid[]) asked(thing) cross join lateral (
      select ${d.sentAt}::date::text as sent_on, trim_scale(${o.quantity})::text as many,
        ${o.unit} as measure,
        trim_scale(${o.unitPrice})::text as one_costs,
        trim_scale(${o.priceBase})::text as per_so_many, ${po.currency} as coin
      from ${o} join ${d} on ${d.id} = ${o.orderId} join ${po} on ${po.id} = ${o.orderId}
      where ${o.itemId} = asked.thing and ${d.sentAt} is not null and ${d.state} <> 'cancelled'
        and ${po.blanketId} is null
      order by ${d.sentAt} desc, ${o.id} limit ${each}) paid`,
  )
  const paid = new Map<string, PaidRow[]>()
  for (const { itemId, ...row } of rows) paid.set(itemId, [...(paid.get(itemId) ?? []), row])
  return paid
}
