import { openDatabase, type Database } from '../../server/db/client'

export interface Statement {
  readonly text: string
  readonly values: readonly unknown[]
}

/** A database handle that writes down every statement that goes through it. */
export function recording(url: string): Database & { statements: Statement[] } {
  const statements: Statement[] = []
  const logQuery = (text: string, values: unknown[]) => {
    statements.push({ text, values })
  }
  return { ...openDatabase(url, 2, { logQuery }), statements }
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
