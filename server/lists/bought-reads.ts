import { sql } from 'drizzle-orm'
import type { DecimalText } from '#core/base/decimal'
import type { Day } from '#core/base/day'
import type { Tx } from '../db/client'
import { named, read } from '../db/read'
import { document } from '../db/schema/document'
import { orderLine } from '../db/schema/order'

const l = named(orderLine, 'l')
const d = named(document, 'd')

/** What was ordered of items since a day, by item, portion by portion. */
export async function listBought(
  tx: Tx,
  itemIds: readonly string[],
  since: Day,
): Promise<Map<string, { quantity: DecimalText }[]>> {
  if (itemIds.length === 0) return new Map()
  const rows = await read(
    tx,
    { itemId: sql<string>`${l.itemId}`, quantity: l.quantity },
    sql`from ${l} join ${d} on ${d.id} = ${l.orderId}
      where ${l.itemId} = any(${sql.param([...itemIds])}::uuid[]) and ${d.state} <> 'cancelled'
        and ${d.sentAt} >= ${since}::date`,
  )
  const bought = new Map<string, { quantity: DecimalText }[]>()
  for (const r of rows) bought.set(r.itemId, [...(bought.get(r.itemId) ?? []), { quantity: r.quantity }])
  return bought
}
