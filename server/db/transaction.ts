import { sql } from 'drizzle-orm'
import { sqlState, type Db, type Tx } from './client'

/** What transactions under way have sent and not waited for. */
const SENT = new WeakMap<Tx, Promise<unknown>[]>()
/** PostgreSQL says so of every statement after the one that failed. */
const FAILED_BEFORE = '25P02'

/** Runs `work` in one transaction; a deadlock or a serialization failure is tried again, at most three times. */
export async function inTransaction<T>(db: Db, work: (tx: Tx) => Promise<T>): Promise<T> {
  for (let attempt = 1; ; attempt += 1) {
    try {
      return await runOnce(db, work)
    } catch (error) {
      const code = sqlState(error)
      if (attempt < 3 && (code === '40P01' || code === '40001')) continue
      throw error
    }
  }
}

/**
 * Sends a statement of which nobody needs the answer, and does not wait for it: the transaction's end does, and is none
 * if it failed. PostgreSQL carries out what it is sent in its order. Without a transaction it is waited for.
 */
export async function sendAlong(tx: Tx, statement: PromiseLike<unknown>): Promise<void> {
  const sent = SENT.get(tx)
  if (sent === undefined) {
    await statement
    return
  }
  // Asked for its answer at once, as a query is sent by being asked.
  const answer = new Promise((resolve, reject) => {
    statement.then(resolve, reject)
  })
  answer.catch(() => undefined)
  sent.push(answer)
}

/** Runs a part of a transaction: where it fails, what it wrote is taken back and the transaction goes on. */
export async function inPartOf<T>(tx: Tx, work: () => Promise<T>): Promise<T> {
  await tx.execute(sql`savepoint part`)
  try {
    const result = await work()
    await tx.execute(sql`release savepoint part`)
    return result
  } catch (error) {
    await tx.execute(sql`rollback to savepoint part`)
    throw error
  }
}

/** Runs a part of a transaction to see what comes of it: whatever it wrote is taken back. */
export async function onTrial<T>(tx: Tx, work: () => Promise<T>): Promise<T> {
  await tx.execute(sql`savepoint trial`)
  try {
    return await work()
  } finally {
    await tx.execute(sql`rollback to savepoint trial`)
  }
}

async function runOnce<T>(db: Db, work: (tx: Tx) => Promise<T>): Promise<T> {
  const { statements: tx, release } = await db.connect()
  const sent: Promise<unknown>[] = []
  SENT.set(tx, sent)
  let isLost = false
  try {
    void sendAlong(tx, tx.execute(sql`begin`))
    const result = await work(tx)
    const ended = tx.execute(sql`commit`).then((done) => done.command)
    await Promise.all([...sent, ended])
    // A transaction in which something failed is ended by `commit` without being kept.
    if ((await ended) !== 'COMMIT') throw new Error('a transaction was not kept')
    return result
  } catch (error) {
    await tx.execute(sql`rollback`).catch(() => {
      isLost = true
    })
    throw (await firstFailure(sent)) ?? error
  } finally {
    release(isLost)
  }
}

/** What failed first of what nobody waited for: whatever came after it heard only that something had. */
async function firstFailure(sent: readonly Promise<unknown>[]): Promise<unknown> {
  const answers = await Promise.allSettled(sent)
  const failures = answers.flatMap((a) => (a.status === 'rejected' ? [a.reason as unknown] : []))
  return failures.find((f) => sqlState(f) !== FAILED_BEFORE) ?? null
}
