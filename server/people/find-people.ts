import { dayOf } from '#core/base/day'
import { may } from '#core/people/rights'
import type { AbsenceView, PersonFound } from '#shared/contract/people'
import type { Context } from '../context'
import { requireOrganisation } from '../settings/reads'
import { refused } from '../http/problem'
import { listDepartments } from './place-reads'
import { listAbsences, listCovered } from './absence-reads'
import { hasCalendar } from './calendar-store'
import type { Actor } from './actor'
import { findActor } from './actor-reads'
import { searchPeople } from './person-reads'

/** People to choose from, by a part of the name. */
export async function findPeople(
  { tx, now }: Context,
  words: string,
  alsoGone: boolean,
): Promise<{ people: PersonFound[] }> {
  const { timeZone } = await requireOrganisation(tx)
  return { people: await searchPeople(tx, words, alsoGone ? null : dayOf(now, timeZone)) }
}

/** One's own absences from today on, and those in which one stands in; those of everybody for whoever may set them. */
export async function readAbsences({ tx, now, actor }: Context): Promise<{
  departments: { id: string; name: string }[]
  mine: AbsenceView[]
  others: AbsenceView[]
  covers: AbsenceView[]
  hasCalendar: boolean
}> {
  const { timeZone } = await requireOrganisation(tx)
  const today = dayOf(now, timeZone)
  const all = may(actor.grants, 'set absences of others')
  const found = await listAbsences(tx, today, all ? null : actor.id)
  return {
    departments: (await listDepartments(tx)).filter((d) => !d.retired).map(({ id, name }) => ({ id, name })),
    mine: found.filter((a) => a.personId === actor.id),
    others: found.filter((a) => a.personId !== actor.id),
    covers: (await listCovered(tx, actor.id, today)).map((a) => ({
      ...a,
      byDepartment: a.byDepartment.filter((s) => s.substituteId === actor.id),
    })),
    hasCalendar: await hasCalendar(tx, actor.id),
  }
}

/** Somebody who is still here, with their roles; refused otherwise. */
export async function requireHere({ tx, now }: Context, personId: string): Promise<Actor> {
  const found = await findActor(tx, personId, now)
  if (found === null) throw refused(['Whoever you chose is not here any more; choose somebody who is.'])
  return found
}
