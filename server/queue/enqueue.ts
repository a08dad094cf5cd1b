import { sql } from 'drizzle-orm'
import PgBoss from 'pg-boss'
import type { Tx } from '../db/client'
import { sendAlong } from '../db/transaction'
import { ENDED, LONG, WORKERS, type Task, type TaskData } from './tasks'

/** A worker that died is noticed after so long, and its tasks are tried again; whoever waits for others gets longer. */
const EXPIRES_SECONDS = 40
const EXPIRES_OUTSIDE_SECONDS = 120
const EXPIRES_LONG_SECONDS = 900
/** Pauses that double from five seconds on: sixteen of them last about four days, and then it ends. */
const PATIENCE = { retryLimit: 16, retryDelay: 5, retryBackoff: true }

/** A task on its way into the queue, with how it is tried. */
export interface Put extends PgBoss.JobInsert {
  readonly name: Task
}

/** What takes tasks: the queue's own client. */
export interface TakesTasks {
  insert(tasks: Put[], options: PgBoss.InsertOptions): Promise<unknown>
}
let taker: TakesTasks | null = null

/** Where tasks are put; it is told once, at the start of the process. */
export function useQueue(queue: TakesTasks): void {
  taker = queue
}

/**
 * Puts a task into the queue inside the transaction: a rollback leaves none, a crash after the commit
 * loses none. It is tried again in growing pauses for days, since what it does can be repeated. `inSeconds` is a wait
 * and not a moment, since the queue counts by the database's clock, which may not be ours.
 */
export async function enqueue<T extends Task>(tx: Tx, task: T, data: TaskData[T], inSeconds = 0): Promise<void> {
  await enqueueAll(tx, task, [{ data, inSeconds }])
}

/** Puts several tasks of a kind into the queue in one statement, each with its own wait. */
export async function enqueueAll<T extends Task>(
  tx: Tx,
  task: T,
  of: readonly { readonly data: TaskData[T]; readonly inSeconds: number }[],
): Promise<void> {
  await put(
    tx,
    of.map(({ data, inSeconds }) => ({
      ...PATIENCE,
      name: task,
      data: { ...data, task },
      deadLetter: ENDED,
      // The queue goes by the machine's clock, whatever ours shows.
      ...(inSeconds > 0 ? { startAfter: new Date(Date.now() + inSeconds * 1000) } : {}),
    })),
  )
}

/** Puts what may have lost its task into the queue again: for one try, and at most once in five minutes for a key. */
export async function enqueueAgain<T extends Task>(tx: Tx, task: T, data: TaskData[T], key: string): Promise<void> {
  await put(tx, [{ name: task, data: { ...data, task }, retryLimit: 0, singletonKey: key, singletonSeconds: 300 }])
}

async function put(tx: Tx, tasks: readonly Put[]): Promise<void> {
  if (taker === null) throw new Error('the queue is not started')
  if (tasks.length === 0) return
  await taker.insert(
    tasks.map((t) => ({
      ...t,
      expireInSeconds: expiryOf(t.name),
    })),
    { db: { executeSql: (text, values) => execute(tx, text, values) } },
  )
}

const expiryOf = (task: Task): number =>
  LONG.includes(task) ? EXPIRES_LONG_SECONDS : WORKERS[task] === undefined ? EXPIRES_SECONDS : EXPIRES_OUTSIDE_SECONDS

/** Sends the queue's own statement along with the transaction's: its text is cut at $1..$n. */
async function execute(tx: Tx, text: string, values: unknown[]): Promise<{ rows: unknown[] }> {
  const parts = text.split(/\$(\d+)/)
  const chunks = parts.map((part, i) => (i % 2 === 0 ? sql.raw(part) : sql.param(values[Number(part) - 1] ?? null)))
  await sendAlong(tx, tx.execute(sql.join(chunks)))
  // The task's id, which the queue would give, is nobody's to know.
  return { rows: [] }
}
