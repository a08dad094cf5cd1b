import { sql } from 'drizzle-orm'
import type { Told } from '#core/told/told'
import type { Tx } from '../db/client'
import { SECONDS } from '../db/moments'
import { read } from '../db/read'
import { notice } from '../db/schema/people'

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
