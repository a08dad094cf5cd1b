import { sql } from 'drizzle-orm'
import type { Tx } from '../db/client'
import { UTC } from '../db/moments'
import { row, rows } from '../db/rows'

/** The newest event about a subject; null where nothing happened yet. */
export async function newestEvent(
  tx: Tx,
  subjectId: string,
): Promise<{ seq: number; type: string; name: string | null } | null> {
  return row(
    tx,
    sql`
    select e.seq::int as seq, e.type, p.name from event e left join person p on p.id = e.actor_id
    where e.subject_id = ${subjectId} order by e.seq desc limit 1`,
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
  return rows<EventRow>(
    tx,
    sql`
    select e.seq::int as seq, ${UTC('e.at')} as at, e.type, p.name as actor, f.name as "forName", e.after
    from event e left join person p on p.id = e.actor_id left join person f on f.id = e.for_id
    where e.subject_id = ${subjectId} order by e.seq desc`,
  )
}
