import { findOpenSeat } from '../approval/reads'
import type { Decidable } from '../approval/decidable'
import type { Context } from '../context'
import type { DocumentHead, SeenRows, SharedMove } from '../document/kind'
import { isAsked } from '../document/reads'
import { maySee } from '../document/visible'
import { forbidden, notFound, refused, stale } from '../http/problem'

/** The moves on a buyer's document that others may make, or the buyer too. */
type Shared = Exclude<SharedMove, 'edit' | 'reject'>

/** What has to be said of a kind of document that buyers own: an order, or its change. */
export interface BuyersDocument<D extends DocumentHead> {
  readonly called: string
  readonly seen: SeenRows
  find(tx: Context['tx'], id: string, lock?: boolean): Promise<D | null>
  isFrom(move: Shared, state: D['state']): boolean
  by(move: Shared): 'step holder' | 'buyer or asked'
  /** "This order is with whoever decides on it." */
  sayState(document: D): string
  /** Why it may not be rejected. */
  readonly whyNotRejected: string
}

/** How a buyer's document is locked, and by whom it may be moved on. */
export function locksOf<D extends DocumentHead>(kind: BuyersDocument<D>): Pick<Decidable<D>, 'lock' | 'lockFor'> {
  const lock = async (ctx: Context, id: string, version: number | null): Promise<D> => {
    const found = await kind.find(ctx.tx, id, true)
    if (found === null || !(await maySee(ctx, kind.seen, id))) throw notFound(kind.called)
    if (version !== null && version !== found.version)
      throw stale(`${kind.called.replace('This', 'this')} was changed in another window`)
    return found
  }
  const allows = async ({ tx, actor }: Context, { id, ownerId }: D, move: Shared): Promise<boolean> =>
    kind.by(move) === 'step holder'
      ? (await findOpenSeat(tx, id, actor.id)) !== null
      : ownerId === actor.id || (await isAsked(tx, id, actor.id))
  return {
    lock,
    async lockFor(ctx, id, version, move) {
      const document = await lock(ctx, id, version)
      if (move === 'reject') throw refused([kind.whyNotRejected])
      const isTheirs = move !== 'edit' && (await allows(ctx, document, move))
      if (move === 'edit' || !kind.isFrom(move, document.state))
        throw refused([kind.sayState(document)], {}, 'wrong-state')
      if (!isTheirs) throw forbidden(move === 'answer' ? 'Nobody asked you about it.' : 'This does not wait for you.')
      return document
    },
  }
}
