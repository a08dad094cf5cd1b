import { addDays, dayOf } from '#core/base/day'
import type { Tx } from '../db/client'
import { REKKO } from '../people/actor'
import { deleteExpiredKeys } from '../people/one-time-store'
import { eraseLeft } from '../personal/person-page'
import { isSetUp, requireOrganisation } from '../settings/reads'
import {
  deleteIdempotency,
  deleteLaid,
  deleteLetters,
  deleteOldUnreferenced,
  deleteReadNotices,
  deleteSessions,
  deleteSignInTries,
} from './store'

const DAY_MS = 86_400_000
const daysAgo = (now: Date, days: number) => new Date(now.getTime() - days * DAY_MS)

/**
 * Takes away what nobody needs any more: what of people is kept for some days only, by the organisation's word; answers
 * kept for repeats after a week, counts of sign-ins after a day, keys that opened nothing in time, files for lists that
 * nobody took in a week, and files of yesterday that nothing refers to (most went with what carried them). The queue
 * purges its own.
 */
export async function purge(tx: Tx, now: Date): Promise<void> {
  await keepToRetention(tx, now)
  await deleteIdempotency(tx, daysAgo(now, 7))
  await deleteSignInTries(tx, daysAgo(now, 1))
  await deleteExpiredKeys(tx, now)
  await deleteLaid(tx, daysAgo(now, 7))
  await deleteOldUnreferenced(tx, daysAgo(now, 1))
}

async function keepToRetention(tx: Tx, now: Date): Promise<void> {
  if (!(await isSetUp(tx))) return
  const { kept, timeZone } = await requireOrganisation(tx)
  if (kept.sessions !== null) await deleteSessions(tx, daysAgo(now, kept.sessions))
  if (kept.notices !== null) await deleteReadNotices(tx, daysAgo(now, kept.notices))
  if (kept.letters !== null) await deleteLetters(tx, daysAgo(now, kept.letters))
  if (kept.people !== null) await eraseLeft({ tx, now, actor: REKKO }, addDays(dayOf(now, timeZone), -kept.people))
}
