import { sql, type SQL } from 'drizzle-orm'
import type { Tx } from '../db/client'
import { UTC } from '../db/moments'
import { named, read } from '../db/read'
import { event, eventLink } from '../db/schema/audit'
import { document } from '../db/schema/document'
import { person } from '../db/schema/people'

const e = named(event, 'e')
const l = named(eventLink, 'l')
const v = named(eventLink, 'v')
const d = named(document, 'd')
const p = named(person, 'p')
const f = named(person, 'f')
const w = named(person, 'w')

/** Which events are looked for; what is null is not asked. Moments are in UTC, `until` is outside. */
export interface EventsAsked {
  readonly personId: string | null
  readonly kind: string | null
  readonly type: string | null
  /** A document's number, whole. */
  readonly number: string | null
  readonly from: Date | null
  readonly until: Date | null
  /** Events before this one, for the next page. */
  readonly before: number | null
}

/** Nothing of what is sealed is told before its moment but to its owner. */
const isOpen = (now: Date, readerId: string) =>
  sql`(${d.sealedUntil} is null or ${d.sealedUntil} <= ${now.toISOString()} or ${d.ownerId} = ${readerId})`

function asked(a: EventsAsked, now: Date, readerId: string): SQL {
  const conditions = [
    isOpen(now, readerId),
    ...(a.personId === null ? [] : [sql`(${e.actorId} = ${a.personId} or ${e.forId} = ${a.personId})`]),
    ...(a.kind === null ? [] : [sql`${e.subjectKind} = ${a.kind}`]),
    ...(a.type === null ? [] : [sql`${e.type} = ${a.type}`]),
    ...(a.number === null ? [] : [sql`upper(${d.number}) = upper(${a.number})`]),
    ...(a.from === null ? [] : [sql`${e.at} >= ${a.from.toISOString()}`]),
    ...(a.until === null ? [] : [sql`${e.at} < ${a.until.toISOString()}`]),
    ...(a.before === null ? [] : [sql`${e.seq} < ${a.before}`]),
  ]
  return sql.join(conditions, sql` and `)
}

/** Events, the newest first, with whose they are, what they are about, and what proves them. */
export const listEventsAsked = (tx: Tx, a: EventsAsked, now: Date, readerId: string, most: number) =>
  read(
    tx,
    {
      seq: sql<number>`${e.seq}::int`,
      at: UTC(e.at),
      type: e.type,
      subjectKind: e.subjectKind,
      subjectId: e.subjectId,
      actorId: e.actorId,
      forId: e.forId,
      before: e.before,
      after: sql<unknown>`${e.after}`,
      actor: sql<string | null>`${p.name}`,
      forName: sql<string | null>`${f.name}`,
      about: sql<string>`coalesce(${d.number}, nullif(${d.title}, ''), ${w.name}, '')`,
      number: sql<number | null>`${l.number}::int`,
      hash: sql<string | null>`${l.hash}`,
      laidAt: sql<string | null>`${UTC(l.laidAt)}`,
      previous: sql<string | null>`${v.hash}`,
    },
    sql`from ${e} left join ${l} on ${l.seq} = ${e.seq} left join ${v} on ${v.number} = ${l.number} - 1
      left join ${d} on ${d.id} = ${e.subjectId} left join ${p} on ${p.id} = ${e.actorId}
      left join ${f} on ${f.id} = ${e.forId} left join ${w} on ${w.id} = ${e.subjectId}
      where ${asked(a, now, readerId)} order by ${e.seq} desc limit ${most}`,
  )
export type EventFound = Awaited<ReturnType<typeof listEventsAsked>>[number]

/** Which kinds and types of events there are. */
export const listSorts = (tx: Tx): Promise<{ kind: string; type: string }[]> =>
  read(
    tx,
    { kind: e.subjectKind, type: e.type },
    sql`from ${e} group by ${e.subjectKind}, ${e.type} order by ${e.subjectKind}, ${e.type}`,
  )
