import { openDatabase, type Database } from '../db/client'
import { environment } from '../environment'

let opened: Database | null = null

/** The process's one pool. */
export function database(): Database {
  opened ??= openDatabase(environment().databaseUrl, 12)
  return opened
}
