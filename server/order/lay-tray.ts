import { waysOf } from '#shared/words/ways'
import { dec, type DecimalText } from '#core/base/decimal'
import { may } from '#core/people/rights'
import { isOrderMoveFrom, type OrderMoveName } from '#core/order/moves'
import { sayOrderState } from '#shared/words/order'
import { randomUUID } from 'node:crypto'
import { findRoute } from '../approval/reads'
import { appendEvent, appendEvents, type NewEvent } from '../audit/store'
import type { Context } from '../context'
import { deleteDraft, dropQuestions, setState, touchDocument } from '../document/store'
import { forbidden, invalid, notFound, refused, stale } from '../http/problem'
import { notifyChange, notifyChanges } from '../live/notify'
import { moveQuantities } from '../requisition/store'
import type { RequisitionLineRow, RequisitionRow } from '../requisition/reads'
import { findSupplier } from '../supplier/reads'
import { keepTrayAgreement } from './tray-agreement'
import { findOrder, type OrderRow } from './reads'
import { lockOpenLines } from './open-lines'
import { takeOffers, type TakenOffer } from './take-offers'
import { listParts } from './tray-reads'
import { deleteParts, freePlacedNumber, insertTray, setAgreedPrice, setNote, upsertParts } from './store'

export interface LayParts {
  /** Null for a new tray. */
  readonly orderId: string | null
  /** For lines without a supplier on a new tray. */
  readonly supplierId: string | null
  readonly parts: readonly {
    readonly lineId: string
    readonly quantity: DecimalText | null
    /** The item of another supplier as which it is ordered, where its offer is taken. */
    readonly offerItemId?: string | null
  }[]
}

interface Picked {
  readonly requisition: RequisitionRow
  readonly line: RequisitionLineRow
  readonly quantity: DecimalText
  readonly offer: TakenOffer | null
}

/**
 * Lays approved lines, whole or in part, on a tray. What lies there is not to be had for another. Lines
 * share a tray when supplier, ship-to, currency and agreement are the same; a line without a supplier takes the tray's,
 * and one of which another supplier's offer is taken is that one's.
 */
export async function layOnTray(ctx: Context, input: LayParts): Promise<{ orderId: string }> {
  const picked = await pickLines(ctx, input)
  const tray = input.orderId === null ? null : await requireTray(ctx, input.orderId, null)
  if (tray !== null) refuseDirect(tray)
  const [first] = picked
  if (first === undefined) throw invalid('Choose at least one line.')
  const suppliers = new Set(picked.flatMap((p) => p.offer?.supplierId ?? p.line.supplierId ?? []))
  const supplierId = tray?.supplierId ?? [...suppliers][0] ?? input.supplierId
  if (supplierId === null)
    throw refused(['These lines have no supplier yet: choose one for the tray.'], {}, 'no-supplier')
  const wrong: string[] = []
  const shipToId = tray?.shipToId ?? first.requisition.draft.shipToId
  const currency = tray?.currency ?? first.line.currency
  if ([...suppliers].some((s) => s !== supplierId)) wrong.push('A tray holds lines of one supplier.')
  if (picked.some((p) => p.requisition.draft.shipToId !== shipToId)) wrong.push('The lines of a tray go to one place.')
  if (picked.some((p) => p.line.currency !== currency)) wrong.push('The lines of a tray are in one currency.')
  if (wrong.length > 0) throw refused(wrong, {}, 'does-not-fit')

  const orderId = tray?.id ?? randomUUID()
  if (tray === null) {
    const supplier = await findSupplier(ctx.tx, supplierId)
    if (supplier === null) throw invalid('This supplier does not exist.')
    await insertTray(ctx.tx, {
      id: orderId,
      buyerId: ctx.actor.id,
      supplierId,
      supplier: supplier.name,
      shipToId: shipToId ?? '',
      currency,
      termsKind: supplier.termsKind,
      termsDays: supplier.termsDays,
      now: ctx.now,
    })
  } else {
    await refuseAsTwo(ctx, orderId, picked)
    await noteChanged(ctx, orderId)
  }
  await upsertParts(
    ctx.tx,
    orderId,
    picked.map((p) => ({ requisitionLineId: p.line.id, quantity: p.quantity, offer: p.offer })),
    ctx.now,
  )
  await moveQuantities(
    ctx.tx,
    picked.map((p) => ({ lineId: p.line.id, onTray: p.quantity })),
  )
  // Whoever lays a line waits for no answer any more.
  await dropQuestions(
    ctx.tx,
    picked.map((p) => p.line.id),
    ctx.now,
  )
  await keepTrayAgreement(ctx, orderId, 'more')
  const served = [...new Set(picked.map((p) => p.requisition.id))]
  const offers = picked.flatMap((p) => (p.offer === null ? [] : [{ lineId: p.line.id, itemId: p.offer.itemId }]))
  await noteServed(ctx, served, {
    type: 'put on a tray',
    after: { orderId, ...(offers.length === 0 ? {} : { offers }) },
  })
  await notifyChange(ctx.tx, { kind: 'order', id: orderId })
  return { orderId }
}

/** A tray changes; where it was sent before, that is told on its trail, and what was decided is not taken back. */
export async function noteChanged(ctx: Context, orderId: string): Promise<void> {
  await touchDocument(ctx.tx, orderId, ctx.now)
  if ((await findRoute(ctx.tx, orderId)) === null) return
  await appendEvent(ctx, { type: 'changed', subjectKind: 'order', subjectId: orderId })
}

/** Writes down the same of each requisition, and tells its pages. */
export async function noteServed(
  ctx: Context,
  requisitionIds: readonly string[],
  event: Pick<NewEvent, 'type' | 'before' | 'after'>,
): Promise<void> {
  await appendEvents(
    ctx,
    requisitionIds.map((id) => ({ ...event, subjectKind: 'requisition', subjectId: id })),
  )
  await notifyChanges(
    ctx.tx,
    requisitionIds.map((id) => ({ kind: 'requisition', id })),
  )
}

/** The lines that are laid, each with how much of it: all that is open, where it is not said. */
async function pickLines(ctx: Context, { parts }: LayParts): Promise<Picked[]> {
  const found = await lockOpenLines(
    ctx,
    parts.map((p) => p.lineId),
  )
  const asked = new Map(parts.map((p) => [p.lineId, p.quantity]))
  const taken = new Map(parts.map((p) => [p.lineId, p.offerItemId ?? null]))
  const picked = found.map(({ requisition, line, open }) => {
    const quantity = asked.get(line.id) ?? open
    if (!dec(quantity).isPositive() || dec(quantity).gt(dec(open)))
      throw refused(
        [`Of “${line.description}” ${waysOf(ctx.actor.locale).quantity(open, line.unit)} can be ordered.`],
        {},
        'too-much',
      )
    return { requisition, line, quantity }
  })
  const offerOf = await takeOffers(
    ctx,
    picked.map((p) => ({ ...p.line, quantity: p.quantity, offerItemId: taken.get(p.line.id) ?? null })),
  )
  return picked.map((p) => ({ ...p, offer: offerOf(p.line.id) }))
}

/** A line lies on one tray either as it was asked for, or as one other item. */
async function refuseAsTwo(ctx: Context, orderId: string, picked: readonly Picked[]): Promise<void> {
  const lies = new Map((await listParts(ctx.tx, [orderId])).map((p) => [p.requisitionLineId, p.itemId]))
  const two = picked.find((p) => lies.has(p.line.id) && lies.get(p.line.id) !== (p.offer?.itemId ?? p.line.itemId))
  if (two !== undefined)
    throw refused([`“${two.line.description}” lies on this tray already, as another item.`], {}, 'does-not-fit')
}

/** Locks a tray of the actor's own, at the version they saw, for a move that it allows as it stands. */
export async function requireTray(
  ctx: Context,
  id: string,
  version: number | null,
  move: OrderMoveName = 'fill',
): Promise<OrderRow> {
  const tray = await findOrder(ctx.tx, id, true)
  if (tray === null || !may(ctx.actor.grants, 'order')) throw notFound('This tray')
  if (tray.ownerId !== ctx.actor.id) throw forbidden(`This tray is ${tray.buyer}’s.`)
  if (!isOrderMoveFrom(move, tray.state))
    throw refused([`This order is ${sayOrderState(tray.state)}.`], {}, 'wrong-state')
  if (version !== null && version !== tray.version) throw stale('the tray was changed in another window')
  return tray
}

/** A direct order is changed by writing on it, since it asks for what it orders. */
export function refuseDirect(tray: OrderRow): void {
  if (tray.directFor !== null)
    throw refused(['This is a direct order: write on it, and its lines can be changed.'], {}, 'is-direct')
}

/** An empty tray goes; one on which somebody decided stays, with what was said. */
export async function putAway(ctx: Context, orderId: string): Promise<void> {
  if ((await findRoute(ctx.tx, orderId)) === null) {
    await deleteDraft(ctx.tx, orderId)
    return
  }
  await setState(ctx.tx, orderId, 'cancelled', ctx.now)
  await freePlacedNumber(ctx.tx, orderId)
  await appendEvent(ctx, { type: 'cancelled', subjectKind: 'order', subjectId: orderId })
}

/** Takes lines off a tray again, and says what lay there; an empty tray is put away. */
export async function takeOffTray(
  ctx: Context,
  orderId: string,
  lineIds: readonly string[] | null,
): Promise<{ parts: { lineId: string; quantity: DecimalText; offerItemId: string | null }[] }> {
  const tray = await requireTray(ctx, orderId, null)
  refuseDirect(tray)
  const parts = await listParts(ctx.tx, [tray.id])
  const off = lineIds === null ? parts : parts.filter((p) => lineIds.includes(p.requisitionLineId))
  if (lineIds !== null && off.length !== new Set(lineIds).size) throw notFound('A line on this tray')
  if (off.length > 0) {
    await deleteParts(
      ctx.tx,
      tray.id,
      off.map((p) => p.requisitionLineId),
    )
    await moveQuantities(
      ctx.tx,
      off.map((p) => ({ lineId: p.requisitionLineId, onTray: dec(p.quantity).negated().toFixed() })),
    )
  }
  const served = [...new Set(off.map((p) => p.requisitionId))]
  await noteServed(ctx, served, { type: 'taken off a tray', before: { orderId } })
  if (off.length < parts.length) {
    await keepTrayAgreement(ctx, tray.id, 'less')
    await noteChanged(ctx, tray.id)
  } else await putAway(ctx, tray.id)
  await notifyChange(ctx.tx, { kind: 'order', id: orderId })
  return {
    parts: off.map((p) => ({
      ...{ lineId: p.requisitionLineId, quantity: p.quantity },
      offerItemId: p.insteadOf === null ? null : p.itemId,
    })),
  }
}

/** Writes the price that the buyer agreed for a line that has none in the catalogue. */
export async function agreePrice(ctx: Context, orderId: string, lineId: string, unitPrice: DecimalText): Promise<void> {
  const tray = await requireTray(ctx, orderId, null)
  refuseDirect(tray)
  const part = (await listParts(ctx.tx, [tray.id])).find((p) => p.requisitionLineId === lineId)
  if (part === undefined) throw notFound('A line on this tray')
  if (part.itemId !== null)
    throw refused(['A catalogue item is ordered at its catalogue price.'], {}, 'catalogue-price')
  await setAgreedPrice(ctx.tx, orderId, lineId, unitPrice)
  await noteChanged(ctx, orderId)
  await notifyChange(ctx.tx, { kind: 'order', id: orderId })
}

/** Writes what the supplier is told on the order; what askers wrote for them stands there besides. */
export async function writeTrayNote(ctx: Context, orderId: string, note: string): Promise<void> {
  const tray = await requireTray(ctx, orderId, null)
  if (tray.note === note.trim()) return
  await setNote(ctx.tx, orderId, note.trim())
  await noteChanged(ctx, orderId)
  await notifyChange(ctx.tx, { kind: 'order', id: orderId })
}
