import { sql } from 'drizzle-orm'
import type { Day } from '#core/base/day'
import type { Tx } from '../db/client'
import { boundTo, WITHOUT_FACTOR, type Right } from '#core/people/rights'
import type { Actor } from './actor'
import { hashSecret } from './hash-secret'
import { isLive, type SessionLife } from './session-reads'
import { organisation } from '../db/schema/settings'
import { named, read, readOne } from '../db/read'
import { holdsOn } from './grant-reads'
import { accessToken, person, roleGrant, secondFactor, session } from '../db/schema/people'

const o = named(organisation, 'o')
const p = named(person, 'p')
const g = named(roleGrant, 'g')
const s = named(session, 's')

/** The day of a moment in the organisation `o`. */
const dayIn = (now: Date) => sql`(${now.toISOString()}::timestamptz at time zone ${o.timeZone})::date`

const actorAt = (now: Date) => ({
  id: p.id,
  name: p.name,
  locale: p.locale,
  grants: sql<Actor['grants']>`coalesce((
    select json_agg(json_build_object('role', ${g.role}, 'departmentId', ${g.departmentId}, 'placeId', ${g.placeId}))
      from ${g} where ${g.personId} = ${p.id} and ${holdsOn(g, dayIn(now))}
  ), '[]')`,
})

/** Whether a second factor is asked of a person `p`, by what they are. */
const ASKED = sql<boolean>`(${o.secondFactorFor} = 'everybody' or ${o.secondFactorFor} = 'office' and exists (
  select from ${g} where ${g.personId} = ${p.id} and ${g.role} in ('administrator', 'finance')))`
/** Whether it is asked and they have none yet: until they do, little is left of their rights. */
const LACKING = sql<boolean>`${ASKED} and not exists (select from ${secondFactor}
  where ${secondFactor.personId} = ${p.id} and ${secondFactor.confirmedAt} is not null)`
const asLeft = (actor: Actor, lacksFactor: boolean): Actor =>
  lacksFactor ? { ...actor, grants: boundTo(actor.grants, WITHOUT_FACTOR), lacksFactor } : actor

/** Whether a second factor is asked of somebody. */
export async function isFactorAsked(tx: Tx, personId: string): Promise<boolean> {
  return (await readOne(tx, { asked: ASKED }, sql`from ${p}, ${o} where ${p.id} = ${personId}`))?.asked === true
}

/** The organisation's own clock decides whether a person is still here. */
const isHere = (now: Date) => sql`(${p.leftOn} is null
  or ${p.leftOn} >= ${dayIn(now)})`

/** Whoever acts at a moment. */
export async function findActor(tx: Tx, personId: string, now: Date): Promise<Actor | null> {
  const found = await readOne(
    tx,
    { ...actorAt(now), lacks: LACKING },
    sql`from ${p}, ${o} where ${p.id} = ${personId} and ${isHere(now)}`,
  )
  if (found === null) return null
  const { lacks, ...actor } = found
  return asLeft(actor, lacks)
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
    { ...actorAt(now), lacks: LACKING, seenAt: s.seenAt },
    sql`from ${o}, ${s} join ${p} on ${p.id} = ${s.personId}
    where ${s.id} = ${sessionId} and ${isLive(now, life)} and ${isHere(now)}`,
  )
  if (found === null) return null
  const { seenAt, lacks, ...actor } = found
  return { actor: asLeft(actor, lacks), seenAt }
}

/** Whoever a token acts for, bound to what it was given; null where it opens nothing (any more). */
export async function findByToken(
  tx: Tx,
  token: string,
  now: Date,
): Promise<{ actor: Actor; tokenId: string; usedAt: Date | null } | null> {
  const t = named(accessToken, 't')
  const found = await readOne(
    tx,
    { ...actorAt(now), lacks: LACKING, tokenId: t.id, rights: sql<Right[]>`${t.rights}`, usedAt: t.usedAt },
    sql`from ${o}, ${t} join ${p} on ${p.id} = ${t.personId}
    where ${t.hash} = ${hashSecret(token)} and ${t.endedAt} is null and ${t.expiresAt} > ${now.toISOString()}
      and ${isHere(now)}`,
  )
  if (found === null) return null
  const { lacks, tokenId, rights, usedAt, ...actor } = found
  const left = asLeft(actor, lacks)
  return { actor: { ...left, grants: boundTo(left.grants, rights) }, tokenId, usedAt }
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
    { sessionId: s.id, ...actorAt(now), lacks: LACKING },
    sql`from ${o}, ${s} join ${p} on ${p.id} = ${s.personId}
    where ${s.id} = any(${sql.param([...sessionIds])}::text[]) and ${isLive(now, life)} and ${isHere(now)}`,
  )
  return new Map(found.map(({ sessionId, lacks, ...actor }) => [sessionId, asLeft(actor, lacks)]))
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
