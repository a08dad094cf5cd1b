import { sql } from 'drizzle-orm'
import type { Day } from '#core/base/day'
import type { Tx } from '../db/client'
import type { Actor } from './actor'
import { organisation } from '../db/schema/settings'
import { named, read, readOne } from '../db/read'
import { person, roleGrant, session } from '../db/schema/people'

const o = named(organisation, 'o')
const p = named(person, 'p')
const g = named(roleGrant, 'g')
const s = named(session, 's')

const ACTOR = {
  id: p.id,
  name: p.name,
  locale: p.locale,
  grants: sql<Actor['grants']>`coalesce((
    select json_agg(json_build_object('role', ${g.role}, 'departmentId', ${g.departmentId})) from ${g}
      where ${g.personId} = ${p.id}
  ), '[]')`,
}

/** The organisation's own clock decides whether a person is still here. */
const isHere = (now: Date) => sql`(${p.leftOn} is null
  or ${p.leftOn} >= (${now.toISOString()}::timestamptz at time zone ${o.timeZone})::date)`

/** Whoever acts at a moment. */
export async function findActor(tx: Tx, personId: string, now: Date): Promise<Actor | null> {
  return readOne(tx, ACTOR, sql`from ${p}, ${o} where ${p.id} = ${personId} and ${isHere(now)}`)
}

/** Whoever acts in a session that has not ended and was seen since `oldest`, and when it was seen last. */
export async function findSignedIn(
  tx: Tx,
  sessionId: string,
  oldest: Date,
  now: Date,
): Promise<{ actor: Actor; seenAt: Date } | null> {
  const found = await readOne(
    tx,
    { ...ACTOR, seenAt: s.seenAt },
    sql`from ${o}, ${s} join ${p} on ${p.id} = ${s.personId}
    where ${s.id} = ${sessionId} and ${s.endedAt} is null and ${s.seenAt} > ${oldest.toISOString()} and ${isHere(now)}`,
  )
  if (found === null) return null
  const { seenAt, ...actor } = found
  return { actor, seenAt }
}

/**
 * Whoever acts in live sessions, by the session's id: those that ended, or were not seen since `oldest`, are left out.
 */
export async function listLiveActors(tx: Tx, sessionIds: readonly string[], oldest: Date): Promise<Map<string, Actor>> {
  const found = await read(
    tx,
    { sessionId: s.id, ...ACTOR },
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
