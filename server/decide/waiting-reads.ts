import { sql } from 'drizzle-orm'
import type { Route } from '#core/approval/route'
import type { DecimalText } from '#core/base/decimal'
import type { Tx } from '../db/client'
import { SECONDS } from '../db/moments'
import { holdsAll, isNumbered, likePattern } from '../db/pattern'
import { named, read } from '../db/read'
import { approvalRoute, approvalSeat } from '../db/schema/approval'
import { person } from '../db/schema/people'
import { d, TITLE } from './document-reads'

/** What somebody who may not see a document reads of it. */
const CALLED = sql<string>`coalesce(${d.number}, 'an order')`
const e = named(approvalRoute, 'e')
const s = named(approvalSeat, 's')
const a = named(person, 'a')
const f = named(person, 'f')
const w = named(person, 'w')

export interface WaitingRow {
  seatId: string
  documentId: string
  documentKind: string
  number: string
  title: string
  owner: string
  amount: DecimalText
  currency: string
  name: string
  forName: string | null
  since: string
  remindedAt: string | null
  isLate: boolean
  count: number
}

/** Open steps, the longest waiting first, with how many there are; by a number, or by names of those who are asked. */
export function listWaitingSteps(tx: Tx, words: string, most: number): Promise<WaitingRow[]> {
  const looked = likePattern(words)
  const names = sql`(${a.name} || ' ' || coalesce(${f.name}, ''))`
  const fits = words.trim() === '' ? sql`true` : sql`(${isNumbered(d.number, looked)} or ${holdsAll(names, looked)})`
  return read(
    tx,
    {
      seatId: s.id,
      documentId: d.id,
      documentKind: d.kind,
      number: CALLED,
      title: TITLE,
      owner: w.name,
      amount: e.amount,
      currency: e.currency,
      name: a.name,
      forName: sql<string | null>`${f.name}`,
      since: SECONDS(sql`${s.openedAt}`),
      remindedAt: sql<string | null>`${SECONDS(sql`${s.remindedAt}`)}`,
      isLate: sql<boolean>`${s.lateAt} is not null`,
      count: sql<number>`(count(*) over ())::int`,
    },
    sql`from ${s} join ${e} on ${e.id} = ${s.routeId} join ${d} on ${d.id} = ${s.documentId}
      join ${a} on ${a.id} = ${s.actorId} join ${w} on ${w.id} = ${d.ownerId} left join ${f} on ${f.id} = ${s.forId}
      where ${s.state} = 'open' and ${fits} order by ${s.openedAt}, ${s.id} limit ${most}`,
  )
}

/** Requests on which nobody is found who may decide, the longest held first. */
export function listHeld(
  tx: Tx,
): Promise<{ documentId: string; documentKind: string; number: string; title: string; held: Route['held'] }[]> {
  return read(
    tx,
    {
      documentId: d.id,
      documentKind: d.kind,
      number: CALLED,
      title: TITLE,
      held: sql<Route['held']>`${e.route} -> 'held'`,
    },
    sql`from ${e} join ${d} on ${d.id} = ${e.documentId} where ${e.state} = 'held' order by ${e.createdAt} limit 200`,
  )
}

/** Open steps by their ids, with whose place each is. */
export function listSteps(
  tx: Tx,
  seatIds: readonly string[],
): Promise<
  {
    id: string
    documentId: string
    documentKind: string
    actorId: string
    forId: string | null
    remindedAt: string | null
  }[]
> {
  return read(
    tx,
    {
      id: s.id,
      documentId: s.documentId,
      documentKind: e.documentKind,
      actorId: s.actorId,
      forId: s.forId,
      remindedAt: sql<string | null>`${SECONDS(sql`${s.remindedAt}`)}`,
    },
    sql`from ${s} join ${e} on ${e.id} = ${s.routeId} where ${s.id} = any(${sql.param([...seatIds])}::uuid[])
      and ${s.state} = 'open' order by ${s.documentId}, ${s.id}`,
  )
}
