import { randomBytes } from 'node:crypto'
import { eq, lt, sql } from 'drizzle-orm'
import type { Tx } from '../db/client'
import { readOne } from '../db/read'
import { oneTimeKey } from '../db/schema/people'
import { hashSecret } from './hash-secret'

type Purpose = typeof oneTimeKey.$inferSelect.purpose

/** Makes a secret that opens something once, until a moment; only its hash is kept. */
export async function insertOneTimeKey(
  tx: Tx,
  k: { readonly purpose: Purpose; readonly personId: string | null; readonly expiresAt: Date },
): Promise<string> {
  const key = randomBytes(24).toString('base64url')
  await tx.insert(oneTimeKey).values({ hash: hashSecret(key), ...k })
  return key
}

const isOpen = (purpose: Purpose, key: string, now: Date) =>
  sql`${oneTimeKey.hash} = ${hashSecret(key)} and ${oneTimeKey.purpose} = ${purpose}
    and ${oneTimeKey.expiresAt} > ${now}`

/** What a key opens as long as it was not used; null where it opens nothing. */
export function findOneTimeKey(
  tx: Tx,
  purpose: Purpose,
  key: string,
  now: Date,
): Promise<{ personId: string | null } | null> {
  return readOne(tx, { personId: oneTimeKey.personId }, sql`from ${oneTimeKey} where ${isOpen(purpose, key, now)}`)
}

/** Uses a key up: of two at the same moment one gets it. */
export async function takeOneTimeKey(
  tx: Tx,
  purpose: Purpose,
  key: string,
  now: Date,
): Promise<{ personId: string | null } | null> {
  const [taken] = await tx
    .delete(oneTimeKey)
    .where(isOpen(purpose, key, now))
    .returning({ personId: oneTimeKey.personId })
  return taken ?? null
}

/** Ends the keys of a purpose, of a person or of all. */
export async function endOneTimeKeys(tx: Tx, purpose: Purpose, personId: string | null): Promise<void> {
  const whose = personId === null ? sql`true` : eq(oneTimeKey.personId, personId)
  await tx.delete(oneTimeKey).where(sql`${oneTimeKey.purpose} = ${purpose} and ${whose}`)
}

export async function deleteExpiredKeys(tx: Tx, now: Date): Promise<void> {
  await tx.delete(oneTimeKey).where(lt(oneTimeKey.expiresAt, now))
}
