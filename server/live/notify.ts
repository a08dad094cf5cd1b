import { sql } from 'drizzle-orm'
import type { LiveMessage } from '#shared/contract/live'
import type { Tx } from '../db/client'
import { sendAlong } from '../db/transaction'

export const CHANNEL = 'rekko_change'

/** Tells all servers what changed. PostgreSQL delivers it at the commit, and never after a rollback. */
export async function notifyChange(tx: Tx, change: LiveMessage): Promise<void> {
  await sendAlong(tx, tx.execute(sql`select pg_notify(${CHANNEL}, ${JSON.stringify(change)})`))
}

/** Tells several changes in one statement. */
export async function notifyChanges(tx: Tx, changes: readonly LiveMessage[]): Promise<void> {
  if (changes.length === 0) return
  const payloads = changes.map((c) => JSON.stringify(c))
  await sendAlong(
    tx,
    tx.execute(sql`select pg_notify(${CHANNEL}, told.c) from unnest(${sql.param(payloads)}::text[]) as told(c)`),
  )
}
