import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import type { LineWish } from '#core/order/change'
import { environment } from '../../server/environment'
import { agreeToAnswer, declineAnswer } from '../../server/order/agree-to-answer'
import { answerKeyOf } from '../../server/order/answer-key'
import { answerByLink, typeAnswerIn, type AnswerGiven } from '../../server/order/answer-order'
import { changeOrder } from '../../server/order/change-order'
import { throwChangeAway } from '../../server/order/end-change'
import { findUnderWay, listStanding } from '../../server/order/change-reads'
import { listOrders } from '../../server/order/list-orders'
import { readAskedOrder } from '../../server/order/read-asked-order'
import { readOrder } from '../../server/order/read-order'
import { findOrder } from '../../server/order/reads'
import { takeResponse } from '../../server/order/take-response'
import { closeWorkshop } from '../../server/files/workshop'
import { remindSuppliers } from '../../server/order/remind-suppliers'
import { findRequisition } from '../../server/requisition/reads'
import { readNotices } from '../../server/session/read-notices'
import { checkIntegrity } from '../../server/look-back/check-integrity'
import { ordering } from '../setup/ordering'
import { moment } from '../setup/rekko'
import { openUseCases, type UseCases } from '../setup/use-cases'

const [LEONIE, OWEN] = ['Leonie Farrow', 'Owen Marsh'] as const
let rekko: UseCases
beforeAll(async () => {
  rekko = await openUseCases()
  await rekko.arrange('update budget_balance set budgeted = budgeted + 1000000')
})
afterAll(async () => {
  closeWorkshop()
  await rekko.stop()
})
const { approvedLine, lay, issue } = ordering(() => rekko)

const order = async (id: string) =>
  (await rekko.as(LEONIE, (ctx) => findOrder(ctx.tx, id))) ?? expect.fail('it is there')
const view = (id: string) => rekko.as(LEONIE, (ctx) => readOrder(ctx, id))
const keyOf = (id: string) => answerKeyOf(environment().sessionSecret, id)
const asked = (id: string) => rekko.as(LEONIE, (ctx) => readAskedOrder(ctx, keyOf(id)))
async function issued(): Promise<string> {
  const id = await lay([await approvedLine('12.50', OWEN, '10')])
  await issue(id)
  return id
}
/** The only line of an order, with something of it otherwise. */
async function wish(id: string, more: Partial<LineWish>): Promise<LineWish[]> {
  const [l] = await rekko.as(LEONIE, (ctx) => listStanding(ctx.tx, id))
  if (l === undefined) throw new Error('no line')
  return [{ lineId: l.id, quantity: l.quantity, unitPrice: l.unitPrice, needBy: l.needBy, ...more }]
}
const answer = async (id: string, more: Partial<LineWish> | null, given: Partial<AnswerGiven> = {}) => {
  const lines = more === null ? [] : await wish(id, more)
  const { revision } = await order(id)
  return rekko.as(LEONIE, (ctx) => answerByLink(ctx, keyOf(id), { revision, by: 'Jo', note: '', lines, ...given }))
}
const waiting = async (id: string) =>
  (await view(id)).answers.find((a) => a.outcome === 'waits') ?? expect.fail('an answer waits')
const agree = async (id: string, more: { asks?: boolean; rest?: 'returns' | 'ends' } = {}) => {
  const [{ version }, { id: answerId }] = [await order(id), await waiting(id)]
  return rekko.as(LEONIE, (ctx) => agreeToAnswer(ctx, id, version, { answerId, rest: 'returns', asks: false, ...more }))
}
const outcomes = async (id: string) => (await view(id)).answers.map((a) => a.outcome)
const told = async (name: string) => (await rekko.as(name, (ctx) => readNotices(ctx))).notices.map((n) => n.sentence)
const mails = async (id: string) => {
  const { rows } = await rekko.db.execute<{ told: { code: string }; path: string }>(
    `select told, path from outgoing_mail where about_id = '${id}' and person_id is null order by created_at`,
  )
  return rows.map((r) => r.told.code)
}

describe('an answer by the link in the mail', () => {
  test('reading it answers nothing; as ordered it acknowledges the order, with what was promised', async () => {
    const id = await issued()
    const before = await asked(id)
    expect([before.state, before.answer, before.lines.length]).toEqual(['open', null, 1])
    expect((await order(id)).state).toBe('issued')
    expect(await answer(id, { needBy: moment().toISOString().slice(0, 10) })).toEqual({ outcome: 'holds' })
    expect((await order(id)).state).toBe('acknowledged')
    const after = await view(id)
    expect(after.lines.map((l) => l.promisedOn)).toEqual([moment().toISOString().slice(0, 10)])
    expect(after.revisions).toHaveLength(1)
    expect((await asked(id)).state).toBe('holds')
    await expect(answer(id, null)).rejects.toMatchObject({ type: 'answer-holds' })
  })

  test('shows the supplier nothing that is said within', async () => {
    const id = await issued()
    const shown = JSON.stringify(await asked(id))
    const request = (await view(id)).lines[0]?.sources[0]
    expect(shown).not.toContain(OWEN)
    expect(shown).not.toContain(request?.number ?? 'R-')
  })

  test('opens nothing when it is cut off, forged, or of an order that is not sent', async () => {
    const id = await issued()
    const open = (key: string) => rekko.as(LEONIE, (ctx) => readAskedOrder(ctx, key))
    await expect(open(keyOf(id).slice(0, -1))).rejects.toMatchObject({ status: 404 })
    await expect(open(`${keyOf(id).slice(0, -4)}0000`)).rejects.toMatchObject({ status: 404 })
    const tray = await lay([await approvedLine('12.50')])
    await expect(open(keyOf(tray))).rejects.toMatchObject({ status: 404 })
  })

  test('otherwise than ordered waits, may be given anew until the buyer took it, and one at a time waits', async () => {
    const id = await issued()
    expect(await answer(id, { quantity: '4' })).toEqual({ outcome: 'waits' })
    expect((await asked(id)).state).toBe('waits')
    expect((await order(id)).state).toBe('issued')
    await answer(id, { quantity: '6' })
    expect(await outcomes(id)).toEqual(['waits', 'replaced'])
    expect(await answer(id, null)).toEqual({ outcome: 'holds' })
    expect(await outcomes(id)).toEqual(['holds', 'replaced', 'replaced'])
    expect((await told(LEONIE)).join(' ')).toMatch(
      /Jo of .* answered .*: .*: 4 .* instead of 10 .* It waits for your yes/,
    )
  })

  test('given twice alike is one answer', async () => {
    const id = await issued()
    await answer(id, { quantity: '4' })
    const before = (await told(LEONIE)).length
    expect(await answer(id, { quantity: '4.000' })).toEqual({ outcome: 'waits' })
    expect([await outcomes(id), (await told(LEONIE)).length]).toEqual([['waits'], before])
  })

  test('given twice at the same moment leaves one that holds', async () => {
    const id = await issued()
    const both = await Promise.allSettled([answer(id, null), answer(id, { quantity: '3' })])
    expect(both.some((b) => b.status === 'fulfilled')).toBe(true)
    const left = (await outcomes(id)).filter((o) => o === 'waits' || o === 'holds')
    expect(left.length).toBe(1)
  })

  test('to an order that was changed or cancelled meanwhile is refused, and says what holds', async () => {
    const id = await issued()
    const { version } = await order(id)
    const less = { shipToId: null, rest: 'returns' as const, reason: 'fewer', note: '', asks: false }
    await rekko.as(LEONIE, async (ctx) =>
      changeOrder(ctx, id, version, { ...less, lines: await wish(id, { quantity: '8' }) }),
    )
    await expect(answer(id, null, { revision: 0 })).rejects.toMatchObject({ type: 'order-revised' })
    expect(await answer(id, null)).toEqual({ outcome: 'holds' })
    const now = (await order(id)).version
    await rekko.as(LEONIE, async (ctx) =>
      changeOrder(ctx, id, now, { ...less, lines: await wish(id, { quantity: '0' }) }),
    )
    await expect(answer(id, null)).rejects.toMatchObject({ type: 'order-state' })
    expect((await asked(id)).state).toBe('over')
  })

  test('with a line of another order, or a day in the past, changes nothing', async () => {
    const [id, other] = [await issued(), await issued()]
    const lines = await wish(other, { quantity: '1' })
    await expect(answer(id, null, { lines })).rejects.toMatchObject({ type: 'unknown-line' })
    await expect(answer(id, { needBy: '2020-01-01' })).rejects.toMatchObject({ type: 'day-is-past' })
    await expect(answer(id, null, { by: '  ' })).rejects.toMatchObject({ status: 422 })
    expect(await outcomes(id)).toEqual([])
  })
})

describe('the buyer', () => {
  test('agrees: a revision says what was answered, the order is acknowledged, the rest waits on the Desk', async () => {
    const id = await issued()
    await answer(id, { quantity: '6', needBy: '2099-01-04' }, { note: 'four are sold' })
    expect((await waiting(id)).differences).toHaveLength(2)
    expect(await agree(id)).toMatchObject({ revision: 1, state: 'in force' })
    const after = await view(id)
    expect([after.state, after.lines[0]?.quantity, after.lines[0]?.needBy, after.lines[0]?.promisedOn]).toEqual([
      ...['acknowledged', '6', '2099-01-04', '2099-01-04'],
    ])
    expect(after.revisions[0]?.reason).toContain('four are sold')
    expect(await outcomes(id)).toEqual(['holds'])
    const requestId = after.lines[0]?.sources[0]?.requisitionId ?? ''
    expect((await rekko.as(OWEN, (ctx) => findRequisition(ctx.tx, requestId)))?.state).toBe('part ordered')
    expect((await told(OWEN)).join(' ')).toContain('4 January 2099')
    // Pressed again, it is over.
    await expect(
      rekko.as(LEONIE, (ctx) =>
        agreeToAnswer(ctx, id, after.version, { answerId: after.answers[0]?.id ?? '', rest: 'returns', asks: false }),
      ),
    ).rejects.toMatchObject({ type: 'answer-is-over' })
  })

  test('agrees to a refusal: the order is cancelled, and the need waits to be ordered again', async () => {
    const id = await issued()
    await answer(id, { quantity: '0' })
    await agree(id)
    expect((await order(id)).state).toBe('cancelled')
    expect(await outcomes(id)).toEqual(['holds'])
    await expect(answer(id, null)).rejects.toMatchObject({ type: 'order-state' })
  })

  test('agrees to a dearer price only once it is decided; thrown away, the answer still waits', async () => {
    const id = await issued()
    await answer(id, { unitPrice: '400' })
    await expect(agree(id)).rejects.toMatchObject({ type: 'needs-decision' })
    expect(await agree(id, { asks: true })).toMatchObject({ state: 'in approval', revision: null })
    expect(await outcomes(id)).toEqual(['waits'])
    const change = await rekko.as(LEONIE, (ctx) => findUnderWay(ctx.tx, id))
    await rekko.as(LEONIE, (ctx) => throwChangeAway(ctx, change?.id ?? ''))
    expect(await outcomes(id)).toEqual(['waits'])
    expect((await order(id)).state).toBe('issued')
  })

  test('says no: the supplier is told why, and answers anew', async () => {
    const id = await issued()
    await answer(id, { quantity: '2' })
    const [{ version }, { id: answerId }] = [await order(id), await waiting(id)]
    const say = (text: string) => rekko.as(LEONIE, (ctx) => declineAnswer(ctx, id, version, { answerId, text }))
    await expect(say(' ')).rejects.toMatchObject({ status: 422 })
    await say('We need all ten')
    await expect(say('We need all ten')).rejects.toMatchObject({ status: 412 })
    expect(await mails(id)).toEqual(['answer-declined'])
    expect(await asked(id)).toMatchObject({ state: 'open', answer: { outcome: 'declined', said: 'We need all ten' } })
    expect(await answer(id, null)).toEqual({ outcome: 'holds' })
  })

  test('changes the order otherwise: what waited is over, and it is to be acknowledged anew', async () => {
    const id = await issued()
    await answer(id, { quantity: '2' })
    const change = async (quantity: string) => {
      const { version } = await order(id)
      const lines = await wish(id, { quantity })
      const how = { lines, shipToId: null, rest: 'returns' as const, reason: 'so', note: '', asks: false }
      await rekko.as(LEONIE, (ctx) => changeOrder(ctx, id, version, how))
    }
    await change('9')
    expect([await outcomes(id), (await order(id)).state]).toEqual([['replaced'], 'issued'])
    await answer(id, null)
    await change('8')
    expect([await outcomes(id), (await order(id)).state]).toEqual([['holds', 'replaced'], 'issued'])
  })

  test('types in what was said by telephone; somebody else’s order is not theirs to type into', async () => {
    const id = await issued()
    const { version, revision } = await order(id)
    const given = { revision, by: 'Jo, by telephone', note: '', lines: [] }
    await expect(rekko.as('Harriet Voss', (ctx) => typeAnswerIn(ctx, id, version, given))).rejects.toMatchObject({
      status: 403,
    })
    expect(await rekko.as(LEONIE, (ctx) => typeAnswerIn(ctx, id, version, given))).toEqual({ outcome: 'holds' })
    expect((await view(id)).answers[0]).toMatchObject({ way: 'buyer', by: 'Jo, by telephone' })
  })

  test('takes in what the supplier’s program wrote, for this order alone', async () => {
    const id = await issued()
    const { version, number } = await order(id)
    const unit = (await view(id)).lines[0]?.unit ?? ''
    const xml = (of: string | null, code: string) =>
      Buffer.from(`<OrderResponse><OrderResponseCode>${code}</OrderResponseCode><OrderReference><ID>${of ?? ''}</ID>
        </OrderReference><OrderLine><LineItem><ID>1</ID><LineStatusCode>3</LineStatusCode>
        <Quantity unitCode="${unit}">7</Quantity></LineItem></OrderLine></OrderResponse>`)
    const take = (bytes: Buffer) => rekko.as(LEONIE, (ctx) => takeResponse(ctx, id, version, bytes))
    await expect(take(xml('P-99-00001', 'CA'))).rejects.toMatchObject({ type: 'other-order' })
    await expect(take(Buffer.from('<Order/>'))).rejects.toMatchObject({ status: 422 })
    expect(await outcomes(id)).toEqual([])
    expect(await take(xml(number, 'RE'))).toEqual({ outcome: 'waits' })
    expect((await waiting(id)).wishes.map((w) => w.quantity)).toEqual(['0'])
  })

  test('asks once more those that did not answer, each once a day, and finds them among the orders', async () => {
    const [silent, said] = [await issued(), await issued()]
    await answer(said, null)
    const listed = async (state: 'unanswered' | 'answered' | 'acknowledged') =>
      (await rekko.as(LEONIE, (ctx) => listOrders(ctx, { whose: 'own', state, words: '', limit: 50 }))).orders.map(
        (o) => o.id,
      )
    expect(await listed('unanswered')).toContain(silent)
    expect(await listed('acknowledged')).toContain(said)
    const remind = (at?: Date) => rekko.as(LEONIE, (ctx) => remindSuppliers(ctx, [silent, said]), at)
    expect(await remind()).toEqual({ reminded: 1 })
    expect(await remind()).toEqual({ reminded: 0 })
    expect(await remind(new Date(moment().getTime() + 86_400_000))).toEqual({ reminded: 1 })
    expect(await mails(silent)).toEqual(['order-unanswered', 'order-unanswered'])
    expect(await rekko.as('Harriet Voss', (ctx) => remindSuppliers(ctx, [silent]))).toEqual({ reminded: 0 })
    await answer(silent, { quantity: '1' })
    expect(await listed('unanswered')).not.toContain(silent)
    expect(await listed('answered')).toContain(silent)
  })
})

test('after all of it the ledger, the orders and the requests agree', async () => {
  expect((await rekko.as('Signe Aalto', (ctx) => checkIntegrity(ctx, null))).broken).toEqual([])
})
