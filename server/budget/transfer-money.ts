import { isZero, moneyOf, negate, type Money } from '#core/base/money'
import { checkTransfer, whoDecides, type TransferLine } from '#core/budget/transfer'
import { dayOf } from '#core/base/day'
import { may } from '#core/people/rights'
import type { Told } from '#core/told/told'
import type { TransferAsked } from '#shared/contract/budget'
import { sayTransferReason } from '#shared/words/transfer'
import { waysOf } from '#shared/words/ways'
import { appendEvent } from '../audit/store'
import type { Context } from '../context'
import { forbidden, invalid, notFound, refused } from '../http/problem'
import { listHolders } from '../people/person-reads'
import { tellPeople } from '../people/tell-person'
import { requireOrganisation } from '../settings/reads'
import { lockBudgetLines } from './reads'
import { addAdjustment, endTransfer, insertTransfer } from './transfer-store'
import { listTransferLines, lockTransfer, type TransferRow } from './transfer-reads'

const KIND = 'budget-transfer'
const isFinance = (ctx: Context) => may(ctx.actor.grants, 'keep budgets')

/** The two lines of a transfer, locked, with what stands on the one that gives; refused where it cannot be made. */
async function requireLines(
  ctx: Context,
  move: Pick<TransferAsked, 'fromLineId' | 'toLineId' | 'period' | 'amount' | 'reason'>,
): Promise<{ from: TransferLine; to: TransferLine; currency: string }> {
  const { baseCurrency, timeZone } = await requireOrganisation(ctx.tx)
  const locked = await lockBudgetLines(ctx.tx, [move.fromLineId, move.toLineId], baseCurrency)
  const lines = await listTransferLines(ctx.tx, [move.fromLineId, move.toLineId], dayOf(ctx.now, timeZone))
  const from = lines.find((l) => l.id === move.fromLineId)
  const to = lines.find((l) => l.id === move.toLineId)
  const given = locked.find((l) => l.id === move.fromLineId)
  if (from === undefined || to === undefined || given === undefined) throw notFound('A budget line')
  const amount = moneyOf(move.amount, baseCurrency)
  const ways = waysOf(ctx.actor.locale)
  const reasons = checkTransfer({ ...given, ...from }, to, { ...move, amount })
  if (reasons.length > 0) throw refused(reasons.map((r) => sayTransferReason(r, ways)))
  return { from, to, currency: baseCurrency }
}

/** Proposes that money moves from one budget line to another; it moves once whoever decides agrees. */
export async function proposeTransfer(ctx: Context, asked: TransferAsked): Promise<{ id: string }> {
  const { from, to, currency } = await requireLines(ctx, asked)
  const decider = whoDecides(from, to, { id: ctx.actor.id, isFinance: isFinance(ctx) })
  if (decider === null) throw forbidden('Only whoever holds one of the two budget lines, or finance, may propose this.')
  const id = crypto.randomUUID()
  const { fromLineId, toLineId, period } = asked
  const reason = asked.reason.trim()
  await insertTransfer(ctx.tx, {
    ...{ id, fromLineId, toLineId, period, reason, amount: moneyOf(asked.amount, currency).amount },
    ...{ state: 'proposed', proposedById: ctx.actor.id, proposedAt: ctx.now },
    deciderId: decider.by === 'person' ? decider.personId : null,
  })
  await appendEvent(ctx, {
    type: 'transfer proposed',
    subjectKind: KIND,
    subjectId: id,
    after: { from: from.name, to: to.name, period, amount: moneyOf(asked.amount, currency), reason },
  })
  const told: Told = {
    code: 'transfer-waits',
    ...{ by: ctx.actor.name, from: from.name, to: to.name, amount: moneyOf(asked.amount, currency), reason },
  }
  const { timeZone } = await requireOrganisation(ctx.tx)
  const deciders =
    decider.by === 'person'
      ? [decider.personId]
      : (await listHolders(ctx.tx, 'finance', dayOf(ctx.now, timeZone))).map((p) => p.id)
  await tellPeople(
    ctx,
    deciders.map((personId) => ({ personId, about: { kind: KIND, id }, told, path: `/budgets?line=${toLineId}` })),
  )
  return { id }
}

/** Whether somebody decides on a transfer: whoever was asked, or any of finance; nobody on what they proposed. */
export const decidesOn = (t: Pick<TransferRow, 'proposedById' | 'deciderId'>, ctx: Context): boolean =>
  t.proposedById !== ctx.actor.id && (t.deciderId === null ? isFinance(ctx) : t.deciderId === ctx.actor.id)

/** Agrees to a transfer, so that the money moves, or refuses it with a reason. */
export async function decideTransfer(
  ctx: Context,
  id: string,
  outcome: 'agree' | 'refuse',
  comment: string,
): Promise<{ id: string }> {
  const t = await lockTransfer(ctx.tx, id)
  if (t === null || t.fromLineId === null) throw notFound('This transfer')
  if (!decidesOn(t, ctx)) throw forbidden('Another decides on this transfer.')
  if (t.state !== 'proposed') throw refused([`It is ${t.state} already.`], {}, 'acted-on')
  const said = comment.trim()
  if (outcome === 'refuse' && said === '')
    throw invalid('Say why it is refused.', [{ field: 'comment', message: 'why' }])
  const move = { fromLineId: t.fromLineId, toLineId: t.toLineId, period: t.period, amount: t.amount, reason: t.reason }
  const { baseCurrency: currency } = await requireOrganisation(ctx.tx)
  const amount = moneyOf(t.amount, currency)
  if (outcome === 'agree') {
    await requireLines(ctx, move)
    await addAdjustment(ctx.tx, t.fromLineId, t.period, negate(amount))
    await addAdjustment(ctx.tx, t.toLineId, t.period, amount)
  }
  await endTransfer(ctx.tx, id, {
    ...{
      state: outcome === 'agree' ? 'done' : 'refused',
      decidedById: ctx.actor.id,
      decidedAt: ctx.now,
      comment: said,
    },
  })
  await appendEvent(ctx, {
    type: outcome === 'agree' ? 'transfer agreed' : 'transfer refused',
    subjectKind: KIND,
    subjectId: id,
    after: { from: t.from, to: t.to, period: t.period, amount, comment: said },
  })
  const told: Told = {
    code: 'transfer-decided',
    ...{ by: ctx.actor.name, from: t.from ?? '', to: t.to, amount, agreed: outcome === 'agree', comment: said },
  }
  const path = `/budgets?line=${t.toLineId}`
  await tellPeople(ctx, [{ personId: t.proposedById, about: { kind: KIND, id }, told, path }])
  return { id }
}

/** Takes back what one proposed, as long as nobody decided. */
export async function takeBackTransfer(ctx: Context, id: string): Promise<{ id: string }> {
  const t = await lockTransfer(ctx.tx, id)
  if (t === null) throw notFound('This transfer')
  if (t.proposedById !== ctx.actor.id) throw forbidden('Only whoever proposed it may take it back.')
  if (t.state !== 'proposed') throw refused([`It is ${t.state} already.`], {}, 'acted-on')
  await endTransfer(ctx.tx, id, { state: 'taken back', decidedById: null, decidedAt: ctx.now, comment: '' })
  await appendEvent(ctx, { type: 'transfer taken back', subjectKind: KIND, subjectId: id, after: { to: t.to } })
  return { id }
}

/** Enters that a budget line is given more, or less, in a period; nothing is asked. The line is locked. */
export async function enterAdjustment(
  ctx: Context,
  lineId: string,
  period: number,
  amount: Money,
  reason: string,
): Promise<string> {
  const id = crypto.randomUUID()
  await addAdjustment(ctx.tx, lineId, period, amount)
  await insertTransfer(ctx.tx, {
    ...{ id, fromLineId: null, toLineId: lineId, period, amount: amount.amount, reason, state: 'done' },
    ...{ proposedById: ctx.actor.id, proposedAt: ctx.now, deciderId: null },
    ...{ decidedById: ctx.actor.id, decidedAt: ctx.now },
  })
  return id
}

/** Gives a budget line more, or less, than its plan, at once and with a reason: finance alone does that. */
export async function adjustBudget(
  ctx: Context,
  asked: { readonly budgetLineId: string; readonly period: number; readonly amount: string; readonly reason: string },
): Promise<{ id: string }> {
  const { baseCurrency, timeZone } = await requireOrganisation(ctx.tx)
  const amount = moneyOf(asked.amount, baseCurrency)
  const reason = asked.reason.trim()
  if (isZero(amount)) throw invalid('Say by how much.', [{ field: 'amount', message: 'is nothing' }])
  if (reason === '') throw invalid('Say why.', [{ field: 'reason', message: 'is empty' }])
  await lockBudgetLines(ctx.tx, [asked.budgetLineId], baseCurrency)
  const [line] = await listTransferLines(ctx.tx, [asked.budgetLineId], dayOf(ctx.now, timeZone))
  if (line === undefined) throw notFound('This budget line')
  if (line.retired) throw refused([`${line.name} is retired.`])
  const id = await enterAdjustment(ctx, line.id, asked.period, amount, reason)
  await appendEvent(ctx, {
    type: 'budget adjusted',
    subjectKind: KIND,
    subjectId: id,
    after: { line: line.name, period: asked.period, amount, reason },
  })
  return { id }
}
