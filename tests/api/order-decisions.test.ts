import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { askQuestion } from '../../server/approval/ask-question'
import { answerQuestion } from '../../server/approval/answer-question'
import { decide, type DecideMove } from '../../server/approval/decide'
import { handSeat } from '../../server/approval/hand-seat'
import { findRoute, listDecisions, listOpenActors } from '../../server/approval/reads'
import { takeBack } from '../../server/approval/take-back'
import { listDecided } from '../../server/decide/decided-reads'
import { readOrderDecision } from '../../server/decide/read-order-decision'
import { readWaiting } from '../../server/decide/read-waiting'
import { listSlips } from '../../server/decide/reads'
import { checkIntegrity } from '../../server/look-back/check-integrity'
import { askForDecision } from '../../server/order/ask-for-decision'
import { giveOrders } from '../../server/order/give-order'
import { Problem } from '../../server/http/problem'
import { issueApproved } from '../../server/order/issue-approved'
import { ORDER } from '../../server/order/kind'
import { agreePrice, layOnTray, takeOffTray } from '../../server/order/lay-tray'
import { readOrder } from '../../server/order/read-order'
import { readDesk } from '../../server/order/read-desk'
import { findOrder } from '../../server/order/reads'
import { takeOrderBack } from '../../server/order/take-order-back'
import { findActor } from '../../server/people/actor-reads'
import { ordering } from '../setup/ordering'
import { moment, personId } from '../setup/rekko'
import { openUseCases, type UseCases } from '../setup/use-cases'

// Leonie Farrow orders up to 3,000; her manager Harriet Voss up to 25,000; hers, Marguerite Oduya, and Aldous Penhale
// above her have no such limit; Marguerite decides in the end, after him. Owen Marsh asks; Ines Adeyemi and Tomas
// Brandt approve what he asks for.
const [LEONIE, HARRIET, ALDOUS] = ['Leonie Farrow', 'Harriet Voss', 'Aldous Penhale'] as const
let rekko: UseCases
beforeAll(async () => {
  rekko = await openUseCases()
  await rekko.arrange('update budget_balance set budgeted = budgeted + 1000000')
})
afterAll(() => rekko.stop())

const { approvedLine, lay, issue } = ordering(() => rekko)
const tray = async (price: string) => lay([await approvedLine(price)])
const order = async (id: string) =>
  (await rekko.as(LEONIE, (ctx) => findOrder(ctx.tx, id))) ?? expect.fail('it is there')
const send = async (id: string, issuesItself = false, buyer: string = LEONIE) => {
  const { version } = await order(id)
  return rekko.as(buyer, (ctx) => askForDecision(ctx, id, version, issuesItself))
}
const move = async (by: string, id: string, what: DecideMove = 'approve', comment = 'because') => {
  const { version } = await order(id)
  return rekko.as(by, (ctx) => decide(ctx, ORDER, id, version, what, comment))
}
const withdraw = async (id: string) => {
  const { version } = await order(id)
  return rekko.as(LEONIE, (ctx) => takeOrderBack(ctx, id, version))
}
const asked = async (id: string) => (await rekko.as(LEONIE, (ctx) => listOpenActors(ctx.tx, id))).map((p) => p.name)
const onDesk = async (id: string) => {
  const desk = await rekko.as(LEONIE, (ctx) => readDesk(ctx, 200))
  return desk.trays.find((t) => t.id === id) ?? expect.fail('it lies on the Desk')
}
/** What of all that is kept does not agree. */
const broken = async () => (await rekko.as('Signe Aalto', (ctx) => checkIntegrity(ctx, null))).broken
const decision = (by: string, id: string) => rekko.as(by, (ctx) => readOrderDecision(ctx, id))

describe('an order above its buyer’s limit', () => {
  test('goes up their managers by what each may order, is approved, and then issued', async () => {
    const id = await tray('4000')
    expect(await onDesk(id)).toMatchObject({ state: 'draft', mayIssue: false, maySend: true })
    await expect(issue(id)).rejects.toThrow(/ordering limit/)
    expect(await send(id)).toMatchObject({ state: 'in approval' })
    expect([await asked(id), (await onDesk(id)).waits]).toEqual([[HARRIET], [HARRIET]])
    const seen = await decision(HARRIET, id)
    expect(seen).toMatchObject({ document: 'order', mine: true, number: null, afterApproval: { state: 'approved' } })
    expect(seen.why).toEqual(['Leonie Farrow may order up to EUR 3,000.00 alone.'])
    expect(seen.lines.map((l) => [l.net.amount, l.approved?.amount])).toEqual([['4000.00', '4000.00']])
    // Its own reservation is not counted twice.
    expect(seen.budget.map((b) => [b.effect.amount, Number(b.before.amount) - Number(b.after.amount)])).toEqual([
      ['4000.00', 4000],
    ])
    // While it waits it is neither issued nor changed.
    await expect(issue(id)).rejects.toThrow(/with whoever decides/)
    await expect(rekko.as(LEONIE, (ctx) => takeOffTray(ctx, id, null))).rejects.toThrow(/with whoever decides/)
    expect((await move(HARRIET, id)).state).toBe('approved')
    expect(await onDesk(id)).toMatchObject({ state: 'approved', mayIssue: true, waits: [] })
    expect((await issue(id)).number).toMatch(/^P-/)
    expect(await decision(HARRIET, id)).toMatchObject({ state: 'issued', mine: false })
    expect(await broken()).toEqual([])
  })
  test('whoever may issue it alone has nobody to ask; with nothing on it but that, it is not sent', async () => {
    const id = await tray('2999')
    await expect(send(id)).rejects.toThrow(/may issue this order yourself/)
    const other = await tray('4000')
    await expect(send(other, false, HARRIET)).rejects.toThrow(/Leonie Farrow’s/)
  })
  test('sent back it is a tray again that says why; changed and sent again it begins anew', async () => {
    const id = await tray('4000')
    await send(id)
    await move(HARRIET, id, 'sendBack', 'Ask for a lower price.')
    expect(await onDesk(id)).toMatchObject({
      state: 'draft',
      maySend: true,
      said: [{ by: HARRIET, text: 'Ask for a lower price.' }],
    })
    const more = await approvedLine('300')
    await rekko.as(LEONIE, (ctx) =>
      layOnTray(ctx, { orderId: id, supplierId: null, parts: [{ lineId: more, quantity: null }] }),
    )
    // Somebody acted on it: the decision stays.
    const [back] = await rekko.as(HARRIET, (ctx) => listDecisions(ctx.tx, id))
    await expect(rekko.as(HARRIET, (ctx) => takeBack(ctx, ORDER, id, back?.id ?? ''))).rejects.toThrow(/acted on it/)
    await send(id)
    expect((await rekko.as(LEONIE, (ctx) => findRoute(ctx.tx, id)))?.round).toBe(2)
    expect((await move(HARRIET, id)).state).toBe('approved')
    expect((await issue(id)).number).toMatch(/^P-/)
  })
  test('it is not rejected: what it is for was approved', async () => {
    const id = await tray('4000')
    await send(id)
    await expect(move(HARRIET, id, 'reject')).rejects.toThrow(/approved or sent back/)
    expect((await order(id)).state).toBe('in approval')
  })
  test('a decision is taken back, and what waits goes back to its buyer, as often as they like', async () => {
    const id = await tray('4000')
    await send(id)
    const { decisionId } = await move(HARRIET, id)
    await rekko.as(HARRIET, (ctx) => takeBack(ctx, ORDER, id, decisionId))
    expect([(await order(id)).state, await asked(id)]).toEqual(['in approval', [HARRIET]])
    await withdraw(id)
    expect([(await order(id)).state, await asked(id)]).toEqual(['draft', []])
    await send(id)
    await move(HARRIET, id)
    // Approved, and taken back to be changed: what was decided counts no more.
    await withdraw(id)
    await expect(issue(id)).rejects.toThrow(/ordering limit/)
    await send(id)
    await move(HARRIET, id)
    await issue(id)
    await expect(withdraw(id)).rejects.toThrow(/issued/)
    expect(await broken()).toEqual([])
  })
  test('taken apart after somebody decided, it stays as cancelled, and its lines are to be had again', async () => {
    const line = await approvedLine('4000')
    const id = await lay([line])
    await send(id)
    await move(HARRIET, id, 'sendBack')
    await rekko.as(LEONIE, (ctx) => takeOffTray(ctx, id, null))
    expect((await order(id)).state).toBe('cancelled')
    expect((await rekko.as(LEONIE, (ctx) => readDesk(ctx, 200))).trays.some((t) => t.id === id)).toBe(false)
    expect(await lay([line])).not.toBe(id)
  })
})

describe('who decides', () => {
  test('nobody on an order for their own need alone; beside others’ needs they may', async () => {
    const own = await approvedLine('4000', HARRIET)
    const alone = await lay([own])
    await send(alone)
    expect(await asked(alone)).toEqual([ALDOUS])
    await withdraw(alone)
    await rekko.as(LEONIE, (ctx) => takeOffTray(ctx, alone, null))
    const together = await tray('3500')
    expect(
      (await rekko.as(HARRIET, (ctx) => listSlips(ctx.tx, personId(HARRIET)))).some((s) => s.id === together),
    ).toBe(false)
    await send(together)
    expect(await asked(together)).toEqual([HARRIET])
  })
  test('above every limit: all levels, and then whoever decides in the end', async () => {
    const id = await tray('26000')
    await send(id)
    expect(await asked(id)).toEqual([HARRIET])
    expect((await move(HARRIET, id)).state).toBe('in approval')
    expect(await asked(id)).toEqual([ALDOUS])
    expect([(await move(ALDOUS, id)).state, await asked(id)]).toEqual(['in approval', ['Marguerite Oduya']])
    expect((await move('Marguerite Oduya', id)).state).toBe('approved')
    expect((await issue(id)).number).toMatch(/^P-/)
  })
  test('passed on to whoever may order less, it goes on above whoever passed it on', async () => {
    const id = await tray('4000')
    await send(id)
    const wish = { how: 'on', toId: personId('Kaveh Dorani'), comment: '' } as const
    await rekko.as(HARRIET, (ctx) => handSeat(ctx, ORDER, id, wish))
    expect(await asked(id)).toEqual(['Kaveh Dorani'])
    expect((await move('Kaveh Dorani', id)).state).toBe('in approval')
    expect(await asked(id)).toEqual([ALDOUS])
  })
  test('asked and answered as with requests; found in what waits and in what was decided', async () => {
    const id = await tray('4000')
    await send(id)
    await rekko.as(HARRIET, (ctx) => askQuestion(ctx, ORDER, id, 'Why not two orders?', null))
    expect((await onDesk(id)).said).toMatchObject([{ by: HARRIET, text: 'Why not two orders?', asks: true }])
    await rekko.as(LEONIE, (ctx) => answerQuestion(ctx, ORDER, id, 'The freight.'))
    expect((await onDesk(id)).said).toEqual([])
    await expect(decision('Owen Marsh', id)).rejects.toThrow(/does not exist/)
    const slips = await rekko.as(HARRIET, (ctx) => listSlips(ctx.tx, personId(HARRIET)))
    expect(slips.find((s) => s.id === id)).toMatchObject({
      document: 'order',
      owner: LEONIE,
      title: 'order to Harbour Waste',
      amount: '4000.00',
    })
    const { steps } = await rekko.as('Signe Aalto', (ctx) => readWaiting(ctx, ''))
    expect(steps.filter((s) => s.name === HARRIET && s.number === 'an order').length).toBeGreaterThan(0)
    await move(HARRIET, id)
    const query = { whose: 'own', outcome: null, words: 'harbour', from: null, until: null, limit: 5 } as const
    const { rows } = await rekko.as(HARRIET, (ctx) => listDecided(ctx.tx, ctx.actor, query))
    expect(rows[0]).toMatchObject({ documentId: id, document: 'order', number: '', state: 'approved' })
  })
  test('its page leads its buyer to the Desk, others to Decide; whoever is asked besides may answer', async () => {
    const id = await tray('4000')
    await send(id)
    const kindFor = (name: string) =>
      rekko
        .as(name, (ctx) => readOrder(ctx, id))
        .then(
          () => 'issued',
          (e: unknown) => (e instanceof Problem ? e.type : String(e)),
        )
    expect([await kindFor(LEONIE), await kindFor(HARRIET)]).toEqual(['on-the-desk', 'not-issued'])
    expect(await kindFor('Kaveh Dorani')).toBe('not-found')
    await rekko.as(HARRIET, (ctx) => askQuestion(ctx, ORDER, id, 'Do you need it?', personId('Kaveh Dorani')))
    expect(await kindFor('Kaveh Dorani')).toBe('not-issued')
    expect((await decision('Kaveh Dorani', id)).mine).toBe(false)
    await expect(rekko.as('Owen Marsh', (ctx) => answerQuestion(ctx, ORDER, id, 'No.'))).rejects.toThrow(/exist/)
    await rekko.as('Kaveh Dorani', (ctx) => answerQuestion(ctx, ORDER, id, 'Yes.'))
    expect((await decision(HARRIET, id)).remarks.map((r) => r.text)).toEqual(['Do you need it?', 'Yes.'])
  })
  test('given to another buyer it is worked out anew; nobody gets what they decided on themselves', async () => {
    const [waits, decided] = [await tray('4000'), await tray('4100')]
    await send(waits)
    await send(decided)
    await move(HARRIET, decided)
    await rekko.as(HARRIET, async (ctx) => {
      const to = (await findActor(ctx.tx, personId(HARRIET), ctx.now)) ?? expect.fail('she is here')
      await giveOrders(ctx, personId(LEONIE), to, 'all')
    })
    expect([(await order(waits)).ownerId, await asked(waits)]).toEqual([personId(HARRIET), [ALDOUS]])
    expect((await order(decided)).ownerId).toBe(personId(LEONIE))
    expect((await issue(decided)).number).toMatch(/^P-/)
  })
})

describe('an order above what was approved', () => {
  async function dearer(price: string): Promise<string> {
    const line = await approvedLine('260')
    const id = await lay([line])
    await rekko.as(LEONIE, (ctx) => agreePrice(ctx, id, line, price))
    return id
  }
  test('is decided on although its buyer’s limit covers it, and issued at the price that was decided', async () => {
    const id = await dearer('400')
    expect((await onDesk(id)).maySend).toBe(true)
    await send(id)
    expect((await decision(HARRIET, id)).why).toEqual([
      '“Something of our own” comes to EUR 400.00; EUR 260.00 were approved.',
    ])
    await move(HARRIET, id)
    expect((await issue(id)).number).toMatch(/^P-/)
    expect(await broken()).toEqual([])
  })
  test('when it is dearer by the time it is issued than what was decided, it is refused, and asked again', async () => {
    const id = await dearer('400')
    await send(id)
    await move(HARRIET, id)
    await rekko.arrange('update tray_part set unit_price = 900 where order_id = $1', [id])
    await expect(issue(id)).rejects.toThrow(/EUR 900.00, more than the EUR 400.00/)
    await rekko.arrange('update tray_part set unit_price = 390 where order_id = $1', [id])
    expect((await issue(id)).number).toMatch(/^P-/)
  })
})

describe('issued by itself once it is approved', () => {
  test('once, as its buyer; not where the decision was taken back, or it was sent anew', async () => {
    const id = await tray('4000')
    await send(id, true)
    const first = await move(HARRIET, id)
    await rekko.as(HARRIET, (ctx) => takeBack(ctx, ORDER, id, first.decisionId))
    const second = await move(HARRIET, id)
    const by = (decisionId: string, round = 1) => issueApproved(rekko.db, { orderId: id, round, decisionId }, moment())
    await by(first.decisionId)
    await by(second.decisionId, 2)
    expect((await order(id)).state).toBe('approved')
    await by(second.decisionId)
    const issued = await order(id)
    expect([issued.state, issued.number]).toEqual(['issued', expect.stringMatching(/^P-/)])
    await by(second.decisionId)
    expect((await order(id)).version).toBe(issued.version)
  })
  test('where a budget refuses by then it stays, and the buyer hears why', async () => {
    const id = await tray('4000')
    await send(id, true)
    const { decisionId } = await move(HARRIET, id)
    await rekko.arrange(`update supplier set standing = 'on hold' where name = 'Harbour Waste'`)
    await issueApproved(rekko.db, { orderId: id, round: 1, decisionId }, moment())
    await rekko.arrange(`update supplier set standing = 'active' where name = 'Harbour Waste'`)
    expect((await order(id)).state).toBe('approved')
    expect((await issue(id)).number).toMatch(/^P-/)
  })
})

test('two at the same moment: one wins, the other is told, and what is kept agrees', async () => {
  const outcomes = await Promise.all(
    [0, 1, 2, 3].map(async () => {
      const id = await tray('4000')
      await send(id)
      const both = await Promise.allSettled([move(HARRIET, id), withdraw(id)])
      return both.filter((r) => r.status === 'fulfilled').length
    }),
  )
  expect(outcomes).toEqual([1, 1, 1, 1])
  const id = await tray('4000')
  const sent = await Promise.allSettled([send(id), send(id)])
  expect(sent.filter((r) => r.status === 'fulfilled')).toHaveLength(1)
  await move(HARRIET, id)
  const issued = await Promise.allSettled([issue(id), issue(id), withdraw(id)])
  expect(issued.filter((r) => r.status === 'fulfilled')).toHaveLength(1)
  expect(await broken()).toEqual([])
})

// Last: it changes the policy that holds.
test('where the policy asks nobody about orders, one is approved as it is sent, and issues itself', async () => {
  await rekko.arrange(`delete from approval_step where rule_id in (
    select id from approval_rule where documents = 'orders')`)
  const id = await tray('4000')
  expect(await send(id, true)).toMatchObject({ state: 'approved' })
  await issueApproved(rekko.db, { orderId: id, round: 1, decisionId: null }, moment())
  expect((await order(id)).state).toBe('issued')
})
