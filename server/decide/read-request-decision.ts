import { dayOf } from '#core/base/day'
import { dec } from '#core/base/decimal'
import { moneyOf, sum } from '#core/base/money'
import { effectsOf, sumByBudgetLine } from '#core/budget/effect'
import { changesBetween } from '#core/requisition/changes'
import type { RequestDecision } from '#shared/contract/decide'
import type { RequestLine } from '#shared/contract/request-view'
import { sayChange } from '#shared/words/changes'
import { waysOf } from '#shared/words/ways'
import { findRoute, requireVersion } from '../approval/reads'
import { listPayingLines } from '../budget/reads'
import type { Context } from '../context'
import { listAttachments, viewAttachment } from '../document/reads'
import { maySee } from '../document/visible'
import { notFound } from '../http/problem'
import { requireOrganisation } from '../settings/reads'
import { listPossiblePayers, payersOf } from '../requisition/approve-changed'
import { findEarlierDraft, findRequisition } from '../requisition/reads'
import { barOf } from './budget-bar'
import { readSeat } from './read-seat'
import { viewRisks } from './view-risks'
import { listPaidPrices } from './reads'
import { listSimilar } from './similar-reads'
import { frozenLine, worthOfOpen } from '../requisition/reservation'
import { viewRequest } from '../requisition/view-request'
import { SEEN_REQUISITIONS } from '../requisition/visible'

/** Everything that a decision on a request needs, without opening anything else. */
export async function readRequestDecision(ctx: Context, id: string): Promise<RequestDecision> {
  const { tx, actor } = ctx
  const kept = await findRequisition(tx, id)
  const route = await findRoute(tx, id)
  if (kept === null || kept.number === null || route === null || !(await maySee(ctx, SEEN_REQUISITIONS, id)))
    throw notFound('This requisition')
  const { baseCurrency } = await requireOrganisation(tx)
  const request = await viewRequest(ctx, kept)
  const earlier = await findEarlierDraft(tx, id)
  const ways = waysOf(actor.locale)
  const items = [...new Set(kept.lines.flatMap((l) => (l.itemId === null ? [] : [l.itemId])))]
  const paid = await listPaidPrices(tx, items)
  const budget = await budgetBars(ctx, kept, baseCurrency)
  const seat = await readSeat(ctx, kept, route, {
    owner: request.owner,
    payers: new Map(budget.map((b) => [b.budgetLineId, b.name])),
    currency: baseCurrency,
  })
  const lines = request.lines.map((l, i) => ({ ...l, paid: paidFor(l, kept.lines[i]?.itemId ?? null, paid) }))
  const risks = !seat.mine
    ? { marks: [], split: null }
    : await viewRisks(
        ctx,
        kept,
        route,
        lines.flatMap(({ unitPrice, paid: [last] }) =>
          unitPrice === null || last === undefined ? [] : [{ now: unitPrice, last: last.unitPrice }],
        ),
      )
  return {
    ...request,
    document: 'requisition',
    id,
    number: kept.number,
    version: kept.version,
    state: kept.state,
    title: kept.draft.title,
    ownerId: kept.ownerId,
    amount: moneyOf(route.amount, route.currency),
    sentAt: kept.sentAt ?? '',
    changes:
      earlier === null || kept.sentDraft === null
        ? []
        : changesBetween(earlier, kept.sentDraft).map((c) => sayChange(c, ways)),
    lines,
    ...(await changeable(ctx, kept, seat.mine)),
    budget,
    similar: await listSimilar(ctx, kept, baseCurrency),
    attachments: (await listAttachments(tx, id)).map(viewAttachment),
    ...seat,
    ...risks,
  }
}

/** What whoever decides may change while approving, and which budget lines could pay instead. */
async function changeable(
  ctx: Context,
  kept: Kept,
  isMine: boolean,
): Promise<Pick<RequestDecision, 'mayChange' | 'payers'>> {
  if (!isMine) return { mayChange: 'nothing', payers: [] }
  const { timeZone } = await requireOrganisation(ctx.tx)
  const { mayChange } = (await requireVersion(ctx.tx, ctx.now, dayOf(ctx.now, timeZone))).form
  if (mayChange !== 'quantities and payers') return { mayChange, payers: [] }
  const possible = await listPossiblePayers(ctx, kept)
  return {
    mayChange,
    payers: kept.lines.map((l) => ({
      lineId: l.id,
      now: l.codings.length === 1 ? (l.codings[0]?.budgetLineId ?? null) : null,
      may: payersOf(l, possible).map(({ id, name }) => ({ id, name })),
    })),
  }
}

/** What was paid for the item of a line, as far as it is priced alike: in one currency, for as many. */
const paidFor = (line: RequestLine, itemId: string | null, paid: Awaited<ReturnType<typeof listPaidPrices>>) =>
  paid
    .filter((p) => p.itemId === itemId && p.currency === line.currency && dec(p.priceBase).eq(dec(line.priceBase)))
    .map(({ unitPrice, currency, day }) => ({ unitPrice, currency, day }))

type Kept = NonNullable<Awaited<ReturnType<typeof findRequisition>>>

/** Each budget line that pays, without and with this requisition; its own reservation is told apart. */
async function budgetBars({ tx }: Context, kept: Kept, currency: string): Promise<RequestDecision['budget']> {
  const effects = sumByBudgetLine(kept.lines.flatMap((l) => effectsOf(frozenLine(l, currency))))
  const lines = new Map(
    (
      await listPayingLines(
        tx,
        { departmentId: null, fiscalYear: kept.fiscalYear ?? 0, ids: effects.map((e) => e.budgetLineId) },
        currency,
      )
    ).map((l) => [l.id, l]),
  )
  const reserves = kept.state === 'in approval' || kept.state === 'approved'
  const stands = reserves ? kept.lines.flatMap((l) => worthOfOpen(l, currency, kept.period ?? 12)) : []
  return effects.flatMap((e) => {
    const line = lines.get(e.budgetLineId)
    if (line === undefined) return []
    const of = stands.filter((s) => s.budgetLineId === e.budgetLineId)
    const reserved = sum(
      of.map((s) => s.amount),
      currency,
    )
    return [barOf(line, of[0]?.period ?? kept.period ?? 12, { reserved, effect: e.amount })]
  })
}
