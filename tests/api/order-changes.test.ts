import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { addDays } from '#core/base/day'
import type { Rest } from '#core/order/change'
import type { OrdersAsked } from '#shared/contract/order'
import { decide, type DecideMove } from '../../server/approval/decide'
import { listOpenActors } from '../../server/approval/reads'
import { takeBack } from '../../server/approval/take-back'
import { readStandings } from '../../server/budget/reads'
import { readDecision } from '../../server/decide/read-decision'
import { listSlips } from '../../server/decide/reads'
import { readNotices } from '../../server/session/read-notices'
import { checkIntegrity } from '../../server/look-back/check-integrity'
import { changeOrder } from '../../server/order/change-order'
import { checkChange } from '../../server/order/check-change'
import { ORDER_CHANGE } from '../../server/order/change-kind'
import { findChange, findUnderWay, listSent, listStanding } from '../../server/order/change-reads'
import { compareRevisions } from '../../server/order/compare-revisions'
import { throwChangeAway } from '../../server/order/end-change'
import { fileOrder } from '../../server/order/file-order'
import { giveOrders } from '../../server/order/give-order'
import { paperOfOrder } from '../../server/order/order-paper'
import { exportOrders, listOrders } from '../../server/order/list-orders'
import { makeApproved } from '../../server/order/make-approved'
import { putChangeInForce } from '../../server/order/put-change-in-force'
import { readOrder } from '../../server/order/read-order'
import { findOrder } from '../../server/order/reads'
import { resendOrder } from '../../server/order/resend-order'
import { listLinkedOrders } from '../../server/order/served-reads'
import { findActor } from '../../server/people/actor-reads'
import { findRequisition } from '../../server/requisition/reads'
import { ordering } from '../setup/ordering'
import { moment, personId, TODAY } from '../setup/rekko'
import { openUseCases, type UseCases } from '../setup/use-cases'

// Leonie Farrow orders up to 3,000 and owns the orders here; her manager Harriet Voss orders up to 25,000. Water
// Systems gets all tax back, so that a budget feels what stands on the order.
const [LEONIE, HARRIET, OWEN] = ['Leonie Farrow', 'Harriet Voss', 'Owen Marsh'] as const
let rekko: UseCases
beforeAll(async () => {
  rekko = await openUseCases()
  await rekko.arrange('update budget_balance set budgeted = budgeted + 1000000')
})
afterAll(() => rekko.stop())
const { approvedLine, lay, issue } = ordering(() => rekko)

const order = async (id: string) =>
  (await rekko.as(LEONIE, (ctx) => findOrder(ctx.tx, id))) ?? expect.fail('it is there')
const standing = (id: string) => rekko.as(LEONIE, (ctx) => listStanding(ctx.tx, id))
/** An issued order of ten at 12.50, and the request behind it. */
async function issued(price = '12.50', quantity = '10'): Promise<{ id: string; requestId: string }> {
  const id = await lay([await approvedLine(price, OWEN, quantity)])
  await issue(id)
  const requestId = (await standing(id))[0]?.sources[0]?.requisitionId ?? expect.fail('it serves a request')
  return { id, requestId }
}
interface Wish {
  quantity?: string
  unitPrice?: string
  needBy?: string
}
const asked = async (id: string, wish: Wish, rest: Rest = 'returns') => {
  const [line] = await standing(id)
  if (line === undefined) throw new Error('no line')
  const { quantity, unitPrice, needBy } = { ...line, ...wish }
  const lines = [{ lineId: line.id, quantity, unitPrice, needBy }]
  return { lines, shipToId: null, rest, reason: 'the pump is repaired', note: '' }
}
const change = async (id: string, wish: Wish, how: { rest?: Rest; asks?: boolean; by?: string } = {}) => {
  const wishes = await asked(id, wish, how.rest)
  const { version } = await order(id)
  return rekko.as(how.by ?? LEONIE, (ctx) => changeOrder(ctx, id, version, { ...wishes, asks: how.asks ?? false }))
}
const request = async (id: string) =>
  (await rekko.as(OWEN, (ctx) => findRequisition(ctx.tx, id))) ?? expect.fail('it is there')
const quantities = async (id: string) => {
  const { state, lines } = await request(id)
  return [state, lines[0]?.ordered, lines[0]?.cancelled]
}
/** What stands of a stage for lines, added up. */
const stands = async (stage: 'reserved' | 'committed', lineIds: readonly string[]) => {
  const found = await rekko.as(LEONIE, (ctx) => readStandings(ctx.tx, stage, lineIds, 'EUR'))
  return [...found.values()].flat().reduce((s, x) => s + Math.round(Number(x.amount.amount) * 100), 0) / 100
}
const money = async (id: string, requestId: string) => ({
  committed: await stands(
    'committed',
    (await standing(id)).map((l) => l.id),
  ),
  reserved: await stands(
    'reserved',
    (await request(requestId)).lines.map((l) => l.id),
  ),
})
const broken = async () => (await rekko.as('Signe Aalto', (ctx) => checkIntegrity(ctx, null))).broken
const underWay = async (id: string) =>
  (await rekko.as(LEONIE, (ctx) => findUnderWay(ctx.tx, id))) ?? expect.fail('a change is under way')
const move = async (by: string, changeId: string, what: DecideMove, comment = 'because') => {
  const kept = (await rekko.as(LEONIE, (ctx) => findChange(ctx.tx, changeId))) ?? expect.fail('it is there')
  return rekko.as(by, (ctx) => decide(ctx, ORDER_CHANGE, changeId, kept.version, what, comment))
}
const view = (id: string) => rekko.as(LEONIE, (ctx) => readOrder(ctx, id))
const told = async (name: string) => (await rekko.as(name, (ctx) => readNotices(ctx))).notices.map((n) => n.sentence)

describe('an issued order', () => {
  test('is lowered as a revision of its own, and the need waits on the Desk again', async () => {
    const { id, requestId } = await issued()
    expect(await money(id, requestId)).toEqual({ committed: 125, reserved: 0 })
    expect(await change(id, { quantity: '4' })).toMatchObject({ revision: 1, state: 'in force' })
    expect(await quantities(requestId)).toEqual(['part ordered', '4', '0'])
    expect(await money(id, requestId)).toEqual({ committed: 50, reserved: 75 })
    const seen = await view(id)
    expect([seen.state, seen.net.amount, seen.lines[0]?.quantity]).toEqual(['issued', '50.00', '4'])
    expect(seen.revisions.map((v) => [v.revision, v.reason])).toEqual([
      [1, 'the pump is repaired'],
      [0, ''],
    ])
    expect(await told(OWEN)).toContainEqual(expect.stringMatching(/changed P-.*: 4 .* instead of 10 .*waits to be/))
    // What came back is ordered again, on another order.
    const again = await lay([(await request(requestId)).lines[0]?.id ?? ''])
    await issue(again)
    expect(await quantities(requestId)).toEqual(['ordered', '10', '0'])
    expect(await money(id, requestId)).toEqual({ committed: 50, reserved: 0 })
    expect(await broken()).toEqual([])
  })
  test('may be lowered for good: the rest is over, and is not to be had again', async () => {
    const { id, requestId } = await issued()
    await change(id, { quantity: '4' }, { rest: 'ends' })
    expect(await quantities(requestId)).toEqual(['ordered', '4', '6'])
    expect(await money(id, requestId)).toEqual({ committed: 50, reserved: 0 })
    await expect(change(id, { quantity: '5' })).rejects.toThrow(/4 .* can be ordered: no more was asked for/)
    expect(await broken()).toEqual([])
  })
  test('is raised again as far as it was asked for, and no further', async () => {
    const { id, requestId } = await issued()
    await change(id, { quantity: '4' })
    await expect(change(id, { quantity: '11' })).rejects.toThrow(/10 .* can be ordered/)
    expect(await change(id, { quantity: '9' })).toMatchObject({ revision: 2 })
    expect(await quantities(requestId)).toEqual(['part ordered', '9', '0'])
    expect(await money(id, requestId)).toEqual({ committed: 112.5, reserved: 12.5 })
  })
  test('is cancelled whole, and everything is as if it had never been', async () => {
    const { id, requestId } = await issued()
    expect(await change(id, { quantity: '0' })).toMatchObject({ revision: 1 })
    expect((await order(id)).state).toBe('cancelled')
    expect(await quantities(requestId)).toEqual(['approved', '0', '0'])
    expect(await money(id, requestId)).toEqual({ committed: 0, reserved: 125 })
    await expect(change(id, { quantity: '3' })).rejects.toThrow(/is cancelled/)
    const sent = await rekko.as(LEONIE, (ctx) => listSent(ctx.tx, id))
    const paper = JSON.stringify(paperOfOrder(sent.at(-1)?.snapshot ?? expect.fail('it was sent'), '/orders/1'))
    expect(paper).toMatch(/Cancellation of purchase order P-.*deliver nothing/)
    expect(await broken()).toEqual([])
  })
  test('with a cancellation for good leaves its request cancelled', async () => {
    const { id, requestId } = await issued()
    await change(id, { quantity: '0' }, { rest: 'ends' })
    expect(await quantities(requestId)).toEqual(['cancelled', '0', '10'])
    expect(await money(id, requestId)).toEqual({ committed: 0, reserved: 0 })
    expect(await broken()).toEqual([])
  })
  test('gets another day without moving money, and its states are compared', async () => {
    const { id, requestId } = await issued()
    const before = await money(id, requestId)
    await change(id, { needBy: '2031-03-14' })
    await change(id, { unitPrice: '12.6' })
    const compare = (was: number, is: number) => rekko.as(LEONIE, (ctx) => compareRevisions(ctx, id, { was, is }))
    expect((await compare(0, 1)).differences).toEqual([expect.stringMatching(/needed Friday 14 March 2031 instead of/)])
    expect((await compare(0, 2)).differences).toHaveLength(2)
    expect((await compare(2, 1)).differences).toEqual([expect.stringMatching(/at 12.50 instead of 12.60/)])
    expect((await compare(1, 1)).differences).toEqual([])
    await expect(compare(0, 7)).rejects.toMatchObject({ status: 404 })
    expect(await money(id, requestId)).toEqual({ ...before, committed: 126 })
    expect((await view(id)).revisions).toHaveLength(3)
  })
  test('is changed by its buyer alone, once, and says why not', async () => {
    const { id } = await issued()
    const { version } = await order(id)
    const wishes = { ...(await asked(id, { quantity: '9' })), asks: false }
    await expect(rekko.as(OWEN, (ctx) => changeOrder(ctx, id, version, wishes))).rejects.toMatchObject({ status: 403 })
    await expect(rekko.as(HARRIET, (ctx) => changeOrder(ctx, id, version, wishes))).rejects.toThrow(/Leonie Farrow’s/)
    await rekko.as(LEONIE, (ctx) => changeOrder(ctx, id, version, wishes))
    await expect(rekko.as(LEONIE, (ctx) => changeOrder(ctx, id, version, wishes))).rejects.toMatchObject({
      status: 412,
    })
    await expect(change(id, {})).rejects.toThrow(/Nothing of it is changed/)
    const strange = { ...wishes, lines: [{ ...wishes.lines[0], lineId: crypto.randomUUID() }] } as typeof wishes
    const { version: now } = await order(id)
    await expect(rekko.as(LEONIE, (ctx) => changeOrder(ctx, id, now, strange))).rejects.toMatchObject({ status: 404 })
    expect((await view(id)).revisions).toHaveLength(2)
    const tray = await lay([await approvedLine('20')])
    await expect(rekko.as(LEONIE, (ctx) => changeOrder(ctx, tray, 1, wishes))).rejects.toThrow(/not issued yet/)
  })
  test('is looked at before: what it would come to and what goes back; nothing is written', async () => {
    const { id, requestId } = await issued()
    const check = async (wish: Wish, rest: Rest = 'returns') => {
      const wishes = await asked(id, wish, rest)
      return rekko.as(LEONIE, (ctx) => checkChange(ctx, id, wishes))
    }
    const cancelled = await check({ quantity: '0' }, 'ends')
    expect(cancelled).toMatchObject({ isCancellation: true, refusals: [], net: { amount: '0.00' } })
    expect(cancelled.consequences.join(' ')).toMatch(/on its way to Harbour Waste.*10 .* are not ordered again/)
    expect(await check({ unitPrice: '20' })).toMatchObject({ needsDecision: true, net: { amount: '200.00' } })
    expect((await check({ quantity: '11' })).needsDecision).toBe(false)
    expect([await quantities(requestId), (await order(id)).revision]).toEqual([['ordered', '10', '0'], 0])
  })
})

describe('a change beyond what was approved', () => {
  test('is refused, then decided on, and made by itself when nobody can take the decision back', async () => {
    const { id, requestId } = await issued()
    await expect(change(id, { unitPrice: '20' })).rejects.toMatchObject({ status: 409, type: 'needs-decision' })
    expect(await change(id, { unitPrice: '20' }, { asks: true })).toMatchObject({
      revision: null,
      state: 'in approval',
    })
    // Until then it stands as it was sent.
    expect([(await order(id)).state, (await money(id, requestId)).committed]).toEqual(['issued', 125])
    const { id: changeId } = await underWay(id)
    const [decider] = await rekko.as(LEONIE, (ctx) => listOpenActors(ctx.tx, changeId))
    const by = decider?.name ?? expect.fail('somebody decides')
    expect(await rekko.as(by, (ctx) => listSlips(ctx.tx, ctx.actor.id))).toContainEqual(
      expect.objectContaining({ id: changeId, document: 'order', title: expect.stringMatching(/^change of P-/) }),
    )
    const seen = await rekko.as(by, (ctx) => readDecision(ctx, changeId))
    expect(seen).toMatchObject({ document: 'order', orderId: id, mine: true, net: { amount: '200.00' } })
    expect(seen.document === 'order' && seen.change?.differences).toEqual([
      expect.stringMatching(/at 20.00 instead of 12.50/),
    ])
    expect(seen.budget.map((b) => b.effect.amount)).toEqual(['75.00'])
    const { decisionId } = await move(by, changeId, 'approve')
    // Taken back and given again: the first decision makes nothing.
    await rekko.as(by, (ctx) => takeBack(ctx, ORDER_CHANGE, changeId, decisionId))
    await putChangeInForce(rekko.db, { changeId, round: 1, decisionId }, moment())
    expect((await order(id)).revision).toBe(0)
    const second = await move(by, changeId, 'approve')
    await putChangeInForce(rekko.db, { changeId, round: 1, decisionId: second.decisionId }, moment())
    await putChangeInForce(rekko.db, { changeId, round: 1, decisionId: second.decisionId }, moment())
    expect([(await order(id)).revision, (await money(id, requestId)).committed]).toEqual([1, 200])
    expect(await told(LEONIE)).toContainEqual(expect.stringMatching(/^Revision 1 of P-/))
    // What was decided holds from now on: within the tolerance of it nobody is asked.
    expect(await change(id, { unitPrice: '20.5' })).toMatchObject({ revision: 2 })
    await expect(change(id, { unitPrice: '21.5' })).rejects.toMatchObject({ type: 'needs-decision' })
    expect(await broken()).toEqual([])
  })
  test('bars others while it waits, comes back with a reason, is written anew, and may be thrown away', async () => {
    const { id } = await issued()
    await change(id, { unitPrice: '20' }, { asks: true })
    await expect(change(id, { quantity: '9' })).rejects.toThrow(/Another change of this order waits/)
    const { id: changeId } = await underWay(id)
    const [decider] = await rekko.as(LEONIE, (ctx) => listOpenActors(ctx.tx, changeId))
    await move(decider?.name ?? '', changeId, 'sendBack', 'ask for 18')
    expect((await view(id)).change).toMatchObject({ state: 'draft', said: [{ text: 'ask for 18' }] })
    expect(await change(id, { unitPrice: '18' }, { asks: true })).toMatchObject({ state: 'in approval' })
    expect((await underWay(id)).id).toBe(changeId)
    await rekko.as(LEONIE, (ctx) => throwChangeAway(ctx, changeId))
    expect(await rekko.as(LEONIE, (ctx) => listOpenActors(ctx.tx, changeId))).toEqual([])
    await expect(rekko.as(LEONIE, (ctx) => throwChangeAway(ctx, changeId))).rejects.toThrow(/thrown away/)
    expect([(await order(id)).state, (await view(id)).change]).toEqual(['issued', null])
    expect(await change(id, { quantity: '9' })).toMatchObject({ revision: 1 })
  })
  test('that became impossible by the time it is approved stays, and its buyer hears why', async () => {
    const { id, requestId } = await issued()
    await change(id, { quantity: '4' })
    await change(id, { quantity: '10', unitPrice: '20' }, { asks: true })
    const { id: changeId } = await underWay(id)
    // Meanwhile the rest is ordered elsewhere.
    await issue(await lay([(await request(requestId)).lines[0]?.id ?? '']))
    const [decider] = await rekko.as(LEONIE, (ctx) => listOpenActors(ctx.tx, changeId))
    const { decisionId } = await move(decider?.name ?? '', changeId, 'approve')
    await putChangeInForce(rekko.db, { changeId, round: 1, decisionId }, moment())
    expect([(await order(id)).revision, (await underWay(id)).state]).toEqual([1, 'approved'])
    expect(await told(LEONIE)).toContainEqual(expect.stringMatching(/could not be made: .*no more was asked for/))
    await expect(rekko.as(LEONIE, (ctx) => makeApproved(ctx, changeId))).rejects.toThrow(/no more was asked for/)
    await rekko.as(LEONIE, (ctx) => throwChangeAway(ctx, changeId))
    expect(await broken()).toEqual([])
  })
  test('goes with the order to another buyer, who never decides on it', async () => {
    const { id } = await issued()
    await change(id, { unitPrice: '20' }, { asks: true })
    const { id: changeId } = await underWay(id)
    const harriet = await rekko.as(HARRIET, (ctx) => findActor(ctx.tx, personId(HARRIET), ctx.now))
    await rekko.as(HARRIET, async (ctx) => giveOrders(ctx, personId(LEONIE), harriet ?? expect.fail(), 'all'))
    expect((await underWay(id)).ownerId).toBe(personId(HARRIET))
    const open = await rekko.as(HARRIET, (ctx) => listOpenActors(ctx.tx, changeId))
    expect(open.map((p) => p.name)).not.toContain(HARRIET)
    await rekko.as(HARRIET, (ctx) => throwChangeAway(ctx, changeId))
  })
})

// Money equals documents under any sequence of changes, seeded: what is committed is what stands on the order, what is
// reserved is what is open of the request, and no quantity is lost.
test('whatever is changed after whatever was, ledger, order and request agree', async () => {
  let seed = 20261128
  const next = (below: number) => {
    seed = (seed * 1103515245 + 12345) % 2147483648
    return Math.floor((seed / 2147483648) * below)
  }
  const { id, requestId } = await issued('7.77', '12')
  let done = 0
  for (let step = 0; step < 30; step += 1) {
    const wish = { quantity: String(1 + next(13)), unitPrice: (7 + next(80) / 100).toFixed(2) }
    const made = await change(id, wish, { rest: next(4) === 0 ? 'ends' : 'returns' }).catch((e: unknown) => e)
    if (made instanceof Error) continue
    done += 1
    const now = await request(requestId)
    const [line] = now.lines
    const open = Number(line?.quantity) - Number(line?.ordered) - Number(line?.cancelled)
    const at = await order(id)
    expect(await money(id, requestId)).toEqual({
      committed: Number(at.net),
      reserved: Math.round(open * 777) / 100,
    })
    expect((await standing(id))[0]?.sources[0]?.quantity).toBe(line?.ordered)
  }
  expect(done).toBeGreaterThan(5)
  expect(await broken()).toEqual([])
})

test('orders are found by number, supplier and buyer, by what became of them, and kept as a file', async () => {
  const { id } = await issued()
  const { number } = await order(id)
  const list = (asked: Partial<OrdersAsked>, by: string = LEONIE) =>
    rekko.as(by, (ctx) => listOrders(ctx, { whose: 'all', state: 'any', words: '', limit: 100, ...asked }))
  const found = async (asked: Partial<OrdersAsked>, by?: string) => (await list(asked, by)).orders.map((o) => o.id)
  expect(await found({ words: number ?? '' })).toEqual([id])
  expect(await found({ words: 'harbour farrow' })).toContain(id)
  expect(await found({ words: 'nobody-of-that-name' })).toEqual([])
  expect(await found({ whose: 'own' }, HARRIET)).not.toContain(id)
  expect(await found({ from: '2001-01-01', until: '2001-12-31' })).toEqual([])
  // By a request that it serves, as far as one sees that.
  const [request] = (await rekko.as(LEONIE, (ctx) => readOrder(ctx, id))).lines[0]?.sources ?? []
  expect(await found({ words: request?.number ?? '' })).toContain(id)
  expect(await found({ words: 'R-99-1' })).toEqual([])
  // By what stands on it, whoever asked, and the job it is for.
  expect(await found({ words: 'thing of our own' })).toContain(id)
  expect(await found({ words: 'owen marsh' })).toContain(id)
  expect(await found({ words: 'own marsh' })).not.toContain(id)
  await rekko.arrange("insert into job (id, number, name) values (gen_random_uuid(), 'J-777', 'The long wall')")
  await rekko.arrange(`update requisition_line set job_id = (select id from job where number = 'J-777')
    where id in (select requisition_line_id from order_line_source join order_line l on l.id = order_line_id
      where l.order_id = '${id}')`)
  expect(await found({ words: 'J-777' })).toEqual([id])
  // Needed today it is due; the day after it is overdue, as long as it stands.
  const needed = async (on: string) => {
    await rekko.arrange(`update order_line set need_by = '${on}' where order_id = '${id}'`)
    return Promise.all((['overdue', 'due soon'] as const).map(async (state) => (await found({ state })).includes(id)))
  }
  expect([await needed(addDays(TODAY, -1)), await needed(TODAY), await needed(addDays(TODAY, 7))]).toEqual([
    [true, false],
    [false, true],
    [false, true],
  ])
  expect([await needed(addDays(TODAY, 8)), await needed('2001-01-01')]).toEqual([
    [false, false],
    [true, false],
  ])
  await change(id, { unitPrice: '20' }, { asks: true })
  expect(await found({ state: 'changing' })).toContain(id)
  await rekko.as(LEONIE, async (ctx) => throwChangeAway(ctx, (await underWay(id)).id))
  await change(id, { quantity: '0' })
  expect([
    await found({ state: 'cancelled' }),
    await found({ state: 'issued' }),
    await found({ state: 'changing' }),
    await found({ state: 'overdue' }),
  ]).toEqual([
    expect.arrayContaining([id]),
    expect.not.arrayContaining([id]),
    expect.not.arrayContaining([id]),
    expect.not.arrayContaining([id]),
  ])
  const [head] = (await list({ words: number ?? '' })).orders
  expect(head).toMatchObject({ state: 'cancelled', revision: 1, needBy: null, isChanging: false, net: '0.00' })
  const asked = { whose: 'all', state: 'any', words: number ?? '', as: 'csv' } as const
  const file = await rekko.as(LEONIE, (ctx) => exportOrders(ctx, asked))
  expect(file.bytes.toString()).toMatch(new RegExp(`${number ?? ''},Harbour Waste,Leonie Farrow,cancelled,`))
})

test('what holds is sent once more, to the address of now; not while it is made or on its way', async () => {
  const { id } = await issued()
  const resend = (by: string = LEONIE) => rekko.as(by, (ctx) => resendOrder(ctx, id))
  await expect(resend()).rejects.toThrow(/PDF is being made/)
  await fileOrder(rekko.db, id, 0, moment())
  await expect(resend()).rejects.toThrow(/on its way already/)
  await rekko.arrange(`update order_sending set outcome = 'sent', sent_at = laid_at where order_id = '${id}'`)
  await expect(resend(OWEN)).rejects.toMatchObject({ status: 403 })
  expect(await resend()).toEqual({ address: expect.stringMatching(/@/) })
  await expect(resend()).rejects.toThrow(/on its way already/)
  const [revision, ...others] = (await view(id)).revisions
  expect([revision?.sendings, revision?.isWaiting, others]).toEqual([2, true, []])
  // Its request names the order once, however often it was sent.
  const requestId = (await standing(id))[0]?.sources[0]?.requisitionId ?? ''
  const linked = await rekko.as(OWEN, (ctx) => listLinkedOrders(ctx.tx, requestId))
  expect(linked.map((o) => o.id)).toEqual([id])
})
