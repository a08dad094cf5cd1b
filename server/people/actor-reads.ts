import { sql } from 'drizzle-orm'
import type { Day } from '#core/base/day'
import type { Tx } from '../db/client'
import type { Actor } from './actor'
import { isLive, type SessionLife } from './session-reads'
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

/** Whoever acts in a live session, and when it was seen last. */
export async function findSignedIn(
  tx: Tx,
  sessionId: string,
  now: Date,
  life: SessionLife,
): Promise<{ actor: Actor; seenAt: Date } | null> {
  const found = await readOne(
    tx,
    { ...ACTOR, seenAt: s.seenAt },
    sql`from ${o}, ${s} join ${p} on ${p.id} = ${s.personId}
    where ${s.id} = ${sessionId} and ${isLive(now, life)} and ${isHere(now)}`,
  )
  if (found === null) return null
  const { seenAt, ...actor } = found
  return { actor, seenAt }
}

/** Whoever acts in sessions that are live, by the session's id; the others are left out. */
export async function listLiveActors(
  tx: Tx,
  sessionIds: readonly string[],
  now: Date,
  life: SessionLife,
): Promise<Map<string, Actor>> {
  const found = await read(
    tx,
    { sessionId: s.id, ...ACTOR },
    sql`from ${o}, ${s} join ${p} on ${p.id} = ${s.personId}
    where ${s.id} = any(${sql.param([...sessionIds])}::text[]) and ${isLive(now, life)} and ${isHere(now)}`,
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

/** What a change of one's password looks at; it is locked, so that of two at once the second sees the first. */
export async function lockOwnAccount(
  tx: Tx,
  personId: string,
): Promise<{ passwordHash: string | null; name: string; email: string; organisation: string } | null> {
  return readOne(
    tx,
    { passwordHash: p.passwordHash, name: p.name, email: p.email, organisation: o.name },
    sql`from ${p}, ${o} where ${p.id} = ${personId} for no key update of p`,
  )
}
