import { sql } from 'drizzle-orm'
import { type Tx } from '../db/client'
import { row } from '../db/rows'

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
