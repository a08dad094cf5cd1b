import { may, partOf } from '#core/people/rights'
import type { Context } from '../context'
import { invalid, refused } from '../http/problem'
import { giveOrders } from '../order/give-order'
import { requireHere } from '../people/find-people'
import { tellPerson } from '../people/tell-person'
import { giveRequisitions } from '../requisition/hand-over'
import { readOwned } from './read-owned'

export interface HandOverOwned {
  readonly personId: string
  readonly requestsTo: string | null
  readonly ordersTo: string | null
}

/**
 * Gives all that somebody owns and that is not over to others, drafts and trays too: requests to one person, orders to
 * a buyer. Every right and every waiting action goes with it; what the new owner has decided on is kept where it is.
 * Each of them hears of it once.
 */
export async function handOverOwned(
  ctx: Context,
  o: HandOverOwned,
): Promise<{ requests: number; drafts: number; orders: number; trays: number; kept: number }> {
  const owned = await readOwned(ctx, o.personId)
  if (o.requestsTo === null && o.ordersTo === null) throw invalid('Say to whom it goes.')
  const part = partOf(ctx.actor.grants, 'change owners')
  const requestsTo = o.requestsTo === null ? null : await requireHere(ctx, o.requestsTo)
  const ordersTo = o.ordersTo === null ? null : await requireHere(ctx, o.ordersTo)
  if (o.requestsTo === o.personId || o.ordersTo === o.personId) throw refused([`${owned.name} owns it already.`])
  if (ordersTo !== null && !may(ordersTo.grants, 'order'))
    throw refused([`${ordersTo.name} is no buyer, and orders are owned by buyers.`])
  // Requisitions are locked before orders, everywhere.
  const requests = requestsTo === null ? NONE : await giveRequisitions(ctx, o.personId, requestsTo, part)
  const orders = ordersTo === null ? NONE : await giveOrders(ctx, o.personId, ordersTo, part)
  const done = {
    requests: requests.sent,
    drafts: requests.drafts,
    orders: orders.sent,
    trays: orders.drafts,
    kept: requests.kept,
  }
  const about = { kind: 'person', id: o.personId }
  for (const to of new Set([requestsTo?.id, ordersTo?.id])) {
    if (to === undefined) continue
    const theirs = {
      ...(to === requestsTo?.id ? { requests: done.requests, drafts: done.drafts } : { requests: 0, drafts: 0 }),
      ...(to === ordersTo?.id ? { orders: done.orders, trays: done.trays } : { orders: 0, trays: 0 }),
    }
    const path = to === requestsTo?.id ? '/mine' : '/orders'
    await tellPerson(
      ctx,
      to,
      about,
      { code: 'owned-handed-over', by: ctx.actor.name, of: owned.name, ...theirs },
      { path },
    )
  }
  return done
}

const NONE = { sent: 0, drafts: 0, kept: 0 }
