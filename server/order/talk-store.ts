import { sql } from 'drizzle-orm'
import type { TalkWay } from '#core/order/talk'
import type { Tx } from '../db/client'
import { UTC } from '../db/moments'
import { named, read } from '../db/read'
import { orderTalk } from '../db/schema/order'
import { person } from '../db/schema/people'

const t = named(orderTalk, 't')
const p = named(person, 'p')

export interface TalkRow {
  id: string
  by: string
  at: string
  way: TalkWay
  with: string
  text: string
}

/** What was said about an order, the last first. */
export const listTalks = (tx: Tx, orderId: string): Promise<TalkRow[]> =>
  read(
    tx,
    { id: t.id, by: p.name, at: UTC(t.at), way: t.way, with: t.talkedWith, text: t.text },
    sql`from ${t} join ${p} on ${p.id} = ${t.byId} where ${t.orderId} = ${orderId} order by ${t.at} desc, ${t.id}`,
  )

export async function insertTalk(tx: Tx, talk: Omit<typeof orderTalk.$inferInsert, 'id'>): Promise<void> {
  await tx.insert(orderTalk).values(talk)
}
