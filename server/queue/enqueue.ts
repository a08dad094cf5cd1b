import { sql } from 'drizzle-orm'
import PgBoss from 'pg-boss'
import type { Tx } from '../db/client'
import { ENDED, type Task, type TaskData } from './tasks'

/** Pauses that double from five seconds on: sixteen of them last about four days, and then it ends. */
const PATIENCE = { retryLimit: 16, retryDelay: 5, retryBackoff: true }

let sender: PgBoss | null = null

/** The queue's own client; it is told once, at the start of the process. */
export function useQueue(boss: PgBoss): void {
  sender = boss
}

/**
 * Puts a task into the queue inside the transaction: a rollback leaves none, a crash after the commit
 * loses none. It is tried again in growing pauses for days, since what it does can be repeated. `inSeconds` is a wait
 * and not a
 * moment, since the queue counts by the database's clock, which may not be ours.
 */
export async function enqueue<T extends Task>(tx: Tx, task: T, data: TaskData[T], inSeconds = 0): Promise<void> {
  if (sender === null) throw new Error('the queue is not started')
  const options: PgBoss.SendOptions = {
    ...PATIENCE,
    expireInSeconds: 120,
    deadLetter: ENDED,
    db: { executeSql: (text, values) => execute(tx, text, values) },
  }
  // The queue goes by the machine's clock, whatever ours shows.
  if (inSeconds > 0) options.startAfter = new Date(Date.now() + inSeconds * 1000)
  await sender.send(task, { ...data, task }, options)
}

/** Puts what may have lost its task into the queue again: for one try, and at most once in five minutes for a key. */
export async function enqueueAgain<T extends Task>(tx: Tx, task: T, data: TaskData[T], key: string): Promise<void> {
  if (sender === null) throw new Error('the queue is not started')
  await sender.send(
    task,
    { ...data, task },
    {
      retryLimit: 0,
      expireInSeconds: 120,
      singletonKey: key,
      singletonSeconds: 300,
      db: { executeSql: (text, values) => execute(tx, text, values) },
    },
  )
}

/** Runs the queue's own statement on the transaction's client: its text is cut at $1..$n. */
async function execute(tx: Tx, text: string, values: unknown[]): Promise<{ rows: unknown[] }> {
  const parts = text.split(/\$(\d+)/)
  const chunks = parts.map((part, i) => (i % 2 === 0 ? sql.raw(part) : sql.param(values[Number(part) - 1] ?? null)))
  return tx.execute(sql.join(chunks))
}
