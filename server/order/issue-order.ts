import { waysOf, type Ways } from '#shared/words/ways'
import { dec } from '#core/base/decimal'
import { fiscalPeriod } from '#core/base/day'
import { add, compare, isZero, moneyOf, sum, zero, type Money } from '#core/base/money'
import { lineNet } from '#core/base/line-net'
import { checkBudget, type PeriodFigures } from '#core/budget/available'
import { ledgerEntries } from '#core/budget/ledger'
import { orderLineEffects } from '#core/order/effects'
import { stateFromQuantities } from '#core/requisition/line-progress'
import type { PayingLine } from '#core/requisition/draft-facts'
import { sayIssueReason } from '#shared/words/order'
import { appendEvent, appendEvents } from '../audit/store'
import { lockBudgetLines } from '../budget/reads'
import { appendEntries, type NewEntry } from '../budget/store'
import type { Context } from '../context'
import { setStates } from '../document/store'
import { tellEach } from '../document/tell'
import { notFound, refused } from '../http/problem'
import { notifyChange, notifyChanges } from '../live/notify'
import { enqueue } from '../queue/enqueue'
import { findRequisitions, type RequisitionLineRow, type RequisitionRow } from '../requisition/reads'
import { frozenLine, reservationEntries, worthOfOpen } from '../requisition/reservation'
import { moveQuantities } from '../requisition/store'
import { takeNumber } from '../settings/store'
import { computeTray, type ComputedTray } from './compute-tray'
import { requireTray } from './lay-tray'
import { findOrder, listServed, type OrderRow } from './reads'
import { deliveryDetails, distinct } from './delivery-details'
import { moreOf } from './more-of-line'
import { insertOrderLines, insertRevision, setIssued } from './store'

/**
 * Issues an order with one action: its number, its lines at order prices, its money from reserved to
 * committed, and the tasks that make its PDF and mail it. Refused with every reason, and nothing is
 * written, when the buyer's limit, what was approved or a budget line that refuses does not allow it.
 */
export async function issueOrder(
  ctx: Context,
  id: string,
  version: number,
): Promise<{ id: string; number: string; version: number }> {
  const seen = await findOrder(ctx.tx, id)
  if (seen === null) throw notFound('This order')
  // Requisitions are locked before orders, everywhere, in the order of their ids.
  const served = await findRequisitions(ctx.tx, await listServed(ctx.tx, id), true)
  const requisitions = new Map(served.map((r) => [r.id, r]))
  const tray = await requireTray(ctx, id, version)
  const computed = await computeTray(ctx.tx, tray, ctx.actor.id, ctx.now)
  if (computed.verdict.value === null) {
    const above = computed.verdict.reasons.some((r) => r.code === 'above-ordering-limit')
    throw refused(
      computed.verdict.reasons.map((r) => sayIssueReason(r, waysOf(ctx.actor.locale))),
      { reasons: computed.verdict.reasons },
      above ? 'above-ordering-limit' : 'refused',
    )
  }
  const lineIds = await insertOrderLines(ctx.tx, id, computed.lines)
  await moveMoney(ctx, tray, computed, lineIds, requisitions)
  await moveQuantities(
    ctx.tx,
    computed.parts.map((p) => ({
      lineId: p.requisitionLineId,
      ordered: p.quantity,
      onTray: dec(p.quantity).negated().toFixed(),
    })),
  )
  const { organisation, sums, today } = computed
  const perBase = requireRate(computed)
  await appendEvent(ctx, {
    type: 'issued',
    subjectKind: 'order',
    subjectId: id,
    before: { state: tray.state },
    after: { supplier: tray.supplier, net: sums.net, lines: computed.lines.length },
  })
  await noteOrdered(ctx, [...requisitions.values()], tray, computed)
  await enqueue(ctx.tx, 'file-order', { orderId: id, revision: 0 })
  await notifyChange(ctx.tx, { kind: 'order', id })
  const number = await takeNumber(ctx.tx, 'P', fiscalPeriod(today, organisation.fiscalStartMonth).year)
  const note = distinct([tray.note, ...computed.parts.map((p) => p.documentNote)]).join('\n')
  await setIssued(ctx.tx, id, {
    number,
    perBase,
    net: sums.net,
    freight: sums.charges,
    tax: sums.tax,
    note,
    now: ctx.now,
  })
  await insertRevision(ctx.tx, {
    orderId: id,
    revision: 0,
    issuedById: ctx.actor.id,
    issuedAt: ctx.now,
    snapshot: {
      number,
      revision: 0,
      issuedOn: today,
      organisation: {
        name: organisation.name,
        address: organisation.address,
        letterhead: organisation.letterhead,
      },
      supplier: {
        number: tray.supplierNumber,
        name: tray.supplier,
        address: tray.supplierAddress,
        email: tray.supplierEmail ?? '',
      },
      shipTo: { name: tray.shipTo, address: tray.shipToAddress, details: deliveryDetails(computed.parts) },
      buyer: tray.buyer,
      terms: { kind: tray.termsKind, days: tray.termsDays },
      currency: tray.currency,
      note,
      lines: computed.lines.map((l) => ({
        description: l.description,
        more: moreOf(l, tray.currency),
        supplierPart: l.supplierPart,
        quantity: l.quantity,
        unit: l.unit,
        unitPrice: l.unitPrice,
        priceBase: l.priceBase,
        needBy: l.needBy,
        net: l.net.amount,
      })),
      ...(isZero(sums.charges) ? {} : { freight: sums.charges.amount }),
      net: sums.net.amount,
      total: sums.total.amount,
      taxes: sums.byTax.map((t) => ({
        category: t.category,
        rate: t.rate,
        taxable: t.taxable.amount,
        tax: t.tax.amount,
      })),
    },
  })
  return { id, number, version: tray.version + 1 }
}

/** Releases the reservations of what is ordered, commits it at order prices, and checks each line that grows. */
async function moveMoney(
  ctx: Context,
  tray: OrderRow,
  c: ComputedTray,
  lineIds: readonly string[],
  requisitions: ReadonlyMap<string, RequisitionRow>,
): Promise<void> {
  const currency = c.organisation.baseCurrency
  const at = fiscalPeriod(c.today, c.organisation.fiscalStartMonth)
  const asked = new Map(
    [...requisitions.values()].flatMap((r) =>
      r.lines.map((l) => [l.id, { line: l, period: r.period ?? at.period }] as const),
    ),
  )
  const budgetIds = [...new Set([...asked.values()].flatMap(({ line }) => line.codings.map((x) => x.budgetLineId)))]
  const budgetLines = new Map((await lockBudgetLines(ctx.tx, budgetIds, currency)).map((l) => [l.id, l]))

  const ordered = new Set(c.parts.map((p) => p.requisitionLineId))
  const stillReserved = [...requisitions.values()].map((r) => {
    const touched = r.lines.filter((l) => ordered.has(l.id))
    const worth = new Map(touched.map((l) => [l.id, worthOfOpen({ ...l, ordered: orderedWith(l, c) }, currency)]))
    return { requisition: r, lineIds: touched.map((l) => l.id), worth, period: r.period ?? at.period }
  })
  const entries: NewEntry[] = await reservationEntries(ctx, stillReserved, 'ordered', currency)
  c.lines.forEach((line, i) => {
    const sources = line.sources.map((s) => {
      const of = asked.get(s.requisitionLineId)
      if (of === undefined) throw new Error('an order line serves an unknown line')
      const { split, codings, ...frozen } = frozenLine(of.line, currency)
      return { quantity: s.quantity, split, codings, whole: lineNet(frozen), period: of.period }
    })
    // What was reserved for a line stands in its request's period; so does what is ordered for it.
    const periods = sources.flatMap((s) => s.codings.map(() => s.period))
    const effects = orderLineEffects(
      { ...line, currency: tray.currency, perBase: requireRate(c), baseCurrency: currency },
      sources,
    )
    for (const e of ledgerEntries('committed', [], effects)) {
      entries.push({
        ...e,
        period: periods[e.codingAt] ?? at.period,
        documentKind: 'order',
        documentId: tray.id,
        lineId: lineIds[i] ?? '',
        cause: 'issued',
      })
    }
  })
  const over = refusals(entries, budgetLines, currency, waysOf(ctx.actor.locale))
  if (over.length > 0) throw refused(over, {}, 'budget-refuses')
  await appendEntries(ctx, entries)
}

function orderedWith(line: RequisitionLineRow, c: ComputedTray): string {
  return c.parts
    .filter((p) => p.requisitionLineId === line.id)
    .reduce((s, p) => s.plus(dec(p.quantity)), dec(line.ordered))
    .toFixed()
}

/**
 * Budget lines that refuse: held only against an order that takes more from one than it gives back. Each is judged as
 * its span counts, a year as a whole and periods by themselves.
 */
function refusals(
  entries: readonly NewEntry[],
  lines: ReadonlyMap<string, PayingLine>,
  currency: string,
  ways: Ways,
): string[] {
  const money = (e: NewEntry): Money => moneyOf(e.amount.amount, currency)
  const total = (of: readonly NewEntry[]): Money => sum(of.map(money), currency)
  const said = new Set<string>()
  for (const [id, line] of lines) {
    const own = entries.filter((e) => e.budgetLineId === id)
    const released = {
      ...line,
      periods: line.periods.map((p): PeriodFigures => ({
        ...p,
        reserved: add(p.reserved, total(own.filter((e) => e.stage === 'reserved' && e.period === p.period))),
      })),
    }
    for (const period of new Set(own.map((e) => e.period))) {
      const counted = own.filter(
        (e) => line.span === 'year' || (line.span === 'to date' ? e.period <= period : e.period === period),
      )
      if (compare(total(counted), zero(currency)) <= 0) continue
      const committed = { budgetLineId: id, amount: total(counted.filter((e) => e.stage === 'committed')) }
      for (const o of checkBudget([committed], new Map([[id, released]]), period))
        if (o.passedBy !== null && o.control === 'refuses')
          said.add(`${o.name} does not allow it: it would be passed by ${ways.money(o.passedBy)}.`)
    }
  }
  return [...said]
}

/** The rate of an order that may be issued: without one it may not. */
function requireRate({ perBase }: ComputedTray): string {
  if (perBase === null) throw new Error('an order without a rate was let through')
  return perBase
}

/** Moves the state of each requisition that is served, and tells those whose they are. */
async function noteOrdered(
  ctx: Context,
  served: readonly RequisitionRow[],
  tray: OrderRow,
  c: ComputedTray,
): Promise<void> {
  const moved = served.map((r) => ({
    ...r,
    before: r.state,
    state: stateFromQuantities(
      r.lines.map((l) => ({ requested: l.quantity, ordered: orderedWith(l, c), cancelled: l.cancelled })),
    ),
  }))
  await setStates(ctx.tx, moved, ctx.now)
  await appendEvents(
    ctx,
    moved.map((r) => ({
      type: r.state,
      subjectKind: 'requisition',
      subjectId: r.id,
      before: { state: r.before },
      after: { state: r.state, orderId: tray.id, supplier: tray.supplier },
    })),
  )
  await tellEach(
    ctx,
    moved.map((r) => ({
      personId: r.ownerId,
      about: r,
      told: {
        code: 'ordered',
        by: ctx.actor.name,
        number: r.number,
        title: r.title,
        supplier: tray.supplier,
        whole: r.state === 'ordered',
      },
      path: `/trail/${r.id}`,
    })),
  )
  await notifyChanges(
    ctx.tx,
    moved.map((r) => ({ kind: 'requisition', id: r.id })),
  )
}
