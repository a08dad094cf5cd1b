import { sql } from 'drizzle-orm'
import type { Tx } from '../db/client'
import { named, read, sure } from '../db/read'
import { orderLine, orderLineSource, trayPart } from '../db/schema/order'
import { requisitionLine } from '../db/schema/requisition'
import { whatAsks } from '../requisition/visible'
import type { DrawingLine } from './drawing'

const p = named(trayPart, 'p')
const l = named(requisitionLine, 'l')
const ol = named(orderLine, 'ol')
const x = named(orderLineSource, 'x')
const r = whatAsks('r')

/** What lies on a tray, or is ordered still, with the departments that asked for it. */
export function listDrawnLines(tx: Tx, orderId: string): Promise<DrawingLine[]> {
  return read(
    tx,
    { itemId: sql<string | null>`coalesce(${p.itemId}, ${l.itemId})`, departmentId: sure(r.departmentId) },
    sql`from ${p} join ${l} on ${l.id} = ${p.requisitionLineId} join ${r} on ${r.id} = ${l.requisitionId}
      where ${p.orderId} = ${orderId}
    union all
    select ${ol.itemId}, ${r.departmentId} from ${ol} join ${x} on ${x.orderLineId} = ${ol.id}
      join ${l} on ${l.id} = ${x.requisitionLineId} join ${r} on ${r.id} = ${l.requisitionId}
      where ${ol.orderId} = ${orderId} and ${ol.quantity} > 0`,
  )
}
