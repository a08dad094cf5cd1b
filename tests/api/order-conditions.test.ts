import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { addDays } from '#core/base/day'
import type { OrderConditions } from '#core/order/conditions'
import { mergeSuppliers, reviewMerging } from '../../server/dealings/merge-suppliers'
import { closeWorkshop } from '../../server/files/workshop'
import { findAnything } from '../../server/find/find-anything'
import { setOrderAgreement } from '../../server/order/choose-agreement'
import { changeOrder } from '../../server/order/change-order'
import { listStanding } from '../../server/order/change-reads'
import { fileOrder } from '../../server/order/file-order'
import { listOrders } from '../../server/order/list-orders'
import { layOnTray, takeOffTray } from '../../server/order/lay-tray'
import { passTray } from '../../server/order/pass-tray'
import { readDesk } from '../../server/order/read-desk'
import { readOrder } from '../../server/order/read-order'
import { findOrder } from '../../server/order/reads'
import { remindSuppliers } from '../../server/order/remind-suppliers'
import { resendOrder } from '../../server/order/resend-order'
import { setOrderConditions } from '../../server/order/set-conditions'
import { ordering } from '../setup/ordering'
import { idOf, moment, personId, TODAY } from '../setup/rekko'
import { openUseCases, type UseCases } from '../setup/use-cases'

const [LEONIE, GRETA] = ['Leonie Farrow', 'Greta Molin']
const DAY = 86_400_000
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

const PLAIN: OrderConditions = {
  terms: { kind: 'net', days: 30 },
  ...{ delivery: null, expiresOn: null, placedAs: null, isSent: true, isBlanket: false, adjustments: [] },
}
const day = (after: number) => addDays(TODAY, after)
const order = async (id: string) =>
  (await rekko.as(LEONIE, (ctx) => findOrder(ctx.tx, id))) ?? expect.fail('it is there')
async function say(id: string, more: Partial<OrderConditions>, by = LEONIE): Promise<{ version: number }> {
  const { version } = await order(id)
  return rekko.as(by, (ctx) => setOrderConditions(ctx, id, version, { ...PLAIN, ...more }))
}
const tray = async () => lay([await approvedLine('12.50')])
const cancel = async (id: string) => {
  const [l] = await rekko.as(LEONIE, (ctx) => listStanding(ctx.tx, id))
  const lines = l === undefined ? [] : [{ lineId: l.id, quantity: '0', unitPrice: l.unitPrice, needBy: l.needBy }]
  const { version } = await order(id)
  const wish = { lines, shipToId: null, rest: 'returns', reason: 'never came', note: '', asks: false } as const
  return rekko.as(LEONIE, (ctx) => changeOrder(ctx, id, version, wish))
}
const sendings = async (id: string) => {
  const found = await rekko.db.execute<{ n: number }>(
    `select count(*)::int as n from order_sending where order_id = '${id}'`,
  )
  return found.rows[0]?.n
}
const listed = async (state: 'expired' | 'overdue' | 'unanswered' | 'unsent' | 'any', words = '', at = moment()) => {
  const found = await rekko.as(LEONIE, (ctx) => listOrders(ctx, { whose: 'own', state, words, limit: 100 }), at)
  return found.orders.map((o) => o.id)
}

describe('the conditions of an order', () => {
  test('are said once all are right, kept at once, and stand on what is sent', async () => {
    const id = await tray()
    const wrong = { delivery: { term: 'DAP', place: ' ' }, expiresOn: day(-1), placedAs: '-', isSent: false } as const
    await expect(say(id, wrong)).rejects.toThrow(/place.*lies in the past.*a letter or a figure/)
    expect(await order(id)).toMatchObject({ delivery: null, expiresOn: null, placedAs: null, version: 1 })
    const { version } = await say(id, {
      terms: { kind: 'month-end', days: 15 },
      ...{ delivery: { term: 'DAP', place: ' Pump Hall ' }, expiresOn: day(30) },
    })
    expect([version, (await order(id)).delivery]).toEqual([2, { term: 'DAP', place: 'Pump Hall' }])
    // The same again changes nothing; an older version is refused.
    const same = { delivery: { term: 'DAP', place: 'Pump Hall' }, expiresOn: day(30) } as const
    expect(await say(id, { terms: { kind: 'month-end', days: 15 }, ...same })).toMatchObject({ version: 2 })
    await expect(
      rekko.as(LEONIE, (ctx) => setOrderConditions(ctx, id, 1, { ...PLAIN, expiresOn: day(3) })),
    ).rejects.toMatchObject({ status: 412 })
    await issue(id)
    const seen = await rekko.as(LEONIE, (ctx) => readOrder(ctx, id))
    expect(seen.terms).toMatch(/^end of month and 15 days · DAP Pump Hall · to be delivered until /)
    await expect(say(id, {})).rejects.toThrow(/issued already/)
  })
  test('of payment stay as they were said, whatever the order draws on then; else they follow', async () => {
    const [said, follows] = [await tray(), await tray()]
    await say(said, { terms: { kind: 'net', days: 77 } })
    const terms = { kind: (await order(follows)).termsKind, days: (await order(follows)).termsDays }
    await say(follows, { terms, expiresOn: day(9) })
    await rekko.arrange('update supplier set terms_days = 12')
    for (const id of [said, follows]) {
      const { version } = await order(id)
      await rekko.as(LEONIE, (ctx) => setOrderAgreement(ctx, id, version, null))
    }
    expect([(await order(said)).termsDays, (await order(follows)).termsDays]).toEqual([77, 12])
  })
  test('are its buyer’s to say, of a tray alone', async () => {
    const id = await tray()
    await expect(say(id, { expiresOn: day(2) }, 'Harriet Voss')).rejects.toThrow(/Leonie Farrow’s/)
    await expect(say(id, { expiresOn: day(2) }, 'Owen Marsh')).rejects.toMatchObject({ status: 404 })
  })
})

describe('an order with a last day', () => {
  test('is issued on it, is expired and overdue from the day after, and not once it is cancelled', async () => {
    const [early, late] = [await tray(), await tray()]
    for (const id of [early, late]) await say(id, { expiresOn: day(1) })
    await rekko.as(
      LEONIE,
      async (ctx) => {
        const [view] = (await readDesk(ctx, 50)).trays.filter((t) => t.id === late)
        expect(view?.refusals.join()).toMatch(/which is past: say until when/)
      },
      new Date(moment().getTime() + 2 * DAY),
    )
    await issue(early)
    const after = new Date(moment().getTime() + 2 * DAY)
    expect([(await listed('expired')).includes(early), (await listed('overdue')).includes(early)]).toEqual([
      false,
      false,
    ])
    expect([await listed('expired', '', after), (await listed('overdue', '', after)).includes(early)]).toEqual([
      [early],
      true,
    ])
    await cancel(early)
    expect(await listed('expired', '', after)).toEqual([])
  })
})

describe('an order that was placed elsewhere already', () => {
  test('has a number that is one order’s of its supplier, however it is written', async () => {
    const [one, two] = [await tray(), await tray()]
    await say(one, { placedAs: 'PO 4711/b' })
    await expect(say(two, { placedAs: 'po-4711-B' })).rejects.toThrow(/of Harbour Waste is another tray of yours/)
    const { number } = await issue(one)
    await expect(say(two, { placedAs: 'PO4711B' })).rejects.toThrow(new RegExp(`is ${number} already`))
    expect(await listed('any', 'po 4711')).toEqual([one])
    const found = await rekko.as(LEONIE, (ctx) => findAnything(ctx, 'po.4711.b'))
    expect(JSON.stringify(found)).toContain(one)
    // Said otherwise, put away or cancelled, it is free again; the cancelled order still says it.
    await say(two, { placedAs: '0815' })
    await say(two, { placedAs: null })
    const three = await tray()
    await say(three, { placedAs: '0815' })
    await rekko.as(LEONIE, (ctx) => takeOffTray(ctx, three, null))
    await say(two, { placedAs: '0815' })
    await cancel(one)
    await say(two, { placedAs: 'PO-4711-b' })
    expect((await order(one)).placedAs).toBe('PO 4711/b')
    await issue(two)
  })
  test('of two at the same moment one has the number', async () => {
    const [one, two] = [await tray(), await tray()]
    const done = await Promise.allSettled([say(one, { placedAs: 'race-1' }), say(two, { placedAs: 'RACE 1' })])
    expect(done.map((d) => d.status).sort()).toEqual(['fulfilled', 'rejected'])
  })
  test('is kept from its supplier where that is said: nothing is sent, nothing is asked for, until it is', async () => {
    const id = await tray()
    await expect(say(id, { isSent: false })).rejects.toThrow(/Only what was placed elsewhere/)
    await say(id, { placedAs: 'till 17', isSent: false })
    await rekko.arrange('update supplier set email = null where id = $1', [(await order(id)).supplierId])
    await issue(id)
    await fileOrder(rekko.db, id, 0, moment())
    expect(await sendings(id)).toBe(0)
    expect([(await listed('unanswered')).includes(id), (await listed('unsent')).includes(id)]).toEqual([false, false])
    await rekko.arrange("update supplier set email = 'orders@harbour.example' where id = $1", [
      (await order(id)).supplierId,
    ])
    expect(await rekko.as(LEONIE, (ctx) => remindSuppliers(ctx, [id]))).toEqual({ reminded: 0 })
    await rekko.as(LEONIE, (ctx) => resendOrder(ctx, id))
    expect([await sendings(id), (await order(id)).isSent, (await listed('unanswered')).includes(id)]).toEqual([
      1,
      true,
      true,
    ])
  })
  test('and kept from its supplier is cancelled without a word to them', async () => {
    const id = await tray()
    await say(id, { placedAs: 'till 18', isSent: false })
    await issue(id)
    await fileOrder(rekko.db, id, 0, moment())
    await cancel(id)
    await fileOrder(rekko.db, id, 1, moment())
    expect(await sendings(id)).toBe(0)
    await expect(rekko.as(LEONIE, (ctx) => resendOrder(ctx, id))).rejects.toThrow(/was never sent this order/)
  })
  test('keeps its number with whoever has the tray next', async () => {
    const id = await tray()
    await say(id, { placedAs: 'till 19' })
    const { version } = await order(id)
    await rekko.as(LEONIE, (ctx) => passTray(ctx, id, version, personId('Harriet Voss')))
    expect(await order(id)).toMatchObject({ placedAs: 'till 19', buyer: 'Harriet Voss' })
    await expect(say(await tray(), { placedAs: 'Till 19' })).rejects.toThrow(/is another order already/)
  })
  test('under one number with two suppliers that become one stays, and bars a third', async () => {
    const [one, two] = [await tray(), await tray()]
    const other = idOf('supplier', 'Silverquay Acrylics')
    await rekko.arrange('update purchase_order set supplier_id = $1 where id = $2', [other, two])
    await say(one, { placedAs: 'book 9' })
    await say(two, { placedAs: 'Book-9' })
    const into = (await order(one)).supplierId
    await rekko.as(GRETA, async (ctx) => {
      const { seen } = await reviewMerging(ctx, other, into)
      await mergeSuppliers(ctx, other, into, seen)
    })
    expect([(await order(one)).placedAs, (await order(two)).placedAs]).toEqual(['book 9', 'Book-9'])
    await expect(say(await tray(), { placedAs: 'BOOK 9' })).rejects.toThrow(/is another tray of yours already/)
  })
  test('takes no line by itself, and any that is laid on it', async () => {
    const id = await tray()
    await say(id, { placedAs: 'book 10', isSent: false })
    const lineId = await approvedLine('3.00')
    const parts = [{ lineId, quantity: null }]
    await rekko.as(LEONIE, (ctx) => layOnTray(ctx, { orderId: id, supplierId: null, parts }))
    expect(await order(id)).toMatchObject({ placedAs: 'book 10', isSent: false })
  })
})
