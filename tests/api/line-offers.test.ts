import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { readDecision } from '../../server/decide/read-decision'
import { askForDecision } from '../../server/order/ask-for-decision'
import { changeOrder } from '../../server/order/change-order'
import { listStanding } from '../../server/order/change-reads'
import { layOnTray, takeOffTray } from '../../server/order/lay-tray'
import { readDesk } from '../../server/order/read-desk'
import { readOffers } from '../../server/order/read-offers'
import { readOrder } from '../../server/order/read-order'
import { setTrayQuantity } from '../../server/order/set-tray-quantity'
import { readTrail } from '../../server/trail/read-trail'
import { ordering } from '../setup/ordering'
import { soundDraft } from '../setup/rekko'
import { openUseCases, type UseCases } from '../setup/use-cases'

const [LEONIE, OWEN] = ['Leonie Farrow', 'Owen Marsh']
/** 31.50 of Corrigan Pumps, from 10 on 27.90; the same of another, always 29.00. */
const SLEEVE = { asked: 'CP-QS-25', same: '88-025' }
let rekko: UseCases
beforeAll(async () => {
  rekko = await openUseCases()
  await rekko.arrange('update budget_balance set budgeted = budgeted + 1000000')
})
afterAll(() => rekko.stop())
const { approved, issue } = ordering(() => rekko)

const rows = async <T>(text: string) => (await rekko.db.execute(text)).rows as T[]
const itemOf = async (part: string) =>
  (await rows<{ id: string }>(`select id from item where supplier_part = '${part}'`))[0]?.id ?? expect.fail(part)
const sleeves = async (quantity = 4) =>
  (await approved(soundDraft([{ part: SLEEVE.asked, quantity }])))[0] ?? expect.fail('it has a line')
const desk = () => rekko.as(LEONIE, (ctx) => readDesk(ctx, 500))
const waiting = async (id: string) => (await desk()).lines.find((l) => l.id === id)
const tray = async (id: string) => (await desk()).trays.find((t) => t.id === id) ?? expect.fail('it is a tray')
const offers = (id: string, quantity?: string) => rekko.as(LEONIE, (ctx) => readOffers(ctx, id, quantity))
interface Laying {
  readonly quantity?: string
  readonly onto?: string
  readonly part?: string | null
}
async function take(lineId: string, { quantity, onto, part = SLEEVE.same }: Laying = {}): Promise<string> {
  const offerItemId = part === null ? null : await itemOf(part)
  const parts = [{ lineId, quantity: quantity ?? null, offerItemId }]
  const input = { orderId: onto ?? null, supplierId: null, parts }
  return (await rekko.as(LEONIE, (ctx) => layOnTray(ctx, input))).orderId
}
async function change(id: string, version: number, quantity: string): Promise<void> {
  const [line] = await rekko.as(LEONIE, (ctx) => listStanding(ctx.tx, id))
  if (line === undefined) throw new Error('no line')
  const lines = [{ lineId: line.id, quantity, unitPrice: line.unitPrice, needBy: line.needBy }]
  const wishes = { lines, shipToId: null, rest: 'returns' as const, reason: 'they cannot', note: '', asks: false }
  await rekko.as(LEONIE, (ctx) => changeOrder(ctx, id, version, wishes))
}
const off = (id: string) => rekko.as(LEONIE, (ctx) => takeOffTray(ctx, id, null))

describe('who else has what a line asks for', () => {
  test('stands on the Desk and side by side, the cheapest of this quantity first', async () => {
    const few = await sleeves(4)
    const line = await waiting(few)
    expect(line?.others).toMatchObject({ saves: { amount: '10.00', currency: 'EUR' } })
    expect(line?.others?.fitting.map((o) => o.itemId)).toEqual([await itemOf(SLEEVE.same)])
    const found = await offers(few)
    expect(found.offers.map((o) => [o.supplierPart, o.net?.amount, o.isAsked, o.why])).toEqual([
      [SLEEVE.same, '116.00', false, []],
      [SLEEVE.asked, '126.00', true, []],
    ])
    const many = await sleeves(12)
    expect((await waiting(many))?.others?.saves).toMatchObject({ amount: '0.00' })
    expect((await offers(many)).offers.map((o) => o.supplierPart)).toEqual([SLEEVE.asked, SLEEVE.same])
    // Of a part of it, it is the other one again.
    expect((await offers(many, '3')).offers.map((o) => [o.supplierPart, o.net?.amount])).toEqual([
      [SLEEVE.same, '87.00'],
      [SLEEVE.asked, '94.50'],
    ])
    await expect(offers(many, '13')).rejects.toThrow(/12/)
    await expect(offers(many, '0')).rejects.toThrow(/can be ordered/)
    const narrowed = await rekko.as(LEONIE, (ctx) =>
      readDesk(ctx, 500, { words: '', supplier: 'several', due: 'any', aside: 'no' }),
    )
    expect(narrowed.lines.map((l) => l.id)).toEqual(expect.arrayContaining([few, many]))
    expect(narrowed.lines.every((l) => l.others !== null)).toBe(true)
    expect(narrowed.total).toBe((await desk()).lines.filter((l) => l.others !== null).length)
  })

  test('is told to nobody but a buyer of its part', async () => {
    const id = await sleeves()
    await expect(rekko.as(OWEN, (ctx) => readOffers(ctx, id))).rejects.toThrow()
    const onTray = await take(id)
    await expect(offers(id)).rejects.toThrow(/waits/)
    await off(onTray)
    expect((await offers(id)).offers).toHaveLength(2)
  })

  test('of whom nothing may be ordered says so, is refused, and saves nothing', async () => {
    const id = await sleeves()
    const its = `(select supplier_id from item where supplier_part = '${SLEEVE.same}')`
    await rekko.arrange(`update supplier set standing = 'on hold' where id = ${its}`)
    expect((await waiting(id))?.others).toEqual({ fitting: [], saves: null })
    expect((await offers(id)).offers.at(-1)?.why).toEqual([expect.stringContaining('is on hold')])
    await expect(take(id)).rejects.toThrow(/is on hold/)
    await rekko.arrange(`update supplier set standing = 'active' where id = ${its}`)
    await rekko.arrange(`update item set unit = 'BX' where supplier_part = '${SLEEVE.same}'`)
    await expect(take(id)).rejects.toThrow(/asked for by/)
    await rekko.arrange(`update item set unit = 'H87' where supplier_part = '${SLEEVE.same}'`)
    // What is not the same thing is no offer of it.
    await expect(take(id, { part: 'CP-GS-25' })).rejects.toThrow(/offer/i)
    expect((await waiting(id))?.open).toBe('4')
  })
})

describe('a line of which another’s offer is taken', () => {
  test('is ordered as that item, at its price, of its supplier; what was asked for stays what it was', async () => {
    const id = await sleeves()
    const onTray = await take(id)
    const laid = await tray(onTray)
    expect(laid.lines).toEqual([
      expect.objectContaining({ itemId: await itemOf(SLEEVE.same), unitPrice: '29', insteadOf: ['Corrigan Pumps'] }),
    ])
    expect(laid.lines[0]).toMatchObject({ net: { amount: '116.00' }, asked: { amount: '126.00' } })
    expect(laid.supplier).not.toBe('Corrigan Pumps')
    const done = await issue(onTray)
    const order = await rekko.as(LEONIE, (ctx) => readOrder(ctx, done.id))
    expect(order.lines[0]).toMatchObject({ supplierPart: SLEEVE.same, unitPrice: '29', quantity: '4' })
    const [line] = await rows<{ item_id: string; ordered: string; requisition_id: string }>(
      `select item_id, ordered, requisition_id from requisition_line where id = '${id}'`,
    )
    expect(line).toMatchObject({ item_id: await itemOf(SLEEVE.asked), ordered: '4' })
    const trail = await rekko.as(OWEN, (ctx) => readTrail(ctx, line?.requisition_id ?? ''))
    expect(JSON.stringify(trail.entries)).toContain(laid.supplier)
    // Less of it, more again and none: what is not ordered waits again as it was asked for.
    for (const [at, quantity] of ['1', '3', '0'].entries()) {
      await change(done.id, done.version + at, quantity)
      const open = String(4 - Number(quantity))
      expect(await waiting(id)).toMatchObject({ open, supplier: 'Corrigan Pumps' })
    }
  })

  test('taken off its tray it waits as it was asked for, and can be taken again', async () => {
    const id = await sleeves()
    for (let i = 0; i < 3; i++) {
      const onTray = await take(id)
      expect(await waiting(id)).toBeUndefined()
      await off(onTray)
      expect(await waiting(id)).toMatchObject({ open: '4', supplier: 'Corrigan Pumps' })
    }
  })

  test('is divided over two suppliers, and merges with what was asked of the other anyway', async () => {
    const id = await sleeves(6)
    const [theirs] = await approved(soundDraft([{ part: SLEEVE.same, quantity: 2, account: '630' }]))
    const other = await take(theirs ?? '', { part: null })
    const own = await take(id, { quantity: '1', part: null })
    expect(await take(id, { quantity: '2', onto: other })).toBe(other)
    expect((await waiting(id))?.open).toBe('3')
    expect((await tray(own)).lines).toEqual([expect.objectContaining({ quantity: '1', insteadOf: [] })])
    expect((await tray(other)).lines).toEqual([
      expect.objectContaining({
        quantity: '4',
        insteadOf: ['Corrigan Pumps'],
        net: { amount: '116.00', currency: 'EUR' },
      }),
    ])
    // More of it comes from the Desk as the same item, and never more than was asked for.
    const lineIds = (await tray(other)).lines[0]?.lineIds ?? []
    const count = (quantity: string) => rekko.as(LEONIE, (ctx) => setTrayQuantity(ctx, other, { lineIds, quantity }))
    await count('7')
    await expect(count('8')).rejects.toThrow(/7/)
    expect(await waiting(id)).toBeUndefined()
    expect((await tray(other)).lines).toEqual([expect.objectContaining({ quantity: '7' })])
    await off(own)
    // What lay there is said, as it can be laid again: each part by itself.
    const { parts } = await off(other)
    expect(parts).toEqual(
      expect.arrayContaining([
        { lineId: id, quantity: '5', offerItemId: await itemOf(SLEEVE.same) },
        { lineId: theirs, quantity: '2', offerItemId: null },
      ]),
    )
    const again = await rekko.as(LEONIE, (ctx) => layOnTray(ctx, { orderId: null, supplierId: null, parts }))
    expect((await tray(again.orderId)).lines).toEqual([expect.objectContaining({ quantity: '7' })])
    await off(again.orderId)
    expect((await waiting(id))?.open).toBe('6')
  })

  test('lies on one tray once: as it was asked for, or as the other', async () => {
    const id = await sleeves()
    const own = await take(id, { quantity: '1', part: null })
    await expect(take(id, { onto: own })).rejects.toThrow(/one supplier/)
    const other = await take(id, { quantity: '1' })
    await expect(take(id, { onto: other, part: null })).rejects.toThrow(/one supplier/)
    expect(await take(id, { onto: other, quantity: '1' })).toBe(other)
    expect((await tray(other)).lines).toEqual([expect.objectContaining({ quantity: '2' })])
    expect((await waiting(id))?.open).toBe('1')
  })

  test('keeps the price that it was taken at where none holds by the time it is issued', async () => {
    const id = await sleeves()
    const onTray = await take(id)
    const same = await itemOf(SLEEVE.same)
    await rekko.arrange('update item_price set valid_until = $1 where item_id = $2', ['2020-01-01', same])
    expect((await tray(onTray)).lines[0]).toMatchObject({ unitPrice: '29', net: { amount: '116.00' } })
    await rekko.arrange('update item_price set valid_until = null, unit_price = 30 where item_id = $1', [same])
    // A price that holds is the one that is paid, as of anything of the catalogue.
    expect((await tray(onTray)).lines[0]).toMatchObject({ unitPrice: '30', net: { amount: '120.00' } })
    await rekko.arrange('update item_price set unit_price = 29 where item_id = $1', [same])
    await off(onTray)
  })

  test('dearer than was approved is decided on first, beside what was approved', async () => {
    const id = await sleeves(40)
    const same = await itemOf(SLEEVE.same)
    await rekko.arrange('update item_price set unit_price = 45 where item_id = $1', [same])
    const onTray = await take(id)
    const laid = await tray(onTray)
    expect(laid).toMatchObject({ mayIssue: false, maySend: true })
    await expect(issue(onTray)).rejects.toThrow()
    await rekko.as(LEONIE, (ctx) => askForDecision(ctx, onTray, laid.version, false))
    const doc = await rekko.as(LEONIE, (ctx) => readDecision(ctx, onTray))
    // 40 at 27.90 were approved; 40 at 45 are to be ordered.
    expect(doc.document === 'order' ? doc.lines[0] : null).toMatchObject({
      ...{ net: { amount: '1800.00' }, approved: { amount: '1116.00' } },
    })
    await rekko.arrange('update item_price set unit_price = 29 where item_id = $1', [same])
  })

  test('priced by another number of units, it is held against what was approved to the cent', async () => {
    const id = await sleeves(4)
    const same = await itemOf(SLEEVE.same)
    await rekko.arrange('update item set price_base = 100 where id = $1', [same])
    await rekko.arrange('update item_price set unit_price = 2900 where item_id = $1', [same])
    const onTray = await take(id)
    const laid = await tray(onTray)
    expect(laid.lines[0]).toMatchObject({ unitPrice: '2900', net: { amount: '116.00' }, asked: { amount: '126.00' } })
    expect(laid.mayIssue).toBe(true)
    const done = await issue(onTray)
    const order = await rekko.as(LEONIE, (ctx) => readOrder(ctx, done.id))
    expect(order.lines[0]).toMatchObject({ priceBase: '100', net: { amount: '116.00' } })
  })
})
