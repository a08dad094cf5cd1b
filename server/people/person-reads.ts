import { eq, sql, type SQL } from 'drizzle-orm'
import type { Day } from '#core/base/day'
import type { DecimalText } from '#core/base/decimal'
import { moneyOf, type Money } from '#core/base/money'
import type { Absence, Person } from '#core/people/person'
import { partOf, type Role } from '#core/people/rights'
import type { MailWay } from '#core/people/person'
import type { Actor } from './actor'
import type { Tx } from '../db/client'
import { sendAlong } from '../db/transaction'
import { named, read, readOne, sure } from '../db/read'
import { holdsOn, holdsRole, isFor, limitOn } from './grant-reads'
import { absence, absenceStandIn, department, departmentMember, person, roleGrant } from '../db/schema/people'

const m = named(person, 'm')
const a = named(absence, 'a')
const p = named(person, 'p')
const g = named(roleGrant, 'g')
const d = named(department, 'd')
const dm = named(departmentMember, 'dm')
const i = named(absenceStandIn, 'i')

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

const personOn = (today: Day) => ({
  id: p.id,
  name: p.name,
  managerId: p.managerId,
  departmentId: p.departmentId,
  ownLimit: limitOn(p, 'own', today),
  decidingLimit: limitOn(p, 'deciding', today),
  orderingLimit: limitOn(p, 'ordering', today),
  leftOn: p.leftOn,
})

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
 * These people and those that `more` selects, all managers above them, and whoever stands in for any of them on
 * a day, with their absences on that day: what a route is made from, and no more.
 */
export async function reachPeople(
  tx: Tx,
  ids: readonly string[],
  currency: string,
  today: Day,
  more: SQL = sql`select null::uuid where false`,
): Promise<{ people: Person[]; absences: Absence[] }> {
  const found = await read(
    tx,
    {
      ...personOn(today),
      absence: sql<Absence | null>`(
      select json_build_object('personId', ${a.personId}, 'from', ${a.fromDay}, 'until', ${a.untilDay}, 'substituteId',
        ${a.substituteId}, 'byDepartment', (
          select coalesce(json_agg(json_build_object('departmentId', ${i.departmentId}, 'substituteId',
            ${i.substituteId})), '[]') from ${i} where ${i.absenceId} = ${a.id}))
      from ${a} where ${a.personId} = ${p.id} and ${a.fromDay} <= ${today} and ${a.untilDay} >= ${today}
        order by ${a.fromDay} limit 1
    )`,
    },
    sql`from reach join ${p} on ${p.id} = reach.found`,
    {
      before: sql`with recursive reach(found) as (
      (select x::uuid from unnest(${sql.param(ids as string[])}::uuid[]) x
      union
      ${more})
      union
      select n.found from reach r cross join lateral (
        select ${m.managerId} as found from ${m} where ${m.id} = r.found and ${m.managerId} is not null
        union all
        select ${a.substituteId} from ${a}
        where ${a.personId} = r.found and ${a.substituteId} is not null and ${a.fromDay} <= ${today}
        and ${a.untilDay} >= ${today}
        union all
        select ${i.substituteId} from ${a} join ${i} on ${i.absenceId} = ${a.id}
        where ${a.personId} = r.found and ${a.fromDay} <= ${today} and ${a.untilDay} >= ${today}
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
    where ${limitOn(p, 'ordering', today)} >= ${amount} and (${p.leftOn} is null or ${p.leftOn} >= ${today})
      and ${holdsRole(p, 'buyer', today)}
    order by ${limitOn(p, 'ordering', today)}, ${p.name} limit 3`,
  )
}

/** Buyers of all that is of these departments and goes to these places, who are here, by name, with their limits. */
export async function listBuyers(
  tx: Tx,
  of: readonly { readonly departmentId: string; readonly shipToId: string }[],
  currency: string,
  today: Day,
): Promise<{ id: string; name: string; orderingLimit: Money | null }[]> {
  const found = await read(
    tx,
    { id: p.id, name: p.name, orderingLimit: limitOn(p, 'ordering', today) },
    sql`from ${p} where (${p.leftOn} is null or ${p.leftOn} >= ${today}) and not exists (
      select 1 from unnest(${sql.param(of.map((o) => o.departmentId))}::uuid[],
        ${sql.param(of.map((o) => o.shipToId))}::uuid[]) as part(dept, destination)
      where not exists (select 1 from ${g} where ${g.personId} = ${p.id} and ${g.role} = 'buyer'
        and ${holdsOn(g, today)} and ${isFor(g, sql`part.dept`, sql`part.destination`)}))
      and ${holdsRole(p, 'buyer', today)}
    order by ${p.name}, ${p.id}`,
  )
  return found.map((b) => ({
    ...b,
    orderingLimit: b.orderingLimit === null ? null : moneyOf(b.orderingLimit, currency),
  }))
}

/** Locks a person's row for the rest of the transaction, against others that lock it so. */
export async function lockPerson(tx: Tx, id: string): Promise<void> {
  await sendAlong(tx, tx.select({ id: person.id }).from(person).where(eq(person.id, id)).for('no key update'))
}

/** A person's name, whether here or gone; null where there is no such person. */
export async function findPersonName(tx: Tx, id: string): Promise<string | null> {
  return (await readOne(tx, { name: p.name }, sql`from ${p} where ${p.id} = ${id}`))?.name ?? null
}

/**
 * People for whom a person may raise: themselves first, then everybody still here in the departments open to them, and,
 * of a buyer, in those that they buy for.
 */
export function listRaisedFor(
  tx: Tx,
  { id: personId, grants }: Pick<Actor, 'id' | 'grants'>,
  today: Day,
): Promise<{ id: string; name: string; jobTitle: string; departmentIds: string[] }[]> {
  const part = partOf(grants, 'order')
  const buysForAll = part === 'all' ? sql`true` : sql`false`
  const buysFor = part === 'all' ? [] : part.departments
  return read(
    tx,
    {
      id: p.id,
      name: p.name,
      jobTitle: p.jobTitle,
      departmentIds: sql<string[]>`array[${p.departmentId}] || array(select ${dm.departmentId} from ${dm}
        where ${dm.personId} = ${p.id} and ${dm.departmentId} <> ${p.departmentId} order by ${dm.departmentId})`,
    },
    sql`from ${p}
    where (${p.leftOn} is null or ${p.leftOn} >= ${today}) and (${p.id} = ${personId} or ${buysForAll}
    or ${p.departmentId} in (select dept
      from open_to)
      or exists (select 1 from ${dm} where ${dm.personId} = ${p.id} and ${dm.departmentId} in (select dept
        from open_to)))
    order by ${p.id} = ${personId} desc, ${p.name}`,
    {
      before: sql`with open_to as (
      select ${departmentMember.departmentId} as dept from ${departmentMember}
      where ${departmentMember.personId} = ${personId} union select ${person.departmentId}
        from ${person} where ${person.id} = ${personId}
      union select unnest(${sql.param([...buysFor])}::uuid[]))`,
    },
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
  today: Day | null,
): Promise<{ id: string; name: string; jobTitle: string; department: string }[]> {
  return read(
    tx,
    { id: p.id, name: p.name, jobTitle: p.jobTitle, department: d.name },
    sql`from ${p}
      join ${d} on ${d.id} = ${p.departmentId}
    where ${today === null ? sql`true` : sql`(${p.leftOn} is null or ${p.leftOn} >= ${today})`}
    and ${p.name} ilike ${'%' + words.replace(/[\\%_]/g, '\\$&') + '%'}
    order by ${p.name} limit 20`,
  )
}

/** Whether anybody reports to a person. */
export async function hasReports(tx: Tx, personId: string): Promise<boolean> {
  return (await readOne(tx, { id: p.id }, sql`from ${p} where ${p.managerId} = ${personId} limit 1`)) !== null
}

/** Where people are written to, and which mails they want, by their ids. */
export async function findAddresses(
  tx: Tx,
  personIds: readonly string[],
): Promise<Map<string, { name: string; email: string; waiting: MailWay; news: MailWay }>> {
  const found = await read(
    tx,
    { id: p.id, name: p.name, email: p.email, waiting: p.mailsWaiting, news: p.mailsNews },
    sql`from ${p} where ${p.id} = any(${sql.param([...personIds])}::uuid[])`,
  )
  return new Map(found.map((f) => [f.id, f]))
}

/** Whoever holds a role and is here on a day; for what is of a department and goes to a place, also for those. */
export function listHolders(
  tx: Tx,
  role: Role,
  today: Day,
  of: { readonly departmentId: string | null; readonly shipToId: string | null } = {
    departmentId: null,
    shipToId: null,
  },
): Promise<{ id: string; name: string }[]> {
  return read(
    tx,
    { id: p.id, name: p.name },
    sql`from ${g} join ${p} on ${p.id} = ${g.personId}
    where ${g.role} = ${role} and (${p.leftOn} is null or ${p.leftOn} >= ${today}) and ${holdsOn(g, today)}
      and ${isFor(g, of.departmentId, of.shipToId)} order by ${p.name}`,
    { distinct: true },
  )
}

/** Somebody who can be written to. */
export interface Reachable {
  readonly id: string
  readonly name: string
  readonly email: string
}
const isHere = (today: Day) => sql`(${person.leftOn} is null or ${person.leftOn} >= ${today})`

/** Whoever has an e-mail address and has not left by a day. */
export function findReachable(tx: Tx, email: string, today: Day): Promise<Reachable | null> {
  return readOne(
    tx,
    { id: person.id, name: person.name, email: person.email },
    sql`from ${person} where lower(${person.email}) = lower(${email}) and ${isHere(today)}`,
  )
}

/** Everybody who has chosen no password yet and has not left by a day. */
export function listUninvited(tx: Tx, today: Day): Promise<Reachable[]> {
  return read(
    tx,
    { id: person.id, name: person.name, email: person.email },
    sql`from ${person} where ${person.passwordHash} is null and ${isHere(today)} order by ${person.name}`,
  )
}
