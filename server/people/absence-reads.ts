import { sql } from 'drizzle-orm'
import type { Day } from '#core/base/day'
import type { Tx } from '../db/client'
import { named, read } from '../db/read'
import { absence, person } from '../db/schema/people'

const a = named(absence, 'a')
const p = named(person, 'p')
const u = named(person, 'u')

export interface AbsenceRow {
  id: string
  personId: string
  name: string
  from: Day
  until: Day
  substituteId: string | null
  substitute: string | null
  note: string
  version: number
}

/** Absences of a person, or of everybody, that are not over on `today`. */
export function listAbsences(tx: Tx, today: Day, personId: string | null): Promise<AbsenceRow[]> {
  return read(
    tx,
    {
      id: a.id,
      personId: a.personId,
      name: p.name,
      from: a.fromDay,
      until: a.untilDay,
      substituteId: a.substituteId,
      substitute: u.name,
      note: a.note,
      version: sql<number>`${a.version}::int`,
    },
    sql`from ${a} join ${p} on ${p.id} = ${a.personId} left join ${u} on ${u.id} = ${a.substituteId}
    where ${a.untilDay} >= ${today} ${personId === null ? sql`` : sql`and ${a.personId} = ${personId}`}
    order by ${a.fromDay}, ${p.name}`,
  )
}
