import { sql } from 'drizzle-orm'
import type { Tx } from './client'

/** Whether the database answers; throws where it does not. */
export async function ping(tx: Tx): Promise<void> {
  await tx.execute(sql`select 1`)
}

/** Whether the queue's tables are there; throws where they are not. */
export async function pingQueue(tx: Tx): Promise<void> {
  await tx.execute(sql`select 1 from pgboss.version`)
}
