import { sql } from 'drizzle-orm'
import { type Tx } from '../db/client'

/** What changed, told to all servers when the transaction commits. */
export interface Change {
  readonly kind: 'requisition' | 'order' | 'absence' | 'mail' | 'settings'
  readonly id: string
}

export const CHANNEL = 'rekko_change'

/** PostgreSQL delivers it at the commit, and never after a rollback. */
export async function notifyChange(tx: Tx, change: Change): Promise<void> {
  await tx.execute(sql`select pg_notify(${CHANNEL}, ${JSON.stringify(change)})`)
}
