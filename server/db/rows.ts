import { sql, type SQL } from 'drizzle-orm'
import type { Tx } from './client'

/** Runs a written statement and returns its rows; the caller names their shape beside the statement. */
export async function rows<T>(tx: Tx, statement: SQL): Promise<T[]> {
  const result = await tx.execute(statement)
  return result.rows as T[]
}

/** The first row, or null. */
export async function row<T>(tx: Tx, statement: SQL): Promise<T | null> {
  return (await rows<T>(tx, statement))[0] ?? null
}

/** Whether the database answers; throws where it does not. */
export async function ping(tx: Tx): Promise<void> {
  await tx.execute(sql`select 1`)
}

/** Whether the queue's tables are there; throws where they are not. */
export async function pingQueue(tx: Tx): Promise<void> {
  await tx.execute(sql`select 1 from pgboss.version`)
}
