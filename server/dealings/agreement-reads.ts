import { sql } from 'drizzle-orm'
import type { DecimalText } from '#core/base/decimal'
import type { Tx } from '../db/client'
import { UTC } from '../db/moments'
import { named, read, sure } from '../db/read'
import { person } from '../db/schema/people'
import { visible, type Reader } from '../document/visible'
import { orders, SEEN_ORDERS } from '../order/visible'

const o = orders('o')
const b = named(person, 'b')

export interface DrawingOrderRow {
  id: string
  number: string
  issuedAt: string
  state: string
  buyer: string
  net: DecimalText
  currency: string
}
/** The issued orders that draw on an agreement, as far as the reader sees them; newest first. */
export function listDrawingOrders(tx: Tx, agreementId: string, reader: Reader): Promise<DrawingOrderRow[]> {
  return read(
    tx,
    {
      id: o.id,
      number: sure(o.number),
      issuedAt: UTC(o.sentAt),
      state: sql<string>`${o.state}`,
      buyer: b.name,
      net: sure(o.net),
      currency: o.currency,
    },
    sql`from ${o} join ${b} on ${b.id} = ${o.ownerId}
      where ${o.agreementId} = ${agreementId} and ${o.number} is not null and ${visible(SEEN_ORDERS, reader)}
      order by ${o.sentAt} desc, ${o.id} limit 1000`,
  )
}
