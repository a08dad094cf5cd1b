import { eq, sql } from 'drizzle-orm'
import type { Profile } from '#shared/contract/account'
import type { Tx } from '../db/client'
import { readOne } from '../db/read'
import { person } from '../db/schema/people'

/** How somebody reads, how pages look for them, and which mails come. */
export async function findProfile(tx: Tx, personId: string): Promise<Profile | null> {
  const { locale, theme, mailsWaiting, mailsNews } = person
  return readOne(tx, { locale, theme, mailsWaiting, mailsNews }, sql`from ${person} where ${person.id} = ${personId}`)
}

export async function writeProfile(tx: Tx, personId: string, profile: Profile): Promise<void> {
  await tx.update(person).set(profile).where(eq(person.id, personId))
}
