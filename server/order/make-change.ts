import { dec } from '#core/base/decimal'
import { subtract } from '#core/base/money'
import { cancelsWhole } from '#core/order/change'
import { compareOrders, type OrderDifference } from '#core/order/compare'
import { stateFromQuantities } from '#core/requisition/line-progress'
import { waysOf } from '#shared/words/ways'
import { drawOn } from '../agreement/draw-on'
import { appendEvent, appendEvents } from '../audit/store'
import { requireMoney } from '../budget/require-money'
import { appendEntries } from '../budget/store'
import type { Context } from '../context'
import { setState, setStates, touchDocument } from '../document/store'
import { tell } from '../document/tell'
import { invalid } from '../http/problem'
import { notifyChange, notifyChanges } from '../live/notify'
import { listShipTos } from '../people/place-reads'
import { enqueue } from '../queue/enqueue'
import type { RequisitionRow } from '../requisition/reads'
import { moveQuantities, raiseAsked } from '../requisition/store'
import { listSent, type ChangeRow } from './change-reads'
import { endChange, setRevised, updateLines } from './change-store'
import type { ComputedChange } from './compute-change'
import type { OrderToChange } from './order-to-change'
import type { OrderRow } from './reads'
import { lineAfter, planChangeMoney, quantityMoves, type QuantityMove } from './plan-change-money'
import { settleRevised } from './settle-answer'
import { freePlacedNumber, insertRevision } from './store'
import { agreementOnPaper, addedOnPaper, standOf, type OrderSnapshot } from './snapshot'
import { snapshotLine } from './snapshot-line'
import { tellCallChanged } from './tell-called'

/**
 * Makes a change of an issued order that may be made: its lines and money, the requisitions behind it, the next
 * revision and the tasks that make its PDF and send it. Everything is locked; one budget line that refuses refuses all.
 */
export async function makeChange(
  ctx: Context,
  { order, served }: OrderToChange,
  change: ChangeRow,
  c: ComputedChange,
): Promise<{ revision: number }> {
  const { tx, now } = ctx
  const moves = quantityMoves(c, change.rest)
  const planned = await planChangeMoney(ctx, order, c, moves, served, true)
  requireMoney(planned, waysOf(ctx.actor.locale))
  await appendEntries(ctx, planned.entries)
  if (order.directFor !== null) await raiseAsked(tx, moves)
  await moveQuantities(tx, moves)
  await updateLines(
    tx,
    c.lines.map((l) => ({ ...l, discountAmount: l.adjustments.find((a) => a.amount !== undefined)?.amount ?? null })),
  )
  const before = (await listSent(tx, order.id)).at(-1)?.snapshot
  if (before === undefined) throw new Error('an issued order has no sent state')
  const revision = order.revision + 1
  const snapshot = await snapshotAfter(ctx, before, { ...c, revision, change, order })
  const isOver = cancelsWhole(c.lines)
  const { sums } = c
  const shipToId = change.shipToId ?? order.shipToId
  const expiresOn = change.expiresOn ?? order.expiresOn
  await setRevised(tx, order.id, {
    ...{ revision, shipToId, expiresOn, adjustments: change.adjustments ?? order.adjustments },
    ...{ net: sums.net, freight: c.freight, tax: sums.tax },
  })
  if (order.agreementId !== null) await drawOn(ctx, order.agreementId, subtract(sums.net, c.netBefore))
  const settled = await settleRevised(ctx, order, c.lines)
  const state = isOver ? 'cancelled' : settled
  if (isOver) await freePlacedNumber(tx, order.id)
  if (state !== order.state) await setState(tx, order.id, state, now)
  else await touchDocument(tx, order.id, now)
  await setState(tx, change.id, 'in force', now)
  await endChange(tx, change.id, revision)
  await insertRevision(tx, { orderId: order.id, revision, issuedById: ctx.actor.id, issuedAt: now, snapshot })
  await appendEvent(ctx, {
    type: isOver ? 'order cancelled' : 'order changed',
    subjectKind: 'order',
    subjectId: order.id,
    before: { state: order.state, net: c.netBefore },
    after: { revision, net: sums.net, changeId: change.id, text: change.reason, rest: change.rest },
  })
  await noteServed(ctx, served, moves, { order, change, c, isOver })
  await tellCallChanged(ctx, order, snapshot.differences ?? [])
  await enqueue(tx, 'file-order', { orderId: order.id, revision })
  await notifyChange(tx, { kind: 'order', id: order.id })
  // What is left of its blanket order is another.
  if (order.blanketId !== null) await notifyChange(tx, { kind: 'order', id: order.blanketId })
  return { revision }
}

/** The order as it is sent from now on. */
async function snapshotAfter(
  ctx: Context,
  before: OrderSnapshot,
  c: ComputedChange & { readonly revision: number; readonly change: ChangeRow; readonly order: OrderRow },
): Promise<OrderSnapshot> {
  const { sums, change, order } = c
  const moved = change.shipToId === null ? undefined : (await listShipTos(ctx.tx)).find((s) => s.id === change.shipToId)
  if (change.shipToId !== null && moved === undefined) throw invalid('This place does not exist.')
  const { freight: _, freightTax: _tax, adjustments: _adjusted, agreement: _drawn, ...kept } = before
  const after: OrderSnapshot = {
    ...kept,
    revision: c.revision,
    language: order.supplierLanguage,
    changedOn: c.today,
    isCancelled: cancelsWhole(c.lines),
    changeNote: change.note,
    ...(change.expiresOn === null ? {} : { expiresOn: change.expiresOn }),
    shipTo:
      moved === undefined
        ? before.shipTo
        : {
            ...{ name: moved.name, details: [] },
            address: `${moved.street}, ${moved.postcode} ${moved.town}, ${moved.country}`,
          },
    lines: c.lines.map((l, i) => {
      const { secondDescription, note } = l.standing
      const more = { secondDescription, notes: note === '' ? [] : [note] }
      const adjustments = dec(l.quantity).isZero() ? [] : l.adjustments
      const supplierPart = before.lines[i]?.supplierPart ?? null
      return snapshotLine({ ...l, ...more, adjustments, supplierPart }, order.currency)
    }),
    ...addedOnPaper(c),
    ...agreementOnPaper(order),
    net: sums.net.amount,
    total: sums.total.amount,
    taxes: sums.byTax.map((t) => ({
      ...{ category: t.category, rate: t.rate, taxable: t.taxable.amount, tax: t.tax.amount },
    })),
  }
  return { ...after, differences: compareOrders(standOf(before), standOf(after)) }
}

/** Moves the state of each requisition that is served, and tells those whose they are what it means for them. */
async function noteServed(
  ctx: Context,
  served: readonly RequisitionRow[],
  moves: readonly QuantityMove[],
  of: Pick<OrderToChange, 'order'> & { change: ChangeRow; c: ComputedChange; isOver: boolean },
): Promise<void> {
  const { order, change, c, isOver } = of
  const told = served.map((r) => ({ r, differences: differencesFor(r, c) })).filter((t) => t.differences.length > 0)
  const moved = served
    .filter((r) => !r.isDirect && r.lines.some((l) => moves.some((m) => m.lineId === l.id)))
    .map((r) => {
      const lines = r.lines.map((l) => lineAfter(l, moves))
      const quantities = lines.map((l) => ({ requested: l.quantity, ordered: l.ordered, cancelled: l.cancelled }))
      return { ...r, before: r.state, state: stateFromQuantities(quantities) }
    })
  await setStates(ctx.tx, moved, ctx.now)
  const asked = told.filter(({ r }) => !r.isDirect)
  const states = new Map(moved.map((m) => [m.id, m]))
  await appendEvents(
    ctx,
    asked.map(({ r }) => ({
      type: isOver ? 'order cancelled' : 'order changed',
      subjectKind: 'requisition',
      subjectId: r.id,
      before: { state: states.get(r.id)?.before ?? r.state },
      after: {
        ...{ state: states.get(r.id)?.state ?? r.state, orderId: order.id, number: order.number },
        ...{ supplier: order.supplier, text: change.reason },
      },
    })),
  )
  for (const { r, differences } of told) {
    const isLess = r.lines.some((l) => moves.some((m) => m.lineId === l.id && dec(m.ordered).isNegative()))
    await tell(
      ctx,
      r.isDirect ? r.raisedById : r.ownerId,
      r.isDirect ? order : r,
      {
        ...({ code: 'order-changed', by: ctx.actor.name, number: r.number, title: r.title } as const),
        ...{ order: order.number ?? '', supplier: order.supplier, differences },
        rest: isLess ? change.rest : null,
      },
      { path: r.isDirect ? `/orders/${order.id}` : `/trail/${r.id}` },
    )
  }
  await notifyChanges(
    ctx.tx,
    asked.map(({ r }) => ({ kind: 'requisition', id: r.id })),
  )
}

/** What of a change one requisition feels: how much of its own is ordered, and by when. */
function differencesFor(r: RequisitionRow, c: ComputedChange): OrderDifference[] {
  return c.lines.flatMap((l, i) => {
    const own = l.sources.filter((s) => r.lines.some((x) => x.id === s.requisitionLineId))
    if (own.length === 0 || !l.isChanged) return []
    const total = (of: readonly { readonly q: string }[]) => of.reduce((s, x) => s.plus(dec(x.q)), dec('0')).toFixed()
    const is = total(own.map((s) => ({ q: s.quantity })))
    const by = total(
      l.moved.filter((m) => own.some((s) => s.requisitionLineId === m.requisitionLineId)).map((m) => ({ q: m.by })),
    )
    const about = { line: i + 1, description: l.description }
    const was = dec(is).minus(dec(by)).toFixed()
    return [
      ...(dec(by).isZero() ? [] : [{ what: 'quantity' as const, ...about, unit: l.unit, was, is }]),
      ...(l.was.needBy === l.needBy || dec(is).isZero()
        ? []
        : [{ what: 'day' as const, ...about, was: l.was.needBy, is: l.needBy }]),
    ]
  })
}
