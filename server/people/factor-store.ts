import { and, eq, lt, sql } from 'drizzle-orm'
import type { Tx } from '../db/client'
import { readOne } from '../db/read'
import { recoveryCode, secondFactor } from '../db/schema/people'

export interface Factor {
  readonly sealed: string
  readonly isConfirmed: boolean
  readonly lastStep: number
}

/** Somebody's second factor, with how many recovery codes are left; null where they have none. */
export async function findFactor(tx: Tx, personId: string): Promise<(Factor & { readonly codes: number }) | null> {
  const f = secondFactor
  return readOne(
    tx,
    {
      sealed: f.sealed,
      isConfirmed: sql<boolean>`${f.confirmedAt} is not null`,
      lastStep: f.lastStep,
      codes: sql<number>`(select count(*)::int from ${recoveryCode} where ${recoveryCode.personId} = ${f.personId})`,
    },
    sql`from ${f} where ${f.personId} = ${personId}`,
  )
}

/** Begins a factor anew that was never confirmed; one that holds is not touched, and false is answered. */
export async function beginFactor(tx: Tx, personId: string, sealed: string): Promise<boolean> {
  const begun = await tx
    .insert(secondFactor)
    .values({ personId, sealed })
    .onConflictDoUpdate({
      target: secondFactor.personId,
      set: { sealed, lastStep: 0 },
      setWhere: sql`${secondFactor.confirmedAt} is null`,
    })
    .returning({ personId: secondFactor.personId })
  return begun.length > 0
}

/** Takes the code of a step up: of two at the same moment, and of a code heard by somebody else, one counts. */
export async function takeStep(tx: Tx, personId: string, step: number): Promise<boolean> {
  const taken = await tx
    .update(secondFactor)
    .set({ lastStep: step })
    .where(and(eq(secondFactor.personId, personId), lt(secondFactor.lastStep, step)))
    .returning({ personId: secondFactor.personId })
  return taken.length > 0
}

export async function confirmFactor(tx: Tx, personId: string, now: Date): Promise<void> {
  await tx.update(secondFactor).set({ confirmedAt: now }).where(eq(secondFactor.personId, personId))
}

/** Takes a second factor away, with its recovery codes. */
export async function deleteFactor(tx: Tx, personId: string): Promise<void> {
  await tx.delete(recoveryCode).where(eq(recoveryCode.personId, personId))
  await tx.delete(secondFactor).where(eq(secondFactor.personId, personId))
}

/** Writes recovery codes anew, by their hashes. */
export async function replaceCodes(tx: Tx, personId: string, hashes: readonly string[]): Promise<void> {
  await tx.delete(recoveryCode).where(eq(recoveryCode.personId, personId))
  await tx.insert(recoveryCode).values(hashes.map((hash) => ({ personId, hash })))
}

/** Uses a recovery code up; false where it is none. */
export async function takeCode(tx: Tx, personId: string, hash: string): Promise<boolean> {
  const taken = await tx
    .delete(recoveryCode)
    .where(and(eq(recoveryCode.personId, personId), eq(recoveryCode.hash, hash)))
    .returning({ hash: recoveryCode.hash })
  return taken.length > 0
}
