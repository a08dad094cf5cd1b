import { drizzle, type NodePgDatabase } from 'drizzle-orm/node-postgres'
import pg from 'pg'
import { PLANNING } from '../../server/db/client'

export interface Statement {
  readonly text: string
  readonly values: readonly unknown[]
}

/** A database handle that writes down every statement that goes through it. */
export function recording(url: string): { db: NodePgDatabase; pool: pg.Pool; statements: Statement[] } {
  const pool = new pg.Pool({ connectionString: url, max: 2, options: PLANNING })
  // What ends the cluster is heard of by whoever waits for a statement; not here.
  pool.on('error', () => undefined)
  const statements: Statement[] = []
  const db = drizzle(pool, {
    logger: {
      logQuery: (text, values) => {
        statements.push({ text, values })
      },
    },
  })
  return { db, pool, statements }
}

function literal(value: unknown): string {
  if (value === null || value === undefined) return 'null'
  if (typeof value === 'number') return String(value)
  if (typeof value === 'boolean') return value ? 'true' : 'false'
  if (value instanceof Date) return `'${value.toISOString()}'`
  if (Array.isArray(value)) return `'{${value.map((v) => String(v)).join(',')}}'`
  const text = typeof value === 'object' ? JSON.stringify(value) : String(value as string)
  return `'${text.replaceAll("'", "''")}'`
}

/** A statement with its values written in place, as a script for pgbench has it. */
export function inline({ text, values }: Statement): string {
  return text
    .replace(/\$(\d+)/g, (_, n: string) => literal(values[Number(n) - 1]))
    .replace(/;\s*$/, '')
    .replace(/\s+/g, ' ')
}
