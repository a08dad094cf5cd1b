import { sql, type SQL } from 'drizzle-orm'
import type { Day } from '#core/base/day'
import type { LimitName } from '#core/people/person'
import type { Role } from '#core/people/rights'
import { isThere, named, type Named } from '../db/read'
import { limitForDays, person, roleGrant } from '../db/schema/people'

type Grants = Named<typeof roleGrant>

/** That a grant `g` of a role holds on a day. */
export const holdsOn = (g: Grants, day: Day | SQL): SQL =>
  sql`(${g.fromDay} is null or ${g.fromDay} <= ${day}) and (${g.untilDay} is null or ${g.untilDay} >= ${day})`

/** That a grant `g` is for the whole organisation. */
export const isForAll = (g: Grants): SQL => sql`${g.departmentId} is null and ${g.placeId} is null`

/** That a grant `g` is for the whole organisation, or for this department or place. */
export const isFor = (g: Grants, departmentId: string | null | SQL, placeId: string | null | SQL): SQL =>
  sql`(${isForAll(g)} or ${g.departmentId} = ${departmentId} or ${g.placeId} = ${placeId})`

const x = named(limitForDays, 'x')
const g = named(roleGrant, 'g')

/** The limit of a person `p` on a day: the last begun of those that hold on it, else what is always theirs. */
export function limitOn(p: Named<typeof person>, of: LimitName, day: Day): SQL<string | null> {
  const always = { own: p.ownLimit, deciding: p.decidingLimit, ordering: p.orderingLimit }[of]
  return sql`coalesce((select ${x.amount} from ${x} where ${x.personId} = ${p.id} and ${x.of} = ${of}
    and ${x.amount} is not null and ${x.fromDay} <= ${day} and (${x.untilDay} is null or ${x.untilDay} >= ${day})
    order by ${x.fromDay} desc limit 1), ${always})`
}

/** That a person `p` holds a role on a day, for whatever part. */
export const holdsRole = (p: Named<typeof person>, role: Role, day: Day): SQL =>
  isThere(sql`from ${g} where ${g.personId} = ${p.id} and ${g.role} = ${role} and ${holdsOn(g, day)}`)
