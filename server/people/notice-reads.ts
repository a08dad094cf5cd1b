import { sql } from 'drizzle-orm'
import type { Told } from '#core/told/told'
import type { Tx } from '../db/client'
import { SECONDS } from '../db/moments'
import { read, readOne } from '../db/read'
import { notice, person } from '../db/schema/people'

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
