import { sql, type SQL } from 'drizzle-orm'
import type { Tx } from '../db/client'
import { SECONDS } from '../db/moments'
import { named, read } from '../db/read'
import { session } from '../db/schema/people'

const s = named(session, 's')

/** How long sessions last: without a request, and in all. */
export interface SessionLife {
  readonly idleMinutes: number
  readonly sessionDays: number
}

/** That a session (under the short name `s`) has not ended, been left idle or grown too old. */
export function isLive(now: Date, life: SessionLife): SQL {
  const seenSince = new Date(now.getTime() - life.idleMinutes * 60_000)
  const begunSince = new Date(now.getTime() - life.sessionDays * 86_400_000)
  return sql`(${s.endedAt} is null and ${s.seenAt} > ${seenSince.toISOString()}
    and ${s.createdAt} > ${begunSince.toISOString()})`
}

/** The live sessions of a person, the one that asks first, then by when they were last seen. */
export function listSessions(
  tx: Tx,
  personId: string,
  askingId: string,
  now: Date,
  life: SessionLife,
): Promise<
  {
    id: string
    begunAt: string
    seenAt: string
    fromAddress: string
    agent: string
    byDemo: boolean
    isThis: boolean
  }[]
> {
  const isThis = sql<boolean>`${s.id} = ${askingId}`
  return read(
    tx,
    {
      id: s.handle,
      begunAt: SECONDS(s.createdAt),
      seenAt: SECONDS(s.seenAt),
      fromAddress: s.fromAddress,
      agent: s.agent,
      byDemo: s.byDemo,
      isThis,
    },
    sql`from ${s} where ${s.personId} = ${personId} and ${isLive(now, life)}
    order by ${isThis} desc, ${s.seenAt} desc, ${s.handle}`,
  )
}
