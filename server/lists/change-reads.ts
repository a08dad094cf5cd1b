import { sql } from 'drizzle-orm'
import type { ListName } from '#core/lists/list'
import type { Tx } from '../db/client'
import { SECONDS } from '../db/moments'
import { named, read, readOne } from '../db/read'
import { event } from '../db/schema/audit'
import { person } from '../db/schema/people'
import { LIST_SUBJECTS, type ListChanged } from './list-event'

const e = named(event, 'e')
const p = named(person, 'p')
const of = (name: ListName) => sql`${e.subjectId} = ${LIST_SUBJECTS[name]} and ${e.type} = 'list changed'`

/** What a change of a list did, by its event; null where it is none. */
export async function findListChange(tx: Tx, name: ListName, seq: number): Promise<ListChanged | null> {
  const found = await readOne(tx, { after: e.after }, sql`from ${e} where ${of(name)} and ${e.seq} = ${seq}`)
  return found === null ? null : (found.after as unknown as ListChanged)
}

export async function wasTakenBack(tx: Tx, name: ListName, seq: number): Promise<boolean> {
  const by = sql`from ${e} where ${of(name)} and ${e.seq} > ${seq} and (${e.after} ->> 'undoes')::bigint = ${seq}`
  return (await readOne(tx, { seq: e.seq }, by)) !== null
}

/** The changes of a list, the newest first: who, when, from where, how many entries, and what took it back. */
export function listChanges(tx: Tx, name: ListName, most: number) {
  return read(
    tx,
    {
      seq: e.seq,
      at: SECONDS(e.at),
      by: sql<string>`coalesce(${p.name}, 'Rekko')`,
      source: sql<string>`${e.after} ->> 'source'`,
      undoes: sql<number | null>`(${e.after} ->> 'undoes')::int`,
      count: sql<number>`coalesce((${e.after} ->> 'count')::int, jsonb_array_length(${e.after} -> 'changes'))`,
      first: sql<Record<string, string> | null>`coalesce(nullif(${e.after} -> 'changes' -> 0 -> 'after', 'null'),
        ${e.after} -> 'changes' -> 0 -> 'before')`,
    },
    sql`from ${e} left join ${p} on ${p.id} = ${e.actorId} where ${of(name)} order by ${e.seq} desc limit ${most}`,
  )
}
