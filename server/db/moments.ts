import { sql, type SQL } from 'drizzle-orm'

/** A column of moments as ISO 8601 text in UTC, to the millisecond. */
export const UTC = (column: string): SQL =>
  sql.raw(`to_char(${column} at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"')`)
