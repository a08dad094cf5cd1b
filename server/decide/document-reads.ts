import { sql, type SQL } from 'drizzle-orm'
import { decidePath } from '../approval/decidable'
import { isThere, named } from '../db/read'
import { document } from '../db/schema/document'
import type { SeenRows } from '../document/kind'
import { seenAmong } from '../document/visible'
import type { Context } from '../context'
import { SEEN_CHANGES } from '../order/change-reads'
import { SEEN_ORDERS } from '../order/visible'
import type { Actor } from '../people/actor'
import { SEEN_REQUISITIONS } from '../requisition/visible'

/** Documents of any kind that is decided on, in statements of this area. */
export const d = named(document, 'd')

/** What such a document is called: an order has no number until it is issued, and is spoken of by its supplier. */
export const TITLE = sql<string>`case when ${d.kind} = 'order' then 'order to ' || ${d.title} else ${d.title} end`

const KINDS: readonly (readonly [name: string, seen: SeenRows])[] = [
  ['requisition', SEEN_REQUISITIONS],
  ['order', SEEN_ORDERS],
  ['order change', SEEN_CHANGES],
]

/** Of which sort it is for whoever decides: a change of an order is decided on as the order that it makes of it. */
export const SORT = sql<
  'requisition' | 'order'
>`case when ${d.kind} = 'requisition' then 'requisition' else 'order' end`

/** The condition under which a person sees a document `d`, whatever its kind. */
export const visibleDocument = (actor: Actor): SQL =>
  sql`(${sql.join(
    KINDS.map(
      ([kind, { row, visibleTo }]) =>
        sql`(${d.kind} = ${kind} and ${isThere(sql`from ${row} where ${row.id} = ${d.id} and ${visibleTo(actor)}`)})`,
    ),
    sql` or `,
  )})`

/** Which of some documents, whatever their kinds, a person sees. */
export async function seenDocuments(ctx: Context, ids: readonly string[]): Promise<Set<string>> {
  const seen = new Set<string>()
  for (const [, rows] of KINDS) for (const id of await seenAmong(ctx, rows, ids)) seen.add(id)
  return seen
}

/** The page that shows a document to whoever does not decide on it. */
export const pageOf = (of: { readonly documentKind: string; readonly documentId: string }): string =>
  of.documentKind !== 'requisition' ? decidePath(of.documentId) : `/trail/${of.documentId}`
