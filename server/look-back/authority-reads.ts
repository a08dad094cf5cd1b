import { sql } from 'drizzle-orm'
import type { EntryWritten } from '#core/look-back/rewind'
import type { Day } from '#core/base/day'
import type { Tx } from '../db/client'
import { named, read, readOne } from '../db/read'
import { approvalPolicy } from '../db/schema/approval'
import { event } from '../db/schema/audit'

const e = named(event, 'e')
const y = named(approvalPolicy, 'y')

/** That an event happened after a day, as days are counted where the organisation is. */
const after = (day: Day, timeZone: string) => sql`(${e.at} at time zone ${timeZone})::date > ${day}`

/** What was written into a list since a day, newest first; `isLong`: by a long file, which is not looked through. */
export async function listWritten(
  tx: Tx,
  listSubject: string,
  day: Day,
  timeZone: string,
): Promise<{ changes: EntryWritten[]; isLong: boolean }> {
  const found = await read(
    tx,
    {
      changes: sql<EntryWritten[]>`coalesce(${e.after} -> 'changes', '[]')`,
      isLong: sql<boolean>`${e.after} ? 'file'`,
    },
    sql`from ${e} where ${e.subjectId} = ${listSubject} and ${e.type} = 'list changed' and ${after(day, timeZone)}
      order by ${e.seq} desc`,
  )
  // Within an event each entry stands once.
  return { changes: found.flatMap((f) => f.changes), isLong: found.some((f) => f.isLong) }
}

/** The absences that were said, or taken back, since a day, the newest first. */
export const listAbsencesMoved = (
  tx: Tx,
  day: Day,
  timeZone: string,
): Promise<{ id: string; said: boolean; before: Record<string, unknown> | null }[]> =>
  read(
    tx,
    {
      id: e.subjectId,
      said: sql<boolean>`${e.type} = 'absence set'`,
      before: sql<Record<string, unknown> | null>`${e.before}`,
    },
    sql`from ${e} where ${e.subjectKind} = 'absence' and ${e.type} in ('absence set', 'absence ended')
      and ${after(day, timeZone)} order by ${e.seq} desc`,
  )

/** The number of the version of the policy that held at the end of a day; null before there was one. */
export async function findNumberHeld(tx: Tx, day: Day, timeZone: string): Promise<number | null> {
  const found = await readOne(
    tx,
    { number: y.number },
    sql`from ${y} where (${y.inForceAt} at time zone ${timeZone})::date <= ${day} and ${y.calledOffAt} is null
      order by ${y.inForceAt} desc, ${y.number} desc limit 1`,
  )
  return found?.number ?? null
}
