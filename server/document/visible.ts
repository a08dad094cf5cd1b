import { sql, type SQL } from 'drizzle-orm'
import type { Context } from '../context'
import type { Actor } from '../people/actor'
import type { SeenRows } from './kind'
import { read, readOne } from '../db/read'

/** Whoever reads, and when. */
export type Reader = Pick<Context, 'actor' | 'now'>

/** The condition under which a person sees a row of a kind, now: its own rule, and nothing before it is unsealed. */
export function visible(kind: SeenRows, { actor, now }: Reader): SQL {
  const { row } = kind
  return sql`(${kind.visibleTo(actor)} and (${row.sealedUntil} is null or ${row.sealedUntil} <= ${now.toISOString()}
    or ${row.ownerId} = ${actor.id}))`
}

/** Whether a person sees a document. */
export async function maySee(ctx: Context, kind: SeenRows, id: string): Promise<boolean> {
  return (
    (await readOne(
      ctx.tx,
      { id: kind.row.id },
      sql`from ${kind.row} where ${kind.row.id} = ${id} and ${visible(kind, ctx)}`,
    )) !== null
  )
}

/** Which of some documents a person sees. */
export async function seenAmong(ctx: Context, kind: SeenRows, ids: readonly string[]): Promise<Set<string>> {
  if (ids.length === 0) return new Set()
  const found = await read(
    ctx.tx,
    { id: kind.row.id },
    sql`from ${kind.row} where ${kind.row.id} = any(${sql.param([...ids])}::uuid[]) and ${visible(kind, ctx)}`,
  )
  return new Set(found.map((f) => f.id))
}

/** Which of some people see a document, in one statement. */
export async function listWhoSee(
  { tx, now }: Omit<Context, 'actor'>,
  kind: SeenRows,
  id: string,
  people: readonly Actor[],
): Promise<Set<string>> {
  if (people.length === 0) return new Set()
  const each = people.map(
    (actor) =>
      sql`select ${actor.id}::uuid as who where exists (select 1 from ${kind.row} where ${kind.row.id} = ${id}
        and ${visible(kind, { actor, now })})`,
  )
  const found = await read(tx, { who: sql<string>`who` }, sql`from (${sql.join(each, sql` union all `)}) seers`)
  return new Set(found.map((f) => f.who))
}
