import { sql } from 'drizzle-orm'
import type { Day } from '#core/base/day'
import type { DecimalText } from '#core/base/decimal'
import { moneyOf } from '#core/base/money'
import type { Absence, Person } from '#core/people/person'
import type { Role } from '#core/people/rights'
import type { Told } from '#core/told/told'
import type { Tx } from '../db/client'
import { SECONDS } from '../db/moments'
import type { Actor } from './actor'
import { organisation } from '../db/schema/settings'
import { named, read, readOne, sure } from '../db/read'
import {
  absence,
  department,
  departmentMember,
  notice,
  person,
  roleGrant,
  savedView,
  session,
  shipTo,
} from '../db/schema/people'

const o = named(organisation, 'o')
const m = named(person, 'm')
const a = named(absence, 'a')
const p = named(person, 'p')
const g = named(roleGrant, 'g')
const s = named(session, 's')
const d = named(department, 'd')
const dm = named(departmentMember, 'dm')
const u = named(person, 'u')

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

const PERSON = {
  id: p.id,
  name: p.name,
  managerId: p.managerId,
  departmentId: p.departmentId,
  ownLimit: p.ownLimit,
  decidingLimit: p.decidingLimit,
  orderingLimit: p.orderingLimit,
  leftOn: p.leftOn,
}

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
  const found = await read(
    tx,
    {
      ...PERSON,
      absence: sql<Absence | null>`(
      select json_build_object('personId', ${a.personId}, 'from', ${a.fromDay}, 'until', ${a.untilDay}, 'substituteId',
        ${a.substituteId})
      from ${a} where ${a.personId} = ${p.id} and ${a.fromDay} <= ${today} and ${a.untilDay} >= ${today}
        order by ${a.fromDay} limit 1
    )`,
    },
    sql`from reach join ${p} on ${p.id} = reach.found`,
    {
      before: sql`with recursive reach(found) as (
      select x::uuid from unnest(${sql.param(ids as string[])}::uuid[]) x
      union
      select n.found from reach r cross join lateral (
        select ${m.managerId} as found from ${m} where ${m.id} = r.found and ${m.managerId} is not null
        union all
        select ${a.substituteId} from ${a}
        where ${a.personId} = r.found and ${a.substituteId} is not null and ${a.fromDay} <= ${today}
        and ${a.untilDay} >= ${today}
      ) n
    )`,
    },
  )
  return {
    people: found.map(({ absence: _, ...r }) => toPerson(r, currency)),
    absences: found.flatMap((r) => (r.absence === null ? [] : [r.absence])),
  }
}

/** People whose ordering limit covers an amount and who hold the buyer's role, lowest limit first. */
export function listWhoMayOrder(
  tx: Tx,
  amount: DecimalText,
  today: Day,
): Promise<{ personId: string; name: string }[]> {
  return read(
    tx,
    { personId: p.id, name: p.name },
    sql`from ${p}
    where ${p.orderingLimit} >= ${amount} and (${p.leftOn} is null or ${p.leftOn} >= ${today})
      and exists (select 1 from ${g} where ${g.personId} = ${p.id} and ${g.role} = 'buyer')
    order by ${p.orderingLimit}, ${p.name} limit 3`,
  )
}

/** Whoever acts at a moment; the organisation's own clock decides whether they are still here. */
export async function findActor(tx: Tx, personId: string, now: Date): Promise<Actor | null> {
  return readOne(
    tx,
    {
      id: p.id,
      name: p.name,
      locale: p.locale,
      grants: sql<Actor['grants']>`coalesce((
      select json_agg(json_build_object('role', ${g.role}, 'departmentId', ${g.departmentId})) from ${g}
        where ${g.personId} = ${p.id}
    ), '[]')`,
    },
    sql`from ${p}, ${o}
    where ${p.id} = ${personId} and (${p.leftOn} is null
      or ${p.leftOn} >= (${now.toISOString()}::timestamptz at time zone ${o.timeZone})::date)`,
  )
}

/**
 * Whoever acts in live sessions, by the session's id: those that ended, or were not seen since `oldest`, are left out.
 */
export async function listLiveActors(tx: Tx, sessionIds: readonly string[], oldest: Date): Promise<Map<string, Actor>> {
  const found = await read(
    tx,
    {
      sessionId: s.id,
      id: p.id,
      name: p.name,
      locale: p.locale,
      grants: sql<Actor['grants']>`coalesce((
      select json_agg(json_build_object('role', ${g.role}, 'departmentId', ${g.departmentId})) from ${g}
        where ${g.personId} = ${p.id}
    ), '[]')`,
    },
    sql`from ${s} join ${p} on ${p.id} = ${s.personId}
    where ${s.id} = any(${sql.param([...sessionIds])}::text[]) and ${s.endedAt} is null
      and ${s.seenAt} > ${oldest.toISOString()}`,
  )
  return new Map(found.map(({ sessionId, ...actor }) => [sessionId, actor]))
}

export async function findForSignIn(
  tx: Tx,
  email: string,
): Promise<{ id: string; passwordHash: string | null; leftOn: Day | null } | null> {
  return readOne(
    tx,
    { id: person.id, passwordHash: person.passwordHash, leftOn: person.leftOn },
    sql`from ${person}
      where lower(${person.email}) = lower(${email})`,
  )
}

/** Departments that a person may raise for. */
export function listOpenDepartments(
  tx: Tx,
  personId: string,
): Promise<{ id: string; name: string; usualShipToId: string | null }[]> {
  return read(
    tx,
    { id: d.id, name: d.name, usualShipToId: d.usualShipToId },
    sql`from ${d}
    where ${d.id} in (select ${departmentMember.departmentId} from ${departmentMember}
    where ${departmentMember.personId} = ${personId})
       or ${d.id} = (select ${person.departmentId} from ${person} where ${person.id} = ${personId})
    order by ${d.id} = (select ${person.departmentId} from ${person} where ${person.id} = ${personId}) desc, ${d.name}`,
  )
}

/** Every department, by its name. */
export function listDepartments(tx: Tx): Promise<{ id: string; name: string }[]> {
  return read(tx, { id: d.id, name: d.name }, sql`from ${d} order by ${d.name}, ${d.id}`)
}

/** People for whom a person may raise: themselves first, then everybody still here in the departments open to them. */
export function listRaisedFor(
  tx: Tx,
  personId: string,
  today: Day,
): Promise<{ id: string; name: string; jobTitle: string }[]> {
  return read(
    tx,
    { id: p.id, name: p.name, jobTitle: p.jobTitle },
    sql`from ${p}
    where (${p.leftOn} is null or ${p.leftOn} >= ${today}) and (${p.id} = ${personId}
    or ${p.departmentId} in (select dept
      from open_to)
      or exists (select 1 from ${dm} where ${dm.personId} = ${p.id} and ${dm.departmentId} in (select dept
        from open_to)))
    order by ${p.id} = ${personId} desc, ${p.name}`,
    {
      before: sql`with open_to as (
      select ${departmentMember.departmentId} as dept from ${departmentMember}
      where ${departmentMember.personId} = ${personId} union select ${person.departmentId}
        from ${person} where ${person.id} = ${personId})`,
    },
  )
}

/** A department and all above it, itself first. */
export async function listBranch(tx: Tx, departmentId: string): Promise<string[]> {
  const found = await read(tx, { dept: sql<string>`up.dept` }, sql`from up order by up.n`, {
    before: sql`with recursive up(dept, above, n) as (
      select ${department.id}, ${department.parentId}, 1 from ${department} where ${department.id} = ${departmentId}
      union all select ${d.id}, ${d.parentId}, n + 1 from ${d} join up on ${d.id} = up.above where n < 20
    )`,
  })
  return found.map((r) => r.dept)
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
  return read(
    tx,
    {
      id: shipTo.id,
      name: shipTo.name,
      street: shipTo.street,
      postcode: shipTo.postcode,
      town: shipTo.town,
      country: shipTo.country,
    },
    sql`from ${shipTo} where not ${shipTo.isOnce} order by ${shipTo.name}`,
  )
}

/** The demo's people with what each is good for trying. */
export function listDemoPeople(
  tx: Tx,
): Promise<{ id: string; name: string; email: string; jobTitle: string; department: string; note: string }[]> {
  return read(
    tx,
    { id: p.id, name: p.name, email: p.email, jobTitle: p.jobTitle, department: d.name, note: sure(p.demoNote) },
    sql`from ${p} join ${d} on ${d.id} = ${p.departmentId}
    where ${p.demoNote} is not null and ${p.leftOn} is null order by ${p.demoRank}, ${p.name}`,
  )
}

/** People to choose a substitute from: everybody still here, by a part of the name. */
export function searchPeople(
  tx: Tx,
  words: string,
  today: Day,
): Promise<{ id: string; name: string; jobTitle: string; department: string }[]> {
  return read(
    tx,
    { id: p.id, name: p.name, jobTitle: p.jobTitle, department: d.name },
    sql`from ${p}
      join ${d} on ${d.id} = ${p.departmentId}
    where (${p.leftOn} is null or ${p.leftOn} >= ${today})
    and ${p.name} ilike ${'%' + words.replace(/[\\%_]/g, '\\$&') + '%'}
    order by ${p.name} limit 20`,
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

export function listNotices(
  tx: Tx,
  personId: string,
): Promise<{ id: string; at: string; told: Told; aboutKind: string; aboutId: string; read: boolean }[]> {
  return read(
    tx,
    {
      id: notice.id,
      at: SECONDS(notice.at),
      told: notice.told,
      aboutKind: notice.aboutKind,
      aboutId: notice.aboutId,
      read: sql<boolean>`${notice.readAt} is not null`,
    },
    sql`from ${notice} where ${notice.personId} = ${personId} order by ${notice.at} desc, ${notice.id} limit 30`,
  )
}

/** How much a person was told and has not read, and whether anybody reports to them. */
export async function readTold(tx: Tx, personId: string): Promise<{ unread: number; decides: boolean }> {
  const found = await readOne(
    tx,
    {
      unread: sql<number>`(select count(*)::int from ${notice} where ${notice.personId} = ${personId}
      and ${notice.readAt} is null)`,
      decides: sql<boolean>`exists (select 1 from ${person} where ${person.managerId} = ${personId})`,
    },
    sql``,
  )
  return found ?? { unread: 0, decides: false }
}

export async function findAddress(tx: Tx, personId: string): Promise<{ name: string; email: string } | null> {
  return readOne(tx, { name: person.name, email: person.email }, sql`from ${person} where ${person.id} = ${personId}`)
}

/** Whoever holds a role and is here on a day; for a department, also whoever holds it for that one. */
export function listHolders(
  tx: Tx,
  role: Role,
  today: Day,
  departmentId: string | null = null,
): Promise<{ id: string; name: string }[]> {
  return read(
    tx,
    { id: p.id, name: p.name },
    sql`from ${g} join ${p} on ${p.id} = ${g.personId}
    where ${g.role} = ${role} and (${p.leftOn} is null or ${p.leftOn} >= ${today}) and (${g.departmentId} is null
      or ${g.departmentId} = ${departmentId}) order by ${p.name}`,
    { distinct: true },
  )
}

/** How a person keeps their views of a place. */
export function listSavedViews(
  tx: Tx,
  personId: string,
  place: string,
): Promise<{ id: string; name: string; query: string }[]> {
  return read(
    tx,
    { id: savedView.id, name: savedView.name, query: savedView.query },
    sql`from ${savedView} where ${savedView.personId} = ${personId} and ${savedView.place} = ${place}
    order by ${savedView.name}`,
  )
}
