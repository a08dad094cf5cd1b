import { sql, type SQL, type SQLWrapper } from 'drizzle-orm'

/** A moment as ISO 8601 text in UTC, to the millisecond. */
export const UTC = (moment: SQLWrapper): SQL<string> =>
  sql<string>`to_char(${moment} at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"')`

/** A moment as ISO 8601 text in UTC, to the second. */
export const SECONDS = (moment: SQLWrapper): SQL<string> =>
  sql<string>`to_char(${moment} at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS"Z"')`
