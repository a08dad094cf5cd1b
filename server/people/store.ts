import { and, eq, isNull, sql, type SQL } from 'drizzle-orm'
import type { Day } from '#core/base/day'
import type { Address } from '#core/base/address'
import type { StandIn } from '#core/people/person'
import type { Told } from '#core/told/told'
import { absence, absenceStandIn, notice, person, savedView, shipTo, signInAttempt } from '../db/schema/people'
import type { Tx } from '../db/client'
import { sendAlong } from '../db/transaction'
import { readOne } from '../db/read'

/** After an hour without a try nothing is held against anybody; no pause is longer than a quarter of one. */
const FORGOTTEN_SECONDS = 3600
const LONGEST_PAUSE_SECONDS = 900

/** The pause after so many tries in seconds: none while they are free, then twice as long each time. */
const pauseAfter = (free: number): SQL => sql`case when ${signInAttempt.count} < ${free} then 0
  else least(${LONGEST_PAUSE_SECONDS}, power(2, least(${signInAttempt.count} - ${free} + 1, 20))) end`

/**
 * Counts a try to sign in under a key, of which some are free and others follow after growing pauses; returns the
 * seconds that are left of a pause, and counts nothing then.
 */
export async function countSignIn(tx: Tx, key: string, now: Date, free: number): Promise<number> {
  const { windowFrom: lastAt, count } = signInAttempt
  const at = sql`${now.toISOString()}::timestamptz`
  const isForgotten = sql`${lastAt} < ${at} - make_interval(secs => ${FORGOTTEN_SECONDS})`
  const [counted] = await tx
    .insert(signInAttempt)
    .values({ key, windowFrom: now, count: '1' })
    .onConflictDoUpdate({
      target: signInAttempt.key,
      // Of several at once one may have begun before another was counted.
      set: {
        count: sql`case when ${isForgotten} then 1 else ${count} + 1 end`,
        windowFrom: sql`greatest(${lastAt}, ${at})`,
      },
      setWhere: sql`${isForgotten} or ${count} < ${free}
        or ${lastAt} + make_interval(secs => ${pauseAfter(free)}) <= ${at}`,
    })
    .returning({ key: signInAttempt.key })
  if (counted !== undefined) return 0
  const [held] = await tx
    .select({ left: sql<number>`ceil(extract(epoch from ${lastAt} - ${at}) + ${pauseAfter(free)})::int` })
    .from(signInAttempt)
    .where(eq(signInAttempt.key, key))
  return Math.max(1, held?.left ?? 1)
}

/** A try that was none after all: it counts no more. */
export async function uncountSignIn(tx: Tx, key: string): Promise<void> {
  const { count } = signInAttempt
  await tx
    .update(signInAttempt)
    .set({ count: sql`greatest(${count} - 1, 0)` })
    .where(eq(signInAttempt.key, key))
}

export async function forgetSignIns(tx: Tx, key: string): Promise<void> {
  await tx.delete(signInAttempt).where(eq(signInAttempt.key, key))
}

/** Wherever somebody stands in during an absence, somebody else does, or nobody. */
export async function replaceSubstitute(tx: Tx, absenceId: string, ofId: string, toId: string | null): Promise<void> {
  const { substituteId } = absence
  await tx
    .update(absence)
    .set({
      substituteId: sql`case when ${substituteId} = ${ofId} then ${toId}::uuid else ${substituteId} end`,
      version: sql`${absence.version} + 1`,
    })
    .where(eq(absence.id, absenceId))
  const theirs = and(eq(absenceStandIn.absenceId, absenceId), eq(absenceStandIn.substituteId, ofId))
  if (toId === null) await tx.delete(absenceStandIn).where(theirs)
  else await tx.update(absenceStandIn).set({ substituteId: toId }).where(theirs)
}

export async function insertAbsence(
  tx: Tx,
  a: {
    personId: string
    from: Day
    until: Day
    substituteId: string | null
    byDepartment: readonly StandIn[]
    note: string
  },
): Promise<string> {
  const [added] = await tx
    .insert(absence)
    .values({
      personId: a.personId,
      fromDay: a.from,
      untilDay: a.until,
      substituteId: a.substituteId,
      note: a.note,
    })
    .returning({ id: absence.id })
  if (added === undefined) throw new Error('an absence was not written')
  if (a.byDepartment.length > 0)
    await tx
      .insert(absenceStandIn)
      .values(
        a.byDepartment.map(({ departmentId, substituteId }) => ({ absenceId: added.id, departmentId, substituteId })),
      )
  return added.id
}

export async function deleteAbsence(tx: Tx, id: string): Promise<void> {
  await tx.delete(absence).where(eq(absence.id, id))
}

export async function lockAbsence(
  tx: Tx,
  id: string,
): Promise<{
  id: string
  personId: string
  from: Day
  until: Day
  substituteId: string | null
  version: number
} | null> {
  return readOne(
    tx,
    {
      id: absence.id,
      personId: absence.personId,
      from: absence.fromDay,
      until: absence.untilDay,
      substituteId: absence.substituteId,
      version: sql<number>`${absence.version}::int`,
    },
    sql`from ${absence} where ${absence.id} = ${id} for update`,
  )
}

export async function insertNotices(
  tx: Tx,
  notices: readonly {
    personId: string
    at: Date
    told: Told
    aboutKind: string
    aboutId: string
    decisionId: string | null
  }[],
): Promise<void> {
  if (notices.length > 0) await sendAlong(tx, tx.insert(notice).values([...notices]))
}

/** What a decision told is taken away with it. */
export async function deleteNoticesOf(tx: Tx, decisionId: string): Promise<void> {
  await tx.delete(notice).where(eq(notice.decisionId, decisionId))
}

export async function markNoticesRead(tx: Tx, personId: string, now: Date): Promise<void> {
  await tx
    .update(notice)
    .set({ readAt: now })
    .where(and(eq(notice.personId, personId), isNull(notice.readAt)))
}

/** Keeps an address for one delivery as a ship-to that is offered to nobody; returns its id. */
export async function keepOneOffAddress(tx: Tx, a: Address): Promise<string> {
  const [kept] = await tx
    .insert(shipTo)
    .values({ ...a, isOnce: true })
    .returning({ id: shipTo.id })
  if (kept === undefined) throw new Error('an address was not kept')
  return kept.id
}

/** Keeps a view under a name; one of the same name is written over. */
export async function upsertSavedView(
  tx: Tx,
  v: { id: string; personId: string; place: string; name: string; query: string },
): Promise<string> {
  const [kept] = await tx
    .insert(savedView)
    .values(v)
    .onConflictDoUpdate({ target: [savedView.personId, savedView.place, savedView.name], set: { query: v.query } })
    .returning({ id: savedView.id })
  if (kept === undefined) throw new Error('a view was not kept')
  return kept.id
}

export async function deleteSavedView(tx: Tx, id: string, personId: string): Promise<boolean> {
  return (
    (
      await tx
        .delete(savedView)
        .where(and(eq(savedView.id, id), eq(savedView.personId, personId)))
        .returning({ id: savedView.id })
    ).length > 0
  )
}

export async function setPasswordHash(tx: Tx, personId: string, passwordHash: string): Promise<void> {
  await tx.update(person).set({ passwordHash }).where(eq(person.id, personId))
}
