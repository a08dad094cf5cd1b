import { sql, type SQL } from 'drizzle-orm'
import type { SentSubject } from '#core/approval/policy'
import type { DecimalText } from '#core/base/decimal'
import type { Tx } from '../db/client'
import { named, read, readOne, sure } from '../db/read'
import { approvalDecision, approvalRoute } from '../db/schema/approval'
import { requisitions } from '../requisition/visible'

const r = requisitions('r')
const e = named(approvalRoute, 'e')
const n = named(approvalRoute, 'n')
const d = named(approvalDecision, 'd')
const b = named(approvalDecision, 'b')

/** Requests by the moment of their last sending, and by department; none named: all. */
export interface PastWish {
  readonly from: Date
  readonly before: Date
  readonly departmentIds: readonly string[]
}

const past = ({ from, before, departmentIds }: PastWish): SQL => sql`from ${e} join ${r} on ${r.id} = ${e.documentId}
  where ${e.documentKind} = 'requisition' and ${e.createdAt} >= ${from.toISOString()}
    and ${e.createdAt} < ${before.toISOString()}
    and not exists (select from ${n} where ${n.documentId} = ${e.documentId} and ${n.round} > ${e.round})
    ${departmentIds.length === 0 ? sql`` : sql`and ${r.departmentId} = any(${sql.param([...departmentIds])}::uuid[])`}`

export interface PastRequest {
  readonly routeId: string
  readonly id: string
  readonly number: string
  readonly title: string
  readonly amount: DecimalText
  readonly currency: string
  readonly sent: SentSubject
  readonly ownerId: string
  readonly raisedById: string
  readonly ownedBy: string[]
  readonly departmentId: string
}

/** Requests that were sent, as they were sent, from the one after `after` on in the order of their routes' ids. */
export function listPast(tx: Tx, wish: PastWish, after: string | null, limit: number): Promise<PastRequest[]> {
  return read(
    tx,
    {
      routeId: e.id,
      id: r.id,
      number: sure(r.number),
      title: r.title,
      amount: e.amount,
      currency: e.currency,
      sent: e.sent,
      ownerId: r.ownerId,
      raisedById: r.raisedById,
      ownedBy: r.ownedBy,
      departmentId: sure(r.departmentId),
    },
    sql`${past(wish)} and ${r.number} is not null and ${r.departmentId} is not null
      ${after === null ? sql`` : sql`and ${e.id} > ${after}`} order by ${e.id} limit ${limit}`,
  )
}

export async function countPast(tx: Tx, wish: PastWish): Promise<number> {
  const found = await readOne(
    tx,
    { n: sql<number>`count(*)::int` },
    sql`${past(wish)} and ${r.number} is not null and ${r.departmentId} is not null`,
  )
  return found?.n ?? 0
}

/**
 * The hours that each person took to decide since a day, in the middle of all they decided; under null everybody's.
 * Somebody's time begins when it was sent, or with the decision before theirs.
 */
export function listDecidingHours(tx: Tx, since: Date): Promise<{ personId: string | null; hours: number }[]> {
  const began = sql`greatest(${e.createdAt}, (select max(${b.at}) from ${b} where ${b.routeId} = ${d.routeId}
    and ${b.at} < ${d.at} and ${b.takenBackAt} is null))`
  return read(
    tx,
    {
      personId: sql<string | null>`${d.actorId}`,
      hours: sql<number>`(percentile_cont(0.5) within group (
        order by extract(epoch from ${d.at} - ${began}) / 3600))::float8`,
    },
    sql`from ${d} join ${e} on ${e.id} = ${d.routeId}
      where ${d.takenBackAt} is null and ${d.at} >= ${since.toISOString()}
      group by grouping sets ((${d.actorId}), ())`,
  )
}
