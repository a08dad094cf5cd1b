import { randomBytes } from 'node:crypto'
import { and, eq, isNull, sql } from 'drizzle-orm'
import type { Right } from '#core/people/rights'
import type { Tx } from '../db/client'
import { SECONDS } from '../db/moments'
import { read } from '../db/read'
import { accessToken } from '../db/schema/people'
import { hashSecret } from './hash-secret'

/** What every token begins with, so that one that lies about can be told from other secrets. */
const PREFIX = 'rekko_'

/** Makes a token; what it is, is told once and never kept. */
export async function insertToken(
  tx: Tx,
  t: {
    readonly personId: string
    readonly name: string
    readonly rights: readonly Right[]
    readonly createdAt: Date
    readonly expiresAt: Date
  },
): Promise<{ id: string; token: string }> {
  const token = PREFIX + randomBytes(30).toString('base64url')
  const [made] = await tx
    .insert(accessToken)
    .values({ ...t, rights: [...t.rights], hash: hashSecret(token) })
    .returning({ id: accessToken.id })
  if (made === undefined) throw new Error('a token was not made')
  return { id: made.id, token }
}

/** The tokens of somebody that were not ended, the newest first. */
export function listTokens(tx: Tx, personId: string) {
  const t = accessToken
  return read(
    tx,
    {
      id: t.id,
      name: t.name,
      rights: sql<Right[]>`${t.rights}`,
      createdAt: SECONDS(t.createdAt),
      expiresAt: SECONDS(t.expiresAt),
      usedAt: sql<string | null>`${SECONDS(t.usedAt)}`,
    },
    sql`from ${t} where ${t.personId} = ${personId} and ${t.endedAt} is null order by ${t.createdAt} desc`,
  )
}

/** Ends one of somebody's tokens; false where it is none that holds. */
export async function endToken(tx: Tx, personId: string, id: string, now: Date): Promise<boolean> {
  const { id: tokenId, personId: whose, endedAt } = accessToken
  const ended = await tx
    .update(accessToken)
    .set({ endedAt: now })
    .where(and(eq(tokenId, id), eq(whose, personId), isNull(endedAt)))
    .returning({ id: tokenId })
  return ended.length > 0
}

/** Ends all tokens of somebody; answers with how many. */
export async function endTokens(tx: Tx, personId: string, now: Date): Promise<number> {
  const ended = await tx
    .update(accessToken)
    .set({ endedAt: now })
    .where(and(eq(accessToken.personId, personId), isNull(accessToken.endedAt)))
    .returning({ id: accessToken.id })
  return ended.length
}

export async function setTokenUsed(tx: Tx, id: string, now: Date): Promise<void> {
  await tx.update(accessToken).set({ usedAt: now }).where(eq(accessToken.id, id))
}
