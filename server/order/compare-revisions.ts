import { moneyOf } from '#core/base/money'
import { compareOrders } from '#core/order/compare'
import type { Reply } from '#shared/contract/all-routes'
import type { orderChangeRoutes } from '#shared/contract/order-change'
import { sayDifference } from '#shared/words/order-change'
import { waysOf } from '#shared/words/ways'
import type { Context } from '../context'
import { notFound } from '../http/problem'
import { listSent } from './change-reads'
import { requireVisibleOrder } from './read-order'
import { standOf } from './snapshot'

/** What one sent state of an order says otherwise than another, in sentences and line by line. */
export async function compareRevisions(
  ctx: Context,
  id: string,
  asked: { readonly was: number; readonly is: number },
): Promise<Reply<(typeof orderChangeRoutes)['compareRevisions']>> {
  const { currency } = await requireVisibleOrder(ctx, id)
  const sent = await listSent(ctx.tx, id)
  const [was, is] = [asked.was, asked.is].map((n) => sent.find((s) => s.revision === n)?.snapshot)
  if (was === undefined || is === undefined) throw notFound('This revision')
  const ways = waysOf(ctx.actor.locale)
  const lineOf = (l: (typeof is.lines)[number]) => ({
    ...{ quantity: l.quantity, unitPrice: l.unitPrice, needBy: l.needBy, net: moneyOf(l.net, currency) },
  })
  return {
    ...asked,
    differences: compareOrders(standOf(was), standOf(is)).map((d) => sayDifference(d, ways)),
    lines: is.lines.map((l, i) => {
      const before = was.lines[i]
      const { description, unit } = l
      return { description, unit, was: before === undefined ? null : lineOf(before), is: lineOf(l) }
    }),
  }
}
