import { sql } from 'drizzle-orm'
import type { Day } from '#core/base/day'
import { MOST_COUNTED } from '#core/base/count'
import { may } from '#core/people/rights'
import type { Waiting } from '#shared/contract/live'
import type { Tx } from '../db/client'
import { named, read } from '../db/read'
import { approvalSeat } from '../db/schema/approval'
import { document } from '../db/schema/document'
import { orderAnswer } from '../db/schema/order'
import { notice } from '../db/schema/people'
import { requisitionLine } from '../db/schema/requisition'
import { organisation } from '../db/schema/settings'
import { supplier } from '../db/schema/supplier'
import type { Actor } from '../people/actor'
import { WAITS_FOR_OWNER } from '../requisition/mine-reads'
import { requisitions, waitsOn } from '../requisition/visible'

const a = named(orderAnswer, 'a')
const d = named(document, 'd')
const l = named(requisitionLine, 'l')
const h = named(organisation, 'h')
const n = named(notice, 'n')
const r = requisitions('r')
const s = named(approvalSeat, 's')
const u = named(supplier, 'u')

/**
 * What waits for people at each station, and what they were told and have not read, by their ids, in one statement.
 * Lines to order are counted as far as anybody reads them, and once for all who buy; with them answers of suppliers to
 * one's own orders.
 */
export async function countWaiting(tx: Tx, people: readonly Actor[], now: Date): Promise<Map<string, Waiting>> {
  const today = sql<Day>`(select (${now.toISOString()}::timestamptz at time zone ${h.timeZone})::date from ${h})`
  const asked = people.map((a) => ({
    person: a.id,
    buys: may(a.grants, 'order'),
    judges: may(a.grants, 'approve suppliers'),
  }))
  const toOrder = sql`(select count(*)::int from (
    select 1 from ${d} join ${l} on ${l.requisitionId} = ${d.id}
    where ${d.kind} = 'requisition' and ${d.state} in ('approved', 'part ordered') and ${waitsOn(l, today)}
    limit ${MOST_COUNTED + 1}) counted)`
  const toJudge = sql`(select count(*)::int from ${u}
    where ${u.standing} = 'proposed' and ${u.proposedById} is distinct from asked.person)`
  const answered = sql`(select count(*)::int from ${a} join ${d} on ${d.id} = ${a.orderId}
    where ${a.outcome} = 'waits' and ${d.ownerId} = asked.person)`
  const found = await read(
    tx,
    {
      id: sql<string>`asked.person`,
      need: sql<number>`(select count(*)::int from ${r} where ${r.ownerId} = asked.person and ${WAITS_FOR_OWNER})`,
      decision: sql<number>`(select count(distinct ${s.documentId})::int from ${s}
        where ${s.actorId} = asked.person and ${s.state} = 'open')`,
      order: sql<number>`case when asked.buys then ${toOrder} + ${answered} else 0 end
        + case when asked.judges then ${toJudge} else 0 end`,
      unread: sql<number>`(select count(*)::int from ${n} where ${n.personId} = asked.person and ${n.readAt} is null)`,
    },
    sql`from json_to_recordset(${JSON.stringify(asked)}::json) as asked(person uuid, buys boolean, judges boolean)`,
  )
  return new Map(found.map(({ id, unread, ...at }) => [id, { at, unread }]))
}
