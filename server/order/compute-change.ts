import { dec } from '#core/base/decimal'
import type { Day } from '#core/base/day'
import { lineNet } from '#core/base/line-net'
import { add, compare, convert, isZero, moneyOf, sum, zero, type Money } from '#core/base/money'
import type { TaxKey } from '#core/base/document-sums'
import { adjustmentsOfPart } from '#core/budget/effect'
import type { Verdict } from '#core/base/verdict'
import { areAlike, type OrderAdjustment } from '#core/order/adjustment'
import { leftToCall, muchOf } from '#core/order/call-off'
import {
  changeLines,
  decideOrderChange,
  type ChangedLine,
  type ChangeReason,
  type LineWish,
  type StandingLine,
} from '#core/order/change'
import type { FreightTerms } from '#core/order/freight'
import { orderSums, type OrderSums } from '#core/order/order-sums'
import { whoseNeed, type DecidedOrder } from '#core/order/subject'
import { adjustmentsOf } from '#core/requisition/draft'
import { leftToLay } from '#core/requisition/line-progress'
import { drawnOn, findAgreement } from '../agreement/reads'
import { findOrderPolicy, findRoute, listApprovers } from '../approval/reads'
import { channelNamed, CHANNELS } from '../channel/channels'
import type { Tx } from '../db/client'
import { notFound } from '../http/problem'
import { listWhoMayOrder, reachPeople } from '../people/person-reads'
import type { RequisitionLineRow, RequisitionRow } from '../requisition/reads'
import { requireTerms, type Organisation } from '../settings/reads'
import { readBlanketLines } from './blanket-lines'
import { listInForce, listStanding, type ChangeRow, type StandingRow } from './change-reads'
import { decidedBy, toleranceOf } from './compute-tray'
import { orderTermsOf } from './order-terms-of'
import { keptAdjustments } from './more-of-line'
import { findOrder, type OrderRow } from './reads'

/** What of an order is to be otherwise. */
export interface Wished {
  readonly lines: readonly LineWish[]
  readonly shipToId: string | null
  /** Its last day; null or left out: as it is. */
  readonly expiresOn?: string | null
  /** What is taken off the whole, or put on it; null or left out: as it is. */
  readonly adjustments?: readonly OrderAdjustment[] | null
}

/** A line as it is from the change on. */
export interface ComputedLine extends ChangedLine {
  readonly standing: StandingRow
  readonly taxRate: string
  readonly tax: TaxKey
  /** With what it bears of discounts and charges. */
  readonly ordered: Money
  /** What it bears of those and of the freight. */
  readonly borne: Money
}

export interface ComputedChange extends Omit<OrderSums, 'adjusted' | 'borne'> {
  readonly lines: readonly ComputedLine[]
  readonly netBefore: Money
  /** At which the order was issued: it keeps it. */
  readonly perBase: string
  readonly today: Day
  readonly organisation: Organisation
  readonly verdict: Verdict<'changed', ChangeReason>
}

/**
 * Everything that can be said of a change of an issued order: its lines and sums after it, and whether its buyer may
 * make it. `underWay` is the change itself where it was sent, or another that waits.
 */
export async function computeChange(
  tx: Tx,
  order: OrderRow,
  served: readonly RequisitionRow[],
  wished: Wished,
  of: { readonly buyerId: string; readonly underWay: ChangeRow | null; readonly isOther: boolean },
  now: Date,
): Promise<ComputedChange> {
  const [terms, standing] = await Promise.all([requireTerms(tx, now), listStanding(tx, order.id)])
  const { organisation, today } = terms
  if (wished.lines.some((w) => standing.every((s) => s.id !== w.lineId))) throw notFound('A line of this order')
  const { currency } = order
  const base = organisation.baseCurrency
  const asked = new Map(served.flatMap((r) => r.lines.map((l) => [l.id, l] as const)))
  const ofBlanket = await findBlanketFacts(tx, order)
  const wishedOf = new Map(wished.lines.map((w) => [w.lineId, w.quantity]))
  const changed = changeLines(
    standing.map((s) => ({
      ...s,
      adjustments: keptAdjustments(s),
      // Deliveries and bills say what came of a line once there are any.
      done: '0',
      ...ofBlanket(s),
      sources: s.sources.map((x) => ({
        ...x,
        // A direct order asks for as much as it orders.
        open: order.directFor === null ? openOf(asked.get(x.requisitionLineId)) : (wishedOf.get(s.id) ?? '0'),
      })),
    })),
    wished.lines,
    currency,
  )
  const category = new Map(terms.taxCodes.map((t) => [t.code, t.category]))
  const ordering = changed.map((c, i) => ({ c, standing: standing[i] as StandingRow }))
  const isOn = ({ c }: { c: ChangedLine }) => !dec(c.quantity).isZero()
  const taxOf = (s: StandingRow) => ({ category: category.get(s.taxCode) ?? 'S', rate: s.taxRate })
  const taxed = ordering.filter(isOn).map((o) => ({ net: o.c.net, tax: taxOf(o.standing) }))
  const freight = freightAfter(order, changed, new Map(terms.perBase))
  const { adjusted, borne, ...added } = orderSums(taxed, freight, currency, wished.adjustments ?? order.adjustments)
  const { sums } = added
  let at = 0
  const lines = ordering.map((o): ComputedLine => {
    const place = isOn(o) ? at++ : -1
    const { standing: s } = o
    const ordered = add(o.c.net, adjusted[place] ?? zero(currency))
    const bears = borne[place] ?? zero(currency)
    return { ...o.c, standing: s, taxRate: s.taxRate, tax: taxOf(s), ordered, borne: bears }
  })
  const { perBase } = order
  if (perBase === null) throw new Error('an issued order has no rate')
  const worth = convert(sums.net, perBase, base)
  const [{ people }, mayOrder, deciders, policy, decided, agreement] = await Promise.all([
    reachPeople(tx, [of.buyerId], base, today),
    listWhoMayOrder(tx, worth.amount, today),
    listApprovers(
      tx,
      served.map((r) => r.id),
    ),
    findOrderPolicy(tx, now),
    lastDecided(tx, order.id, of.underWay?.state === 'approved' ? of.underWay.id : null),
    order.agreementId === null ? null : findAgreement(tx, order.agreementId),
  ])
  const channel = channelNamed(order.supplierChannel)
  const netBefore = moneyOf(order.net ?? '0', currency)
  const verdict = decideOrderChange({
    state: order.state,
    currency,
    baseCurrency: base,
    perBase,
    lines,
    ordered: lines.map((l) => l.ordered),
    approved: lines.map((l) => approvedOf(l, asked, base)),
    netBefore,
    ...{ net: sums.net, goods: added.goods, discounts: sums.allowances },
    today,
    isWaiting: of.isOther,
    endsOn: endAfter(order, wished),
    adjustments: adjustmentsAfter(order, wished),
    movesShipTo: wished.shipToId !== null && wished.shipToId !== order.shipToId,
    supplier: { name: order.supplier, isBlocked: order.supplierStanding !== 'active', channel },
    isReachable: CHANNELS[channel].addressOf({ email: order.supplierEmail }) !== null,
    buyerId: of.buyerId,
    needs: served.map(whoseNeed),
    authority: {
      isDirect: order.directFor !== null,
      orderingLimit: people.find((p) => p.id === of.buyerId)?.orderingLimit ?? null,
      mayIssue: mayOrder.filter((w) => w.personId !== of.buyerId),
      ...{ tolerance: policy.tolerance ?? toleranceOf(organisation), directOrders: policy.directOrders },
      deciders,
      decided,
    },
    calledFrom:
      order.blanketId === null ? null : { expiresOn: (await findOrder(tx, order.blanketId))?.expiresOn ?? null },
    agreement: agreement === null ? null : { number: agreement.number, of: drawnOn(agreement, zero(currency)) },
  })
  return { lines, ...added, netBefore, perBase, today, organisation, verdict }
}

/** What of a requisition line nobody ordered, and that lies on no tray. */
function openOf(line: RequisitionLineRow | undefined): string {
  return line === undefined ? '0' : leftToLay({ ...line, requested: line.quantity })
}

/** The last day that an order is to have, where that is another; null else. */
const endAfter = (order: OrderRow, { expiresOn = null }: Wished): string | null =>
  expiresOn === order.expiresOn ? null : expiresOn

/** What is to be taken off, or put on, where that is another; null else. */
const adjustmentsAfter = (order: OrderRow, { adjustments = null }: Wished): readonly OrderAdjustment[] | null =>
  adjustments === null || areAlike(adjustments, order.adjustments) ? null : adjustments

/** What lines of a blanket order, or of a call-off, keep to: what was called off already, and what is left. */
async function findBlanketFacts(
  tx: Tx,
  order: OrderRow,
): Promise<(s: StandingRow) => Pick<StandingLine, 'called' | 'mostOfBlanket'>> {
  const blanketId = order.isBlanket ? order.id : order.blanketId
  if (blanketId === null) return () => ({})
  const lines = new Map((await readBlanketLines(tx, blanketId, order.currency)).map((l) => [l.id, l]))
  if (order.isBlanket) return (s) => ({ called: lines.get(s.id)?.called ?? null })
  return (s) => {
    const of = lines.get(s.blanketLineId ?? '')
    if (of === undefined) throw new Error('a call-off is of no line of its blanket order')
    // As much as is left, and as much as it calls off itself.
    const own = muchOf(s.unit, { quantity: s.quantity, net: moneyOf(s.net, order.currency) })
    return { mostOfBlanket: dec(leftToCall(of)).plus(dec(own)).toFixed() }
  }
}

/** Freight stays as it was agreed while the goods come to the same; else it is asked for by their new value. */
function freightAfter(
  order: OrderRow,
  lines: readonly ChangedLine[],
  rates: ReadonlyMap<string, string>,
): FreightTerms {
  // What a blanket order costs to bring was agreed with it, for all that is called off.
  if (order.blanketId !== null) return { freight: null, freeFrom: null }
  const agreed = moneyOf(order.freight, order.currency)
  const asKept = { freight: isZero(agreed) ? null : agreed, freeFrom: null }
  const total = (of: (l: ChangedLine) => Money) => sum(lines.map(of), order.currency)
  if (
    compare(
      total((l) => l.net),
      total((l) => l.was.net),
    ) === 0
  )
    return asKept
  return orderTermsOf(order, rates) ?? asKept
}

/** What was approved of a line's requisitions for as much as it orders, each at the rate it was approved with. */
function approvedOf(line: ChangedLine, asked: ReadonlyMap<string, RequisitionLineRow>, base: string): Money {
  return sum(
    line.sources.flatMap((s) => {
      const of = asked.get(s.requisitionLineId)
      if (of?.perBase == null || dec(s.quantity).isZero()) return []
      const adjustments = adjustmentsOfPart(adjustmentsOf(of), s.quantity, of.quantity)
      const net = lineNet({ ...of, unitPrice: of.unitPrice ?? '0', quantity: s.quantity, adjustments })
      return [convert(net, of.perBase, base)]
    }),
    base,
  )
}

/** What was decided last on an order: on the change that is approved now, on one in force, or on the order itself. */
async function lastDecided(tx: Tx, orderId: string, approvedId: string | null): Promise<DecidedOrder | null> {
  const inForce = (await listInForce(tx, orderId)).map((c) => c.id)
  for (const id of [...(approvedId === null ? [] : [approvedId]), ...inForce, orderId]) {
    const route = await findRoute(tx, id)
    if (route?.state === 'approved') return decidedBy(route)
  }
  return null
}
