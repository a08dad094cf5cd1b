import { dec } from '#core/base/decimal'
import { cancelsWhole } from '#core/order/change'
import { needsDecision } from '#core/order/issue'
import type { Reply } from '#shared/contract/all-routes'
import type { orderChangeRoutes } from '#shared/contract/order-change'
import { sayChangeReason, sayConsequence, type Consequence } from '#shared/words/order-change'
import { waysOf } from '#shared/words/ways'
import { sayRefused } from '../budget/require-money'
import type { Context } from '../context'
import { notFound } from '../http/problem'
import { maySee } from '../document/visible'
import { findRequisitions } from '../requisition/reads'
import { findUnderWay } from './change-reads'
import { restOf, type ChangeAsked } from './change-order'
import { computeChange, type ComputedChange } from './compute-change'
import { requireOwn } from './order-to-change'
import { planChangeMoney, quantityMoves } from './plan-change-money'
import { findOrder, listServed } from './reads'
import { listRevisions } from './sending-reads'
import { SEEN_ORDERS } from './visible'
import { viewParts } from './view-parts'

/** What a change of an issued order would come to, and everything that stands in its way. Nothing is written. */
export async function checkChange(
  ctx: Context,
  id: string,
  wished: ChangeAsked,
): Promise<Reply<(typeof orderChangeRoutes)['checkOrderChange']>> {
  const order = await findOrder(ctx.tx, id)
  if (order === null || !(await maySee(ctx, SEEN_ORDERS, id))) throw notFound('This order')
  requireOwn(ctx, order)
  const served = await findRequisitions(ctx.tx, await listServed(ctx.tx, id), false)
  const underWay = await findUnderWay(ctx.tx, id)
  const of = { buyerId: ctx.actor.id, underWay, isOther: underWay !== null && underWay.state !== 'draft' }
  const c = await computeChange(ctx.tx, order, served, wished, of, ctx.now)
  const rest = restOf(order, wished.rest)
  const planned = await planChangeMoney(ctx, order, c, quantityMoves(c, rest), served, false)
  const ways = waysOf(ctx.actor.locale)
  const { reasons } = c.verdict
  const over = sayRefused(planned, ways)
  const isCancellation = cancelsWhole(c.lines)
  const [last] = await listRevisions(ctx.tx, id)
  const consequences: Consequence[] = [
    ...(isCancellation && order.isSent && last !== undefined
      ? [{ code: 'was-sent' as const, to: last.address, at: last.sentAt, supplier: order.supplier }]
      : []),
    ...returned(c, served, rest),
    ...planned.passed.flatMap((o) =>
      o.passedBy === null || o.control === 'refuses'
        ? []
        : [{ code: 'budget-passed' as const, name: o.name, by: o.passedBy }],
    ),
  ]
  return {
    refusals: [...over, ...reasons.map((r) => sayChangeReason(r, ways))],
    needsDecision: over.length === 0 && needsDecision(reasons),
    isCancellation,
    lines: c.lines.map((l) => ({ id: l.id, net: l.net })),
    ...viewParts(c),
    ...{ net: c.sums.net, tax: c.sums.tax, total: c.sums.total },
    consequences: consequences.map((x) => sayConsequence(x, ways)),
  }
}

/** What of each request is ordered less, and what becomes of it. */
function returned(
  c: ComputedChange,
  served: Awaited<ReturnType<typeof findRequisitions>>,
  rest: ChangeAsked['rest'],
): Consequence[] {
  const numberOf = new Map(served.flatMap((r) => r.lines.map((l) => [l.id, r.number ?? r.title] as const)))
  return c.lines.flatMap((l) =>
    l.moved.flatMap((m): Consequence[] =>
      dec(m.by).isNegative()
        ? [
            {
              ...{ code: 'ordered-less', rest, number: numberOf.get(m.requisitionLineId) ?? '' },
              ...{ description: l.description, quantity: dec(m.by).negated().toFixed(), unit: l.unit },
            },
          ]
        : [],
    ),
  )
}
