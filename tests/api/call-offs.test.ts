import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { addDays } from '#core/base/day'
import { leftToCall, type CallWish } from '#core/order/call-off'
import type { LineWish } from '#core/order/change'
import { listMostBought, sumByYear } from '../../server/dealings/bought-reads'
import { closeWorkshop } from '../../server/files/workshop'
import { findFile } from '../../server/files/store'
import { checkIntegrity } from '../../server/look-back/check-integrity'
import { agreeToAnswer } from '../../server/order/agree-to-answer'
import { takeAnswerIn } from '../../server/order/answer-order'
import { callOff, type CallAsked } from '../../server/order/call-off'
import { setOrderAgreement } from '../../server/order/choose-agreement'
import { changeOrder } from '../../server/order/change-order'
import { listStanding } from '../../server/order/change-reads'
import { fileOrder } from '../../server/order/file-order'
import { giveOrders } from '../../server/order/give-order'
import { exportOrders, listOrders } from '../../server/order/list-orders'
import { readOrder, readOrderUbl } from '../../server/order/read-order'
import { conditionsOf, findOrder } from '../../server/order/reads'
import { listRevisions } from '../../server/order/sending-reads'
import { setOrderConditions } from '../../server/order/set-conditions'
import { REKKO } from '../../server/people/actor'
import { findActor } from '../../server/people/actor-reads'
import { readNotices } from '../../server/session/read-notices'
import { keepAgreements } from '../../server/upkeep/keep-agreements'
import { ordering } from '../setup/ordering'
import { moment, personId, TODAY } from '../setup/rekko'
import { openUseCases, type UseCases } from '../setup/use-cases'

const [LEONIE, HARRIET, OWEN] = ['Leonie Farrow', 'Harriet Voss', 'Owen Marsh']
const DAY = 86_400_000
let rekko: UseCases
beforeAll(async () => {
  rekko = await openUseCases()
  await rekko.arrange('update budget_balance set budgeted = budgeted + 1000000')
})
afterAll(async () => {
  const { broken } = await rekko.as('Signe Aalto', (ctx) => checkIntegrity(ctx, null))
  expect(broken).toEqual([])
  closeWorkshop()
  await rekko.stop()
})
const { approvedLine, lay, issue } = ordering(() => rekko)

const day = (after: number) => addDays(TODAY, after)
const order = async (id: string) =>
  (await rekko.as(LEONIE, (ctx) => findOrder(ctx.tx, id))) ?? expect.fail('it is there')
const view = (id: string, by = LEONIE) => rekko.as(by, (ctx) => readOrder(ctx, id))
async function say(id: string, more: { isBlanket: boolean; expiresOn: string | null }): Promise<void> {
  const kept = await order(id)
  await rekko.as(LEONIE, (ctx) => setOrderConditions(ctx, id, kept.version, { ...conditionsOf(kept), ...more }))
}
/** A blanket order of so many at 12.50; or of one lump sum. */
async function blanket(quantity = '10', lump: string | null = null): Promise<string> {
  const lineId = await approvedLine(lump ?? '12.50', OWEN, lump === null ? quantity : '1')
  if (lump !== null) await rekko.arrange("update requisition_line set unit = 'LS' where id = $1", [lineId])
  const id = await lay([lineId])
  await say(id, { isBlanket: true, expiresOn: day(60) })
  await issue(id)
  return id
}
const lines = async (id: string, much: string, needBy = day(9)): Promise<CallWish[]> =>
  ((await view(id)).blanket?.lines ?? []).map((l) => ({ lineId: l.id, much, needBy }))
async function call(id: string, much: string, more: Partial<CallAsked> & { at?: Date; by?: string } = {}) {
  const { version, shipToId } = await order(id)
  const asked = { lines: await lines(id, much), shipToId, note: '', ...more }
  return rekko.as(more.by ?? LEONIE, (ctx) => callOff(ctx, id, version, asked), more.at)
}
const left = async (id: string) => (await view(id)).blanket?.lines.map((l) => leftToCall(l))
async function change(id: string, more: Partial<LineWish>, asks = false) {
  const [l] = await rekko.as(LEONIE, (ctx) => listStanding(ctx.tx, id))
  if (l === undefined) throw new Error('no line')
  const wished = [{ lineId: l.id, quantity: l.quantity, unitPrice: l.unitPrice, needBy: l.needBy, ...more }]
  const { version } = await order(id)
  const wish = { lines: wished, shipToId: null, rest: 'ends', reason: 'as agreed', note: '', asks } as const
  return rekko.as(LEONIE, (ctx) => changeOrder(ctx, id, version, wish))
}
const rows = async <T>(statement: string) => (await rekko.db.execute<T & Record<string, unknown>>(statement)).rows
const held = async () => {
  const [found] = await rows<{ committed: string; entries: number; ordered: string }>(`select
    (select sum(amount)::text from budget_entry where stage = 'committed') as committed,
    (select count(*)::int from budget_entry) as entries,
    (select sum(ordered)::text from requisition_line) as ordered`)
  return found
}
const told = async (name: string) => (await rekko.as(name, (ctx) => readNotices(ctx))).notices.map((n) => n.sentence)

describe('a blanket order', () => {
  test('ends some day, and is called off by nobody before it is issued', async () => {
    const id = await lay([await approvedLine('12.50', OWEN, '4')])
    await expect(say(id, { isBlanket: true, expiresOn: null })).rejects.toThrow(/A blanket order ends some day/)
    await say(id, { isBlanket: true, expiresOn: day(30) })
    const asked = { lines: [], shipToId: (await order(id)).shipToId, note: '' }
    const { version } = await order(id)
    await expect(rekko.as(LEONIE, (ctx) => callOff(ctx, id, version, asked))).rejects.toMatchObject({
      type: 'wrong-state',
    })
    // Said otherwise again, it is an order like any other.
    await say(id, { isBlanket: false, expiresOn: null })
    await issue(id)
    expect((await view(id)).blanket).toBeNull()
    await expect(call(id, '1', { lines: [] })).rejects.toMatchObject({ type: 'no-blanket' })
  })

  test('holds all its money; what is called off is an order of its own that moves none', async () => {
    const id = await blanket()
    const before = await held()
    const made = await call(id, '4', { note: 'to the side gate' })
    expect([made.net.amount, await left(id), await held()]).toEqual(['50.00', ['6'], before])
    const seen = await view(made.id)
    expect(seen).toMatchObject({
      ...{ number: made.number, state: 'issued', calledFrom: { id }, note: 'to the side gate' },
      lines: [{ quantity: '4', unitPrice: '12.5', needBy: day(9), sources: [] }],
    })
    expect((await view(id)).blanket?.callOffs).toMatchObject([{ id: made.id, number: made.number, needBy: day(9) }])
    await fileOrder(rekko.db, made.id, 0, moment())
    const [sent] = await rekko.as(LEONIE, (ctx) => listRevisions(ctx.tx, made.id))
    const pdf = await rekko.as(LEONIE, (ctx) => findFile(ctx.tx, sent?.pdfHash ?? ''))
    expect([sent?.isWaiting, pdf?.bytes.subarray(0, 5).toString()]).toEqual([true, '%PDF-'])
    const { number } = await order(id)
    const ubl = (await rekko.as(LEONIE, (ctx) => readOrderUbl(ctx, made.id, 0))).bytes.toString()
    expect(ubl).toContain('<cbc:OrderTypeCode>226</cbc:OrderTypeCode>')
    expect(ubl).toMatch(new RegExp(`<cac:OrderDocumentReference>\\s*<cbc:ID>${number ?? '?'}</cbc:ID>`))
    const whole = (await rekko.as(LEONIE, (ctx) => readOrderUbl(ctx, id, 0))).bytes.toString()
    expect(whole).toContain('<cbc:OrderTypeCode>221</cbc:OrderTypeCode>')
    expect(whole).toContain(`<cbc:EndDate>${day(60)}</cbc:EndDate>`)
    expect((await told(OWEN)).join()).toContain(`off of ${number ?? '?'} to Harbour Waste, as ${made.number}`)
  })

  test('is called off by amount where it is ordered by amount, to the last cent', async () => {
    const id = await blanket('1', '1000')
    await call(id, '333.33')
    await call(id, '333.33')
    await expect(call(id, '333.35')).rejects.toThrow(/333\.34.* can be called off/)
    const last = await call(id, '333.34')
    expect([await left(id), (await view(last.id)).lines[0]]).toMatchObject([
      ['0'],
      { quantity: '1', unit: 'LS', unitPrice: '333.34' },
    ])
    await expect(call(id, '0.01')).rejects.toThrow(/Nothing is left of/)
  })

  test('is never called off beyond what it orders, and a refused call leaves nothing', async () => {
    const id = await blanket()
    await call(id, '7')
    const count = async () =>
      (
        await rows<{ n: number; last: number }>(
          "select (select count(*)::int from document) as n, last from number_series where series = 'P'",
        )
      )[0]
    const before = await count()
    await expect(call(id, '3.5')).rejects.toThrow(/3 .*can be called off/)
    await expect(call(id, '1', { lines: await lines(id, '1', day(61)) })).rejects.toThrow(/last day of the blanket/)
    await expect(call(id, '1', { lines: await lines(id, '1', day(-1)) })).rejects.toThrow(/lies in the past/)
    await expect(call(id, '1', { lines: [] })).rejects.toThrow(/Say how much/)
    await expect(call(id, '1', { shipToId: personId(OWEN) })).rejects.toMatchObject({ status: 422 })
    await expect(call(id, '1', { at: new Date(moment().getTime() + 61 * DAY) })).rejects.toThrow(/which is past/)
    const stranger = [{ lineId: personId(OWEN), much: '1', needBy: day(1) }]
    await expect(call(id, '1', { lines: stranger })).rejects.toMatchObject({ status: 404 })
    expect([await count(), await left(id)]).toEqual([before, ['3']])
  })

  test('of two calls at one moment lets one pass; the other has seen an older order', async () => {
    const id = await blanket()
    const done = await Promise.allSettled([call(id, '6'), call(id, '6')])
    expect(done.map((d) => d.status).sort()).toEqual(['fulfilled', 'rejected'])
    expect(await left(id)).toEqual(['4'])
  })

  test('goes down to what is called off and no further; what is given back is free again', async () => {
    const id = await blanket()
    const first = await call(id, '4')
    await expect(change(id, { quantity: '3' })).rejects.toThrow(/4 .*are called off already/)
    await expect(change(id, { quantity: '0' })).rejects.toThrow(/are called off already/)
    const before = Number((await held())?.committed)
    await change(id, { quantity: '4' })
    expect([Number((await held())?.committed) - before < 0, await left(id)]).toEqual([true, ['0']])
    await expect(call(id, '1')).rejects.toThrow(/Nothing is left/)
    // Nothing of it is called off any more: it may be cancelled, and nothing is called off of it then.
    await change(first.id, { quantity: '0' })
    expect([(await order(first.id)).state, await left(id)]).toEqual(['cancelled', ['4']])
    await change(id, { quantity: '0' })
    expect((await order(id)).state).toBe('cancelled')
    await expect(call(id, '1')).rejects.toThrow(/is cancelled; nothing is called off/)
    const [open] = await rows<{ n: string }>(`select coalesce(sum(amount), 0)::text as n from budget_entry
      where document_id = '${id}'`)
    expect(Number(open?.n)).toBe(0)
  })
})

describe('the last day of a blanket order', () => {
  test('is put off by a change that asks nobody, and what is past is called off again until then', async () => {
    const id = await blanket()
    const after = new Date(moment().getTime() + 61 * DAY)
    await expect(call(id, '1', { at: after })).rejects.toThrow(/which is past/)
    const put = async (expiresOn: string, at?: Date) => {
      const { version } = await order(id)
      const wish = { lines: [], shipToId: null, expiresOn, rest: 'ends', reason: 'the winter is long' } as const
      return rekko.as(LEONIE, (ctx) => changeOrder(ctx, id, version, { ...wish, note: '', asks: false }), at)
    }
    await expect(put(day(60))).rejects.toThrow(/Nothing of it is changed yet/)
    await expect(put(day(-1))).rejects.toThrow(/lies in the past: it cannot end then/)
    const before = await held()
    expect(await put(day(120), after)).toMatchObject({ revision: 1, state: 'in force' })
    expect([(await order(id)).expiresOn, await held()]).toEqual([day(120), before])
    const ubl = (await rekko.as(LEONIE, (ctx) => readOrderUbl(ctx, id, 1))).bytes.toString()
    expect(ubl).toContain(`<cbc:EndDate>${day(120)}</cbc:EndDate>`)
    const made = await call(id, '1', { at: after, lines: await lines(id, '1', day(100)) })
    expect((await view(made.id)).lines[0]?.needBy).toBe(day(100))
  })
})

describe('a call-off', () => {
  test('is changed within what is left, at its blanket order’s price, without asking anybody', async () => {
    const id = await blanket()
    const made = await call(id, '4')
    await call(id, '3')
    const before = await held()
    await expect(change(made.id, { quantity: '8' })).rejects.toThrow(/7 .*can be called off/)
    await expect(change(made.id, { unitPrice: '12.40' })).rejects.toThrow(/what its blanket order says/)
    await expect(change(made.id, { needBy: day(90) })).rejects.toThrow(/last day of the blanket order/)
    expect(await change(made.id, { quantity: '7' })).toMatchObject({ revision: 1, state: 'in force' })
    expect(await left(id)).toEqual(['0'])
    await change(made.id, { quantity: '2', needBy: day(20) })
    expect([await left(id), (await view(made.id)).lines[0]?.needBy, await held()]).toEqual([['5'], day(20), before])
    const seen = await view(made.id)
    expect([seen.net.amount, seen.freight.amount, seen.calledFrom?.id]).toEqual(['25.00', '0.00', id])
    expect((await told(OWEN)).filter((s) => s.includes(made.number)).length).toBeGreaterThan(1)
  })

  test('is answered by its supplier as any order, and another day becomes its revision', async () => {
    const id = await blanket()
    const made = await call(id, '4')
    const [l] = await rekko.as(LEONIE, (ctx) => listStanding(ctx.tx, made.id))
    const later = [{ lineId: l?.id ?? '', quantity: '4', unitPrice: '12.5', needBy: day(30) }]
    await rekko.as(LEONIE, async (ctx) => {
      const kept = (await findOrder(ctx.tx, made.id, true)) ?? expect.fail()
      await takeAnswerIn({ ...ctx, actor: REKKO }, kept, { revision: 0, by: 'Jo', note: '', lines: later }, 'link')
    })
    const { answers, version } = await view(made.id)
    const answerId = answers[0]?.id ?? ''
    await rekko.as(LEONIE, (ctx) => agreeToAnswer(ctx, made.id, version, { answerId, rest: 'returns', asks: false }))
    expect(await view(made.id)).toMatchObject({ state: 'acknowledged', lines: [{ needBy: day(30) }] })
  })

  test('is its blanket order’s buyer’s to make, and seen by whoever sees that', async () => {
    const id = await blanket()
    await expect(call(id, '1', { by: HARRIET })).rejects.toMatchObject({ status: 403 })
    await expect(call(id, '1', { by: OWEN })).rejects.toMatchObject({ status: 403 })
    await expect(call(id, '1', { by: 'Priya Lindqvist' })).rejects.toMatchObject({ status: 404 })
    const made = await call(id, '1')
    expect((await view(made.id, OWEN)).mayChange).toBe(false)
    await expect(view(made.id, 'Priya Lindqvist')).rejects.toMatchObject({ status: 404 })
    await rekko.as(HARRIET, async (ctx) => {
      const to = (await findActor(ctx.tx, personId(HARRIET), ctx.now)) ?? expect.fail()
      await giveOrders(ctx, personId(LEONIE), to, 'all')
    })
    await expect(call(id, '1')).rejects.toThrow(/This order is Harriet Voss’s/)
    const next = await call(id, '1', { by: HARRIET })
    expect([(await order(made.id)).buyer, (await order(next.id)).buyer]).toEqual([HARRIET, HARRIET])
  })

  test('counts once: for what was bought, and for what is late', async () => {
    const id = await blanket()
    const { supplierId, number } = await order(id)
    const bought = () =>
      rekko.as(LEONIE, async ({ tx }) => [await sumByYear(tx, supplierId), await listMostBought(tx, supplierId, 9)])
    const before = await bought()
    const made = await call(id, '4')
    expect(await bought()).toEqual(before)
    const listed = async (more: { sort?: 'blanket' | 'call-off'; state?: 'overdue' | 'expired' }, at?: Date) => {
      const asked = { whose: 'own', state: 'any', words: '', limit: 100, ...more } as const
      const found = await rekko.as(LEONIE, (ctx) => listOrders(ctx, asked), at)
      return found.orders.map((o) => o.id).filter((o) => o === id || o === made.id)
    }
    expect([await listed({ sort: 'blanket' }), await listed({ sort: 'call-off' })]).toEqual([[id], [made.id]])
    const after = (days: number) => new Date(moment().getTime() + days * DAY)
    // What is called off is late by its day; the blanket order only past its last, while something is left.
    expect(await listed({ state: 'overdue' }, after(40))).toEqual([made.id])
    expect(await listed({ state: 'expired' }, after(61))).toEqual([id])
    const rest = await call(id, '6')
    expect(await listed({ state: 'expired' }, after(61))).toEqual([])
    const csv = (
      await rekko.as(LEONIE, (ctx) => exportOrders(ctx, { whose: 'own', state: 'any', words: '', as: 'csv' }))
    ).bytes.toString()
    expect(csv.split(/\r?\n/).find((l) => l.startsWith(rest.number))).toMatch(new RegExp(`call-off.${number ?? '?'}`))
  })

  test('draws on no agreement itself, so that none is drawn twice', async () => {
    const made = await call(await blanket(), '1')
    const { version } = await order(made.id)
    const draw = rekko.as(LEONIE, (ctx) => setOrderAgreement(ctx, made.id, version, personId(OWEN)))
    await expect(draw).rejects.toMatchObject({ type: 'called-off' })
    expect((await view(made.id)).mayDraw).toBe(false)
  })

  test('waits for no supplier who is blocked', async () => {
    const id = await blanket()
    const { supplierId } = await order(id)
    await rekko.arrange("update supplier set standing = 'blocked' where id = $1", [supplierId])
    await expect(call(id, '1')).rejects.toThrow(/cannot be ordered from now/)
    await rekko.arrange("update supplier set standing = 'active' where id = $1", [supplierId])
    await call(id, '1')
  })
})

test('whoever buys is told once of each last day that comes near, while something is left', async () => {
  const [ends, isUsedUp] = [await blanket(), await blanket()]
  const number = async (id: string) => (await order(id)).number ?? ''
  await call(isUsedUp, '10')
  const warnings = async (id: string) => {
    const its = await number(id)
    return (await told(LEONIE)).filter((t) => t.startsWith(`${its}, the blanket order`)).length
  }
  const keep = (after: number) => rekko.as('Signe Aalto', keepAgreements, new Date(moment().getTime() + after * DAY))
  await keep(29)
  expect(await warnings(ends)).toBe(0)
  for (const after of [30, 30, 31, 60, 61]) await keep(after)
  expect([await warnings(ends), await warnings(isUsedUp)]).toEqual([1, 0])
  // Its last day is put off: of that one they are told as well, and of no other.
  const [l] = await rekko.as(LEONIE, (ctx) => listStanding(ctx.tx, ends))
  if (l === undefined) throw new Error('no line')
  const wished = [{ lineId: l.id, quantity: l.quantity, unitPrice: l.unitPrice, needBy: l.needBy }]
  const put = { lines: wished, shipToId: null, rest: 'ends', reason: 'as agreed', note: '', asks: false } as const
  const { version } = await order(ends)
  await rekko.as(LEONIE, (ctx) => changeOrder(ctx, ends, version, { ...put, expiresOn: day(100) }))
  await keep(61)
  expect(await warnings(ends)).toBe(1)
  for (const after of [70, 71]) await keep(after)
  expect(await warnings(ends)).toBe(2)
})
