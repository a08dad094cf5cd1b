import { moneyOf } from '#core/base/money'
import type { OrderAdjustment } from '#core/order/adjustment'
import { compareOrders } from '#core/order/compare'
import { cancelsWhole } from '#core/order/change'
import type { OrderDecision } from '#shared/contract/decide'
import { sayWhySent } from '#shared/words/order'
import { sayDifference } from '#shared/words/order-change'
import { sayConditions } from '#shared/words/conditions'
import { waysOf } from '#shared/words/ways'
import { findRoute } from '../approval/reads'
import type { Context } from '../context'
import { maySee, seenAmong } from '../document/visible'
import { notFound } from '../http/problem'
import { ORDER_CHANGE } from '../order/change-kind'
import { listStanding, SEEN_CHANGES, type ChangeRow } from '../order/change-reads'
import { computeChange, type ComputedChange } from '../order/compute-change'
import { planChangeMoney, quantityMoves } from '../order/plan-change-money'
import { viewDirect } from '../order/view-direct'
import { conditionsOf, findOrder, listServed, type OrderRow } from '../order/reads'
import { listShipTos } from '../people/place-reads'
import { findRequisitions } from '../requisition/reads'
import { SEEN_REQUISITIONS } from '../requisition/visible'
import { barsOf } from './read-order-decision'
import { readSeat } from './read-seat'
import { viewParts } from '../order/view-parts'

/** Everything that a decision on a change of an order needs: the order as it would be, and what is otherwise. */
export async function readChangeDecision(ctx: Context, id: string): Promise<OrderDecision> {
  const { tx, actor } = ctx
  const change = await ORDER_CHANGE.find(tx, id)
  const route = await findRoute(tx, id)
  const order = change === null ? null : await findOrder(tx, change.orderId)
  if (change === null || order === null || route === null || !(await maySee(ctx, SEEN_CHANGES, id)))
    throw notFound('This change')
  const served = await findRequisitions(tx, await listServed(tx, order.id), false)
  // Once it is over the order has moved on: it is shown as it stands, with what was wished.
  const isOver = !change.isUnderWay
  const wished = isOver ? { lines: [], shipToId: null, expiresOn: null } : change
  const of = { buyerId: change.ownerId, underWay: change, isOther: false }
  const c = await computeChange(tx, order, served, wished, of, ctx.now)
  const planned = await planChangeMoney(ctx, order, c, quantityMoves(c, change.rest), served, false)
  const seen = await seenAmong(
    ctx,
    SEEN_REQUISITIONS,
    served.map((r) => r.id),
  )
  const numbers = new Map(served.map((r) => [r.id, r.number ?? '']))
  const ways = waysOf(actor.locale)
  const budget = isOver ? [] : barsOf(planned, c.organisation.baseCurrency)
  const whose = order.directFor ?? { id: order.ownerId, name: order.buyer }
  const seat = await readSeat(ctx, { ...change, ownerId: whose.id }, route, {
    owner: whose.name,
    payers: new Map(budget.map((b) => [b.budgetLineId, b.name])),
    currency: c.organisation.baseCurrency,
  })
  return {
    document: 'order',
    ...{ id, orderId: order.id, number: order.number, version: change.version, state: change.state },
    ...{ title: change.title, owner: order.buyer, ownerId: change.ownerId },
    amount: moneyOf(route.amount, route.currency),
    direct: await viewDirect(ctx, order),
    ...{ supplier: order.supplier, shipTo: order.shipTo, currency: order.currency, issuesItself: true },
    terms: sayConditions(conditionsOf(order), waysOf(ctx.actor.locale), ''),
    ...{ placedAs: order.placedAs, isSent: order.isSent, calledOffUntil: order.isBlanket ? order.expiresOn : null },
    change: {
      differences: (await differencesOf(ctx, order, c, change)).map((d) => sayDifference(d, ways)),
      isCancellation: !isOver && cancelsWhole(c.lines),
      ...{ reason: change.reason, rest: change.rest },
    },
    ...viewParts(c),
    ...{ net: c.sums.net, tax: c.sums.tax, total: c.sums.total },
    why: isOver
      ? []
      : c.verdict.reasons.flatMap((r) =>
          r.code === 'above-approved' || r.code === 'above-ordering-limit' ? [sayWhySent(r, order.buyer, ways)] : [],
        ),
    lines: c.lines.map((l) => ({
      ...{ description: l.description, quantity: l.quantity, unit: l.unit, unitPrice: l.unitPrice },
      ...{ priceBase: l.priceBase, needBy: l.needBy, net: l.net, approved: null, ordered: null },
      asked: l.standing.sources.map((s) => ({
        id: seen.has(s.requisitionId) ? s.requisitionId : null,
        ...(s.requisitionId === order.id
          ? { number: '', asker: order.directFor?.name ?? '' }
          : { number: numbers.get(s.requisitionId) ?? '', asker: '' }),
        quantity: s.quantity,
      })),
    })),
    budget,
    ...seat,
  }
}

/** What the order would say otherwise than it does. */
async function differencesOf({ tx }: Context, order: OrderRow, c: ComputedChange, change: ChangeRow) {
  const standing = await listStanding(tx, order.id)
  const { shipToId } = change
  const to = shipToId === null ? undefined : (await listShipTos(tx)).find((s) => s.id === shipToId)
  const { currency } = order
  return compareOrders(
    {
      lines: standing.map((s) => ({ ...s, net: '0' })),
      ...{ expiresOn: order.expiresOn, adjustments: standsOf(order.adjustments) },
      ...{ shipTo: order.shipTo, freight: order.freight, net: c.netBefore.amount, currency },
    },
    {
      lines: c.lines.map((l) => ({ ...l, net: l.net.amount })),
      expiresOn: change.expiresOn ?? order.expiresOn,
      adjustments: standsOf(change.adjustments ?? order.adjustments),
      ...{ shipTo: to?.name ?? order.shipTo, freight: c.freight.amount, net: c.sums.net.amount, currency },
    },
  )
}

/** As it was said, a percentage or an amount. */
const standsOf = (said: readonly OrderAdjustment[]) =>
  said.map(({ kind, name, of, value }) => ({ kind, name, percent: of === 'percent' ? value : null, amount: value }))
