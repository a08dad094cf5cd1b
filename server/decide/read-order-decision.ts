import { add, convert, moneyOf, negate, sum } from '#core/base/money'
import { needsDecision } from '#core/order/issue'
import type { OrderDecision } from '#shared/contract/decide'
import { sayWhySent } from '#shared/words/order'
import { sayConditions } from '#shared/words/conditions'
import { waysOf } from '#shared/words/ways'
import { findRoute } from '../approval/reads'
import type { Context } from '../context'
import { maySee, seenAmong } from '../document/visible'
import { notFound } from '../http/problem'
import { computeTray } from '../order/compute-tray'
import { ORDER } from '../order/kind'
import { listOrderLines } from '../order/page-reads'
import { planMoney, type PlannedMoney } from '../order/plan-money'
import { viewDirect } from '../order/view-direct'
import { conditionsOf, listServed, type OrderRow } from '../order/reads'
import { SEEN_ORDERS } from '../order/visible'
import { findRequisitions } from '../requisition/reads'
import { SEEN_REQUISITIONS } from '../requisition/visible'
import { requireOrganisation } from '../settings/reads'
import { barOf } from './budget-bar'
import { readSeat } from './read-seat'
import { readParts, viewParts } from '../order/view-parts'

type Says = Pick<
  OrderDecision,
  'net' | 'goods' | 'adjustments' | 'freight' | 'tax' | 'total' | 'why' | 'lines' | 'budget'
>

/** Everything that a decision on an order needs: what it says beside what was approved of the requests it serves. */
export async function readOrderDecision(ctx: Context, id: string): Promise<OrderDecision> {
  const { tx } = ctx
  const order = await ORDER.find(tx, id)
  const route = await findRoute(tx, id)
  if (order === null || route === null || !(await maySee(ctx, SEEN_ORDERS, id))) throw notFound('This order')
  const { baseCurrency } = await requireOrganisation(tx)
  const says = order.number === null ? await readTray(ctx, order, baseCurrency) : await readIssued(ctx, order)
  const whose = order.directFor ?? { id: order.ownerId, name: order.buyer }
  const seat = await readSeat(ctx, { ...order, ownerId: whose.id }, route, {
    owner: whose.name,
    payers: new Map(says.budget.map((b) => [b.budgetLineId, b.name])),
    currency: baseCurrency,
  })
  return {
    document: 'order',
    id,
    number: order.number,
    orderId: id,
    change: null,
    version: order.version,
    state: order.state,
    title: order.title,
    owner: order.buyer,
    ownerId: order.ownerId,
    amount: moneyOf(route.amount, route.currency),
    direct: await viewDirect(ctx, order),
    supplier: order.supplier,
    shipTo: order.shipTo,
    terms: sayConditions(conditionsOf(order), waysOf(ctx.actor.locale), ''),
    ...{ placedAs: order.placedAs, isSent: order.isSent, calledOffUntil: order.isBlanket ? order.expiresOn : null },
    currency: order.currency,
    issuesItself: order.issuesItself,
    ...says,
    ...seat,
  }
}

/** An order while it is put together, decided on, or approved: as it would be issued now. */
async function readTray(ctx: Context, order: OrderRow, baseCurrency: string): Promise<Says> {
  const { tx, now, actor } = ctx
  const c = await computeTray(tx, order, order.ownerId, now)
  const requisitions = new Map(
    (await findRequisitions(tx, await listServed(tx, order.id), false)).map((r) => [r.id, r]),
  )
  const seen = await seenAmong(ctx, SEEN_REQUISITIONS, [...requisitions.keys()])
  const planned = c.perBase === null ? null : await planMoney(ctx, order, c, [], requisitions, false)
  const parts = new Map(c.parts.map((p) => [p.requisitionLineId, p]))
  const { perBase } = c
  return {
    net: c.sums.net,
    ...viewParts(c),
    tax: c.sums.tax,
    total: c.sums.total,
    why: c.verdict.reasons
      .filter((r) => needsDecision([r]))
      .map((r) => sayWhySent(r, order.buyer, waysOf(actor.locale))),
    lines: c.lines.map((l) => ({
      description: l.description,
      quantity: l.quantity,
      unit: l.unit,
      unitPrice: l.unitPrice,
      priceBase: l.priceBase,
      needBy: l.needBy,
      net: l.net,
      // Of a direct order nothing was approved yet.
      approved: order.directFor === null ? l.approved : null,
      ordered: perBase === null ? null : convert(l.ordered, perBase, baseCurrency),
      asked: l.sources.flatMap((s) => {
        const part = parts.get(s.requisitionLineId)
        if (part === undefined) return []
        const id = seen.has(part.requisitionId) ? part.requisitionId : null
        return [{ id, number: part.requisitionNumber, asker: part.asker, quantity: s.quantity }]
      }),
    })),
    budget: planned === null ? [] : barsOf(planned, baseCurrency),
  }
}

/** An order that is issued: as it was. */
async function readIssued(ctx: Context, order: OrderRow): Promise<Says> {
  const lines = await listOrderLines(ctx.tx, order.id)
  const seen = await seenAmong(ctx, SEEN_REQUISITIONS, [
    ...new Set(lines.flatMap((l) => l.sources.map((s) => s.requisitionId))),
  ])
  const net = moneyOf(order.net ?? '0', order.currency)
  const tax = moneyOf(order.tax ?? '0', order.currency)
  return {
    net,
    ...(await readParts(ctx.tx, order)),
    tax,
    total: add(net, tax),
    why: [],
    lines: lines.map((l) => ({
      description: l.description,
      quantity: l.quantity,
      unit: l.unit,
      unitPrice: l.unitPrice,
      priceBase: l.priceBase,
      needBy: l.needBy,
      net: moneyOf(l.net, order.currency),
      approved: null,
      ordered: null,
      asked: l.sources.map(({ requisitionId, number, quantity }) => ({
        id: seen.has(requisitionId) ? requisitionId : null,
        ...(requisitionId === order.id ? { number: '', asker: order.directFor?.name ?? '' } : { number, asker: '' }),
        quantity,
      })),
    })),
    budget: [],
  }
}

/** Each budget line that pays, with what is reserved for the requests, and as issuing the order would leave it. */
export function barsOf({ entries, budgetLines, passed }: PlannedMoney, currency: string): OrderDecision['budget'] {
  return [...budgetLines.values()].flatMap((line) => {
    const own = entries.filter((e) => e.budgetLineId === line.id)
    if (own.length === 0) return []
    const total = (stage: string) =>
      sum(
        own.filter((e) => e.stage === stage).map((e) => moneyOf(e.amount.amount, currency)),
        currency,
      )
    const period = Math.max(...own.map((e) => e.period))
    const isPassed = passed.some((o) => o.budgetLineId === line.id)
    return [barOf(line, period, { reserved: negate(total('reserved')), effect: total('committed') }, isPassed)]
  })
}
