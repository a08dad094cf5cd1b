import { eq, sql } from 'drizzle-orm'
import type { Day } from '#core/base/day'
import type { MailWays } from '#core/told/mail-sort'
import type { Told } from '#core/told/told'
import type { Tx } from '../db/client'
import { named, read, readOne } from '../db/read'
import { notice, person } from '../db/schema/people'

const p = named(person, 'p')
const n = named(notice, 'n')

/** Those who are here, have some mails come in one letter, and have had none since a moment. */
export async function listLetterReaders(tx: Tx, since: Date, today: Day): Promise<string[]> {
  const found = await read(
    tx,
    { id: p.id },
    sql`from ${p} where 'daily' in (${p.mailsWaiting}, ${p.mailsNews})
      and (${p.leftOn} is null or ${p.leftOn} >= ${today})
      and (${p.letterAt} is null or ${p.letterAt} < ${since.toISOString()})`,
  )
  return found.map((f) => f.id)
}

/** A reader, locked, so that of two servers one writes the letter; null where it was written meanwhile. */
export function lockLetterReader(
  tx: Tx,
  id: string,
  since: Date,
): Promise<(MailWays & { name: string; email: string; letterAt: Date | null }) | null> {
  return readOne(
    tx,
    { name: p.name, email: p.email, waiting: p.mailsWaiting, news: p.mailsNews, letterAt: p.letterAt },
    sql`from ${p} where ${p.id} = ${id} and (${p.letterAt} is null or ${p.letterAt} < ${since.toISOString()})
      for no key update of p`,
  )
}

/** What somebody was told between two moments and has not read, the oldest first. */
export async function listUnread(tx: Tx, personId: string, after: Date, until: Date): Promise<Told[]> {
  const found = await read(
    tx,
    { told: n.told },
    sql`from ${n} where ${n.personId} = ${personId} and ${n.readAt} is null
      and ${n.at} > ${after.toISOString()} and ${n.at} <= ${until.toISOString()} order by ${n.at}, ${n.id}`,
  )
  return found.map((f) => f.told)
}

export async function setLetterAt(tx: Tx, id: string, at: Date): Promise<void> {
  await tx.update(person).set({ letterAt: at }).where(eq(person.id, id))
}
