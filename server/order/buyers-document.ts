import { moneyOf } from '#core/base/money'
import { findOpenSeat, findRoute, listDecisions } from '../approval/reads'
import type { Decidable } from '../approval/decidable'
import type { Context } from '../context'
import type { Tx } from '../db/client'
import type { DocumentHead, SeenRows, SharedMove } from '../document/kind'
import { isAsked } from '../document/reads'
import { setState } from '../document/store'
import { TAKE_BACK_SECONDS, tell } from '../document/tell'
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

/** Which decision a task follows: it does nothing where that was taken back, or the document sent again. */
export interface DecidedBy {
  readonly round: number
  /** Null where the last step fell away. */
  readonly decisionId: string | null
}

const STATE_AFTER = { waiting: 'in approval', reopened: 'in approval', stopped: 'draft', approved: 'approved' } as const

/**
 * What becomes of a buyer's document by what was decided on it: sent back it is the buyer's again; once nobody is left
 * to decide the buyer hears of it, and it goes on by itself when the decision can no longer be taken back.
 */
export function outcomesOf<D extends DocumentHead>(kind: {
  /** The page on which its buyer goes on with it. */
  pageFor(document: D): string
  /** Puts in what is done then, after so many seconds. */
  goOn(ctx: Context, document: D, of: DecidedBy, seconds: number): Promise<unknown>
}): Decidable<D>['takeOutcome'] {
  return async (ctx, document, outcome) => {
    await setState(ctx.tx, document.id, STATE_AFTER[outcome.state], ctx.now)
    if (outcome.state !== 'approved') return
    const route = await findRoute(ctx.tx, document.id)
    if (route === null) return
    const { decisionId } = outcome
    // Whoever decided last tells of it themselves; where a step fell away, nobody did.
    if (decisionId === null) {
      const amount = moneyOf(route.amount, route.currency)
      const told = { code: 'order-approved', by: null, comment: '', amount, title: document.title } as const
      await tell(ctx, document.ownerId, document, told, { path: kind.pageFor(document) })
    }
    const seconds = decisionId === null ? 0 : TAKE_BACK_SECONDS + 1
    await kind.goOn(ctx, document, { round: route.round, decisionId }, seconds)
  }
}

/** Whether a document is approved as it was when a task was put in for it, and the decision stands. */
export async function isApprovedBy(
  tx: Tx,
  { id, state }: Pick<DocumentHead, 'id' | 'state'>,
  { round, decisionId }: DecidedBy,
): Promise<boolean> {
  if (state !== 'approved' || (await findRoute(tx, id))?.round !== round) return false
  // Approved once more after that was taken back, another task follows it.
  return (await listDecisions(tx, id)).find((d) => d.id === decisionId)?.takenBack !== true
}
