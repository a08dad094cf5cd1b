import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { money, subtract } from '#core/base/money'
import type { ProposalAsked, ProposedOrderView } from '#shared/contract/proposal'
import { closeWorkshop } from '../../server/files/workshop'
import { layOnTray, writeTrayNote } from '../../server/order/lay-tray'
import { proposeOrders } from '../../server/order/propose-orders'
import { setTrayQuantity } from '../../server/order/set-tray-quantity'
import { readDesk } from '../../server/order/read-desk'
import { listLinkedOrders } from '../../server/order/served-reads'
import { decide } from '../../server/approval/decide'
import { listOpenActors } from '../../server/approval/reads'
import { REQUISITION } from '../../server/requisition/kind'
import { findRequisition } from '../../server/requisition/reads'
import { createDraft } from '../../server/requisition/save-draft'
import { sendRequisition } from '../../server/requisition/send-requisition'
import { soundDraft } from '../setup/rekko'
import { openUseCases, type UseCases } from '../setup/use-cases'

// Corrigan Pumps asks 24.00 for bringing an order, and nothing from 500.00 on.
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

/** A request of Owen's for catalogue parts that everybody approved. */
async function approved(lines: readonly { part: string; quantity: number }[]): Promise<string> {
  const id = crypto.randomUUID()
  await rekko.as(OWEN, (ctx) => createDraft(ctx, id, soundDraft([...lines])))
  await rekko.as(OWEN, (ctx) => sendRequisition(ctx, id, 1))
  const head = () => rekko.as(OWEN, (ctx) => findRequisition(ctx.tx, id))
  for (let kept = await head(); kept?.state === 'in approval'; kept = await head()) {
    const [next] = await rekko.as(OWEN, (ctx) => listOpenActors(ctx.tx, id))
    const { version } = kept
    await rekko.as(next?.name ?? '', (ctx) => decide(ctx, REQUISITION, id, version, 'approve', ''))
  }
  expect((await head())?.state).toBe('approved')
  return id
}
const propose = (asked: Partial<ProposalAsked> = {}, who: string = LEONIE) =>
  rekko.as(who, (ctx) => proposeOrders(ctx, { choose: 'cheapest', waitDays: 5, ...asked }))
const lay = (o: ProposedOrderView) =>
  rekko.as(LEONIE, (ctx) => layOnTray(ctx, { orderId: null, supplierId: o.supplierId, parts: o.parts }))
const trays = async () => (await rekko.as(LEONIE, (ctx) => readDesk(ctx, 200))).trays
const sumOf = (orders: readonly ProposedOrderView[]) => orders.flatMap((o) => o.parts).length

describe('proposed orders', () => {
  test('put requests together, come to what their trays come to, and are gone once they lie there', async () => {
    for (let i = 0; i < 3; i += 1) await approved([{ part: 'CP-GS-25', quantity: 4 }])
    const before = await propose()
    const order = before.orders.find((o) => o.supplier === 'Corrigan Pumps') ?? expect.fail('it is proposed')
    expect(order.requests).toHaveLength(3)
    expect(order.lines).toMatchObject([{ quantity: '12', requests: 3 }])
    // Freight is paid once instead of three times, at least.
    expect(Number(order.saved.amount)).toBeGreaterThanOrEqual(48)
    const { orderId } = await lay(order)
    const tray = (await trays()).find((t) => t.id === orderId) ?? expect.fail('the tray is there')
    expect([tray.net, tray.freight, tray.saved, tray.lines.map((l) => l.net)]).toEqual([
      order.net,
      order.freight,
      order.saved,
      order.lines.map((l) => l.net),
    ])
    const after = await propose()
    expect(after.orders.some((o) => o.supplier === 'Corrigan Pumps')).toBe(false)
    expect(subtract(before.net, after.net)).toEqual(order.net)
  })

  test('have on their tray what the supplier is told, until it is taken away again', async () => {
    await approved([{ part: 'CP-GS-25', quantity: 1 }])
    const [order] = (await propose()).orders.filter((o) => o.supplier === 'Corrigan Pumps')
    const { orderId } = await lay(order ?? expect.fail('it is proposed'))
    const note = async () => (await trays()).find((t) => t.id === orderId)?.note
    const write = (words: string, who: string = LEONIE) => rekko.as(who, (ctx) => writeTrayNote(ctx, orderId, words))
    await write(' Please ring before you come ')
    expect(await note()).toBe('Please ring before you come')
    await expect(write('mine', 'Harriet Voss')).rejects.toMatchObject({ status: 403 })
    await write('')
    expect(await note()).toBe('')
  })

  test('are lowered on their tray, raised again and taken off, and nothing is lost or doubled on the way', async () => {
    const [first, second] = [
      await approved([{ part: 'CP-GS-25', quantity: 6 }]),
      await approved([{ part: 'CP-GS-25', quantity: 4 }]),
    ]
    const [order] = (await propose()).orders.filter((o) => o.requests.some((r) => r.id === first))
    const { orderId } = await lay(order ?? expect.fail('it is proposed'))
    const line = async () => (await trays()).find((t) => t.id === orderId)?.lines[0]
    const set = async (quantity: string, who: string = LEONIE) => {
      const lineIds = (await line())?.lineIds ?? []
      return rekko.as(who, (ctx) => setTrayQuantity(ctx, orderId, { lineIds, quantity }))
    }
    const open = async () => {
      const { lines } = await rekko.as(LEONIE, (ctx) => readDesk(ctx, 200))
      return [first, second].map((id) => lines.find((l) => l.requisitionId === id)?.open ?? '0')
    }
    expect([(await line())?.quantity, await open()]).toEqual(['10', ['0', '0']])
    await set('7')
    expect([(await line())?.quantity, await open()]).toEqual(['7', ['0', '3']])
    await expect(set('10.5')).rejects.toMatchObject({ type: 'too-much' })
    await expect(set('5', 'Harriet Voss')).rejects.toMatchObject({ status: 403 })
    await set('9')
    expect(await open()).toEqual(['0', '1'])
    // Below what the first asks for, the second is off the tray altogether, and comes back only from the Desk.
    await set('5')
    expect([(await line())?.lineIds.length, await open()]).toEqual([1, ['1', '4']])
    await set('5')
    await expect(set('7')).rejects.toMatchObject({ type: 'too-much' })
    await set('0')
    expect([await line(), await open()]).toEqual([undefined, ['6', '4']])
  })

  test('laid twice they are refused, and nothing lies doubled', async () => {
    const requestId = await approved([{ part: 'CP-GS-25', quantity: 2 }])
    const [order] = (await propose()).orders.filter((o) => o.requests.some((r) => r.id === requestId))
    if (order === undefined) throw new Error('nothing is proposed')
    const outcomes = await Promise.allSettled([lay(order), lay(order)])
    expect(outcomes.map((o) => o.status).sort()).toEqual(['fulfilled', 'rejected'])
    const on = (await trays()).filter((t) => t.lines.some((l) => l.lineIds.includes(order.parts[0]?.lineId ?? '')))
    expect(on).toHaveLength(1)
    expect(await rekko.as(LEONIE, (ctx) => listLinkedOrders(ctx.tx, requestId))).toEqual([])
  })

  test('keep to the cap, and say what is below the supplier’s minimum', async () => {
    await rekko.arrange("update supplier set minimum_order = 5000 where name = 'Corrigan Pumps'")
    for (let i = 0; i < 3; i += 1) await approved([{ part: 'CP-GS-25', quantity: 1 }])
    const p = await propose({ mostRequests: 2 })
    const ours = p.orders.filter((o) => o.supplier === 'Corrigan Pumps')
    expect(ours.map((o) => o.requests.length)).toEqual([2, 1])
    expect(ours.map((o) => o.belowMinimum)).toEqual([money('5000.00 EUR'), money('5000.00 EUR')])
    const { orderId } = await lay(ours[0] ?? expect.fail('there is one'))
    expect((await trays()).find((t) => t.id === orderId)?.minimum).toEqual(money('5000.00 EUR'))
  })

  test('wait for more below an amount, with the day until which, and are proposed without that', async () => {
    const p = await propose({ waitFor: '100000' })
    expect(p.orders).toEqual([])
    expect(p.left.map((l) => l.reason).join(' ')).toMatch(
      /waits for more until it comes to EUR 100,000\.00, at most until/,
    )
    const all = await propose()
    expect(sumOf(all.orders) + all.left.reduce((n, l) => n + l.lines.length, 0)).toBe(all.lines)
  })

  test('leave out what cannot be ordered, and say why', async () => {
    await rekko.arrange("update supplier set standing = 'on hold' where name = 'Corrigan Pumps'")
    const p = await propose()
    expect(p.left.map((l) => l.reason)).toContain('The supplier is on hold and cannot be ordered from now.')
    expect(p.orders.some((o) => o.supplier === 'Corrigan Pumps')).toBe(false)
    await rekko.arrange("update supplier set standing = 'active' where name = 'Corrigan Pumps'")
  })

  test('are another buyer’s to issue where they serve one’s own need alone', async () => {
    await rekko.arrange(
      `update document set owner_id = (select id from person where name = 'Leonie Farrow')
        where state = 'approved' and kind = 'requisition'`,
    )
    const p = await propose()
    expect(p.orders.length).toBeGreaterThan(0)
    expect(p.orders.every((o) => o.isOwnNeed)).toBe(true)
  })
})
