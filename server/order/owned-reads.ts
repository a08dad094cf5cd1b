import { sql } from 'drizzle-orm'
import type { Part } from '#core/people/rights'
import { named, read } from '../db/read'
import type { Tx } from '../db/client'
import { orderLine, orderLineSource, trayPart } from '../db/schema/order'
import { requisitionLine } from '../db/schema/requisition'
import { inPart, whatAsks } from '../requisition/visible'
import { orders } from './visible'

const o = orders('o')
const ol = named(orderLine, 'ol')
const x = named(orderLineSource, 'x')
const p = named(trayPart, 'p')
const q = named(requisitionLine, 'q')
const r = whatAsks('r')

/**
 * Orders and trays that a buyer owns and that are not over, which serve a part; in the one order in which they are
 * locked.
 */
export function listOwnedOrders(
  tx: Tx,
  ownerId: string,
  part: Part,
): Promise<{ id: string; number: string | null; title: string; state: string }[]> {
  const serves =
    part === 'all'
      ? sql``
      : sql`and exists (select 1 from ${q} join ${r} on ${r.id} = ${q.requisitionId}
          where ${inPart(part)} and ${q.id} in (
            select ${x.requisitionLineId} from ${x} join ${ol} on ${ol.id} = ${x.orderLineId}
              where ${ol.orderId} = coalesce(${o.blanketId}, ${o.id})
            union select ${p.requisitionLineId} from ${p} where ${p.orderId} = ${o.id}))`
  return read(
    tx,
    { id: o.id, number: o.number, title: o.title, state: o.state },
    sql`from ${o} where ${o.kind} = 'order' and ${o.ownerId} = ${ownerId} and ${o.state} not in ('closed', 'cancelled')
      ${serves} order by ${o.id}`,
  )
}
