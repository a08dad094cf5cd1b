import { warningsAtIssue, type DrawWarning } from '#core/agreement/ceiling'
import type { DecimalText } from '#core/base/decimal'
import type { Day } from '#core/base/day'
import type { TaxKey } from '#core/base/document-sums'
import { lineNet, type Adjustment } from '#core/base/line-net'
import { adjustmentsOfPart } from '#core/budget/effect'
import { adjustmentsOf } from '#core/requisition/draft'
import { add, convert, moneyOf, sum, zero, type Money } from '#core/base/money'
import { orderSums, type OrderSums } from '#core/order/order-sums'
import type { OrderTerms } from '#core/order/order-terms'
import { savedTogether } from '#core/order/worth'
import { decideIssue, type IssueFacts, type IssueReason } from '#core/order/issue'
import { mergeParts, type MergedLine } from '#core/order/merge'
import { stepHints, type OrderHint } from '#core/order/step-hints'
import { whoseNeed, type DecidedOrder } from '#core/order/subject'
import type { Verdict } from '#core/base/verdict'
import type { Tx } from '../db/client'
import { listWhoMayOrder, reachPeople } from '../people/person-reads'
import { type Organisation, requireTerms } from '../settings/reads'
import { findOrderPolicy, findRoute, listApprovers, type RouteRow } from '../approval/reads'
import { listPriceSteps } from '../catalogue/reads'
import { channelNamed, CHANNELS } from '../channel/channels'
import { findDrawing, type Drawing } from './drawing'
import { orderTermsOf } from './order-terms-of'
import type { OrderRow } from './reads'
import { listParts, sizeOfSupplierFiles, type PartRow } from './tray-reads'

export interface ComputedTray extends Omit<OrderSums, 'adjusted' | 'borne'> {
  readonly parts: readonly PartRow[]
  readonly lines: readonly (MergedLine & {
    readonly net: Money
    /** With what it bears of discounts and charges: held against what was approved. */
    readonly ordered: Money
    /** What it bears of those and of the freight. */
    readonly borne: Money
    readonly taxRate: DecimalText
    readonly tax: TaxKey
    readonly single: Money
    /** What was approved of its requests, in the base currency. */
    readonly approved: Money
    /** What the next step of its item's price would make of it. */
    readonly hint: OrderHint | null
  })[]
  readonly terms: OrderTerms
  /** Against one order for each requisition. */
  readonly saved: Money
  readonly perBase: DecimalText | null
  readonly today: Day
  readonly organisation: Organisation
  /** On which it draws, with what whoever issues should know of it. */
  readonly agreement: (Drawing & { readonly warnings: readonly DrawWarning[] }) | null
  readonly verdict: Verdict<'issued', IssueReason>
}

/** Everything that can be said of a tray: merged lines at order prices, sums, and whether it may be issued. */
export async function computeTray(tx: Tx, tray: OrderRow, actorId: string, now: Date): Promise<ComputedTray> {
  // What does not rest on another answer is asked together.
  const [terms, parts] = await Promise.all([requireTerms(tx, now), listParts(tx, [tray.id])])
  const { organisation, today } = terms
  const items = [...new Set(parts.flatMap((p) => (p.itemId === null ? [] : [p.itemId])))]
  const served = [...new Set(parts.map((p) => p.requisitionId))]
  const [prices, { people }, filesSize, deciders, route, policy, drawing] = await Promise.all([
    listPriceSteps(tx, items),
    reachPeople(tx, [actorId], organisation.baseCurrency, today),
    sizeOfSupplierFiles(tx, served),
    listApprovers(tx, served),
    tray.state === 'approved' ? findRoute(tx, tray.id) : null,
    findOrderPolicy(tx, now),
    findDrawing(tx, tray, parts, today),
  ])
  const taxCodes = new Map(terms.taxCodes.map((t) => [t.code, t]))
  const rates = new Map(terms.perBase)
  const perBase = rates.get(tray.currency) ?? null
  const asked = parts.map(asOrdered)
  const merged = mergeParts(
    asked.map((p) => ({ ...p, unitPrice: p.agreedPrice ?? p.unitPrice })),
    prices,
    today,
  )
  const byLine = new Map(parts.map((p) => [p.requisitionLineId, p]))
  /** What an order line's parts were approved as, each by itself, and at which rate. */
  const approved = (sources: MergedLine['sources']) =>
    sources.flatMap((s) => {
      const part = byLine.get(s.requisitionLineId)
      if (part === undefined) return []
      const adjustments = adjustmentsOfPart(takenOff(part), s.quantity, part.requested)
      const net = lineNet({ ...part, quantity: s.quantity, adjustments })
      return [{ requisitionId: part.requisitionId, net, perBase: part.perBase }]
    })
  const hints = stepHints(merged, prices, tray.currency, today)
  const goods = merged.map((l, i) => ({
    ...l,
    hint: hints[i] ?? null,
    net: lineNet({ ...l, currency: tray.currency }),
    taxRate: taxCodes.get(l.taxCode)?.rate ?? '0',
    tax: { category: taxCodes.get(l.taxCode)?.category ?? 'S', rate: taxCodes.get(l.taxCode)?.rate ?? '0' },
    single: sum(
      approved(l.sources).map((a) => a.net),
      tray.currency,
    ),
    approved: sum(
      approved(l.sources).map((a) => convert(a.net, a.perBase, organisation.baseCurrency)),
      organisation.baseCurrency,
    ),
  }))
  const known = orderTermsOf(tray, rates)
  const orderTerms = known ?? { freight: null, freeFrom: null, minimum: null }
  const { adjusted, borne, ...added } = orderSums(goods, orderTerms, tray.currency, tray.adjustments)
  const { sums } = added
  const none = zero(tray.currency)
  const lines = goods.map((l, i) => ({ ...l, ordered: add(l.net, adjusted[i] ?? none), borne: borne[i] ?? none }))
  const saved = savedTogether(asked, add(added.goods, added.freight), {
    prices,
    terms: orderTerms,
    currency: tray.currency,
    today,
  })
  const base = perBase === null ? null : convert(sums.net, perBase, organisation.baseCurrency)
  const buyer = people.find((p) => p.id === actorId)
  const channel = channelNamed(tray.supplierChannel)
  const verdict = decideIssue({
    state: tray.state,
    buyerId: actorId,
    orderingLimit: buyer?.orderingLimit ?? null,
    mayIssue:
      base === null ? [] : (await listWhoMayOrder(tx, base.amount, today)).filter((w) => w.personId !== actorId),
    supplier: {
      name: tray.supplier,
      channel,
      reachable: CHANNELS[channel].addressOf({ email: tray.supplierEmail }) !== null,
      blocked: tray.supplierStanding !== 'active',
      freightWithoutRate: known === null ? tray.supplierCurrency : null,
    },
    closedPeriod:
      terms.closedPeriods.find((c) =>
        parts.some((p) => p.isDirect && p.fiscalYear === c.year && p.period === c.period),
      ) ?? null,
    ...{ isSent: tray.isSent, expiresOn: tray.expiresOn, today },
    filesSize,
    hasShipTo: true,
    currency: tray.currency,
    ...{ net: sums.net, goods: added.goods, discounts: sums.allowances },
    perBase,
    baseCurrency: organisation.baseCurrency,
    lines: lines.map((l) => ({
      description: l.description,
      ordered: l.ordered,
      approved: l.approved,
    })),
    isDirect: tray.directFor !== null,
    needs: parts.map(whoseNeed),
    sameShipTo: parts.every((p) => p.shipToId === tray.shipToId),
    agreement: drawing?.facts ?? null,
    ...{ tolerance: policy.tolerance ?? toleranceOf(organisation), directOrders: policy.directOrders },
    deciders,
    decided: decidedOf(tray, route),
  })
  const told = drawing === null ? [] : warningsAtIssue(drawing.facts.of, sums.net, today)
  const agreement = drawing === null ? null : { ...drawing, warnings: told }
  return { parts, lines, ...added, terms: orderTerms, saved, perBase, today, organisation, agreement, verdict }
}

/** By how much an order may pass what was approved, where the policy does not say. */
export const toleranceOf = (o: Organisation): IssueFacts['tolerance'] => ({
  percent: o.orderTolerancePercent,
  amount: moneyOf(o.orderToleranceAmount, o.baseCurrency),
})

/** What was decided on an order that is approved. */
const decidedOf = (tray: OrderRow, route: RouteRow | null): DecidedOrder | null =>
  tray.state !== 'approved' || route === null ? null : decidedBy(route)

/** What a route that came to its end decided on an order. */
export const decidedBy = (route: RouteRow): DecidedOrder => ({
  amount: moneyOf(route.amount, route.currency),
  lines: (route.sent.lines ?? []).map((m) => moneyOf(m.amount, m.currency)),
})

/**
 * A part as its supplier is asked for it: where another one's offer was taken, for that item, at its price, and without
 * what was taken off the price of the first.
 */
const asOrdered = (p: PartRow): PartRow & { readonly adjustments: readonly Adjustment[] } =>
  p.insteadOf === null
    ? { ...p, adjustments: takenOff(p) }
    : { ...p, unitPrice: p.agreedPrice ?? p.unitPrice, priceBase: p.orderedBase, adjustments: [] }

/** What was taken off a requisition line when it was approved. */
export function takenOff(line: Pick<PartRow, 'discountOf' | 'discountValue'>): Adjustment[] {
  return adjustmentsOf({
    discount:
      line.discountOf === null || line.discountValue === null
        ? null
        : { of: line.discountOf, value: line.discountValue },
  })
}
