import { sql } from 'drizzle-orm'
import type { Tx } from '../db/client'
import { read } from '../db/read'
import { savedView } from '../db/schema/people'

/** How a person keeps their views of a place. */
export function listSavedViews(
  tx: Tx,
  personId: string,
  place: string,
): Promise<{ id: string; name: string; query: string }[]> {
  return read(
    tx,
    { id: savedView.id, name: savedView.name, query: savedView.query },
    sql`from ${savedView} where ${savedView.personId} = ${personId} and ${savedView.place} = ${place}
    order by ${savedView.name}`,
  )
}
