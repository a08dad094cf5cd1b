import { randomUUID } from 'node:crypto'
import { isRuleMoveFrom, RULE_MOVES, type RuleMove } from '#core/order/rule-moves'
import { may } from '#core/people/rights'
import type { KeptRule } from '#shared/contract/ordering'
import { RULE_STANDS } from '#shared/words/ordering'
import { dayOf, type Day } from '#core/base/day'
import { appendEvent } from '../audit/store'
import type { Context } from '../context'
import { asSentence } from '../http/as-sentence'
import { invalid, notFound, refused, stale } from '../http/problem'
import { notifyChange } from '../live/notify'
import { findActor } from '../people/actor-reads'
import { listHolders } from '../people/person-reads'
import { mayConfirm } from '../people/second-person'
import { tellPeople } from '../people/tell-person'
import { enqueue } from '../queue/enqueue'
import { hourOf } from '../settings/moment-of'
import { requireOrganisation } from '../settings/reads'
import { findRule, type RuleRow } from './reads'
import { THE_RULES } from './run-rule'
import { insertRule, updateRule } from './store'

const OF_RULES = { namesNothing: 'It names somebody or something that does not exist.' }

/** Writes a rule of ordering by itself; it orders nothing until somebody else puts it in force. */
export async function addRule(ctx: Context, given: KeptRule): Promise<{ id: string; version: number }> {
  await requireBuyer(ctx, given.buyerId)
  const id = randomUUID()
  const row = { ...columnsOf(given), id, state: 'draft' as const, writtenById: ctx.actor.id }
  await asSentence(() => insertRule(ctx.tx, row), OF_RULES)
  await noteRule(ctx, id, { type: 'ordering rule written', after: { ...given } })
  return { id, version: 1 }
}

/** Changes what a rule says: it is a draft again, whoever put the one before in force. */
export async function keepRule(
  ctx: Context,
  id: string,
  version: number,
  given: KeptRule,
): Promise<{ id: string; version: number }> {
  const before = await requireRule(ctx, id, version)
  requireState(before, 'change')
  await requireBuyer(ctx, given.buyerId)
  const row = { ...columnsOf(given), state: 'draft' as const, writtenById: ctx.actor.id, confirmedById: null }
  await asSentence(() => updateRule(ctx.tx, id, row), OF_RULES)
  const { name, buyerId, form } = before
  await noteRule(ctx, id, { type: 'ordering rule changed', before: { name, buyerId, form }, after: { ...given } })
  return { id, version: version + 1 }
}

/** Moves a rule on; who may is said by `mayMove`. */
export async function moveRule(
  ctx: Context,
  id: string,
  version: number,
  move: RuleMove,
): Promise<{ id: string; version: number }> {
  const rule = await requireRule(ctx, id, version)
  if (move === 'change') throw invalid('What a rule says is changed by writing it.')
  requireState(rule, move)
  if (!(await mayMove(ctx, rule, move)))
    throw refused([
      move === 'confirm' || move === 'send back'
        ? 'Whoever wrote it does not put it in force; another administrator does, or finance where there is no other.'
        : 'Only administrators do this, and, to pause it or let it go on, the buyer in whose name it orders.',
    ])
  if (move === 'confirm') await requireBuyer(ctx, rule.buyerId)
  const { to } = RULE_MOVES[move]
  await updateRule(ctx.tx, id, {
    state: to,
    ...(move === 'confirm' ? { confirmedById: ctx.actor.id } : {}),
    ...(to === 'in force' ? { ranOn: await passedToday(ctx, rule) } : {}),
  })
  await noteRule(ctx, id, { type: `ordering rule ${MOVED[move]}`, before: { state: rule.state }, after: { state: to } })
  await tellMoved(ctx, rule, move)
  return { id, version: version + 1 }
}

/** Today, where its hour was before now: it is carried out from tomorrow on. */
async function passedToday({ tx, now }: Context, { form: { time }, ranOn }: RuleRow): Promise<Day | null> {
  const { timeZone } = await requireOrganisation(tx)
  return time.each === 'day' && time.hour <= hourOf(now, timeZone) ? dayOf(now, timeZone) : ranOn
}

/** A move as events and those who are told of it name it. */
const MOVED = {
  ...{ ask: 'asked for', confirm: 'put in force', 'send back': 'sent back' },
  ...{ pause: 'paused', 'let go on': 'let go on', end: 'ended', 'take up again': 'taken up again' },
} as const

/** Tells whoever confirms, whoever wrote it, and the buyer in whose name it orders. */
async function tellMoved(ctx: Context, rule: RuleRow, move: keyof typeof MOVED): Promise<void> {
  const today = dayOf(ctx.now, (await requireOrganisation(ctx.tx)).timeZone)
  const [administrators, finance] =
    move === 'ask'
      ? [await listHolders(ctx.tx, 'administrator', today), await listHolders(ctx.tx, 'finance', today)]
      : [[], []]
  const others = administrators.filter((a) => a.id !== rule.writtenById)
  const toldOf =
    move === 'ask' ? (others.length > 0 ? others : finance).map((p) => p.id) : [rule.writtenById, rule.buyerId]
  await tellPeople(
    ctx,
    [...new Set(toldOf)].map((personId) => ({
      personId,
      about: { kind: 'settings', id: THE_RULES },
      told: { code: 'ordering-rule', by: ctx.actor.name, rule: rule.name, buyer: rule.buyer, moved: MOVED[move] },
      path: '/set-up/ordering',
    })),
  )
}

/** Whether the actor may move a rule from where it stands. */
export async function mayMove(ctx: Context, rule: RuleRow, move: RuleMove): Promise<boolean> {
  if (!isRuleMoveFrom(move, rule.state)) return false
  if (move === 'confirm' || move === 'send back') return mayConfirm(ctx, [rule.writtenById])
  const isTheirs = rule.buyerId === ctx.actor.id && may(ctx.actor.grants, 'order')
  return may(ctx.actor.grants, 'keep settings') || (isTheirs && (move === 'pause' || move === 'let go on'))
}

/** Has a rule that is in force carried out now: by administrators and the buyer in whose name it orders. */
export async function askForRun(ctx: Context, id: string): Promise<{ id: string }> {
  const rule = await findRule(ctx.tx, id)
  if (rule === null) throw notFound('This rule')
  if (!may(ctx.actor.grants, 'keep settings') && rule.buyerId !== ctx.actor.id)
    throw refused([`Administrators have it carried out, and ${rule.buyer}.`])
  if (rule.state !== 'in force') throw refused([`“${rule.name}” is ${RULE_STANDS[rule.state]}: it orders nothing.`])
  await enqueue(ctx.tx, 'order-by-rule', { ruleId: id, cause: 'asked', byId: ctx.actor.id, requisitionId: null })
  await noteRule(ctx, id, { type: 'ordering run asked for' })
  return { id }
}

async function requireRule(ctx: Context, id: string, version: number): Promise<RuleRow> {
  const rule = await findRule(ctx.tx, id, true)
  if (rule === null) throw notFound('This rule')
  if (rule.version !== version) throw stale(`the rule “${rule.name}”`)
  return rule
}

function requireState(rule: RuleRow, move: RuleMove): void {
  if (!isRuleMoveFrom(move, rule.state))
    throw refused([`“${rule.name}” is ${RULE_STANDS[rule.state]}.`], {}, 'wrong-state')
}

/** Orders are made in the name of a buyer who is here. */
async function requireBuyer(ctx: Context, id: string): Promise<void> {
  const buyer = await findActor(ctx.tx, id, ctx.now)
  if (buyer === null || !may(buyer.grants, 'order'))
    throw invalid('Name a buyer in whose name it orders.', [{ field: 'buyerId', message: 'is no buyer' }])
}

const columnsOf = ({ name, buyerId, form }: KeptRule) => ({ name: name.trim(), buyerId, form })

async function noteRule(
  ctx: Context,
  id: string,
  event: { readonly type: string; readonly before?: Record<string, unknown>; readonly after?: Record<string, unknown> },
): Promise<void> {
  await appendEvent(ctx, { ...event, subjectKind: 'ordering', subjectId: id })
  await notifyChange(ctx.tx, { kind: 'settings', id: THE_RULES })
}
