import { sql } from 'drizzle-orm'
import type { ChainHead } from '#core/audit/integrity'
import type { Tx } from '../db/client'
import { UTC } from '../db/moments'
import { named, read, readOne, sure } from '../db/read'
import { event, eventLink } from '../db/schema/audit'
import type { ChainEvent, Linked } from './chain'

const e = named(event, 'e')
const l = named(eventLink, 'l')

const EVENT = {
  seq: sql<number>`${e.seq}::int`,
  at: UTC(e.at),
  actorId: e.actorId,
  forId: e.forId,
  type: e.type,
  subjectKind: e.subjectKind,
  subjectId: e.subjectId,
  before: e.before,
  after: sql<unknown>`${e.after}`,
}

/** What lies further behind the newest link than this gets none any more: the check tells of it. */
const REACH = 20_000

/**
 * That no transaction which is still open, or may yet begin, can write an event that belongs before this one: its own
 * lies below all of them. Transaction numbers are compared by age, since they wrap.
 */
const isSettled = sql`age(${sql.raw('e.xmin')}) >
  age((pg_snapshot_xmin(pg_current_snapshot())::text::bigint % 4294967296)::text::xid)`

/** Only one lays links at a time; the lock goes with the transaction. */
export async function lockChain(tx: Tx): Promise<void> {
  await tx.execute(sql`select pg_advisory_xact_lock(hashtext('event chain'))`)
}

/** The newest link; null before the first. */
export const findHead = (tx: Tx): Promise<ChainHead | null> =>
  readOne(tx, { number: sql<number>`${l.number}::int`, hash: l.hash }, sql`from ${l} order by ${l.number} desc limit 1`)

const hasNone = sql`not exists (select 1 from ${l} where ${l.seq} = ${e.seq})`

/** Events without a link that may get one now, in their order. */
export const listLinkable = (tx: Tx, most: number): Promise<ChainEvent[]> =>
  read(
    tx,
    EVENT,
    sql`from ${e} where ${isSettled} and ${hasNone}
      and ${e.seq} > (select coalesce(max(${l.seq}), 0) from ${l}) - ${REACH} order by ${e.seq} limit ${most}`,
  )

/** The first events below one that have no link. */
export const listUnlinked = (tx: Tx, below: number): Promise<ChainEvent[]> =>
  read(tx, EVENT, sql`from ${e} where ${e.seq} < ${below} and ${hasNone} order by ${e.seq} limit 1000`)

/** Appends links to the chain. */
export async function insertLinks(
  tx: Tx,
  links: readonly { readonly number: number; readonly seq: number; readonly hash: string }[],
): Promise<void> {
  await tx.insert(eventLink).values([...links])
}

/** Links from a number on, with their events. */
export async function listLinked(tx: Tx, after: number, most: number): Promise<Linked[]> {
  const { seq: _, ...rest } = EVENT
  const rows = await read(
    tx,
    {
      ...rest,
      number: sql<number>`${l.number}::int`,
      linkSeq: sql<number>`${l.seq}::int`,
      hash: l.hash,
      laidAt: UTC(l.laidAt),
      eventSeq: sql<number | null>`${e.seq}::int`,
      type: sure(e.type),
    },
    sql`from ${l} left join ${e} on ${e.seq} = ${l.seq} where ${l.number} > ${after}
      order by ${l.number} limit ${most}`,
  )
  return rows.map(({ number, linkSeq, hash, laidAt, eventSeq, ...event }) => ({
    link: { number, seq: linkSeq, hash, laidAt },
    event: eventSeq === null ? null : { seq: eventSeq, ...event },
  }))
}
