import { drizzle, type NodePgDatabase } from 'drizzle-orm/node-postgres'
import pg from 'pg'

const NUMERIC = 1700
// Trailing zeros are the column's scale, not information: 312.500000 is read as 312.5.
pg.types.setTypeParser(NUMERIC, (text: string) => text.includes('.') ? text.replace(/\.?0+$/, '') : text)

export type Db = NodePgDatabase
/** A transaction, or the pool where one statement is enough. */
export type Tx = Pick<Db, 'select' | 'selectDistinct' | 'insert' | 'update' | 'delete' | 'execute'>

export interface Database {
  readonly db: Db
  readonly pool: pg.Pool
}

/** Opens a pool; a lost connection is reported by the next statement, not by the process dying. */
export function openDatabase(url: string, max = 10): Database {
  const pool = new pg.Pool({ connectionString: url, max, application_name: 'rekko' })
  pool.on('error', () => undefined)
  return { db: drizzle(pool), pool }
}

/** Runs `work` in one transaction; a deadlock or a serialization failure is tried again, at most three times. */
export async function inTransaction<T>(db: Db, work: (tx: Tx) => Promise<T>): Promise<T> {
  for (let attempt = 1; ; attempt += 1) {
    try {
      return await db.transaction((tx) => work(tx))
    }
    catch (error) {
      const code = sqlState(error)
      if (attempt < 3 && (code === '40P01' || code === '40001')) continue
      throw error
    }
  }
}

/** The SQLSTATE behind an error, also when the query builder has wrapped it. */
export function sqlState(error: unknown): string | null {
  for (let at: unknown = error; at instanceof Error; at = at.cause) {
    if ('code' in at && typeof at.code === 'string') return at.code
  }
  return null
}
