import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { addDays } from '#core/base/day'
import type { OrderAdjustment } from '#core/order/adjustment'
import { readDesk } from '../../server/order/read-desk'
import { answerKeyOf } from '../../server/order/answer-key'
import { environment } from '../../server/environment'
import { checkIntegrity } from '../../server/look-back/check-integrity'
import { readAskedOrder } from '../../server/order/read-asked-order'
import { callOff } from '../../server/order/call-off'
import { changeOrder } from '../../server/order/change-order'
import { listSent, listStanding } from '../../server/order/change-reads'
import { messageOf } from '../../server/order/message-of'
import { readOrder } from '../../server/order/read-order'
import { conditionsOf, findOrder } from '../../server/order/reads'
import { setOrderConditions } from '../../server/order/set-conditions'
import { readTrail } from '../../server/trail/read-trail'
import { sayDifference } from '#shared/words/order-change'
import { waysOf } from '#shared/words/ways'
import { ordering } from '../setup/ordering'
import { TODAY } from '../setup/rekko'
import { openUseCases, type UseCases } from '../setup/use-cases'

// Leonie Farrow orders up to 3,000. Water Systems gets all tax back: a budget feels what stands on the order. By the
// policy an order passes what was approved by 5 %, and by no more than 50.00.
const [LEONIE, OWEN] = ['Leonie Farrow', 'Owen Marsh']
let rekko: UseCases
beforeAll(async () => {
  rekko = await openUseCases()
  await rekko.arrange('update budget_balance set budgeted = budgeted + 1000000')
})
afterAll(() => rekko.stop())
const { approvedLine, lay, issue } = ordering(() => rekko)

const off = (of: OrderAdjustment['of'], value: string, name = 'Spring'): OrderAdjustment => ({
  ...{ kind: 'discount', of, value, name },
})
const on = (of: OrderAdjustment['of'], value: string, name = 'Crate'): OrderAdjustment => ({
  ...{ kind: 'charge', of, value, name },
})
const order = async (id: string) =>
  (await rekko.as(LEONIE, (ctx) => findOrder(ctx.tx, id))) ?? expect.fail('it is there')
const view = (id: string, by = LEONIE) => rekko.as(by, (ctx) => readOrder(ctx, id))
async function say(id: string, adjustments: readonly OrderAdjustment[], more = {}): Promise<void> {
  const kept = await order(id)
  const to = { ...conditionsOf(kept), adjustments, ...more }
  await rekko.as(LEONIE, (ctx) => setOrderConditions(ctx, id, kept.version, to))
}
/** A tray of two requests, of ten and of thirty at 12.50: 500.00. */
const tray = async () => lay([await approvedLine('12.50', OWEN, '10'), await approvedLine('12.50', OWEN, '30')])
const rows = async <T>(statement: string) => (await rekko.db.execute<T & Record<string, unknown>>(statement)).rows
const committed = async (id: string) =>
  (
    await rows<{ sum: string }>(
      `select trim_scale(coalesce(sum(amount), 0))::text as sum from budget_entry
       where document_id = '${id}' and stage = 'committed'`,
    )
  )[0]?.sum
const broken = async () => (await rekko.as('Signe Aalto', (ctx) => checkIntegrity(ctx, null))).broken
async function change(
  id: string,
  quantities: readonly string[],
  unitPrice?: string,
  adjustments: readonly OrderAdjustment[] | null = null,
) {
  const standing = await rekko.as(LEONIE, (ctx) => listStanding(ctx.tx, id))
  const lines = standing.map((l, i) => ({
    ...{ lineId: l.id, quantity: quantities[i] ?? l.quantity, needBy: l.needBy, unitPrice: unitPrice ?? l.unitPrice },
  }))
  const { version } = await order(id)
  const wish = {
    lines,
    shipToId: null,
    adjustments,
    rest: 'returns',
    reason: 'as agreed',
    note: '',
    asks: false,
  } as const
  return rekko.as(LEONIE, (ctx) => changeOrder(ctx, id, version, wish))
}

describe('what is taken off the whole of an order, or put on it', () => {
  test('is in its sums, its money, its papers and each request’s share, and adds up', async () => {
    const id = await tray()
    await say(id, [off('percent', '3.0', ' Early order '), on('amount', '6')])
    const { trays } = await rekko.as(LEONIE, (ctx) => readDesk(ctx, 1))
    const laid = trays.find((t) => t.id === id)
    expect([laid?.goods, laid?.net, laid?.saved].map((m) => m?.amount)).toEqual(['500.00', '491.00', '0.00'])
    expect(laid?.conditions.adjustments).toEqual([off('percent', '3', 'Early order'), on('amount', '6')])
    await issue(id)
    const seen = await view(id)
    expect(seen.adjustments.map((a) => [a.kind, a.name, a.percent, a.base.amount, a.amount.amount])).toEqual([
      ['discount', 'Early order', '3', '500.00', '15.00'],
      ['charge', 'Crate', null, '500.00', '6.00'],
    ])
    expect([seen.goods.amount, seen.net.amount, seen.freight.amount]).toEqual(['500.00', '491.00', '0.00'])
    expect(await committed(id)).toBe('491')
    const [sent] = await rekko.as(LEONIE, (ctx) => listSent(ctx.tx, id))
    const message = messageOf(sent?.snapshot ?? expect.fail('it was sent'))
    expect(message.sums).toMatchObject({ lines: '500.00', allowances: '15.00', charges: '6.00', net: '491.00' })
    // A quarter and three quarters of it.
    const shares = await Promise.all(
      seen.lines
        .flatMap((l) => l.sources)
        .map(async (s) => {
          const trail = await rekko.as(OWEN, (ctx) => readTrail(ctx, s.requisitionId))
          return trail.entries.find((e) => e.key === id)?.amount
        }),
    )
    expect(shares).toEqual(['122.75', '368.25'])
    expect(await broken()).toEqual([])
  })
  test('follows the goods through every change, and leaves nothing when the order is cancelled', async () => {
    const id = await tray()
    await say(id, [off('percent', '10'), off('amount', '5', 'Voucher')])
    await issue(id)
    expect([(await view(id)).net.amount, await committed(id)]).toEqual(['445.00', '445'])
    await change(id, ['10', '10'])
    const lower = await view(id)
    expect([lower.goods.amount, lower.net.amount, await committed(id)]).toEqual(['250.00', '220.00', '220'])
    expect(lower.adjustments.map((a) => a.amount.amount)).toEqual(['25.00', '5.00'])
    await change(id, ['10', '30'])
    expect([(await view(id)).net.amount, await committed(id)]).toEqual(['445.00', '445'])
    await change(id, ['0', '0'])
    const over = await view(id)
    expect([over.state, over.net.amount, over.adjustments, await committed(id)]).toEqual(['cancelled', '0.00', [], '0'])
    expect(await broken()).toEqual([])
  })
  test('is put on, changed and left out again by revisions, which tell it, and may need a decision', async () => {
    const id = await tray()
    await say(id, [off('percent', '3')])
    await issue(id)
    const told = async () => (await rekko.as(LEONIE, (ctx) => listSent(ctx.tx, id))).at(-1)?.snapshot.differences
    await change(id, [], undefined, [off('percent', '5.0', ' Spring '), on('amount', '6')])
    expect([(await view(id)).net.amount, await committed(id)]).toEqual(['481.00', '481'])
    const said = (await told())?.map((d) => sayDifference(d, waysOf('en-GB')))
    expect(said).toEqual(['Spring: −5 % instead of −3 %', 'Crate: 6.00 instead of nothing'])
    // The same again is nothing; a change of the goods alone leaves it, and says nothing of it.
    const same = [off('percent', '5'), on('amount', '6.00')]
    await expect(change(id, [], undefined, same)).rejects.toThrow(/Nothing of it is changed yet/)
    await change(id, ['10', '10'])
    expect([(await view(id)).net.amount, (await told())?.map((d) => d.what)]).toEqual(['243.50', ['quantity']])
    await expect(change(id, [], undefined, [off('percent', '5'), off('amount', '9')])).rejects.toThrow(
      /called “Spring”/,
    )
    await expect(change(id, [], undefined, [on('amount', '400')])).rejects.toThrow(/approved/)
    await change(id, [], undefined, [])
    const bare = await view(id)
    expect([bare.net.amount, bare.adjustments, bare.saidAdjustments]).toEqual(['250.00', [], []])
    expect(await committed(id)).toBe('250')
    expect(await broken()).toEqual([])
  })
  test('takes off no more than all, before it is issued and by a change', async () => {
    const id = await tray()
    await say(id, [off('amount', '500.01')])
    await expect(issue(id)).rejects.toThrow(/500.01 are taken off, and the lines come to 500.00/)
    await say(id, [off('amount', '300')])
    await issue(id)
    await expect(change(id, ['10', '10'])).rejects.toThrow(/300.00 are taken off, and the lines come to 250.00/)
    expect((await view(id)).net.amount).toBe('200.00')
  })
  test('that makes an order dearer than it was approved is decided on; what it takes off makes room', async () => {
    const id = await tray()
    await say(id, [on('amount', '25.01')])
    await expect(issue(id)).rejects.toThrow(/approved/)
    await say(id, [on('amount', '25.01'), off('percent', '2')])
    await issue(id)
    expect((await view(id)).net.amount).toBe('515.01')
    // Dearer by a change, it is held against the same.
    await expect(change(id, [], '13.20')).rejects.toThrow(/approved/)
    await change(id, [], '12.60')
    expect((await view(id)).net.amount).toBe('518.93')
    expect(await broken()).toEqual([])
  })
  test('is refused whole where one of it is wrong, and then nothing is kept', async () => {
    const id = await tray()
    const wrong = [off('percent', '101'), on('amount', '0.001', ' ')]
    await expect(say(id, wrong)).rejects.toThrow(/No more than 100 %.*needs a name.*smaller parts/s)
    expect((await order(id)).adjustments).toEqual([])
    await say(id, [off('percent', '5')])
    const { version } = await order(id)
    await say(id, [off('percent', '5.0')])
    expect((await order(id)).version).toBe(version)
  })
  test('of a blanket order: a percentage is of every call-off too, an amount was agreed once', async () => {
    const id = await tray()
    await say(id, [off('percent', '4'), on('amount', '8')], { isBlanket: true, expiresOn: addDays(TODAY, 60) })
    await issue(id)
    const held = await committed(id)
    const [line] = (await view(id)).blanket?.lines ?? []
    const { version, shipToId } = await order(id)
    const lines = [{ lineId: line?.id ?? '', much: '10', needBy: addDays(TODAY, 9) }]
    const made = await rekko.as(LEONIE, (ctx) => callOff(ctx, id, version, { lines, shipToId, note: '' }))
    const call = await view(made.id)
    expect([call.goods.amount, call.net.amount]).toEqual(['125.00', '120.00'])
    expect(call.adjustments.map((a) => a.amount.amount)).toEqual(['5.00'])
    expect([held, await committed(id), await committed(made.id)]).toEqual(['488', '488', '0'])
    await change(made.id, ['8'])
    expect((await view(made.id)).net.amount).toBe('96.00')
    await expect(change(made.id, [], undefined, [])).rejects.toThrow(/what its blanket order says/)
    expect(await broken()).toEqual([])
  })
})

test('a look finds an order that does not come to its lines with what they bear', async () => {
  const id = await tray()
  await say(id, [off('percent', '3')])
  const { number } = await issue(id)
  const [line] = await rekko.as(LEONIE, (ctx) => listStanding(ctx.tx, id))
  await rekko.arrange('update order_line set borne = borne + 0.01 where id = $1', [line?.id])
  expect(await broken()).toEqual([{ check: 'orders', count: 1, first: number }])
  await rekko.arrange('update order_line set borne = borne - 0.01 where id = $1', [line?.id])
  expect(await broken()).toEqual([])
})

test('its supplier reads of what its net is made', async () => {
  const id = await tray()
  await say(id, [off('percent', '3')])
  await issue(id)
  const asked = await rekko.as(LEONIE, (ctx) => readAskedOrder(ctx, answerKeyOf(environment().sessionSecret, id)))
  expect([asked.goods.amount, asked.net.amount, asked.adjustments[0]?.name]).toEqual(['500.00', '485.00', 'Spring'])
})
