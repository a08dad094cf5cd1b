import type { SQL } from 'drizzle-orm'
import type { Context } from '../context'
import type { Named } from '../db/read'
import type { document } from '../db/schema/document'
import type { Actor } from '../people/actor'

/** What every document is, whatever its kind. */
export interface DocumentHead {
  readonly id: string
  readonly kind: string
  /** Null until it first leaves its author. */
  readonly number: string | null
  readonly title: string
  readonly ownerId: string
  /** Whoever else owned it since it was last sent. */
  readonly ownedBy: readonly string[]
  readonly state: string
  readonly version: number
}

/** The moves that every kind may offer in its own table, and that documents share. */
export type SharedMove = 'edit' | 'ask' | 'answer' | 'approve' | 'handOn' | 'sendBack' | 'reject'

/** The rows of a kind, and who sees them. */
export interface SeenRows {
  /** Its rows with what their documents hold, under the name by which `visibleTo` calls them. */
  readonly row: Pick<Named<typeof document>, 'getSQL' | 'id' | 'ownerId' | 'sealedUntil'>
  /** The condition under which a person sees a row. What is sealed is kept from all but its owner besides. */
  visibleTo(actor: Actor): SQL
}

/**
 * What has to be said of a kind of document, once: which rows it has, who sees them, and how one is locked. Reading,
 * lists, Find, live changes, files and exports ask here. `D` is its row, read whole.
 */
export interface Kind<D extends DocumentHead = DocumentHead> extends SeenRows {
  /** As it stands in `document.kind`. */
  readonly name: string
  /** "This requisition": what a refusal calls it. */
  readonly called: string
  /** Reads one whole, without looking who asks; `lock` takes its row. Null where there is none. */
  find(tx: Context['tx'], id: string, lock?: boolean): Promise<D | null>
  /** Locks one that the actor may see, at the version they saw; 404, 412 otherwise. */
  lock(ctx: Context, id: string, version: number | null): Promise<D>
  /** Locks one and checks by its own table that the actor may make this move now; 403 or 409 with all reasons. */
  lockFor(ctx: Context, id: string, version: number | null, move: SharedMove): Promise<D>
  /** The page that it leads to. */
  path(id: string): string
}
