import { sql, type SQL } from 'drizzle-orm'
import type { Context } from '../context'
import { row, rows } from '../db/rows'
import type { Actor } from '../people/actor'
import type { SeenRows } from './kind'

/** Whoever reads, and when. */
export type Reader = Pick<Context, 'actor' | 'now'>

/** The condition under which a person sees a row of a kind, now: its own rule, and nothing before it is unsealed. */
export function visible(kind: SeenRows, { actor, now }: Reader): SQL {
  const a = kind.alias
  return sql`(${kind.visibleTo(actor)} and (${a}.sealed_until is null or ${a}.sealed_until <= ${now.toISOString()}
    or ${a}.owner_id = ${actor.id}))`
}

/** Whether a person sees a document. */
export async function maySee(ctx: Context, kind: SeenRows, id: string): Promise<boolean> {
  return (
    (await row(
      ctx.tx,
      sql`select 1 as one from ${kind.rows} where ${kind.alias}.id = ${id} and ${visible(kind, ctx)}`,
    )) !== null
  )
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
      sql`select ${actor.id}::uuid as id where exists (select 1 from ${kind.rows} where ${kind.alias}.id = ${id}
        and ${visible(kind, { actor, now })})`,
  )
  const found = await rows<{ id: string }>(tx, sql.join(each, sql` union all `))
  return new Set(found.map((f) => f.id))
}
