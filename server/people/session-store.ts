import { and, eq, isNull, ne } from 'drizzle-orm'
import type { Tx } from '../db/client'
import { session } from '../db/schema/people'

export async function insertSession(
  tx: Tx,
  s: { id: string; personId: string; now: Date; byDemo: boolean; fromAddress: string; agent: string },
): Promise<void> {
  const { now, ...kept } = s
  await tx.insert(session).values({ ...kept, createdAt: now, seenAt: now })
}

export async function setSessionSeen(tx: Tx, id: string, now: Date): Promise<void> {
  await tx.update(session).set({ seenAt: now }).where(eq(session.id, id))
}

export async function endSession(tx: Tx, id: string, now: Date): Promise<void> {
  await tx
    .update(session)
    .set({ endedAt: now })
    .where(and(eq(session.id, id), isNull(session.endedAt)))
}

/** Ends a session of a person by what it is called; whether there was one. */
export async function endSessionCalled(tx: Tx, personId: string, handle: string, now: Date): Promise<boolean> {
  const ended = await tx
    .update(session)
    .set({ endedAt: now })
    .where(and(eq(session.handle, handle), eq(session.personId, personId), isNull(session.endedAt)))
    .returning({ id: session.id })
  return ended.length > 0
}

/** Ends all sessions of a person but one; how many those were. */
export async function endOtherSessions(tx: Tx, personId: string, keptId: string, now: Date): Promise<number> {
  const ended = await tx
    .update(session)
    .set({ endedAt: now })
    .where(and(eq(session.personId, personId), ne(session.id, keptId), isNull(session.endedAt)))
    .returning({ id: session.id })
  return ended.length
}
