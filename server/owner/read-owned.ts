import { partOf } from '#core/people/rights'
import type { OwnedView } from '#shared/contract/owner'
import type { Context } from '../context'
import { notFound } from '../http/problem'
import { listOwnedOrders } from '../order/owned-reads'
import { findPersonName } from '../people/person-reads'
import { listOwned } from '../requisition/reads'

/**
 * All that somebody owns and that is not over, in the part of whoever may give it to others. Of drafts and trays, which
 * are their author's alone, only how many there are.
 */
export async function readOwned(ctx: Context, personId: string): Promise<OwnedView> {
  const name = await findPersonName(ctx.tx, personId)
  if (name === null) throw notFound('This person')
  const part = partOf(ctx.actor.grants, 'change owners')
  const requests = await listOwned(ctx.tx, personId, part)
  const orders = await listOwnedOrders(ctx.tx, personId, part)
  const shown = <D extends { number: string | null }>(all: readonly D[]) =>
    all
      .flatMap((d) => (d.number === null ? [] : [{ ...d, number: d.number }]))
      .sort((a, b) => (a.number < b.number ? -1 : 1))
  return {
    name,
    requests: shown(requests),
    drafts: requests.length - shown(requests).length,
    orders: shown(orders),
    trays: orders.length - shown(orders).length,
  }
}
