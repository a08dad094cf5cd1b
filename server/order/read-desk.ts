import { leftOf } from '#core/agreement/ceiling'
import { needsDecision } from '#core/order/issue'
import { minimumMissed } from '#core/order/order-terms'
import { waysOf, type Ways } from '#shared/words/ways'
import { MOST_COUNTED } from '#core/base/count'
import { dayOf } from '#core/base/day'
import { lineNet } from '#core/base/line-net'
import { partOf } from '#core/people/rights'
import type { Reply } from '#shared/contract/all-routes'
import type { DeskAsked, DeskLine, orderRoutes, TrayView } from '#shared/contract/order'
import { sayDrawWarning } from '#shared/words/agreement'
import { sayIssueReason } from '#shared/words/order'
import { sayConditions } from '#shared/words/conditions'
import { listOpenAgreementsWith } from '../agreement/reads'
import { findRoute, listDecisions, listOpenActors } from '../approval/reads'
import type { Context } from '../context'
import { listRemarks } from '../document/reads'
import { unseenSigns } from '../files/faces'
import { listShipTos } from '../people/place-reads'
import { requireTerms } from '../settings/reads'
import { countDeskLines, listDeskLines, type DeskLineRow } from './desk-reads'
import { adjustmentsOfPart } from '#core/budget/effect'
import { computeTray, takenOff, type ComputedTray } from './compute-tray'
import { agreementOfLines } from './drawing'
import { othersOf } from './read-offers'
import { conditionsOf, listTrays, type OrderRow } from './reads'
import { viewParts } from './view-parts'

/** Approved lines of the buyer's part that wait to be ordered, those asked for, and the buyer's own trays. */
export async function readDesk(
  ctx: Context,
  limit: number,
  asked: DeskAsked = { words: '', supplier: 'any', due: 'any', aside: 'no' },
): Promise<Reply<(typeof orderRoutes)['readDesk']>> {
  const part = partOf(ctx.actor.grants, 'order')
  const terms = await requireTerms(ctx.tx, ctx.now)
  const { baseCurrency } = terms.organisation
  const query = { ...asked, today: terms.today }
  const found = await listDeskLines(ctx.tx, part, limit, query)
  const agreementOf = await agreementOfLines(ctx.tx, found, query.today)
  const others = await othersOf(ctx.tx, found, terms)
  const trays: TrayView[] = []
  for (const t of await listTrays(ctx.tx, ctx.actor.id)) trays.push(await viewTray(ctx, t))
  return {
    currency: baseCurrency,
    trays,
    places: (await listShipTos(ctx.tx)).map((s) => ({ id: s.id, name: s.name })),
    total: found.length < limit ? found.length : await countDeskLines(ctx.tx, part, query, MOST_COUNTED),
    lines: found.map((l) => ({
      id: l.id,
      requisitionId: l.requisitionId,
      number: l.number,
      asker: l.asker,
      description: l.description,
      open: l.open,
      unit: l.unit,
      unitPrice: l.unitPrice,
      priceBase: l.priceBase,
      currency: l.currency,
      net: lineNet({ ...l, quantity: l.open, adjustments: adjustmentsOfPart(takenOff(l), l.open, l.requested) }),
      supplierId: l.supplierId,
      supplier: l.supplier,
      freightFreeFrom: l.freightFreeFrom,
      needBy: l.needBy,
      shipToId: l.shipToId,
      shipTo: l.shipTo,
      noteInternal: l.noteInternal,
      supplierStanding: l.supplierStanding,
      ...{ asideUntil: l.asideUntil, asideReason: l.asideReason },
      agreement: agreementOf(l)?.number ?? null,
      asked: viewAsked(l.asked, terms.organisation.timeZone),
      others: others(l.id),
    })),
  }
}

/** What was asked about a line, on the organisation's day. */
function viewAsked(asked: DeskLineRow['asked'], timeZone: string): DeskLine['asked'] {
  if (asked === null) return null
  const { at, ...said } = asked
  return { ...said, on: dayOf(new Date(at), timeZone) }
}

async function viewTray(ctx: Context, tray: OrderRow): Promise<TrayView> {
  const c = await computeTray(ctx.tx, tray, ctx.actor.id, ctx.now)
  // What was sent says whom it waits for, and not that it is sent.
  const reasons = tray.state === 'in approval' ? [] : c.verdict.reasons
  return {
    ...(await viewSent(ctx, tray)),
    id: tray.id,
    version: tray.version,
    supplierId: tray.supplierId,
    supplier: tray.supplier,
    shipTo: tray.shipTo,
    shipToId: tray.shipToId,
    currency: tray.currency,
    terms: sayConditions(conditionsOf(tray), waysOf(ctx.actor.locale), c.today),
    conditions: conditionsOf(tray),
    agreement: viewDrawing(c, waysOf(ctx.actor.locale)),
    agreementSaid: tray.agreementSaid,
    hasAgreements:
      c.agreement !== null || (await listOpenAgreementsWith(ctx.tx, [tray.supplierId], c.today)).length > 0,
    net: c.sums.net,
    tax: c.sums.tax,
    total: c.sums.total,
    saved: c.saved,
    needBy: c.lines.map((l) => l.needBy).sort()[0] ?? '',
    ...viewParts(c),
    freightFreeFrom: c.terms.freight === null ? null : c.terms.freeFrom,
    minimum: minimumMissed(c.goods, c.terms),
    requests: new Set(c.parts.map((p) => p.requisitionId)).size,
    directFor: tray.directFor?.name ?? null,
    lines: c.lines.map((l) => ({
      description: l.description,
      quantity: l.quantity,
      unit: l.unit,
      unitPrice: l.unitPrice,
      net: l.net,
      asked: l.single,
      hint: l.hint,
      itemId: l.itemId,
      lineIds: l.sources.map((s) => s.requisitionLineId),
      insteadOf: [
        ...new Set(
          l.sources.flatMap(
            (s) => c.parts.find((p) => p.requisitionLineId === s.requisitionLineId)?.insteadOf?.supplier ?? [],
          ),
        ),
      ],
      requests: new Set(
        l.sources.map((s) => c.parts.find((p) => p.requisitionLineId === s.requisitionLineId)?.requisitionId),
      ).size,
    })),
    note: tray.note,
    unseen: unseenSigns(
      [
        ...c.lines.flatMap((l) => [l.description, l.secondDescription, ...l.notes]),
        ...tray.adjustments.map((a) => a.name),
        tray.note,
      ].join(''),
    ).join(' '),
    refusals: reasons.map((r) => sayIssueReason(r, waysOf(ctx.actor.locale))),
    mayIssue: c.verdict.value !== null,
    maySend: tray.state === 'draft' && needsDecision(reasons),
  }
}

/** On what a tray draws, with what is left of it before this order and what is to be known of it. */
function viewDrawing({ agreement: drawing }: ComputedTray, ways: Ways): TrayView['agreement'] {
  if (drawing === null) return null
  const { agreement, facts, warnings } = drawing
  return {
    ...{ id: agreement.id, number: agreement.number, name: agreement.name },
    left: leftOf(facts.of),
    warnings: warnings.map((w) => sayDrawWarning(w, agreement.number, ways)),
  }
}

/** What becomes of an order that was sent to be decided on: whom it waits for, what they ask, why it came back. */
async function viewSent(
  { tx }: Context,
  tray: OrderRow,
): Promise<Pick<TrayView, 'state' | 'waits' | 'issuesItself' | 'said'>> {
  const { issuesItself } = tray
  const state = tray.state === 'in approval' || tray.state === 'approved' ? tray.state : 'draft'
  const route = await findRoute(tx, tray.id)
  if (route === null) return { state, issuesItself: true, waits: [], said: [] }
  if (state === 'draft') {
    const back = (await listDecisions(tx, tray.id))
      .filter((d) => d.round === route.round && !d.takenBack && d.outcome === 'sent back')
      .map((d) => ({ id: d.id, by: d.actor, text: d.comment, asks: false }))
    return { state, issuesItself, waits: [], said: back.slice(-1) }
  }
  const waits = (await listOpenActors(tx, tray.id)).map((p) => p.name)
  const open = (await listRemarks(tx, tray.id)).filter((r) => r.kind === 'question' && !r.answered && r.toId === null)
  return { state, issuesItself, waits, said: open.map((r) => ({ id: r.id, by: r.name, text: r.text, asks: true })) }
}
