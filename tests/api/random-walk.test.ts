import { afterAll, beforeAll, expect, test } from 'vitest'
import { addDays } from '#core/base/day'
import { progressOf } from '#core/approval/progress'
import type { OrderAdjustment } from '#core/order/adjustment'
import { RESTS } from '#core/order/change'
import { HANDED_HOW } from '#core/approval/handed'
import { answerQuestion } from '../../server/approval/answer-question'
import { askQuestion } from '../../server/approval/ask-question'
import { callBack } from '../../server/approval/call-back'
import { decide } from '../../server/approval/decide'
import { handSeat } from '../../server/approval/hand-seat'
import { listHandings } from '../../server/approval/handing-reads'
import { findRoute, listApprovals, listDecisions, listOpenActors } from '../../server/approval/reads'
import { routeAgain } from '../../server/approval/route-again'
import { takeBack } from '../../server/approval/take-back'
import { layChain } from '../../server/audit/lay-chain'
import { readTransfers } from '../../server/budget/read-transfers'
import { adjustBudget, decideTransfer, proposeTransfer, takeBackTransfer } from '../../server/budget/transfer-money'
import type { Context } from '../../server/context'
import { moveWaiting } from '../../server/decide/move-waiting'
import { readWaiting } from '../../server/decide/read-waiting'
import { Problem } from '../../server/http/problem'
import { checkIntegrity } from '../../server/look-back/check-integrity'
import { askAboutLine } from '../../server/order/ask-about-line'
import { askForDecision } from '../../server/order/ask-for-decision'
import { issueOrder } from '../../server/order/issue-order'
import { ORDER } from '../../server/order/kind'
import { layOnTray, takeOffTray } from '../../server/order/lay-tray'
import { changeOrder } from '../../server/order/change-order'
import { listStanding } from '../../server/order/change-reads'
import { conditionsOf, findOrder, listTrays } from '../../server/order/reads'
import { setOrderConditions } from '../../server/order/set-conditions'
import { takeOrderBack } from '../../server/order/take-order-back'
import { readAbsences } from '../../server/people/find-people'
import { endAway, setAway } from '../../server/people/set-away'
import { cancelRest } from '../../server/requisition/cancel-rest'
import { handOver } from '../../server/requisition/hand-over'
import { REQUISITION } from '../../server/requisition/kind'
import { findRequisition } from '../../server/requisition/reads'
import { createDraft, saveDraft } from '../../server/requisition/save-draft'
import { sendRequisition } from '../../server/requisition/send-requisition'
import { withdrawRequisition } from '../../server/requisition/withdraw-requisition'
import { budgetLineId, fiscalYear, freeLine, idOf, personId, soundDraft, TODAY } from '../setup/rekko'
import { openUseCases, type UseCases } from '../setup/use-cases'

/** Pairs of actions at the same moment; `npm run deep` goes ten thousand steps. */
const PAIRS = process.env.REKKO_DEEP === '1' ? 5000 : 250
const SEED = 20_261_127

const CAST = [
  ...['Owen Marsh', 'Rosa Castell', 'Ines Adeyemi', 'Tomas Brandt', 'Priya Lindqvist', 'Kaveh Dorani', 'Mai Torvald'],
  ...['Jonas Abara', 'Sorrel Quist', 'Nadia Wexcombe', 'Marguerite Oduya', 'Leonie Farrow', 'Harriet Voss'],
  ...['Greta Molin', 'Signe Aalto', 'Aldous Penhale', 'Farida Nwosu', 'Tobias Lund', 'Desmond Hale', 'Bryn Tolliver'],
]
const WATER = ['610', '612', '616', '630', '650']
const LINES = [
  ...WATER.map((a) => budgetLineId('Water Systems', a, fiscalYear())),
  ...['622', '624', '620'].map((a) => budgetLineId('Animal Care', a, fiscalYear())),
]

let rekko: UseCases
beforeAll(async () => {
  rekko = await openUseCases()
})
afterAll(() => rekko.stop())

/** Numbers that are the same in each run: a linear congruential generator (Numerical Recipes). */
let seed = SEED
function random(): number {
  seed = (Math.imul(seed, 1_664_525) + 1_013_904_223) >>> 0
  return seed / 2 ** 32
}
const chance = (p: number) => random() < p
const among = <T>(some: readonly T[]): T => some[Math.floor(random() * some.length)] ?? expect.fail('nothing to choose')
const someone = () => among(CAST)

/** All requests, and what may be taken back or called back. */
const ids: string[] = []
/** Orders that were issued, and by whom. */
const issued: { id: string; buyer: string }[] = []
const done = { legal: 0, illegal: 0 }

type Act = () => Promise<unknown>
const as = <T>(who: string, work: (ctx: Context) => Promise<T>) => rekko.as(who, work)
/** The version that stands, or now and then one that does not. */
const versionOf = async (ctx: Context, id: string) =>
  ((await findRequisition(ctx.tx, id))?.version ?? 1) - (chance(0.05) ? 1 : 0)
/** Whoever is asked about a request now, by name, or else anybody. */
async function askedOf(id: string): Promise<string> {
  const open = await as('Signe Aalto', (ctx) => listOpenActors(ctx.tx, id))
  return open.length > 0 && chance(0.85) ? among(open).name : someone()
}
async function ownerOf(id: string): Promise<string> {
  const kept = await as('Signe Aalto', (ctx) => findRequisition(ctx.tx, id))
  return CAST.find((n) => personId(n) === kept?.ownerId) ?? someone()
}
const adjustment = (): OrderAdjustment => ({
  ...{ kind: among(['discount', 'charge']), of: among(['percent', 'amount']), name: 'A test' },
  value: among(['3', '12.5', '33.33', '100']),
})
const priced = ({ unitPrice, needBy }: { unitPrice: string; needBy: string }) => ({
  unitPrice: chance(0.7) ? unitPrice : price(),
  needBy,
})
const price = () => among(['90', '240', '260', '700', '1200', '3100', '26000'])
/** What another supplier has too, at another price. */
const SLEEVE = { part: 'CP-QS-25', quantity: 4, account: '630' }
const lines = () =>
  Array.from({ length: chance(0.3) ? 2 : 1 }, () =>
    chance(0.75) ? [freeLine(price(), {}, among(WATER))] : soundDraft([SLEEVE]).lines,
  ).flat()

const ACTS: readonly (readonly [weight: number, act: Act])[] = [
  [
    8,
    async () => {
      const id = crypto.randomUUID()
      const who = among(['Owen Marsh', 'Rosa Castell', 'Ines Adeyemi', 'Tomas Brandt'])
      await as(who, (ctx) => createDraft(ctx, id, soundDraft([], { lines: lines() })))
      ids.push(id)
      await as(who, (ctx) => sendRequisition(ctx, id, 1))
    },
  ],
  [
    14,
    async () => {
      const id = among(ids)
      const outcome = among(['approve', 'approve', 'approve', 'approve', 'sendBack', 'reject'] as const)
      await as(await askedOf(id), async (ctx) =>
        decide(ctx, REQUISITION, id, await versionOf(ctx, id), outcome, 'because'),
      )
    },
  ],
  [
    3,
    async () => {
      const id = among(ids)
      const last = (await as('Signe Aalto', (ctx) => listDecisions(ctx.tx, id))).at(-1)
      if (last !== undefined) await as(last.actor, (ctx) => takeBack(ctx, REQUISITION, id, last.id))
    },
  ],
  [
    5,
    async () => {
      const id = among(ids)
      const toId = personId(someone())
      await as(await askedOf(id), (ctx) =>
        handSeat(ctx, REQUISITION, id, { how: among(HANDED_HOW), toId, comment: '' }),
      )
    },
  ],
  [
    2,
    async () => {
      const id = among(ids)
      const handings = await as('Signe Aalto', (ctx) => listHandings(ctx.tx, id))
      if (handings.length === 0) return
      const h = among(handings)
      await as(CAST.find((n) => personId(n) === h.actorId) ?? someone(), (ctx) => callBack(ctx, REQUISITION, id, h.id))
    },
  ],
  [
    2,
    async () => {
      const id = among(ids)
      const toId = chance(0.5) ? null : personId(someone())
      await as(await askedOf(id), (ctx) => askQuestion(ctx, REQUISITION, id, 'Why?', toId))
      await as(await ownerOf(id), (ctx) => answerQuestion(ctx, REQUISITION, id, 'So.'))
    },
  ],
  [2, async () => withId((id, ctx, version) => withdrawRequisition(ctx, id, version))],
  [
    4,
    async () =>
      withId(async (id, ctx, version) => {
        const draft = soundDraft([], { lines: lines() })
        const saved = chance(0.5) ? await saveDraft(ctx, id, version, draft) : { version }
        await sendRequisition(ctx, id, saved.version)
      }),
  ],
  [1, async () => withId((id, ctx, version) => cancelRest(ctx, id, version))],
  [1, async () => withId((id, ctx, version) => handOver(ctx, id, version, personId(someone())))],
  [
    2,
    async () => {
      const who = someone()
      const { mine } = await as(who, (ctx) => readAbsences(ctx))
      const [away] = mine
      if (away !== undefined) await as(who, (ctx) => endAway(ctx, away.id, away.version))
      else {
        const substituteId = chance(0.5) ? personId(someone()) : null
        const until = addDays(TODAY, Math.floor(random() * 5))
        await as(who, (ctx) => setAway(ctx, { personId: personId(who), from: TODAY, until, substituteId, note: '' }))
      }
    },
  ],
  [
    3,
    async () => {
      const id = among(ids)
      await as('Harriet Voss', async (ctx) => {
        const document = await REQUISITION.find(ctx.tx, id, true)
        if (document !== null) await routeAgain(ctx, REQUISITION, document)
      })
    },
  ],
  [
    2,
    async () => {
      const { steps } = await as('Harriet Voss', (ctx) => readWaiting(ctx, ''))
      if (steps.length === 0) return
      const seatIds = [among(steps).seatId, among(steps).seatId]
      const does = among(['remind', 'pass on', 'skip'] as const)
      const move = does === 'pass on' ? { does, toId: personId(someone()) } : { does }
      await as('Harriet Voss', (ctx) => moveWaiting(ctx, { seatIds, move, comment: '' }))
    },
  ],
  [
    5,
    async () => {
      const buyer = among(['Leonie Farrow', 'Harriet Voss'])
      const id = among(ids)
      const kept = await as('Signe Aalto', (ctx) => findRequisition(ctx.tx, id))
      const line = kept?.lines[0]
      if (line === undefined) return
      const orderId = chance(0.5) ? null : ((await as(buyer, (ctx) => listTrays(ctx.tx, ctx.actor.id)))[0]?.id ?? null)
      const isOffered = line.itemId !== null && chance(0.5)
      const offerItemId = isOffered ? idOf('item', '88-025') : null
      const quantity = line.itemId !== null && chance(0.4) ? among(['1', '2', '4']) : null
      const parts = [{ lineId: line.id, quantity, offerItemId }]
      await as(buyer, (ctx) => layOnTray(ctx, { orderId, supplierId: null, parts }))
    },
  ],
  [
    3,
    async () => {
      const id = among(ids)
      const kept = await as('Signe Aalto', (ctx) => findRequisition(ctx.tx, id))
      const line = kept?.lines[0]
      if (line === undefined) return
      await as('Leonie Farrow', (ctx) => askAboutLine(ctx, line.id, 'Which?'))
      if (chance(0.7)) await as(await ownerOf(id), (ctx) => answerQuestion(ctx, REQUISITION, id, 'This.'))
    },
  ],
  [
    4,
    async () => {
      const buyer = among(['Leonie Farrow', 'Harriet Voss'])
      const trays = await as(buyer, (ctx) => listTrays(ctx.tx, ctx.actor.id))
      if (trays.length === 0) return
      const tray = among(trays)
      if (chance(0.15)) await as(buyer, (ctx) => takeOffTray(ctx, tray.id, null))
      else if (chance(0.15)) await as(buyer, (ctx) => takeOrderBack(ctx, tray.id, tray.version))
      else if (chance(0.3)) await as(buyer, (ctx) => askForDecision(ctx, tray.id, tray.version, chance(0.5)))
      else {
        await as(buyer, (ctx) => issueOrder(ctx, tray.id, tray.version))
        issued.push({ id: tray.id, buyer })
      }
    },
  ],
  [
    2,
    async () => {
      const buyer = among(['Leonie Farrow', 'Harriet Voss'])
      const trays = await as(buyer, (ctx) => listTrays(ctx.tx, ctx.actor.id))
      if (trays.length === 0) return
      const tray = among(trays)
      const adjustments = chance(0.2) ? [] : [adjustment()]
      await as(buyer, (ctx) => setOrderConditions(ctx, tray.id, tray.version, { ...conditionsOf(tray), adjustments }))
    },
  ],
  [
    3,
    async () => {
      if (issued.length === 0) return
      const order = among(issued)
      const standing = await as(order.buyer, (ctx) => listStanding(ctx.tx, order.id))
      const at = await as(order.buyer, (ctx) => findOrder(ctx.tx, order.id))
      const lines = standing.map((l) => ({ lineId: l.id, quantity: among(['0', '1', '0.5']), ...priced(l) }))
      const adjustments = chance(0.5) ? null : chance(0.3) ? [] : [adjustment()]
      const wish = { lines, shipToId: null, adjustments, rest: among(RESTS), reason: 'a test', note: '' }
      await as(order.buyer, (ctx) => changeOrder(ctx, order.id, at?.version ?? 1, { ...wish, asks: chance(0.3) }))
    },
  ],
  [
    2,
    async () => {
      const buyer = among(['Leonie Farrow', 'Harriet Voss'])
      const sent = (await as(buyer, (ctx) => listTrays(ctx.tx, ctx.actor.id))).filter((t) => t.state === 'in approval')
      if (sent.length === 0) return
      const { id, version } = among(sent)
      const [next] = await as(buyer, (ctx) => listOpenActors(ctx.tx, id))
      const who = chance(0.8) && next !== undefined ? next.name : someone()
      const move = among(['approve', 'approve', 'sendBack', 'reject'] as const)
      await as(who, (ctx) => decide(ctx, ORDER, id, version, move, 'because'))
    },
  ],
  [
    3,
    async () => {
      const [fromLineId, toLineId] = [among(LINES), among(LINES)]
      const amount = among(['10.00', '99.99', '1500.00', '99999.00'])
      const who = among(['Tomas Brandt', 'Kaveh Dorani', 'Greta Molin', 'Owen Marsh'])
      await as(who, (ctx) => proposeTransfer(ctx, { fromLineId, toLineId, period: 8, amount, reason: 'a test' }))
    },
  ],
  [
    3,
    async () => {
      const { transfers } = await as('Greta Molin', (ctx) => readTransfers(ctx, undefined))
      if (transfers.length === 0) return
      const t = among(transfers)
      const who = among(['Tomas Brandt', 'Kaveh Dorani', 'Greta Molin'])
      if (chance(0.15)) await as(who, (ctx) => takeBackTransfer(ctx, t.id))
      else await as(who, (ctx) => decideTransfer(ctx, t.id, chance(0.8) ? 'agree' : 'refuse', 'because'))
    },
  ],
  [
    1,
    async () => {
      const asked = { budgetLineId: among(LINES), period: 8, amount: among(['50.00', '-20.00']), reason: 'a test' }
      await as(among(['Greta Molin', 'Tomas Brandt']), (ctx) => adjustBudget(ctx, asked))
    },
  ],
]
async function withId(work: (id: string, ctx: Context, version: number) => Promise<unknown>): Promise<void> {
  const id = among(ids)
  const who = chance(0.85) ? await ownerOf(id) : someone()
  await as(who, async (ctx) => work(id, ctx, await versionOf(ctx, id)))
}

/** One action; what is refused is refused with a sentence, and nothing else may go wrong. */
async function step(): Promise<void> {
  const whole = ACTS.reduce((n, [weight]) => n + weight, 0)
  let at = random() * whole
  const [, act] = ACTS.find(([weight]) => (at -= weight) < 0) ?? expect.fail('no action')
  try {
    await act()
    done.legal += 1
  } catch (e) {
    if (!(e instanceof Problem) || e.status >= 500) throw e
    done.illegal += 1
  }
}

test('a walk of legal and illegal actions, two at a time, leaves everything in agreement to the cent', async () => {
  await rekko.arrange('update approval_policy set may_skip = true')
  const [, raise] = ACTS[0] ?? expect.fail('no action')
  for (let i = 0; i < 6; i += 1) await raise().catch(() => undefined)
  for (let i = 0; i < PAIRS; i += 1) {
    await Promise.all([step(), step()])
    if (i % 100 === 99) {
      const { broken } = await as('Signe Aalto', (ctx) => checkIntegrity(ctx, null))
      expect([i, broken]).toEqual([i, []])
    }
  }
  await layChain(rekko.db)
  const { broken, chain } = await as('Signe Aalto', (ctx) => checkIntegrity(ctx, null))
  expect([broken, chain.fault]).toEqual([[], null])
  // Both sorts happened, and much came through.
  expect(done.legal).toBeGreaterThan(PAIRS / 2)
  expect(done.illegal).toBeGreaterThan(PAIRS / 10)
  let approved = 0
  for (const id of ids)
    await as('Signe Aalto', async (ctx) => {
      const kept = await findRequisition(ctx.tx, id)
      const route = await findRoute(ctx.tx, id)
      if (kept === null || route === null) return
      const approvals = await listApprovals(ctx.tx, id)
      const own = [kept.raisedById, kept.ownerId, ...kept.ownedBy]
      // No approval that stands is of somebody who raised it, or who owns or owned it since.
      expect(approvals.filter((a) => own.includes(a.actorId))).toEqual([])
      if (!['approved', 'part ordered', 'ordered', 'closed'].includes(kept.state)) return
      approved += 1
      // What is approved was approved by everybody whom its route asks.
      expect(progressOf(route.route, approvals).state).toBe('approved')
    })
  expect(approved).toBeGreaterThan(0)
}, 1_800_000)
