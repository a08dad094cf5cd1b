import { waysOf, type Ways } from '#shared/words/ways'
import { may } from '#core/people/rights'
import { dayOf } from '#core/base/day'
import { lineNet } from '#core/base/line-net'
import { isZero, moneyOf, sum, type Money } from '#core/base/money'
import { BUDGET_STAGES, type BudgetStage } from '#core/budget/ledger'
import { shareOfOrder } from '#core/order/share'
import { orderedShare } from '#core/requisition/line-progress'
import { actsAsOwner, checkMove, type RequisitionMoveName } from '#core/requisition/moves'
import type { RemarkView } from '#shared/contract/document'
import type { StationView, TrailAction, TrailView } from '#shared/contract/trail'
import { sayMoveReason } from '#shared/words/requisition'
import { saySentence, sayNext, sayEvent, sayOrder, type NextFacts } from '#shared/words/trail'
import { inWords, listWords } from '#shared/words/format'
import { sayPeople, type Someone } from '#shared/words/someone'
import { findRoute, listDecisions } from '../approval/reads'
import { seatViews } from '../approval/seat-views'
import { listEvents } from '../audit/reads'
import type { Context } from '../context'
import { listAttachments, listRemarks, viewAttachment } from '../document/reads'
import { maySee } from '../document/visible'
import { notFound } from '../http/problem'
import { requireOrganisation } from '../settings/reads'
import { listLinkedOrders, listMovedMoney, listOrdersDecided, type LinkedOrder } from '../order/served-reads'
import { findRequisition, type RequisitionRow } from '../requisition/reads'
import { frozenLine } from '../requisition/reservation'
import { viewRequest } from '../requisition/view-request'
import { SEEN_REQUISITIONS } from '../requisition/visible'

/** One need and all that came of it. */
export async function readTrail(ctx: Context, id: string): Promise<TrailView> {
  const { tx, actor } = ctx
  const ways = waysOf(actor.locale)
  const kept = await findRequisition(tx, id)
  if (kept === null || !(await maySee(ctx, SEEN_REQUISITIONS, id))) throw notFound('This requisition')
  const { baseCurrency, timeZone } = await requireOrganisation(tx)
  const request = await viewRequest(ctx, kept)
  const orders = await listLinkedOrders(tx, id)
  const ownShare = (o: LinkedOrder) => shareOf(o, id)
  const route = await findRoute(tx, id)
  const decisions = await listDecisions(tx, id)
  const remarks = await listRemarks(tx, id)
  const seats =
    route === null
      ? []
      : await seatViews(ctx, route, kept.ownerId === actor.id ? 'you' : request.owner, new Map(), baseCurrency)
  const open = seats.filter((s) => s.state === 'open')
  const waits = open.filter((s, i) => open.findIndex((o) => o.actorId === s.actorId) === i)
  const isOwner = actsAsOwner(kept, actor.id)
  // Once it is decided, a buyer's question about a line alone waits for its answer.
  const asked = remarks.filter(
    (r) => r.kind === 'question' && !r.answered && (kept.state === 'in approval' || r.lineId !== null),
  )
  const toMe = asked.filter((r) => (r.toId === null ? isOwner : r.toId === actor.id))
  // What one is asked oneself comes first.
  const questions = [...toMe, ...asked.filter((r) => !toMe.includes(r))]
  const today = dayOf(ctx.now, timeZone)
  const events = (await listEvents(tx, id)).filter(
    (e) => !['part ordered', 'ordered', 'put on a tray', 'taken off a tray'].includes(e.type),
  )
  const entries = [
    ...events.map((e) => ({ key: `e${e.seq}`, at: e.at, amount: null, link: null, ...sayEvent(e, ways) })),
    ...orders.map((o) => ({
      key: o.id,
      at: o.issuedAt,
      station: 'Order' as const,
      amount: ownShare(o).amount,
      link: `/orders/${o.id}`,
      ...sayOrder(o),
    })),
  ].sort((a, b) => b.at.localeCompare(a.at))
  const state = kept.state
  return {
    id,
    number: kept.number,
    version: kept.version,
    state,
    title: kept.draft.title,
    owner: request.owner,
    isOwner,
    sentence: saySentence(state, waits, questions.length > 0),
    currency: baseCurrency,
    stations: stationsOf(kept, orders, waits, {
      isOwner,
      ordersDecided: await listOrdersDecided(tx, id),
      question: toMe.length > 0,
      baseCurrency,
      decided: decisions.filter((d) => !d.takenBack),
      seats: seats.length,
      today,
      timeZone,
      ways,
    }),
    entries,
    next: sayNext(state, { waits, isOwner, question: questionOf(questions[0], toMe), owner: request.owner }),
    money: moneyByStage(await listMovedMoney(tx, id), baseCurrency),
    request,
    remarks,
    attachments: (await listAttachments(tx, id)).map(viewAttachment),
    route: seats,
    actions: actionsOf(
      kept,
      { isOwner, changesOwners: may(actor.grants, 'change owners'), isAsked: toMe.length > 0 },
      questions.length > 0,
    ),
  }
}

/** The question that is answered next, for its sentence. */
const questionOf = (question: RemarkView | undefined, toMe: readonly RemarkView[]): NextFacts['question'] =>
  question === undefined ? null : { by: question.name, to: question.to, isYours: toMe.includes(question) }

interface About {
  readonly ordersDecided: Awaited<ReturnType<typeof listOrdersDecided>>
  readonly isOwner: boolean
  readonly question: boolean
  readonly baseCurrency: string
  readonly decided: readonly { readonly actorId: string }[]
  readonly seats: number
  readonly today: string
  readonly timeZone: string
  readonly ways: Ways
}

/** What stands in each stage; a stage in which nothing stands is left out. */
function moneyByStage(
  moved: readonly { readonly stage: BudgetStage; readonly amount: string }[],
  currency: string,
): { stage: BudgetStage; amount: string }[] {
  return BUDGET_STAGES.flatMap((stage) => {
    const of = moved.filter((m) => m.stage === stage).map((m) => moneyOf(m.amount, currency))
    const total = sum(of, currency)
    return isZero(total) ? [] : [{ stage, amount: total.amount }]
  })
}

/** What of an order belongs to a requisition: a merged one serves others too. */
const shareOf = (o: LinkedOrder, requisitionId: string): Money =>
  shareOfOrder(
    o.lines.map((l) => ({ ...l, net: moneyOf(l.net, o.currency), borne: moneyOf(l.borne, o.currency) })),
    requisitionId,
    o.currency,
  )

function stationsOf(
  kept: RequisitionRow,
  orders: readonly LinkedOrder[],
  waits: readonly Someone[],
  a: About,
): StationView[] {
  const shown = (n: string | null) => (n === null ? null : a.ways.kept(n, a.baseCurrency))
  const isDraft = kept.state === 'draft'
  const stopped = ['rejected', 'cancelled'].includes(kept.state)
  const back = kept.state === 'sent back' || kept.state === 'withdrawn'
  const approved = ['approved', 'part ordered', 'ordered', 'closed'].includes(kept.state)
  const asked = sum(
    kept.lines
      .filter((l) => l.currency === a.baseCurrency && l.unitPrice !== null)
      .map((l) => lineNet(frozenLine(l, a.baseCurrency))),
    a.baseCurrency,
  )
  const share = orderedShare(kept.lines)
  const orderNet =
    orders.length === 0
      ? null
      : sum(
          orders.filter((o) => o.currency === a.baseCurrency).map((o) => shareOf(o, kept.id)),
          a.baseCurrency,
        ).amount
  const when = (iso: string) => a.ways.since(dayOf(new Date(iso), a.timeZone), a.today)
  const youDecide = waits.some((w) => w.you)
  const people = new Set(a.decided.map((d) => d.actorId)).size
  return [
    {
      name: 'Need',
      amount: shown(kept.amount ?? asked.amount),
      share: isDraft ? 0 : 1,
      look: isDraft || back ? 'dashed' : 'filled',
      waits: a.isOwner && kept.state === 'sent back',
      note: kept.sentAt === null ? 'not sent yet' : `asked ${when(kept.sentAt)}`,
    },
    {
      name: 'Decision',
      amount: approved ? shown(kept.amount) : null,
      share: approved ? 1 : a.seats === 0 ? 0 : Math.min(1, people / a.seats),
      look: stopped || kept.state === 'rejected' ? 'stopped' : approved || people > 0 ? 'filled' : 'empty',
      waits: youDecide || (a.question && !approved),
      note: approved
        ? people === 0
          ? 'within the own limit'
          : `${inWords(people)} ${people === 1 ? 'person' : 'people'}`
        : waits.length > 0
          ? `waits for ${sayPeople(waits)}`
          : kept.state === 'in approval'
            ? 'held'
            : isDraft
              ? 'not yet'
              : kept.state,
    },
    {
      name: 'Order',
      amount: orderNet === null ? null : shown(orderNet),
      share,
      look: kept.state === 'cancelled' ? 'stopped' : 'filled',
      waits: a.question && approved,
      note: sayOrders(orders.length, a.ordersDecided),
    },
    { name: 'Delivery', amount: null, share: 0, look: 'empty', waits: false, note: 'not yet' },
    { name: 'Bill', amount: null, share: 0, look: 'empty', waits: false, note: 'not yet' },
  ]
}

/** How far ordering is: what is issued, else what is decided on. */
function sayOrders(issued: number, [next]: About['ordersDecided']): string {
  if (issued > 0) return `${inWords(issued)} ${issued === 1 ? 'order' : 'orders'}`
  if (next === undefined) return 'not yet'
  if (next.state === 'approved') return 'approved, to be issued'
  return next.waits.length === 0 ? 'its order is held' : `its order waits for ${listWords(next.waits)}`
}

function actionsOf(
  kept: RequisitionRow,
  who: { readonly isOwner: boolean; readonly changesOwners: boolean; readonly isAsked: boolean },
  question: boolean,
): TrailAction[] {
  const names: (RequisitionMoveName & TrailAction['name'])[] = [
    'edit',
    'answer',
    'remind',
    'withdraw',
    'wish',
    'cancelRest',
    'throwAway',
    'handOver',
  ]
  const shown = names.flatMap((name): TrailAction[] => {
    if (name === 'answer' && !question) return []
    const reasons = checkMove(name, kept, {
      isOwner: who.isOwner,
      isStepHolder: false,
      isAsked: who.isAsked,
      isBuyer: name === 'handOver' && who.changesOwners,
    })
    // What the state does not offer is not shown; what only somebody else may do says who.
    if (reasons.some((r) => r.code === 'wrong-state')) return []
    return [{ name, allowed: reasons.length === 0, why: reasons.map(sayMoveReason).join(' ') }]
  })
  return [...shown, { name: 'copy', allowed: true, why: '' }]
}
