import { randomBytes } from 'node:crypto'
import { eq } from 'drizzle-orm'
import type { Tx } from '../db/client'
import { calendarFeed } from '../db/schema/people'
import { hashSecret } from './hash-secret'

/** Makes the address of somebody's calendar; the one before ends. It is told once, and only its hash is kept. */
export async function makeCalendarKey(tx: Tx, personId: string, now: Date): Promise<string> {
  const key = randomBytes(24).toString('base64url')
  const made = { hash: hashSecret(key), madeAt: now }
  await tx
    .insert(calendarFeed)
    .values({ personId, ...made })
    .onConflictDoUpdate({ target: calendarFeed.personId, set: made })
  return key
}

export async function endCalendarKey(tx: Tx, personId: string): Promise<void> {
  await tx.delete(calendarFeed).where(eq(calendarFeed.personId, personId))
}

/** Whose calendar an address is; null where it is nobody's (any more). */
export async function findCalendarOwner(tx: Tx, key: string): Promise<string | null> {
  const [found] = await tx
    .select({ personId: calendarFeed.personId })
    .from(calendarFeed)
    .where(eq(calendarFeed.hash, hashSecret(key)))
  return found?.personId ?? null
}

export async function hasCalendar(tx: Tx, personId: string): Promise<boolean> {
  const found = await tx
    .select({ madeAt: calendarFeed.madeAt })
    .from(calendarFeed)
    .where(eq(calendarFeed.personId, personId))
  return found.length > 0
}
