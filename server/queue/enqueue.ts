import { sql } from 'drizzle-orm'
import PgBoss from 'pg-boss'
import { type Tx } from '../db/client'
import { type Task, type TaskData } from './tasks'

let sender: PgBoss | null = null

/** The queue's own client; it is told once, at the start of the process. */
export function useQueue(boss: PgBoss): void {
  sender = boss
}

/**
 * Puts a task into the queue inside the transaction: a rollback leaves none, a crash after the commit
 * loses none. Retried for as long as it takes, since what it does can be repeated. `inSeconds` is a wait and not a
 * moment, since the queue counts by the database's clock, which may not be ours.
 */
export async function enqueue<T extends Task>(tx: Tx, task: T, data: TaskData[T], inSeconds = 0): Promise<void> {
  if (sender === null) throw new Error('the queue is not started')
  const options: PgBoss.SendOptions = {
    retryLimit: 5000,
    retryDelay: 5,
    expireInSeconds: 120,
    db: { executeSql: (text, values) => execute(tx, text, values) },
  }
  if (inSeconds > 0) options.startAfter = Math.ceil(inSeconds)
  await sender.send(task, data, options)
}

/** Runs the queue's own statement on the transaction's client: its text is cut at $1..$n. */
async function execute(tx: Tx, text: string, values: unknown[]): Promise<{ rows: unknown[] }> {
  const parts = text.split(/\$(\d+)/)
  const chunks = parts.map((part, i) => (i % 2 === 0 ? sql.raw(part) : sql.param(values[Number(part) - 1] ?? null)))
  return tx.execute(sql.join(chunks))
}
