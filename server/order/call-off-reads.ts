import { sql, type SQL } from 'drizzle-orm'
import type { Day } from '#core/base/day'
import { BY_AMOUNT } from '#core/base/unit'
import type { DecimalText } from '#core/base/decimal'
import { OPEN_ORDER_STATES } from '#core/order/overdue'
import type { Tx } from '../db/client'
import { UTC } from '../db/moments'
import { isThere, named, read, sure } from '../db/read'
import { orderLine } from '../db/schema/order'
import { shipTo } from '../db/schema/people'
import { orders } from './visible'

const o = orders('o')
const l = named(orderLine, 'l')
const c = named(orderLine, 'c')
const t = named(shipTo, 't')

/** What was called off of each line of a blanket order, by the line's id; lines of which nothing was are left out. */
export async function listCalled(
  tx: Tx,
  blanketId: string,
): Promise<Map<string, { quantity: DecimalText; net: DecimalText }>> {
  const found = await read(
    tx,
    {
      lineId: sure(c.blanketLineId),
      quantity: sql<DecimalText>`trim_scale(sum(${c.quantity}))::text`,
      net: sql<DecimalText>`trim_scale(sum(${c.net}))::text`,
    },
    sql`from ${c} join ${l} on ${l.id} = ${c.blanketLineId} where ${l.orderId} = ${blanketId} and ${c.quantity} > 0
      group by ${c.blanketLineId}`,
  )
  return new Map(found.map(({ lineId, ...called }) => [lineId, called]))
}

/** That something of a blanket order `of` can still be called off: a quantity, or of a line by amount, an amount. */
export const hasLeft = (of: typeof o): SQL => {
  const much = (line: typeof l) => sql`case when ${line.unit} = ${BY_AMOUNT} then ${line.net} else ${line.quantity} end`
  return isThere(sql`from ${l} where ${l.orderId} = ${of.id} and ${much(l)} > coalesce(
    (select sum(${much(c)}) from ${c} where ${c.blanketLineId} = ${l.id} and ${c.quantity} > 0), 0)`)
}

/** Blanket orders that end between two days, both included, of which something is left and nobody was told yet. */
export const listEndingBlankets = (
  tx: Tx,
  from: Day,
  until: Day,
): Promise<{ id: string; buyerId: string; number: string; supplier: string; endsOn: Day }[]> =>
  read(
    tx,
    { id: o.id, buyerId: o.ownerId, number: sure(o.number), supplier: o.title, endsOn: sure(o.expiresOn) },
    sql`from ${o} where ${o.isBlanket} and ${o.state} = any(${sql.param([...OPEN_ORDER_STATES])})
      and ${o.expiresOn} between ${from} and ${until} and ${o.endToldFor} is distinct from ${o.expiresOn}
      and ${hasLeft(o)} order by ${o.id}`,
  )

export interface CallOffRow {
  id: string
  number: string
  state: string
  issuedAt: string
  shipTo: string
  /** The first day on which something of it is needed; null of one that is cancelled. */
  needBy: string | null
  net: DecimalText
}

/** What was called off of a blanket order, the last first. */
export const listCallOffs = (tx: Tx, blanketId: string): Promise<CallOffRow[]> =>
  read(
    tx,
    {
      id: o.id,
      number: sure(o.number),
      state: sql<string>`${o.state}`,
      issuedAt: UTC(o.sentAt),
      shipTo: t.name,
      needBy: sql<string | null>`(select min(${l.needBy})::text from ${l}
        where ${l.orderId} = ${o.id} and ${l.quantity} > 0)`,
      net: sure(o.net),
    },
    sql`from ${o} join ${t} on ${t.id} = ${o.shipToId} where ${o.blanketId} = ${blanketId}
      order by ${o.sentAt} desc, ${o.id}`,
  )
