import { dayOf } from '#core/base/day'
import { mailWay } from '#core/told/mail-sort'
import type { Db, Tx } from '../db/client'
import { postMails } from '../mail/post-mail'
import { enqueue } from '../queue/enqueue'
import { isSetUp, requireOrganisation } from '../settings/reads'
import { listLetterReaders, listUnread, lockLetterReader, setLetterAt } from './letter-store'

/** The hour of the organisation's day from which the letter of the day is written. */
const FROM_HOUR = 7
const DAY_MS = 86_400_000
const HOUR_MS = 3_600_000
/** What one letter tells; the rest is counted. */
const MOST = 40

/** The last seven o'clock, within the hour: one letter a day, whatever hour the server was down; null before seven. */
function lastRound(now: Date, timeZone: string): Date | null {
  const hours = new Intl.DateTimeFormat('en-GB', { timeZone, hour: '2-digit', hourCycle: 'h23' }).format(now)
  const hour = Number(hours.slice(0, 2))
  return hour < FROM_HOUR ? null : new Date(now.getTime() - (hour - FROM_HOUR + 1) * HOUR_MS)
}

/** Begins the letters of the day, from seven in the morning on: each reader's is a task of its own. */
export async function beginLetters(db: Db, now: Date): Promise<void> {
  if (!(await isSetUp(db))) return
  const { timeZone } = await requireOrganisation(db)
  const since = lastRound(now, timeZone)
  if (since === null) return
  for (const personId of await listLetterReaders(db, since, dayOf(now, timeZone)))
    await enqueue(db, 'daily-letter', { personId })
}

/** Writes one reader's letter, once a day, and notes it; nothing new makes none. */
export async function writeLetter(tx: Tx, personId: string, now: Date): Promise<void> {
  const since = lastRound(now, (await requireOrganisation(tx)).timeZone)
  if (since === null) return
  const reader = await lockLetterReader(tx, personId, since)
  if (reader === null) return
  const after = reader.letterAt ?? new Date(now.getTime() - DAY_MS)
  const told = (await listUnread(tx, personId, after, now)).filter((t) => mailWay(t, reader) === 'daily')
  await setLetterAt(tx, personId, now)
  if (told.length === 0) return
  await postMails(tx, [
    {
      personId,
      toName: reader.name,
      toAddress: reader.email,
      told: { code: 'daily-letter', told: told.slice(0, MOST), more: Math.max(0, told.length - MOST) },
      path: '/',
      aboutKind: 'session',
      aboutId: personId,
      notBefore: now,
      now,
    },
  ])
}
