import { sql } from 'drizzle-orm'
import { type Tx } from '../db/client'
import { rows } from '../db/rows'

/** What a person owns that was sent and is not over, in departments; oldest first, the one order in which they are locked. */
export function listOwned(tx: Tx, ownerId: string, departments: 'all' | readonly string[]): Promise<{ id: string }[]> {
  const part = departments === 'all' ? sql`` : sql`and department_id = any(${sql.param([...departments])}::uuid[])`
  return rows(tx, sql`
    select id from requisition where owner_id = ${ownerId} ${part}
      and state in ('in approval', 'approved', 'part ordered', 'ordered', 'sent back', 'withdrawn') order by id`)
}
