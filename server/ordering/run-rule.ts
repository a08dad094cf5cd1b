import { randomUUID } from 'node:crypto'
import { may } from '#core/people/rights'
import type { Context } from '../context'
import type { Db } from '../db/client'
import type { RunLeft } from '../db/schema/ordering'
import { inTransaction } from '../db/transaction'
import { Problem } from '../http/problem'
import { notifyChange } from '../live/notify'
import { REKKO, type Actor } from '../people/actor'
import { findActor } from '../people/actor-reads'
import { tellPeople } from '../people/tell-person'
import type { TaskData } from '../queue/tasks'
import { makeOrder, refusalOf } from './make-order'
import { coversSome, leaveAll, proposeByRule } from './propose-by-rule'
import { findRule, type RuleRow } from './reads'
import { countMade, deleteRun, endLost, findRunBefore, insertRun, updateRun } from './store'

/** As what live changes name the rules of ordering by itself. */
export const THE_RULES = '00000000-0000-4000-8000-000000000006'
/** A run that is at work for longer lost its server. */
const LOST_AFTER_MS = 1_200_000

/**
 * Carries out a rule: what it covers is put together and issued in its buyer's name, each order in a transaction of its
 * own, so that a crash leaves nothing half made and the next run goes on. What was made and left, and why, is kept.
 */
export async function runRule(
  db: Db,
  { ruleId, cause, byId, requisitionId }: TaskData['order-by-rule'],
  now: Date,
): Promise<void> {
  const rule = await findRule(db, ruleId)
  if (rule?.state !== 'in force') return
  const buyer = await findActor(db, rule.buyerId, now)
  const as: Context | null = buyer !== null && may(buyer.grants, 'order') ? { tx: db, now, actor: buyer } : null
  if (requisitionId !== null && as !== null && !(await coversSome(as, rule.form, requisitionId))) return
  const run = { id: randomUUID(), ruleId, buyerId: rule.buyerId, form: rule.form, cause, byId, beganAt: now }
  await inTransaction(db, async (tx) => {
    await endLost(tx, ruleId, new Date(now.getTime() - LOST_AFTER_MS), 'It was interrupted; the next run went on.')
    await insertRun(tx, { ...run, lastAt: now })
  })
  const end = (done: Done) => inTransaction(db, (tx) => endRun({ tx, now, actor: REKKO }, rule, run.id, done))
  if (as === null) {
    await end({ left: [], trouble: `${rule.buyer} orders nothing any more: name another buyer.` })
    return
  }
  try {
    await end(await makeAll(db, as, rule, run.id))
  } catch (error) {
    await end({ left: [], trouble: 'It stopped at a fault of Rekko’s and is tried again.' })
    throw error
  }
}

interface Done {
  readonly left: readonly RunLeft[]
  readonly trouble: string | null
}

async function makeAll(db: Db, as: Context & { readonly actor: Actor }, rule: RuleRow, runId: string): Promise<Done> {
  const { orders, left } = await proposeByRule(as, rule.form)
  const all = [...left]
  for (const order of orders) {
    if ((await findRule(db, rule.id))?.version !== rule.version)
      return { left: all, trouble: 'The rule was changed meanwhile, and it stopped there.' }
    try {
      await inTransaction(db, (tx) => makeOrder({ ...as, tx }, order, { runId, rule: rule.name }))
    } catch (error) {
      if (!(error instanceof Problem)) throw error
      // Somebody else ordered it meanwhile.
      if (error.type !== 'taken') all.push(...leaveAll(order, refusalOf(error)))
    }
  }
  return { left: all, trouble: null }
}

/** Ends a run; one that found what the one before it found, and made nothing, is counted there. */
async function endRun(ctx: Context, rule: RuleRow, runId: string, { left, trouble }: Done): Promise<void> {
  const { tx, now } = ctx
  const before = await findRunBefore(tx, rule.id, runId)
  await updateRun(tx, runId, { endedAt: now, left, trouble })
  const made = await countMade(tx, runId)
  const wasIdle = before !== null && before.endedAt !== null && before.made === 0
  const isSame = wasIdle && made === 0 && sameAs(before, { left, trouble })
  if (isSame) {
    await deleteRun(tx, runId)
    await updateRun(tx, before.id, { times: before.times + 1, lastAt: now, endedAt: now })
  } else if (made > 0 || trouble !== null)
    await tellPeople(ctx, [
      {
        personId: rule.buyerId,
        about: { kind: 'ordering', id: runId },
        told: { code: 'ordered-itself', rule: rule.name, made, left: left.length, trouble },
        path: `/orders/runs/${runId}`,
      },
    ])
  await notifyChange(tx, { kind: 'settings', id: THE_RULES })
}

const sameAs = (a: Done, b: Done): boolean => JSON.stringify(inOrder(a)) === JSON.stringify(inOrder(b))
/** The same text for the same, in whichever order keys and lines were written. */
const inOrder = ({ left, trouble }: Done) => [
  trouble,
  ...left.map((l) => JSON.stringify([l.lineId, Object.entries(l.reason).sort()])).sort(),
]
