import { sql } from 'drizzle-orm'
import type { Day } from '#core/base/day'
import type { StandIn } from '#core/people/person'
import type { Tx } from '../db/client'
import { named, read } from '../db/read'
import { absence, absenceStandIn, department, person } from '../db/schema/people'

const a = named(absence, 'a')
const p = named(person, 'p')
const u = named(person, 'u')
const i = named(absenceStandIn, 'i')
const d = named(department, 'd')
const s = named(person, 's')

export interface AbsenceRow {
  id: string
  personId: string
  name: string
  from: Day
  until: Day
  substituteId: string | null
  substitute: string | null
  /** Who stands in instead for what comes from a department, or from one below it. */
  byDepartment: { departmentId: string; department: string; substituteId: string; substitute: string }[]
  note: string
  version: number
}

const COLUMNS = {
  id: a.id,
  personId: a.personId,
  name: p.name,
  from: a.fromDay,
  until: a.untilDay,
  substituteId: a.substituteId,
  substitute: u.name,
  byDepartment: sql<AbsenceRow['byDepartment']>`coalesce((
    select json_agg(json_build_object('departmentId', ${i.departmentId}, 'department', ${d.name},
      'substituteId', ${i.substituteId}, 'substitute', ${s.name}) order by ${d.name})
    from ${i} join ${d} on ${d.id} = ${i.departmentId} join ${s} on ${s.id} = ${i.substituteId}
    where ${i.absenceId} = ${a.id}), '[]')`,
  note: a.note,
  version: sql<number>`${a.version}::int`,
}
const JOINED = sql`from ${a} join ${p} on ${p.id} = ${a.personId} left join ${u} on ${u.id} = ${a.substituteId}`

/** Who stands in during an absence by department. */
export const listStandIns = (tx: Tx, absenceId: string): Promise<StandIn[]> =>
  read(
    tx,
    { departmentId: i.departmentId, substituteId: i.substituteId },
    sql`from ${i} where ${i.absenceId} = ${absenceId} order by ${i.departmentId}`,
  )

/** Absences in which somebody stands in, that are not over on a day, without why; of those who left, none. */
export function listCovered(tx: Tx, substituteId: string, day: Day): Promise<AbsenceRow[]> {
  return read(
    tx,
    { ...COLUMNS, note: sql<string>`''` },
    sql`${JOINED} where (${a.substituteId} = ${substituteId} or exists (select 1 from ${i}
      where ${i.absenceId} = ${a.id} and ${i.substituteId} = ${substituteId})) and ${a.untilDay} >= ${day}
      and coalesce(${p.leftOn} >= ${a.fromDay}, true) order by ${a.fromDay}, ${p.name}, ${a.id}`,
  )
}

/** All absences that hold a day, with who stands in. */
export const listAllAbsences = (tx: Tx, day: Day): Promise<AbsenceRow[]> =>
  read(tx, COLUMNS, sql`${JOINED} where ${a.fromDay} <= ${day} and ${a.untilDay} >= ${day} order by ${p.name}, ${a.id}`)

/** Absences of a person, or of everybody, that are not over on `today`. */
export function listAbsences(tx: Tx, today: Day, personId: string | null): Promise<AbsenceRow[]> {
  return read(
    tx,
    COLUMNS,
    sql`${JOINED}
    where ${a.untilDay} >= ${today} ${personId === null ? sql`` : sql`and ${a.personId} = ${personId}`}
    order by ${a.fromDay}, ${p.name}`,
  )
}
