import { sql, type SQL, type SQLWrapper } from 'drizzle-orm'

/** A moment as ISO 8601 text in UTC, to the millisecond. */
export const UTC = (moment: SQLWrapper): SQL<string> =>
  sql<string>`to_char(${moment} at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"')`

/** The key of a row in a list by moment, newest first: after which the next page begins. */
export const PAGE_KEY = (moment: SQLWrapper, id: SQLWrapper): SQL<string> =>
  sql<string>`to_char(${moment} at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.US"Z"') || '_' || ${id}`

/** A moment as ISO 8601 text in UTC, to the second. */
export const SECONDS = (moment: SQLWrapper): SQL<string> =>
  sql<string>`to_char(${moment} at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS"Z"')`
