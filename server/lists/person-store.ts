import { and, eq, inArray, sql } from 'drizzle-orm'
import type { Values } from '#core/lists/list'
import { LOCALE_NAMES, LOCALES, type Locale } from '#core/people/locale'
import { ROLES } from '#core/people/rights'
import type { Tx } from '../db/client'
import { named, read, readOne } from '../db/read'
import { isForAll } from '../people/grant-reads'
import { department, departmentMember, limitForDays, person, roleGrant, shipTo } from '../db/schema/people'
import {
  inParts,
  joined,
  orNull,
  parted,
  textOf,
  type EntryIds,
  type KeptEntry,
  type ListKeeper,
  together,
} from './keeper'

const p = named(person, 'p')
const m = named(person, 'm')
const d = named(department, 'd')
const w = named(shipTo, 'w')
const also = named(department, 'also')

const columnsOf = (v: Values, ids: EntryIds) => ({
  email: v.email ?? '',
  name: v.name ?? '',
  jobTitle: v.jobTitle ?? '',
  departmentId: ids('departments', v.department ?? '') ?? '',
  ownLimit: orNull(v.ownLimit),
  decidingLimit: orNull(v.decidingLimit),
  orderingLimit: orNull(v.orderingLimit),
  leftOn: orNull(v.leftOn),
  usualShipToId: ids('places', v.usualPlace ?? ''),
  locale: LOCALE_NAMES.find((l) => LOCALES[l] === v.language) ?? 'en-GB',
})

/** People, with the departments open to them and the roles that they hold for the whole organisation. */
export const people: ListKeeper = {
  async read(tx) {
    const rows = await read(
      tx,
      {
        id: p.id,
        email: sql<string>`lower(${p.email})`,
        name: p.name,
        jobTitle: p.jobTitle,
        department: d.costCentre,
        alsoFor: sql<string[]>`array(select ${also.costCentre} from ${departmentMember}
          join ${also} on ${also.id} = ${departmentMember.departmentId} where ${departmentMember.personId} = ${p.id})`,
        manager: sql<string | null>`lower(${m.email})`,
        roles: sql<string[]>`array(select ${roleGrant.role} from ${roleGrant}
          where ${roleGrant.personId} = ${p.id} and ${isForAll(roleGrant)})`,
        ownLimit: p.ownLimit,
        decidingLimit: p.decidingLimit,
        orderingLimit: p.orderingLimit,
        leftOn: p.leftOn,
        usualPlace: w.name,
        language: p.locale,
      },
      sql`from ${p} join ${d} on ${d.id} = ${p.departmentId} left join ${m} on ${m.id} = ${p.managerId}
        left join ${w} on ${w.id} = ${p.usualShipToId}
        order by ${p.name}, ${p.email}`,
    )
    return rows.map(({ id, ...r }) => ({
      id,
      values: {
        ...r,
        alsoFor: joined(r.alsoFor),
        manager: textOf(r.manager),
        roles: ROLES.filter((role) => r.roles.includes(role)).join(', '),
        ownLimit: textOf(r.ownLimit),
        decidingLimit: textOf(r.decidingLimit),
        orderingLimit: textOf(r.orderingLimit),
        leftOn: textOf(r.leftOn),
        usualPlace: textOf(r.usualPlace),
        language: LOCALES[r.language as Locale] ?? r.language,
      },
    }))
  },
  async insert(tx, entries, ids) {
    await inParts(entries, (some) =>
      tx.insert(person).values(some.map((e) => ({ id: e.id, ...columnsOf(e.values, ids) }))),
    )
    // A manager may come later in the same file.
    await together(
      entries
        .map((e) => ({ id: e.id, managerId: ids('people', e.values.manager ?? '') }))
        .filter((e) => e.managerId !== null)
        .map(({ id, managerId }) => tx.update(person).set({ managerId }).where(eq(person.id, id))),
    )
    await writeOpenAndRoles(tx, entries, ids)
  },
  async update(tx, entries, ids) {
    await together(
      entries.map((e) =>
        tx
          .update(person)
          .set({ ...columnsOf(e.values, ids), managerId: ids('people', e.values.manager ?? '') })
          .where(eq(person.id, e.id)),
      ),
    )
    const all = entries.map((e) => e.id)
    if (all.length === 0) return
    await tx.delete(departmentMember).where(inArray(departmentMember.personId, all))
    // Roles for single departments and places are a list of their own and stay.
    await tx.delete(roleGrant).where(and(inArray(roleGrant.personId, all), isForAll(roleGrant)))
    await writeOpenAndRoles(tx, entries, ids)
  },
  async remove(tx, id) {
    await tx.delete(departmentMember).where(eq(departmentMember.personId, id))
    await tx.delete(roleGrant).where(eq(roleGrant.personId, id))
    await tx.delete(limitForDays).where(eq(limitForDays.personId, id))
    await tx.delete(person).where(eq(person.id, id))
  },
}

async function writeOpenAndRoles(tx: Tx, entries: readonly KeptEntry[], ids: EntryIds): Promise<void> {
  const open = entries.flatMap((e) =>
    parted(e.values.alsoFor).flatMap((d) => {
      const departmentId = ids('departments', d)
      return departmentId === null ? [] : [{ personId: e.id, departmentId }]
    }),
  )
  await inParts(open, (some) => tx.insert(departmentMember).values(some))
  const roles = entries.flatMap((e) => parted(e.values.roles).map((role) => ({ personId: e.id, role })))
  await inParts(roles, (some) => tx.insert(roleGrant).values(some))
}

/** Whether somebody is an administrator of the organisation whose last day is not known. */
export async function staysAdministrator(tx: Tx): Promise<boolean> {
  const g = named(roleGrant, 'g')
  const one = sql`from ${g} join ${p} on ${p.id} = ${g.personId}
    where ${g.role} = 'administrator' and ${g.departmentId} is null and ${p.leftOn} is null limit 1`
  return (await readOne(tx, { id: p.id }, one)) !== null
}
