import type { Tx } from '../db/client'
import { deleteExpiredKeys } from '../people/one-time-store'
import { deleteIdempotency, deleteLaid, deleteOldUnreferenced, deleteSessions, deleteSignInTries } from './store'

const DAY_MS = 86_400_000
const daysAgo = (now: Date, days: number) => new Date(now.getTime() - days * DAY_MS)

/**
 * Takes away what nobody needs any more: sessions that ended or idled out a month ago, answers kept for repeats after a
 * week, counts of sign-ins after a day, keys that opened nothing
 * in time, files for lists that nobody took in a week, and files of yesterday that nothing refers to (most
 * went with what carried them). The queue purges its own.
 */
export async function purge(tx: Tx, now: Date): Promise<void> {
  await deleteSessions(tx, daysAgo(now, 30))
  await deleteIdempotency(tx, daysAgo(now, 7))
  await deleteSignInTries(tx, daysAgo(now, 1))
  await deleteExpiredKeys(tx, now)
  await deleteLaid(tx, daysAgo(now, 7))
  await deleteOldUnreferenced(tx, daysAgo(now, 1))
}
