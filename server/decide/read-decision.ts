import { lineNet } from '#core/base/line-net'
import { documentSums } from '#core/base/document-sums'
import { compare, moneyOf, negate, add, type Money } from '#core/base/money'
import { figuresFor } from '#core/budget/available'
import { effectsOf, sumByBudgetLine } from '#core/budget/effect'
import { nextAfter } from '#core/approval/progress'
import type { DecisionView } from '#shared/contract/decide'
import { sayOwnValues } from '#shared/words/own-field'
import { waysOf } from '#shared/words/ways'
import { sayDiscount } from '#shared/words/requisition'
import { findOpenSeat, findRoute, readDecisions } from '../approval/reads'
import { seatViews } from '../approval/seat-views'
import { listPayingLines } from '../budget/reads'
import type { Context } from '../context'
import { listAttachments, listRemarks, viewAttachment } from '../document/reads'
import { maySee } from '../document/visible'
import { notFound } from '../http/problem'
import { reachPeople } from '../people/person-reads'
import { requireTerms } from '../settings/reads'
import { readForm } from '../requisition/form-reads'
import { readOwnNames } from '../requisition/own-names'
import { readLineSuppliers, readNames } from '../requisition/page-reads'
import { findRequisition } from '../requisition/reads'
import { listPaidPrices } from './reads'
import { frozenLine } from '../requisition/reservation'
import { SEEN_REQUISITIONS } from '../requisition/visible'

/** Everything that one decision needs, without opening anything else. */
export async function readDecision(ctx: Context, id: string): Promise<DecisionView> {
  const { tx, actor } = ctx
  const ways = waysOf(actor.locale)
  const kept = await findRequisition(tx, id)
  const route = await findRoute(tx, id)
  if (kept === null || kept.number === null || route === null || !(await maySee(ctx, SEEN_REQUISITIONS, id)))
    throw notFound('This requisition')
  const terms = await requireTerms(tx, ctx.now)
  const { baseCurrency } = terms.organisation
  const names = await readNames(tx, id)
  const suppliers = await readLineSuppliers(tx, id)
  const taxCodes = new Map(terms.taxCodes.map((t) => [t.code, t]))
  const items = [...new Set(kept.lines.flatMap((l) => (l.itemId === null ? [] : [l.itemId])))]
  const paid = await listPaidPrices(tx, items)
  const { standing } = await readDecisions(tx, id)
  const seat = await findOpenSeat(tx, id, actor.id)
  const budget = await budgetBars(ctx, kept, baseCurrency)
  const payers = new Map(budget.map((b) => [b.budgetLineId, b.name]))
  const after = nextAfter(route.route, standing, { actorId: actor.id, forId: seat?.forId ?? null })
  const seats = await seatViews(
    ctx,
    route,
    kept.ownerId === actor.id ? 'you' : (names?.owner ?? ''),
    payers,
    baseCurrency,
  )
  const nameOf = new Map(seats.map((s) => [s.actorId, s.name]))
  const forName =
    seat?.forId == null
      ? null
      : ((await reachPeople(tx, [seat.forId], baseCurrency, kept.changedAt.slice(0, 10))).people.find(
          (p) => p.id === seat.forId,
        )?.name ?? null)
  const form = await readForm(tx, terms.today)
  const own = await readOwnNames(tx, kept.draft, form.ownFields)
  const job = (jobId: string | null) => (jobId === null ? [] : [`job ${own.jobs.get(jobId) ?? ''}`])
  const byCurrency = [...new Set(kept.lines.map((l) => l.currency))].map((currency) => {
    const sums = documentSums(
      kept.lines
        .filter((l) => l.currency === currency)
        .map((l) => ({
          net: lineNet(frozenLine(l, baseCurrency)),
          tax: { category: taxCodes.get(l.taxCode)?.category ?? 'S', rate: l.taxRate ?? '0' },
        })),
      currency,
    )
    return { currency, net: sums.net, tax: sums.tax, total: sums.total }
  })
  return {
    id,
    number: kept.number,
    version: kept.version,
    state: kept.state,
    title: kept.draft.title,
    ownerId: kept.ownerId,
    owner: names?.owner ?? '',
    department: names?.department ?? '',
    amount: moneyOf(route.amount, route.currency),
    tax: byCurrency,
    needBy: kept.draft.needBy ?? '',
    shipTo: names?.shipTo ?? '',
    shipToDetail: kept.draft.shipToDetail,
    why: kept.draft.why,
    overBudgetReason: kept.draft.overBudgetReason,
    kind: form.kinds.find((k) => k.code === kept.draft.kind)?.name ?? kept.draft.kind,
    justification: kept.draft.justification,
    noteInternal: kept.draft.noteInternal,
    besides: [
      ...job(kept.draft.jobId),
      ...sayOwnValues(
        form.ownFields.filter((f) => f.on === 'requisition'),
        kept.draft.own,
        own,
        ways,
      ),
      ...(kept.draft.noteToSupplier === '' ? [] : [`to the supplier: ${kept.draft.noteToSupplier}`]),
    ],
    sentAt: kept.sentAt ?? '',
    held: route.state === 'held',
    lines: kept.lines.map((l) => ({
      id: l.id,
      description: l.description,
      quantity: l.quantity,
      unit: l.unit,
      unitPrice: l.unitPrice ?? '0',
      priceBase: l.priceBase,
      net: lineNet(frozenLine(l, baseCurrency)),
      supplier: l.supplierId === null ? null : (suppliers[l.supplierId] ?? null),
      supplierPart: l.supplierPart,
      paidFrom: l.codings.map((c) => payers.get(c.budgetLineId) ?? ''),
      ordered: l.ordered,
      cancelled: l.cancelled,
      currency: l.currency,
      listPrice: l.listPrice === l.unitPrice ? null : l.listPrice,
      more: [
        ...(l.secondDescription === '' ? [] : [l.secondDescription]),
        ...sayDiscount(l.discount, l.currency, ways),
        ...job(l.jobId),
        ...sayOwnValues(
          form.ownFields.filter((f) => f.on === 'line'),
          l.own,
          own,
          ways,
        ),
        ...(l.noteToSupplier === '' ? [] : [`to the supplier: ${l.noteToSupplier}`]),
        ...(l.noteInternal === '' ? [] : [`for colleagues: ${l.noteInternal}`]),
      ],
      paid: paid
        .filter((p) => p.itemId === l.itemId)
        .map(({ unitPrice, currency, day }) => ({ unitPrice, currency, day })),
    })),
    budget,
    route: seats,
    remarks: await listRemarks(tx, id),
    attachments: (await listAttachments(tx, id)).map(viewAttachment),
    mine: seat !== null,
    forName,
    afterApproval: { state: after.state, next: [...new Set(after.open.map((s) => nameOf.get(s.actorId) ?? ''))] },
  }
}

type Kept = NonNullable<Awaited<ReturnType<typeof findRequisition>>>

/** Each budget line that pays, without and with this requisition; its own reservation is told apart. */
async function budgetBars({ tx }: Context, kept: Kept, currency: string): Promise<DecisionView['budget']> {
  const effects = sumByBudgetLine(kept.lines.flatMap((l) => effectsOf(frozenLine(l, currency))))
  const lines = new Map(
    (
      await listPayingLines(
        tx,
        null,
        kept.fiscalYear ?? 0,
        effects.map((e) => e.budgetLineId),
        currency,
      )
    ).map((l) => [l.id, l]),
  )
  const reserves = kept.state === 'in approval' || kept.state === 'approved'
  return effects.flatMap((e) => {
    const line = lines.get(e.budgetLineId)
    if (line === undefined) return []
    const f = figuresFor(line, kept.period ?? 12)
    const own: Money = reserves ? e.amount : moneyOf('0', currency)
    const before = add(f.available, own)
    const after = reserves ? f.available : add(f.available, negate(e.amount))
    return [
      {
        budgetLineId: line.id,
        name: line.name,
        code: line.code,
        budgeted: add(f.budgeted, f.adjustments),
        spent: f.spent,
        committed: f.committed,
        reserved: add(f.reserved, negate(own)),
        effect: e.amount,
        before,
        after,
        passed: compare(after, negate(line.mayFallBelow)) < 0,
      },
    ]
  })
}
