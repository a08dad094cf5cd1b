import { waysOf } from '#shared/words/ways'
import { dec } from '#core/base/decimal'
import { fiscalPeriod } from '#core/base/day'
import type { Money } from '#core/base/money'
import { stateFromQuantities } from '#core/requisition/line-progress'
import { sayIssueReason } from '#shared/words/order'
import { findAgreement } from '../agreement/reads'
import { drawOn } from '../agreement/draw-on'
import { appendEvent, appendEvents } from '../audit/store'
import { requireMoney } from '../budget/require-money'
import { appendEntries } from '../budget/store'
import type { Context } from '../context'
import { setStates } from '../document/store'
import { tell, tellEach } from '../document/tell'
import { notFound, refused } from '../http/problem'
import { notifyChange, notifyChanges } from '../live/notify'
import { enqueue } from '../queue/enqueue'
import { findRequisitions, type RequisitionRow } from '../requisition/reads'
import { moveQuantities } from '../requisition/store'
import { takeNumber } from '../settings/store'
import { computeTray, type ComputedTray } from './compute-tray'
import { requireTray } from './lay-tray'
import { findOrder, listServed, type OrderRow } from './reads'
import { deliveryDetails, distinct } from './delivery-details'
import { orderedWith, planMoney, requireRate } from './plan-money'
import { firstSnapshot } from './first-snapshot'
import { snapshotLine } from './snapshot-line'
import { insertOrderLines, insertRevision, setIssued } from './store'

/** How an order comes to be issued, where not by its buyer's press. */
export interface HowIssued {
  /** By a rule of ordering by itself, in its buyer's name. */
  readonly rule?: string
  /** On trial it takes no number from the series. */
  readonly isTrial?: boolean
}

/**
 * Issues an order with one action: its number, its lines at order prices, its money from reserved to
 * committed, and the tasks that make its PDF and mail it. Refused with every reason, and nothing is
 * written, when the buyer's limit, what was approved or a budget line that refuses does not allow it.
 */
export async function issueOrder(
  ctx: Context,
  id: string,
  version: number,
  { rule, isTrial = false }: HowIssued = {},
): Promise<{ id: string; number: string; version: number }> {
  const seen = await findOrder(ctx.tx, id)
  if (seen === null) throw notFound('This order')
  // Requisitions are locked before orders, everywhere, in the order of their ids.
  const served = await findRequisitions(ctx.tx, await listServed(ctx.tx, id), true)
  const requisitions = new Map(served.map((r) => [r.id, r]))
  const tray = await requireTray(ctx, id, version, 'issue')
  // What is drawn stands still until this is drawn, or refused.
  if (tray.agreementId !== null) await findAgreement(ctx.tx, tray.agreementId, true)
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
  const planned = await planMoney(ctx, tray, computed, lineIds, requisitions)
  requireMoney(planned, waysOf(ctx.actor.locale))
  await appendEntries(ctx, planned.entries)
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
    after: {
      supplier: tray.supplier,
      net: sums.net,
      lines: computed.lines.length,
      ...(tray.placedAs === null ? {} : { placedAs: tray.placedAs }),
      ...(rule === undefined ? {} : { rule }),
    },
  })
  await noteOrdered(ctx, [...requisitions.values()], tray, computed, rule)
  await enqueue(ctx.tx, 'file-order', { orderId: id, revision: 0 })
  await notifyChange(ctx.tx, { kind: 'order', id })
  const { year } = fiscalPeriod(today, organisation.fiscalStartMonth)
  const number = isTrial ? `trial ${id}` : await takeNumber(ctx.tx, 'P', year)
  const note = distinct([tray.note, ...computed.parts.map((p) => p.documentNote)]).join('\n')
  await setIssued(ctx.tx, id, {
    number,
    perBase,
    net: sums.net,
    freight: computed.freight,
    tax: sums.tax,
    note,
    now: ctx.now,
  })
  await tellDirect(ctx, tray, number, sums.net)
  if (tray.agreementId !== null) await drawOn(ctx, tray.agreementId, sums.net)
  await insertRevision(ctx.tx, {
    orderId: id,
    revision: 0,
    issuedById: ctx.actor.id,
    issuedAt: ctx.now,
    snapshot: firstSnapshot(tray, {
      ...{ number, today, organisation, note },
      of: computed,
      details: deliveryDetails(computed.parts),
      lines: computed.lines.map((l) => snapshotLine(l, tray.currency)),
    }),
  })
  return { id, number, version: tray.version + 1 }
}

/** Moves the state of each requisition that is served, and tells those whose they are. */
async function noteOrdered(
  ctx: Context,
  served: readonly RequisitionRow[],
  tray: OrderRow,
  c: ComputedTray,
  rule: string | undefined,
): Promise<void> {
  const moved = served
    .filter((r) => !r.isDirect)
    .map((r) => ({
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
        by: rule === undefined ? ctx.actor.name : `Rekko, in the name of ${ctx.actor.name},`,
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

/** Tells whoever a direct order was written for. */
async function tellDirect(ctx: Context, tray: OrderRow, number: string, amount: Money): Promise<void> {
  if (tray.directFor === null) return
  const { supplier } = tray
  const told = { code: 'ordered-for-you', by: ctx.actor.name, number, supplier, amount } as const
  await tell(ctx, tray.directFor.id, tray, told, { path: `/orders/${tray.id}` })
}
