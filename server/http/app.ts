import { openDatabase, type Database } from '../db/client'
import { environment } from '../environment'

let opened: Database | null = null

/** The process's one pool. */
export function database(): Database {
  opened ??= openDatabase(environment().databaseUrl, 12)
  return opened
}

/** The one clock of the server; use cases get its moments as arguments. */
export const clock = (): Date => new Date()
