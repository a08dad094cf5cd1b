import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { addDays } from '#core/base/day'
import type { OrderConditions } from '#core/order/conditions'
import type { Draft } from '#core/requisition/draft'
import { decide } from '../../server/approval/decide'
import { listOpenActors } from '../../server/approval/reads'
import { readDecision } from '../../server/decide/read-decision'
import { attachFile } from '../../server/document/attach-file'
import { listAttachments } from '../../server/document/reads'
import { askForDecision } from '../../server/order/ask-for-decision'
import { changeOrder } from '../../server/order/change-order'
import { ORDER_CHANGE } from '../../server/order/change-kind'
import { findUnderWay, listStanding } from '../../server/order/change-reads'
import { giveOrders } from '../../server/order/give-order'
import { issueOrder } from '../../server/order/issue-order'
import { ORDER } from '../../server/order/kind'
import { agreePrice, layOnTray, takeOffTray, writeTrayNote } from '../../server/order/lay-tray'
import { listOrders } from '../../server/order/list-orders'
import { makeApproved } from '../../server/order/make-approved'
import { orderDirectly } from '../../server/order/order-directly'
import { readDesk } from '../../server/order/read-desk'
import { readOrder } from '../../server/order/read-order'
import { conditionsOf, findOrder } from '../../server/order/reads'
import { setOrderConditions } from '../../server/order/set-conditions'
import { setTrayQuantity } from '../../server/order/set-tray-quantity'
import { takeOrderBack } from '../../server/order/take-order-back'
import { writeOn } from '../../server/order/write-on'
import { findActor } from '../../server/people/actor-reads'
import { REQUISITION } from '../../server/requisition/kind'
import { readMine } from '../../server/requisition/read-mine'
import { readRequisition } from '../../server/requisition/read-requisition'
import { findRequisition } from '../../server/requisition/reads'
import { createDraft, saveDraft } from '../../server/requisition/save-draft'
import { sendRequisition } from '../../server/requisition/send-requisition'
import { throwAwayDraft } from '../../server/requisition/throw-away-draft'
import { withdrawRequisition } from '../../server/requisition/withdraw-requisition'
import { freeLine, personId, soundDraft, TODAY } from '../setup/rekko'
import { ordering } from '../setup/ordering'
import { openUseCases, type UseCases } from '../setup/use-cases'

const [LEONIE, OWEN, INES] = ['Leonie Farrow', 'Owen Marsh', 'Ines Adeyemi']
let rekko: UseCases
beforeAll(async () => {
  rekko = await openUseCases()
  await rekko.arrange('update budget_balance set budgeted = budgeted + 1000000')
})
afterAll(() => rekko.stop())
const { approvedLine, lay } = ordering(() => rekko)

const rows = async <T>(text: string) => (await rekko.db.execute(text)).rows as T[]
const order = async (id: string) =>
  (await rekko.as(LEONIE, (ctx) => findOrder(ctx.tx, id))) ?? expect.fail('it is there')
const prices = (...of: string[]): Draft => soundDraft([], { title: 'Skips', lines: of.map((p) => freeLine(p)) })
/** What a buyer writes for somebody. */
async function written(draft = prices('12.50'), forWhom = OWEN, buyer = LEONIE): Promise<string> {
  const id = randomUUID()
  await rekko.as(buyer, (ctx) => createDraft(ctx, id, draft, personId(forWhom)))
  return id
}
const directly = (id: string, version = 1, buyer = LEONIE) => rekko.as(buyer, (ctx) => orderDirectly(ctx, id, version))
async function direct(draft?: Draft): Promise<string> {
  const id = await written(draft)
  await directly(id)
  return id
}
/** A direct order to which its buyer attached a quote. */
async function directWithQuote(): Promise<string> {
  const id = await written()
  const quote = { bytes: Buffer.from('%PDF-1.4\n%%EOF'), name: 'quote.pdf', kind: 'quote', forSupplier: true } as const
  await rekko.as(LEONIE, (ctx) => attachFile(ctx, REQUISITION, id, quote))
  const kept = await rekko.as(LEONIE, (ctx) => findRequisition(ctx.tx, id))
  await directly(id, kept?.version)
  return id
}
const send = async (id: string) => {
  const { version } = await order(id)
  return rekko.as(LEONIE, (ctx) => askForDecision(ctx, id, version, false))
}
const deciding = (id: string) => rekko.as(LEONIE, (ctx) => listOpenActors(ctx.tx, id))
async function decideAs(name: string, id: string, outcome: 'approve' | 'sendBack'): Promise<void> {
  const { version } = await order(id)
  await rekko.as(name, (ctx) => decide(ctx, ORDER, id, version, outcome, outcome === 'approve' ? '' : 'too much'))
}
async function issued(draft?: Draft): Promise<string> {
  const id = await direct(draft)
  await send(id)
  await decideAs(INES, id, 'approve')
  const { version } = await order(id)
  await rekko.as(LEONIE, (ctx) => issueOrder(ctx, id, version))
  return id
}
const write = async (id: string) => {
  const { version } = await order(id)
  return rekko.as(LEONIE, (ctx) => writeOn(ctx, id, version))
}
/** The lines that lie on a tray. */
const laid = async (id: string) =>
  (await rows<{ id: string }>(`select requisition_line_id as id from tray_part where order_id = '${id}'`)).map(
    (r) => r.id,
  )
/** What stands of the budgets by an order: reserved and committed. */
const stands = async (id: string) => {
  const found = await rows<{ stage: string; sum: string }>(
    `select stage, trim_scale(sum(amount))::text as sum from budget_entry where document_id = '${id}'
      group by 1 order by 1`,
  )
  return Object.fromEntries(found.map((f) => [f.stage, f.sum]))
}
const seenBy = (name: string) =>
  rekko.as(name, async (ctx) => (await readMine(ctx, { view: 'all', words: '', limit: 100 })).rows.map((r) => r.id))

describe('an order without a request', () => {
  test('is decided on as a request for the same would be, issued and committed; no request is left', async () => {
    const before = await rows<{ last: number }>("select last from number_series where series = 'R'")
    const id = await written(prices('12.50', '30.00'))
    expect(await directly(id)).toEqual({ id, version: 2 })
    const tray = await rekko.as(LEONIE, async (ctx) => (await readDesk(ctx, 1)).trays.find((t) => t.id === id))
    expect(tray).toMatchObject({ directFor: OWEN, mayIssue: false, maySend: true, supplier: 'Harbour Waste' })
    expect(tray?.refusals).toEqual([
      'Nobody asked for it by a request: it is decided on first, as a request for it would be.',
    ])
    expect([await seenBy(LEONIE), await seenBy(OWEN)].flat()).not.toContain(id)
    expect(await stands(id)).toEqual({})
    await expect(rekko.as(LEONIE, (ctx) => issueOrder(ctx, id, 2))).rejects.toThrow(/decided on first/)

    expect(await send(id)).toMatchObject({ state: 'in approval' })
    // By whoever decides on what Owen asks for, and not by his buyer’s manager.
    expect((await deciding(id)).map((a) => a.name)).toEqual([INES])
    const doc = await rekko.as(INES, (ctx) => readDecision(ctx, id))
    expect(doc).toMatchObject({
      document: 'order',
      direct: { for: OWEN, title: 'Skips', why: 'it is needed for a test', department: 'Water Systems' },
      why: ['Leonie Farrow orders it without a request.'],
    })
    await expect(rekko.as(OWEN, (ctx) => readOrder(ctx, id))).rejects.toThrow(/does not exist|not issued/)
    await decideAs(INES, id, 'approve')
    const { version } = await order(id)
    await rekko.as(LEONIE, (ctx) => issueOrder(ctx, id, version))
    expect(Object.keys(await stands(id))).toEqual(['committed'])
    const seen = await rekko.as(OWEN, (ctx) => readOrder(ctx, id))
    expect([seen.direct?.for, seen.lines.map((l) => l.sources)]).toEqual([OWEN, [[], []]])
    expect(
      await rows(
        `select told ->> 'code' as code from notice where about_id = '${id}' and person_id = '${personId(OWEN)}'`,
      ),
    ).toEqual([{ code: 'ordered-for-you' }])
    expect(await rows("select last from number_series where series = 'R'")).toEqual(before)
    const found = await rekko.as(LEONIE, (ctx) =>
      listOrders(ctx, { whose: 'own', state: 'any', words: '', limit: 100 }),
    )
    expect(found.orders.map((o) => o.id)).toContain(id)
  })

  test('is for somebody else, of one supplier, in the part of its buyer, and lacks nothing', async () => {
    const own = randomUUID()
    await rekko.as(LEONIE, (ctx) => createDraft(ctx, own, prices('10')))
    await expect(directly(own)).rejects.toThrow(/own need alone/)
    const two = soundDraft([], { lines: [freeLine('10'), freeLine('10', { supplierId: null })] })
    await expect(directly(await written(two))).rejects.toThrow(/Say who delivers/)
    await expect(
      directly(await written(soundDraft([], { lines: [freeLine('10', { quantity: '0' })] }))),
    ).rejects.toThrow()
    const owens = randomUUID()
    await rekko.as(OWEN, (ctx) => createDraft(ctx, owens, prices('10')))
    await expect(directly(owens)).rejects.toThrow(/does not exist/)
    // What it lacks stays as it was written, a draft.
    expect(await rekko.as(LEONIE, (ctx) => findRequisition(ctx.tx, own))).toMatchObject({ state: 'draft', version: 1 })
  })

  test('a budget that refuses refuses it when it is written, and when it is issued', async () => {
    const [line] = prices('10').lines
    const budget = line?.codings[0]?.budgetLineId ?? ''
    const id = await issued(prices('10.00'))
    const late = await direct(prices('11.00'))
    await send(late)
    await decideAs(INES, late, 'approve')
    await rekko.arrange(`update budget_line set control = 'refuses', may_fall_below = 0 where id = '${budget}'`)
    await rekko.arrange(`update budget_balance set budgeted = budgeted - 9000000 where budget_line_id = '${budget}'`)
    await expect(direct(prices('10'))).rejects.toThrow(/refuses|passed|left/)
    const { version } = await order(late)
    await expect(rekko.as(LEONIE, (ctx) => issueOrder(ctx, late, version))).rejects.toThrow()
    expect(await stands(late)).toEqual({})
    await rekko.arrange(`update budget_balance set budgeted = budgeted + 9000000 where budget_line_id = '${budget}'`)
    await rekko.as(LEONIE, (ctx) => issueOrder(ctx, late, version))
    expect([Object.keys(await stands(id)), Object.keys(await stands(late))]).toEqual([['committed'], ['committed']])
  })

  test('is no requisition any more: none of their moves finds it, and no line of it lies on the Desk', async () => {
    const id = await direct()
    const [line] = await laid(id)
    const gone = /does not exist/
    for (const move of [
      () => rekko.as(LEONIE, (ctx) => readRequisition(ctx, id)),
      () => rekko.as(LEONIE, (ctx) => saveDraft(ctx, id, 2, prices('1'))),
      () => rekko.as(LEONIE, (ctx) => sendRequisition(ctx, id, 2)),
      () => rekko.as(LEONIE, (ctx) => throwAwayDraft(ctx, id, 2)),
      () => rekko.as(LEONIE, (ctx) => withdrawRequisition(ctx, id, 2)),
      () => directly(id, 2),
      () =>
        rekko.as(LEONIE, (ctx) =>
          layOnTray(ctx, { orderId: null, supplierId: null, parts: [{ lineId: line ?? '', quantity: null }] }),
        ),
    ])
      await expect(move()).rejects.toThrow(gone)
    // Nothing is taken off it, added to it or priced otherwise: it is written on.
    const written = /write on it/
    const more = await approvedLine('12.50')
    await expect(rekko.as(LEONIE, (ctx) => takeOffTray(ctx, id, null))).rejects.toThrow(written)
    await expect(
      rekko.as(LEONIE, (ctx) => setTrayQuantity(ctx, id, { lineIds: [line ?? ''], quantity: '2' })),
    ).rejects.toThrow(written)
    await expect(rekko.as(LEONIE, (ctx) => agreePrice(ctx, id, line ?? '', '1'))).rejects.toThrow(written)
    await expect(
      rekko.as(LEONIE, (ctx) =>
        layOnTray(ctx, { orderId: id, supplierId: null, parts: [{ lineId: more, quantity: null }] }),
      ),
    ).rejects.toThrow(written)
    await expect(write(await lay([more]))).rejects.toThrow(/asked for by requests/)
  })
})

describe('a direct order is written on', () => {
  test('as the same draft, for the same person, with title and files, and is ordered or sent then', async () => {
    const id = await directWithQuote()
    expect((await write(id)).id).toBe(id)
    const again = await rekko.as(LEONIE, (ctx) => findRequisition(ctx.tx, id))
    expect(again).toMatchObject({
      ...{ state: 'draft', ownerId: personId(OWEN), raisedById: personId(LEONIE), sentDraft: null, period: null },
      draft: { title: 'Skips' },
      lines: [{ onTray: '0', ordered: '0', cancelled: '0' }],
    })
    expect((await rekko.as(LEONIE, (ctx) => listAttachments(ctx.tx, id))).map((a) => a.name)).toEqual(['quote.pdf'])
    expect(await rekko.as(LEONIE, (ctx) => findOrder(ctx.tx, id))).toBeNull()
    // Back and forth, and at last as a request.
    await directly(id, again?.version)
    await write(id)
    const last = await rekko.as(LEONIE, (ctx) => findRequisition(ctx.tx, id))
    const sent = await rekko.as(LEONIE, (ctx) => sendRequisition(ctx, id, last?.version ?? 0))
    expect(sent).toMatchObject({ state: 'in approval', number: expect.stringMatching(/^R-/) as string })
    expect(Object.keys(await stands(id))).toEqual(['reserved'])
    await expect(directly(id, sent.version)).rejects.toThrow(/Owen Marsh|owner|only|sent/)
  })

  test('once it was decided on, as a copy with its files; what was decided stays as it was, cancelled', async () => {
    const id = await directWithQuote()
    await send(id)
    await expect(write(id)).rejects.toThrow(/with whoever decides/)
    await decideAs(INES, id, 'sendBack')
    const copy = (await write(id)).id
    expect(copy).not.toBe(id)
    expect(await order(id)).toMatchObject({ state: 'cancelled', number: null })
    const direct = { title: 'Skips', attachments: [{ name: 'quote.pdf' }] }
    expect(await rekko.as(INES, (ctx) => readDecision(ctx, id))).toMatchObject({ state: 'cancelled', direct })
    const kept = await rekko.as(LEONIE, (ctx) => findRequisition(ctx.tx, copy))
    expect(kept).toMatchObject({ ownerId: personId(OWEN), draft: { title: 'Skips' }, lines: [{ onTray: '0' }] })
    expect((await rekko.as(LEONIE, (ctx) => listAttachments(ctx.tx, copy))).map((a) => a.name)).toEqual(['quote.pdf'])
    await directly(copy)
    // Taken back before anybody decided it is written on as a copy too: it was asked for already.
    await send(copy)
    const { version: sent } = await order(copy)
    await rekko.as(LEONIE, (ctx) => takeOrderBack(ctx, copy, sent))
    expect((await write(copy)).id).not.toBe(copy)
    await expect(write(copy)).rejects.toThrow(/cancelled/)
  })
})

describe('an issued direct order', () => {
  const lineOf = (id: string) =>
    rows(`select trim_scale(quantity)::text as quantity, trim_scale(ordered)::text as ordered,
      trim_scale(cancelled)::text as cancelled from requisition_line where requisition_id = '${id}'`)
  const change = async (id: string, quantity: string, rest: 'returns' | 'ends' = 'returns', asks = false) => {
    const [l] = await rekko.as(LEONIE, (ctx) => listStanding(ctx.tx, id))
    const lines = l === undefined ? [] : [{ lineId: l.id, quantity, unitPrice: l.unitPrice, needBy: l.needBy }]
    const { version } = await order(id)
    const wish = { lines, shipToId: null, rest, reason: 'fewer will do', note: '', asks }
    return rekko.as(LEONIE, (ctx) => changeOrder(ctx, id, version, wish))
  }
  test('is ordered less, and cancelled: nothing of it returns to the Desk, and its money is free', async () => {
    const id = await issued(soundDraft([], { lines: [freeLine('10.00', { quantity: '4' })] }))
    await change(id, '3')
    expect(await lineOf(id)).toEqual([{ quantity: '4', ordered: '3', cancelled: '1' }])
    await change(id, '0')
    expect(await lineOf(id)).toEqual([{ quantity: '4', ordered: '0', cancelled: '4' }])
    expect(await order(id)).toMatchObject({ state: 'cancelled' })
    expect(await stands(id)).toEqual({ committed: '0' })
    const told = await rows<{ code: string }>(
      `select told ->> 'code' as code from notice where about_id = '${id}'
        and person_id = '${personId(OWEN)}' order by at, told ->> 'code' desc`,
    )
    expect(told.map((t) => t.code)).toEqual(['ordered-for-you', 'order-changed', 'order-changed'])
  })
  test('orders more as well, once that is decided on; what it asks for grows with it', async () => {
    const id = await issued(soundDraft([], { lines: [freeLine('40.00', { quantity: '4' })] }))
    await change(id, '3')
    await expect(change(id, '9')).rejects.toThrow(/decided on first/)
    expect(await change(id, '9', 'returns', true)).toMatchObject({ state: 'in approval', revision: null })
    const { id: changeId } = (await rekko.as(LEONIE, (ctx) => findUnderWay(ctx.tx, id))) ?? expect.fail('it waits')
    expect((await deciding(changeId)).map((a) => a.name)).toEqual([INES])
    const seen = await rekko.as(INES, (ctx) => readDecision(ctx, changeId))
    expect(seen).toMatchObject({ direct: { for: OWEN }, route: [{ why: expect.stringContaining(OWEN) as string }] })
    await rekko.as(INES, (ctx) => decide(ctx, ORDER_CHANGE, changeId, seen.version, 'approve', ''))
    await rekko.as(LEONIE, (ctx) => makeApproved(ctx, changeId))
    expect(await lineOf(id)).toEqual([{ quantity: '10', ordered: '9', cancelled: '1' }])
    expect(await stands(id)).toEqual({ committed: '360' })
  })
  test('is made where the policy in force has it: not at all, or up to an amount, at every step', async () => {
    const policy = (says: object | null) =>
      rekko.arrange('update approval_policy set direct_orders = $1', [says === null ? null : JSON.stringify(says)])
    const upTo = (amount: string) => policy({ upTo: { amount, currency: 'EUR' } })
    await policy(null)
    const id = await written(prices('100.00'))
    await expect(directly(id)).rejects.toThrow(/nothing ordered without a request/)
    await upTo('99.99')
    await expect(directly(id)).rejects.toThrow(/up to EUR 99.99; this comes to 100.00/)
    // What is refused stays the draft that it was.
    expect(await rekko.as(LEONIE, (ctx) => findRequisition(ctx.tx, id))).toMatchObject({ state: 'draft', version: 1 })
    await upTo('100.00')
    await directly(id)
    // Another policy came in force since: whoever decides is not asked for what may not be, nor is it issued.
    await upTo('99.99')
    await expect(send(id)).rejects.toThrow(/up to EUR 99.99/)
    await upTo('100')
    await send(id)
    await decideAs(INES, id, 'approve')
    await policy(null)
    const issue = async () => {
      const { version } = await order(id)
      return rekko.as(LEONIE, (ctx) => issueOrder(ctx, id, version))
    }
    await expect(issue()).rejects.toThrow(/nothing ordered without a request/)
    await upTo('100')
    await issue()
    // It grows no further than that either; less is always possible.
    await upTo('50.00')
    await expect(change(id, '2', 'ends', true)).rejects.toThrow(/up to EUR 50.00; this comes to 200.00/)
    await change(id, '0')
    await policy({ upTo: null })
  })
  test('goes on with another buyer when its own leaves, undecided too', async () => {
    const [id, tray] = [await issued(), await direct()]
    await send(tray)
    await rekko.as('Harriet Voss', async (ctx) => {
      const to = (await findActor(ctx.tx, personId('Harriet Voss'), ctx.now)) ?? expect.fail('she is here')
      await giveOrders(ctx, personId(LEONIE), to, 'all')
    })
    const now = (of: string) => rekko.as('Harriet Voss', (ctx) => findOrder(ctx.tx, of))
    expect([(await now(id))?.buyer, (await now(tray))?.buyer]).toEqual(['Harriet Voss', 'Harriet Voss'])
    expect((await deciding(tray)).map((a) => a.name)).toEqual([INES])
  })
})

describe('what was said of a direct order on its tray', () => {
  const say = async (id: string, more: Partial<OrderConditions> = {}) => {
    const kept = await order(id)
    const to = { ...conditionsOf(kept), ...more }
    await rekko.as(LEONIE, (ctx) => setOrderConditions(ctx, id, kept.version, to))
    await rekko.as(LEONIE, (ctx) => writeTrayNote(ctx, id, 'By the side door'))
  }
  const SAID: Partial<OrderConditions> = {
    ...{ terms: { kind: 'net', days: 7 }, delivery: { term: 'DAP', place: 'Quay 4' }, expiresOn: addDays(TODAY, 30) },
    adjustments: [{ kind: 'discount', of: 'percent', value: '3', name: 'Winter account' }],
  }
  const says = async (id: string) => {
    const kept = await order(id)
    return { ...conditionsOf(kept), note: kept.note }
  }

  test('outlives being written on, again and again, and follows its copy once it was decided on', async () => {
    const id = await direct()
    await say(id, SAID)
    const said = await says(id)
    for (let i = 0; i < 2; i++) {
      const { version } = await write(id)
      await directly(id, version)
      expect(await says(id)).toEqual(said)
    }
    await send(id)
    await decideAs(INES, id, 'sendBack')
    const copy = await write(id)
    await directly(copy.id, copy.version)
    expect(await says(copy.id)).toEqual(said)
  })

  test('holds as far as it can: not for another supplier, and no number that is another’s by then', async () => {
    const [first, second] = [await direct(), await direct()]
    await say(first, { placedAs: 'BOOK 9/17', isSent: false })
    const { version } = await write(first)
    await say(second, { placedAs: 'book 9-17', isSent: false })
    await directly(first, version)
    expect(await says(first)).toMatchObject({ placedAs: null, isSent: true, note: 'By the side door' })

    const again = await write(first)
    const kept = await rekko.as(LEONIE, (ctx) => findRequisition(ctx.tx, first))
    const draft = kept?.draft ?? expect.fail('it is there')
    const elsewhere = (await rows<{ id: string }>("select id from supplier where name = 'Northmole Water'"))[0]?.id
    const lines = draft.lines.map((l) => ({ ...l, supplierId: elsewhere ?? null }))
    const saved = await rekko.as(LEONIE, (ctx) => saveDraft(ctx, first, again.version, { ...draft, lines }))
    await directly(first, saved.version)
    expect(await says(first)).toMatchObject({ note: '', adjustments: [], delivery: null })
  })
})
