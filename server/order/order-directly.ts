import { dec } from '#core/base/decimal'
import { directBounds, directReasons, directWorth, type DirectReason } from '#core/order/direct'
import { isInPart, partOf } from '#core/people/rights'
import { askedMoves } from '#core/requisition/asked-items'
import { computeDraft } from '#core/requisition/compute'
import { attachedKinds } from '#core/requisition/rules'
import { proposeTitle } from '#core/requisition/title'
import { readFacts } from '#shared/contract/draft-facts'
import { sayDirectReason } from '#shared/words/direct'
import { sayMissing } from '#shared/words/requisition'
import { waysOf } from '#shared/words/ways'
import { appendEvent } from '../audit/store'
import type { Context } from '../context'
import { listAttachments } from '../document/reads'
import { turnInto } from '../document/store'
import { forbidden, invalid, refused } from '../http/problem'
import { notifyChange } from '../live/notify'
import { keepOneOffAddress } from '../people/store'
import { gatherDraftFacts } from '../requisition/draft-facts'
import { freezeDraft } from '../requisition/freeze-draft'
import type { RequisitionRow } from '../requisition/reads'
import { requireMove } from '../requisition/require'
import { moveAsked, moveQuantities, setRaisedBy, setSent } from '../requisition/store'
import { findSupplier } from '../supplier/reads'
import { sayAgain } from './order-words'
import { findOrder } from './reads'
import { insertOrder, upsertParts } from './store'
import { keepTrayAgreement } from './tray-agreement'

/**
 * Makes an order of what a buyer writes for somebody, without a request: the same document, under the same id, is a
 * tray from then on. Checked as a request for the same would be, and frozen as that is; nothing is reserved, since an
 * order commits when it is issued. Who decides is asked then, as of a request.
 */
export async function orderDirectly(
  ctx: Context,
  id: string,
  version: number,
): Promise<{ id: string; version: number }> {
  const kept = await requireMove(ctx, id, version, 'send')
  const { draft } = kept
  if (!isInPart(partOf(ctx.actor.grants, 'order'), draft))
    throw forbidden('You do not buy for this department or this place.')
  const reasons = directReasons(draft, { ownerId: kept.ownerId, buyerId: ctx.actor.id, number: kept.number })
  refuseFor(ctx, reasons)
  const { title, period, year, amount, facts, files, worth } = await checkDraft(ctx, kept)
  refuseFor(ctx, directBounds(facts.policy.directOrders, worth))
  const supplier = await findSupplier(ctx.tx, draft.lines[0]?.supplierId ?? '')
  if (supplier === null) throw invalid('This supplier does not exist.')
  const shipToId = draft.address === null ? draft.shipToId : await keepOneOffAddress(ctx.tx, draft.address)
  await freezeDraft(ctx, id, draft, facts)
  await moveAsked(ctx.tx, askedMoves(kept.sentDraft, draft))
  await setSent(ctx.tx, id, {
    ...{ fiscalYear: year, period, amount, round: kept.round, accountingDate: draft.accountingDate, shipToId },
    ...{ sentDraft: { ...draft, title }, earlierDraft: null, sentFiles: files },
  })
  // Its buyer owns the order; whoever it was written for is kept as whose need it is.
  await setRaisedBy(ctx.tx, id, kept.ownerId)
  await turnInto(ctx.tx, id, { kind: 'order', title: supplier.name, ownerId: ctx.actor.id, now: ctx.now })
  await insertOrder(ctx.tx, {
    ...{ id, supplierId: supplier.id, shipToId: shipToId ?? '', currency: draft.lines[0]?.currency ?? '' },
    ...{ termsKind: supplier.termsKind, termsDays: supplier.termsDays },
  })
  const parts = draft.lines.filter((l) => dec(l.quantity).isPositive())
  await upsertParts(
    ctx.tx,
    id,
    parts.map((l) => ({ requisitionLineId: l.id, quantity: l.quantity })),
    ctx.now,
  )
  await moveQuantities(
    ctx.tx,
    parts.map((l) => ({ lineId: l.id, onTray: l.quantity })),
  )
  const order = await findOrder(ctx.tx, id)
  if (order !== null) await sayAgain(ctx, order, facts.today)
  await keepTrayAgreement(ctx, id, 'more')
  await appendEvent(ctx, {
    type: 'ordered directly',
    subjectKind: 'order',
    subjectId: id,
    before: { state: kept.state },
    after: { supplier: supplier.name, forId: kept.ownerId, lines: parts.length },
  })
  await notifyChange(ctx.tx, { kind: 'requisition', id })
  await notifyChange(ctx.tx, { kind: 'order', id })
  return { id, version: kept.version + 1 }
}

function refuseFor(ctx: Context, reasons: readonly DirectReason[]): void {
  const ways = waysOf(ctx.actor.locale)
  if (reasons.length > 0)
    throw refused(
      reasons.map((r) => sayDirectReason(r, ways)),
      { reasons },
      'not-directly',
    )
}

/** What a request for the same would come to; refused with all that it would lack, except who decides on it. */
async function checkDraft(ctx: Context, kept: RequisitionRow) {
  const { draft } = kept
  const attached = await listAttachments(ctx.tx, kept.id)
  const of = { ...kept, attached: Promise.resolve(attachedKinds(attached)), sentFor: null }
  const facts = readFacts(await gatherDraftFacts(ctx.tx, draft, of, ctx.now, true))
  const verdict = computeDraft(draft, facts)
  const stops = verdict.missing.filter((m) => m.stops && m.code !== 'route-held')
  if (stops.length > 0)
    throw refused(
      stops.map((m) => sayMissing(m, waysOf(ctx.actor.locale))),
      { missing: stops },
      'missing',
    )
  return {
    ...{ facts, files: attached.map((f) => f.id), amount: verdict.approvalAmount.amount, ...verdict.period },
    worth: directWorth(verdict.sums, facts.perBase, facts.baseCurrency),
    title: draft.title.trim() === '' ? proposeTitle(draft, (id) => facts.suppliers.get(id)?.name) : draft.title,
  }
}
