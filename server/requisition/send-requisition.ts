import { askedMoves } from '#core/requisition/asked-items'
import { computeDraft } from '#core/requisition/compute'
import type { DraftFacts } from '#core/requisition/draft-facts'
import { isNoMoreThan } from '#core/requisition/compare'
import { proposeTitle } from '#core/requisition/title'
import { fiscalPeriod } from '#core/base/day'
import type { Draft } from '#core/requisition/draft'
import { attachedKinds, type AttachedAs } from '#core/requisition/rules'
import { readFacts } from '#shared/contract/draft-facts'
import { sayMissing } from '#shared/words/requisition'
import { waysOf } from '#shared/words/ways'
import { openRoute } from '../approval/open-route'
import { appendEvent } from '../audit/store'
import { appendEntries } from '../budget/store'
import type { Context } from '../context'
import { listAttachments } from '../document/reads'
import { setLeft } from '../document/store'
import { tell } from '../document/tell'
import { refused } from '../http/problem'
import { notifyChange } from '../live/notify'
import { enqueue } from '../queue/enqueue'
import { takeNumber } from '../settings/store'
import { gatherDraftFacts } from './draft-facts'
import type { RequisitionRow } from './reads'
import { requireMove } from './require'
import { reservationEntries } from './reservation'
import { freezeDraft } from './freeze-draft'
import { moveAsked, setSent } from './store'
import { keepOneOffAddress } from '../people/store'

export interface Sent {
  readonly id: string
  readonly number: string
  readonly state: 'in approval' | 'approved'
  readonly version: number
}

/**
 * Sends a requisition: checks it whole under lock, reserves its money, works out who decides and asks
 * them, or approves it at once. One budget line that refuses refuses all of it, with every reason.
 */
export async function sendRequisition(ctx: Context, id: string, version: number): Promise<Sent> {
  const kept = await requireMove(ctx, id, version, 'send')
  const files = listAttachments(ctx.tx, id)
  const { draft, facts } = await gatherFacts(ctx, kept, files.then(attachedKinds))
  const fileIds = (await files).map((f) => f.id)
  const verdict = computeDraft(draft, facts)
  const stops = verdict.missing.filter((m) => m.stops)
  if (stops.length > 0)
    throw refused(
      stops.map((m) => sayMissing(m, waysOf(ctx.actor.locale))),
      { missing: stops },
      'missing',
    )

  await freezeDraft(ctx, id, draft, facts)
  const before = kept.sentDraft?.lines.map((l) => l.id) ?? []
  const lineIds = [...new Set([...before, ...draft.lines.map((l) => l.id)])]
  const { period, year } = verdict.period
  const worth = new Map([...verdict.effects].map(([line, of]) => [line, of.map((e) => ({ ...e, period }))]))
  await appendEntries(
    ctx,
    await reservationEntries(ctx, [{ requisition: kept, lineIds, worth }], 'send', facts.baseCurrency),
    kept.round === 0,
  )

  const round = kept.round + 1
  const title = draft.title.trim() === '' ? proposeTitle(draft, (id) => facts.suppliers.get(id)?.name) : draft.title
  const about = { id, kind: 'requisition', number: kept.number, title }
  const progress = await openRoute(ctx, about, {
    round,
    subject: verdict.subject,
    policy: facts.policy,
    people: facts.people,
    keepsEarlier:
      kept.sentDraft !== null &&
      isNoMoreThan(kept.sentDraft, { ...draft, title }, { then: kept.sentFiles, now: fileIds }),
  })
  const state = progress.state === 'approved' ? ('approved' as const) : ('in approval' as const)
  await appendEvent(ctx, {
    type: kept.round === 0 ? 'sent' : 'sent again',
    subjectKind: 'requisition',
    subjectId: id,
    before: { state: kept.state },
    after: {
      state,
      amount: verdict.approvalAmount,
      lines: draft.lines.length,
      spared: verdict.route.notes.some((n) => n.code === 'spared-by-own-limit'),
    },
  })
  await tell(
    ctx,
    kept.ownerId,
    about,
    { code: 'raised-for-you', by: ctx.actor.name, number: kept.number, title, amount: verdict.approvalAmount },
    { path: `/trail/${id}` },
  )
  await moveAsked(ctx.tx, askedMoves(kept.sentDraft, draft))
  await notifyChange(ctx.tx, { kind: 'requisition', id })
  const shipToId = draft.address === null ? draft.shipToId : await keepOneOffAddress(ctx.tx, draft.address)
  const number =
    kept.number ??
    (await takeNumber(
      ctx.tx,
      facts.kinds.get(draft.kind)?.series ?? 'R',
      fiscalPeriod(facts.today, facts.fiscalStartMonth).year,
    ))
  await setSent(ctx.tx, id, {
    fiscalYear: year,
    period,
    amount: verdict.approvalAmount.amount,
    round,
    sentDraft: { ...draft, title },
    earlierDraft: kept.sentDraft,
    sentFiles: fileIds,
    accountingDate: draft.accountingDate,
    shipToId,
  })
  await setLeft(ctx.tx, id, { number, state, title, now: ctx.now })
  if (state === 'approved') await enqueue(ctx.tx, 'mail-approved', { requisitionId: id, decisionId: null })
  return { id, number, state, version: kept.version + 1 }
}

/** The draft and its facts under lock; sent again when its period is closed, it takes today. */
async function gatherFacts(
  ctx: Context,
  kept: RequisitionRow,
  attached: Promise<AttachedAs[]>,
): Promise<{ draft: Draft; facts: DraftFacts }> {
  const of = { ...kept, attached, sentFor: kept.sentDraft?.departmentId ?? null }
  const facts = readFacts(await gatherDraftFacts(ctx.tx, kept.draft, of, ctx.now, true))
  const { accountingDate } = kept.draft
  if (kept.round === 0 || accountingDate === null) return { draft: kept.draft, facts }
  const at = fiscalPeriod(accountingDate, facts.fiscalStartMonth)
  if (!facts.closedPeriods.some((p) => p.year === at.year && p.period === at.period))
    return { draft: kept.draft, facts }
  const draft = { ...kept.draft, accountingDate: null }
  return { draft, facts: readFacts(await gatherDraftFacts(ctx.tx, draft, of, ctx.now, true)) }
}
