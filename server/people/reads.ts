import { sql } from 'drizzle-orm'
import type { Day } from '#core/base/day'
import type { DecimalText } from '#core/base/decimal'
import { moneyOf } from '#core/base/money'
import type { Absence, Person } from '#core/people/person'
import type { Role } from '#core/people/rights'
import type { Told } from '#core/told/told'
import type { Tx } from '../db/client'
import { row, rows } from '../db/rows'
import type { Actor } from './actor'

interface PersonRow {
  id: string
  name: string
  managerId: string | null
  departmentId: string
  ownLimit: DecimalText | null
  decidingLimit: DecimalText | null
  orderingLimit: DecimalText | null
  leftOn: Day | null
}

const PERSON = sql`p.id, p.name, p.manager_id as "managerId", p.department_id as "departmentId",
  p.own_limit as "ownLimit",
  p.deciding_limit as "decidingLimit", p.ordering_limit as "orderingLimit", p.left_on::text as "leftOn"`

function toPerson(r: PersonRow, currency: string): Person {
  const limit = (amount: DecimalText | null) => (amount === null ? null : moneyOf(amount, currency))
  return {
    ...r,
    ownLimit: limit(r.ownLimit),
    decidingLimit: limit(r.decidingLimit),
    orderingLimit: limit(r.orderingLimit),
  }
}

/**
 * These people, all managers above them, and whoever stands in for any of them on a day, with their
 * absences on that day: what a route is made from, and no more.
 */
export async function reachPeople(
  tx: Tx,
  ids: readonly string[],
  currency: string,
  today: Day,
): Promise<{ people: Person[]; absences: Absence[] }> {
  const found = await rows<PersonRow & { absence: Absence | null }>(
    tx,
    sql`
    with recursive reach(id) as (
      select x::uuid from unnest(${sql.param(ids as string[])}::uuid[]) x
      union
      select n.id from reach r cross join lateral (
        select m.manager_id as id from person m where m.id = r.id and m.manager_id is not null
        union all
        select a.substitute_id from absence a
        where a.person_id = r.id and a.substitute_id is not null and a.from_day <= ${today} and a.until_day >= ${today}
      ) n
    )
    select ${PERSON}, (
      select json_build_object('personId', a.person_id, 'from', a.from_day, 'until', a.until_day, 'substituteId',
        a.substitute_id)
      from absence a where a.person_id = p.id and a.from_day <= ${today} and a.until_day >= ${today}
        order by a.from_day limit 1
    ) as absence
    from reach join person p on p.id = reach.id`,
  )
  return {
    people: found.map((r) =>
      toPerson(
        {
          id: r.id,
          name: r.name,
          managerId: r.managerId,
          departmentId: r.departmentId,
          ownLimit: r.ownLimit,
          decidingLimit: r.decidingLimit,
          orderingLimit: r.orderingLimit,
          leftOn: r.leftOn,
        },
        currency,
      ),
    ),
    absences: found.flatMap((r) => (r.absence === null ? [] : [r.absence])),
  }
}

/** People whose ordering limit covers an amount and who hold the buyer's role, lowest limit first. */
export function listWhoMayOrder(
  tx: Tx,
  amount: DecimalText,
  today: Day,
): Promise<{ personId: string; name: string }[]> {
  return rows(
    tx,
    sql`
    select p.id as "personId", p.name from person p
    where p.ordering_limit >= ${amount} and (p.left_on is null or p.left_on >= ${today})
      and exists (select 1 from role_grant g where g.person_id = p.id and g.role = 'buyer')
    order by p.ordering_limit, p.name limit 3`,
  )
}

/** Whoever acts at a moment; the organisation's own clock decides whether they are still here. */
export async function findActor(tx: Tx, personId: string, now: Date): Promise<Actor | null> {
  return row<Actor>(
    tx,
    sql`
    select p.id, p.name, p.locale, coalesce((
      select json_agg(json_build_object('role', g.role, 'departmentId', g.department_id)) from role_grant g
        where g.person_id = p.id
    ), '[]') as grants
    from person p, organisation o
    where p.id = ${personId} and (p.left_on is null
      or p.left_on >= (${now.toISOString()}::timestamptz at time zone o.time_zone)::date)`,
  )
}

/**
 * Whoever acts in live sessions, by the session's id: those that ended, or were not seen since `oldest`, are left out.
 */
export async function listLiveActors(tx: Tx, sessionIds: readonly string[], oldest: Date): Promise<Map<string, Actor>> {
  const found = await rows<Actor & { sessionId: string }>(
    tx,
    sql`
    select s.id as "sessionId", p.id, p.name, p.locale, coalesce((
      select json_agg(json_build_object('role', g.role, 'departmentId', g.department_id)) from role_grant g
        where g.person_id = p.id
    ), '[]') as grants
    from session s join person p on p.id = s.person_id
    where s.id = any(${sql.param([...sessionIds])}::text[]) and s.ended_at is null
      and s.seen_at > ${oldest.toISOString()}`,
  )
  return new Map(found.map(({ sessionId, ...actor }) => [sessionId, actor]))
}

export async function findForSignIn(
  tx: Tx,
  email: string,
): Promise<{ id: string; passwordHash: string | null; leftOn: Day | null } | null> {
  return row(
    tx,
    sql`
    select id, password_hash as "passwordHash", left_on::text as "leftOn" from person
      where lower(email) = lower(${email})`,
  )
}

/** Departments that a person may raise for. */
export function listOpenDepartments(
  tx: Tx,
  personId: string,
): Promise<{ id: string; name: string; usualShipToId: string | null }[]> {
  return rows(
    tx,
    sql`
    select d.id, d.name, d.usual_ship_to_id as "usualShipToId" from department d
    where d.id in (select department_id from department_member where person_id = ${personId})
       or d.id = (select department_id from person where id = ${personId})
    order by d.id = (select department_id from person where id = ${personId}) desc, d.name`,
  )
}

/** Every department, by its name. */
export function listDepartments(tx: Tx): Promise<{ id: string; name: string }[]> {
  return rows(tx, sql`select d.id, d.name from department d order by d.name, d.id`)
}

/** People for whom a person may raise: themselves first, then everybody still here in the departments open to them. */
export function listRaisedFor(
  tx: Tx,
  personId: string,
  today: Day,
): Promise<{ id: string; name: string; jobTitle: string }[]> {
  return rows(
    tx,
    sql`
    with open_department as (
      select department_id as id from department_member where person_id = ${personId} union select department_id
        from person where id = ${personId})
    select p.id, p.name, p.job_title as "jobTitle" from person p
    where (p.left_on is null or p.left_on >= ${today}) and (p.id = ${personId} or p.department_id in (select id
      from open_department)
      or exists (select 1 from department_member m where m.person_id = p.id and m.department_id in (select id
        from open_department)))
    order by p.id = ${personId} desc, p.name`,
  )
}

/** A department and all above it, itself first. */
export async function listBranch(tx: Tx, departmentId: string): Promise<string[]> {
  const found = await rows<{ id: string }>(
    tx,
    sql`
    with recursive up(id, parent_id, n) as (
      select id, parent_id, 1 from department where id = ${departmentId}
      union all select d.id, d.parent_id, n + 1 from department d join up on d.id = up.parent_id where n < 20
    ) select id from up order by n`,
  )
  return found.map((r) => r.id)
}

export interface ShipToRow {
  id: string
  name: string
  street: string
  postcode: string
  town: string
  country: string
}
export function listShipTos(tx: Tx): Promise<ShipToRow[]> {
  return rows<ShipToRow>(
    tx,
    sql`select id, name, street, postcode, town, country from ship_to where not is_once order by name`,
  )
}

/** The demo's people with what each is good for trying. */
export function listDemoPeople(
  tx: Tx,
): Promise<{ id: string; name: string; email: string; jobTitle: string; department: string; note: string }[]> {
  return rows(
    tx,
    sql`
    select p.id, p.name, p.email, p.job_title as "jobTitle", d.name as department, p.demo_note as note
    from person p join department d on d.id = p.department_id
    where p.demo_note is not null and p.left_on is null order by p.demo_rank, p.name`,
  )
}

/** People to choose a substitute from: everybody still here, by a part of the name. */
export function searchPeople(
  tx: Tx,
  words: string,
  today: Day,
): Promise<{ id: string; name: string; jobTitle: string; department: string }[]> {
  return rows(
    tx,
    sql`
    select p.id, p.name, p.job_title as "jobTitle", d.name as department from person p
      join department d on d.id = p.department_id
    where (p.left_on is null or p.left_on >= ${today}) and p.name ilike ${'%' + words.replace(/[\\%_]/g, '\\$&') + '%'}
    order by p.name limit 20`,
  )
}

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
  return rows<AbsenceRow>(
    tx,
    sql`
    select a.id, a.person_id as "personId", p.name, a.from_day::text as "from", a.until_day::text as "until",
      a.substitute_id as "substituteId", s.name as substitute, a.note, a.version::int as version
    from absence a join person p on p.id = a.person_id left join person s on s.id = a.substitute_id
    where a.until_day >= ${today} ${personId === null ? sql`` : sql`and a.person_id = ${personId}`}
    order by a.from_day, p.name`,
  )
}

export function listNotices(
  tx: Tx,
  personId: string,
): Promise<{ id: string; at: string; told: Told; aboutKind: string; aboutId: string; read: boolean }[]> {
  return rows(
    tx,
    sql`
    select id, to_char(at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS"Z"') as at, told, about_kind as "aboutKind",
      about_id as "aboutId", read_at is not null as read
    from notice where person_id = ${personId} order by notice.at desc, id limit 30`,
  )
}

/** How much a person was told and has not read, and whether anybody reports to them. */
export async function readTold(tx: Tx, personId: string): Promise<{ unread: number; decides: boolean }> {
  const found = await row<{ unread: number; decides: boolean }>(
    tx,
    sql`
    select (select count(*)::int from notice where person_id = ${personId} and read_at is null) as unread,
      exists (select 1 from person where manager_id = ${personId}) as decides`,
  )
  return found ?? { unread: 0, decides: false }
}

export async function findAddress(tx: Tx, personId: string): Promise<{ name: string; email: string } | null> {
  return row(tx, sql`select name, email from person where id = ${personId}`)
}

/** Whoever holds a role and is here on a day; for a department, also whoever holds it for that one. */
export function listHolders(
  tx: Tx,
  role: Role,
  today: Day,
  departmentId: string | null = null,
): Promise<{ id: string; name: string }[]> {
  return rows(
    tx,
    sql`
    select distinct p.id, p.name from role_grant g join person p on p.id = g.person_id
    where g.role = ${role} and (p.left_on is null or p.left_on >= ${today}) and (g.department_id is null
      or g.department_id = ${departmentId}) order by p.name`,
  )
}

/** How a person keeps their views of a place. */
export function listSavedViews(
  tx: Tx,
  personId: string,
  place: string,
): Promise<{ id: string; name: string; query: string }[]> {
  return rows(
    tx,
    sql`select id, name, query from saved_view where person_id = ${personId} and place = ${place} order by name`,
  )
}
