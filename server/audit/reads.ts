import { sql } from 'drizzle-orm'
import type { Tx } from '../db/client'
import { UTC } from '../db/moments'
import { named, read, readOne } from '../db/read'
import { event } from '../db/schema/audit'
import { person } from '../db/schema/people'

const e = named(event, 'e')
const p = named(person, 'p')
const f = named(person, 'f')

/** The newest event about a subject; null where nothing happened yet. */
export async function newestEvent(
  tx: Tx,
  subjectId: string,
): Promise<{ seq: number; type: string; actorId: string | null; name: string | null } | null> {
  return readOne(
    tx,
    { seq: sql<number>`${e.seq}::int`, type: e.type, actorId: e.actorId, name: p.name },
    sql`from ${e} left join ${p} on ${p.id} = ${e.actorId}
    where ${e.subjectId} = ${subjectId} order by ${e.seq} desc limit 1`,
  )
}

export interface EventRow {
  seq: number
  at: string
  type: string
  actor: string | null
  forName: string | null
  after: Record<string, unknown> | null
}
/** Every event about a subject, newest first. */
export function listEvents(tx: Tx, subjectId: string): Promise<EventRow[]> {
  return read(
    tx,
    {
      seq: sql<EventRow['seq']>`${e.seq}::int`,
      at: UTC(e.at),
      type: e.type,
      actor: p.name,
      forName: f.name,
      after: e.after,
    },
    sql`from ${e} left join ${p} on ${p.id} = ${e.actorId} left join ${f} on ${f.id} = ${e.forId}
    where ${e.subjectId} = ${subjectId} order by ${e.seq} desc`,
  )
}
