import { sql } from 'drizzle-orm'
import { afterAll, afterEach, beforeAll, describe, expect, test } from 'vitest'
import { addDays } from '#core/base/day'
import type { KeptAgreement } from '#shared/contract/agreement'
import { addAgreement, closeAgreement, keepAgreement } from '../../server/agreement/keep-agreement'
import { exportAgreements, listAgreements } from '../../server/dealings/list-agreements'
import { putAgreedPrices } from '../../server/dealings/put-agreed-prices'
import { readAgreement } from '../../server/dealings/read-agreement'
import { changeOrder } from '../../server/order/change-order'
import { listSent, listStanding } from '../../server/order/change-reads'
import { listOrderAgreements, setOrderAgreement } from '../../server/order/choose-agreement'
import { layOnTray, takeOffTray } from '../../server/order/lay-tray'
import { readDesk } from '../../server/order/read-desk'
import { proposeOrders } from '../../server/order/propose-orders'
import { findOrder } from '../../server/order/reads'
import { readDraftFacts } from '../../server/requisition/read-choices'
import { createDraft } from '../../server/requisition/save-draft'
import { sendRequisition } from '../../server/requisition/send-requisition'
import { readNotices } from '../../server/session/read-notices'
import { keepAgreements } from '../../server/upkeep/keep-agreements'
import { findItems } from '../../server/catalogue/reads'
import { computeDraft } from '#core/requisition/compute'
import { readFacts } from '#shared/contract/draft-facts'
import { closeWorkshop } from '../../server/files/workshop'
import { ordering } from '../setup/ordering'
import { freeLine, idOf, soundAgreement, soundDraft, TODAY } from '../setup/rekko'
import { openUseCases, type UseCases } from '../setup/use-cases'

// Harbour Waste sells services by free text; Leonie Farrow orders up to 3,000, Greta Molin keeps suppliers.
const [LEONIE, GRETA, OWEN] = ['Leonie Farrow', 'Greta Molin', 'Owen Marsh'] as const
let rekko: UseCases
beforeAll(async () => {
  rekko = await openUseCases()
  await rekko.arrange('update budget_balance set budgeted = budgeted + 1000000')
})
afterAll(async () => {
  await closeWorkshop()
  await rekko.stop()
})
// Each test begins with nothing that others agreed, or left open.
afterEach(async () => {
  await rekko.arrange('update agreement set is_closed = true, is_in_force = false')
  await rekko.arrange('update requisition_line set cancelled = quantity - ordered')
})
const { approvedLine, lay, issue } = ordering(() => rekko)

const kept = (more: Partial<KeptAgreement> = {}): KeptAgreement =>
  soundAgreement(idOf('supplier', 'Harbour Waste'), more)
const add = (more: Partial<KeptAgreement> = {}) => rekko.as(GRETA, (ctx) => addAgreement(ctx, kept(more)))
const close = (id: string, isClosed = true) =>
  rekko.as(GRETA, async (ctx) => closeAgreement(ctx, id, (await readAgreement(ctx, id)).version, isClosed))
const view = (id: string) => rekko.as(GRETA, (ctx) => readAgreement(ctx, id))
const figures = async (id: string) => {
  const { drawn, reserved, left } = await view(id)
  return [drawn.amount, reserved.amount, left?.amount]
}
const order = async (id: string) =>
  (await rekko.as(LEONIE, (ctx) => findOrder(ctx.tx, id))) ?? expect.fail('it is there')
const draws = async (id: string, agreementId: string | null) => {
  const { version } = await order(id)
  return rekko.as(LEONIE, (ctx) => setOrderAgreement(ctx, id, version, agreementId))
}
const change = async (id: string, wish: { quantity?: string; unitPrice?: string }) => {
  const { version } = await order(id)
  return rekko.as(LEONIE, async (ctx) => {
    const [line] = await listStanding(ctx.tx, id)
    if (line === undefined) throw new Error('no line')
    const { quantity, unitPrice, needBy } = { ...line, ...wish }
    const lines = [{ lineId: line.id, quantity, unitPrice, needBy }]
    const wishes = { lines, shipToId: null, rest: 'returns' as const, reason: 'so it is', note: '', asks: false }
    return changeOrder(ctx, id, version, wishes)
  })
}
/** Everything that stands in the table agrees with the orders that draw on it. */
const expectTrue = async () => {
  const { rows } = await rekko.db.execute(sql`select a.number from agreement a where a.drawn <> coalesce((
    select sum(o.net) from purchase_order o join document d using (id)
    where o.agreement_id = a.id and d.number is not null), 0)`)
  expect(rows).toEqual([])
}

describe('an order draws on an agreement', () => {
  test('by itself, from being asked for to being ordered, changed and cancelled', async () => {
    const { id, number } = await add()
    const line = await approvedLine('300.00')
    expect(await figures(id)).toEqual(['0.00', '300.00', '700.00'])
    const desk = await rekko.as(LEONIE, (ctx) => readDesk(ctx, 500))
    expect(desk.lines.find((l) => l.id === line)?.agreement).toBe(number)
    const orderId = await lay([line])
    expect((await order(orderId)).agreement).toBe(number)
    // What lies on a tray is asked for still.
    expect(await figures(id)).toEqual(['0.00', '300.00', '700.00'])
    await issue(orderId)
    expect(await figures(id)).toEqual(['300.00', '0.00', '700.00'])
    await change(orderId, { unitPrice: '280.00' })
    expect(await figures(id)).toEqual(['280.00', '0.00', '720.00'])
    const sent = await rekko.as(LEONIE, (ctx) => listSent(ctx.tx, orderId))
    expect(sent.map((s) => s.snapshot.agreement)).toEqual(['HW/7', 'HW/7'])
    expect((await view(id)).orders).toMatchObject([{ id: orderId, net: { amount: '280.00' } }])
    // Cancelled whole, what was ordered waits to be ordered again.
    await change(orderId, { quantity: '0' })
    expect(await figures(id)).toEqual(['0.00', '300.00', '700.00'])
    await expectTrue()
    await close(id)
    expect(await figures(id)).toEqual(['0.00', '0.00', '1000.00'])
  })

  test('never past its ceiling, whatever is issued first, and a change never makes it so', async () => {
    const { id } = await add({ ceiling: '500.00' })
    const [a, b] = [await lay([await approvedLine('300.00')]), await lay([await approvedLine('200.01')])]
    await issue(a)
    await expect(issue(b)).rejects.toMatchObject({ status: 409, type: 'refused' })
    expect((await order(b)).state).toBe('draft')
    await expect(change(a, { unitPrice: '500.01' })).rejects.toMatchObject({ status: 409 })
    await change(a, { unitPrice: '299.99' })
    await issue(b)
    // Up to the ceiling is within it; nothing more is.
    expect(await figures(id)).toEqual(['500.00', '0.00', '0.00'])
    await expect(change(b, { unitPrice: '200.02' })).rejects.toMatchObject({ status: 409 })
    await expectTrue()
  })

  test('of two that are issued at the same moment only one passes', async () => {
    const { id } = await add({ ceiling: '500.00' })
    const trays = [await lay([await approvedLine('300.00')]), await lay([await approvedLine('300.00')])]
    const done = await Promise.allSettled(trays.map((t) => issue(t)))
    expect(done.map((d) => d.status).sort()).toEqual(['fulfilled', 'rejected'])
    expect((await figures(id))[0]).toBe('300.00')
    await expectTrue()
  })

  test('later too, on another, or on none; what was said stays, whatever is laid on a tray after it', async () => {
    const tray = await lay([await approvedLine('100.00')])
    const issued = await lay([await approvedLine('400.00')])
    await issue(issued)
    const [one, other] = [await add({ ceiling: '450.00' }), await add({ name: 'Another', ceiling: '300.00' })]
    // Of two that fit alike none is drawn on by itself.
    expect((await order(tray)).agreementId).toBeNull()
    const { choices } = await rekko.as(LEONIE, (ctx) => listOrderAgreements(ctx, issued))
    expect(choices.filter((c) => c.reasons.length === 0).map((c) => c.id)).toEqual([one.id, other.id])
    await draws(issued, one.id)
    await draws(issued, one.id)
    expect((await figures(one.id))[0]).toBe('400.00')
    await expect(draws(issued, other.id)).rejects.toMatchObject({ type: 'does-not-fit' })
    await change(issued, { unitPrice: '250.00' })
    await draws(issued, other.id)
    expect([(await figures(one.id))[0], (await figures(other.id))[0]]).toEqual(['0.00', '250.00'])
    await draws(issued, null)
    expect((await figures(other.id))[0]).toBe('0.00')
    await draws(tray, other.id)
    const parts = [{ lineId: await approvedLine('10.00'), quantity: null }]
    await rekko.as(LEONIE, (ctx) => layOnTray(ctx, { orderId: tray, supplierId: null, parts }))
    expect(await order(tray)).toMatchObject({ agreementId: other.id, agreementSaid: true })
    // One that does not fit any more stops it, until something else is said.
    await close(other.id)
    await expect(issue(tray)).rejects.toMatchObject({ status: 409 })
    await draws(tray, null)
    await issue(tray)
    await expectTrue()
  })

  test('with the terms of payment that it agrees, and the supplier’s own without it', async () => {
    await add({ terms: { kind: 'month-end', days: 15 } })
    const tray = await lay([await approvedLine('50.00')])
    expect(await order(tray)).toMatchObject({ termsKind: 'month-end', termsDays: 15 })
    await draws(tray, null)
    expect((await order(tray)).termsKind).toBe('net')
    await rekko.as(LEONIE, (ctx) => takeOffTray(ctx, tray, null))
  })

  test('only by the departments it is for, on its days', async () => {
    const { id } = await add({ departmentIds: [idOf('department', 'Animal Care')] })
    const later = await add({ startsOn: addDays(TODAY, 1) })
    const line = await approvedLine('40.00')
    expect([await figures(id), await figures(later.id)].map(([, reserved]) => reserved)).toEqual(['0.00', '0.00'])
    const tray = await lay([line])
    const { choices } = await rekko.as(LEONIE, (ctx) => listOrderAgreements(ctx, tray))
    const reasons = (of: string) => choices.find((c) => c.id === of)?.reasons.join(' ')
    expect(reasons(id)).toBe('It is for other departments.')
    expect(reasons(later.id)).toMatch(/^It begins on /)
    await expect(draws(tray, id)).rejects.toMatchObject({ type: 'does-not-fit' })
    await rekko.as(LEONIE, (ctx) => takeOffTray(ctx, tray, null))
  })
})

describe('one that fixes items', () => {
  const supplierId = idOf('supplier', 'Corrigan Pumps')
  const draftOfParts = (parts: readonly string[]) => soundDraft(parts.map((part) => ({ part, quantity: 2 })))
  async function approved(parts: readonly string[]): Promise<{ lineIds: string[]; itemIds: string[] }> {
    const id = crypto.randomUUID()
    const draft = draftOfParts(parts)
    await rekko.as(OWEN, (ctx) => createDraft(ctx, id, draft))
    await rekko.as(OWEN, (ctx) => sendRequisition(ctx, id, 1))
    await rekko.arrange(`update document set state = 'approved' where id = '${id}'`)
    return { lineIds: draft.lines.map((l) => l.id), itemIds: draft.lines.flatMap((l) => l.itemId ?? []) }
  }

  test('parts what stands in it from what does not, on trays and in proposals', async () => {
    const { lineIds, itemIds } = await approved(['CP-SSK-28', 'CP-GS-25'])
    const items = [{ itemId: itemIds[0] ?? '', unitPrice: '7.35' }]
    const { id, number } = await add({ supplierId, fixes: 'items', ceiling: null, items })
    await expect(lay(lineIds)).rejects.toMatchObject({ type: 'does-not-fit' })
    const proposal = await rekko.as(LEONIE, (ctx) => proposeOrders(ctx, { choose: 'cheapest', waitDays: 5 }))
    const ours = proposal.orders.filter((o) => o.supplierId === supplierId)
    expect(ours.map((o) => o.agreement).sort()).toEqual([number, null].sort())
    const known = async () => (await rekko.as(LEONIE, (ctx) => findItems(ctx.tx, itemIds))).map((i) => i.hasAgreement)
    const before = await known()
    expect(before[itemIds.indexOf(items[0]?.itemId ?? '')] ?? before[0]).toBe(true)
    // The agreed price is put into the catalogue with one press, and differs no more.
    expect((await view(id)).items).toMatchObject([{ differs: true, unitPrice: '7.35' }])
    await rekko.as(LEONIE, (ctx) => putAgreedPrices(ctx, id, [items[0]?.itemId ?? '']))
    expect((await view(id)).items).toMatchObject([{ differs: false, catalogue: '7.35' }])
    const [inIt, apart] = [await lay(lineIds.slice(0, 1)), await lay(lineIds.slice(1))]
    expect([(await order(inIt)).agreement, (await order(apart)).agreement]).toEqual([number, null])
    await expect(draws(apart, id)).rejects.toMatchObject({ type: 'does-not-fit' })
  })

  test('that comes after lines were laid keeps nobody from taking some off again', async () => {
    const { lineIds, itemIds } = await approved(['CP-SSK-28', 'CP-GS-25', 'CP-CPL-38'])
    const tray = await lay(lineIds)
    const { number } = await add({ supplierId, fixes: 'items', items: [{ itemId: itemIds[0] ?? '', unitPrice: null }] })
    await rekko.as(LEONIE, (ctx) => takeOffTray(ctx, tray, lineIds.slice(2)))
    expect((await order(tray)).agreement).toBeNull()
    // Once all that is left draws on it, the tray does.
    await rekko.as(LEONIE, (ctx) => takeOffTray(ctx, tray, lineIds.slice(1, 2)))
    expect((await order(tray)).agreement).toBe(number)
  })

  test('is refused with what another supplier sells, and without anything', async () => {
    const { itemIds } = await approved(['CP-GS-25'])
    const items = itemIds.map((itemId) => ({ itemId, unitPrice: null }))
    await expect(add({ fixes: 'items', items })).rejects.toMatchObject({ status: 422 })
    await expect(add({ fixes: 'items', items: [] })).rejects.toMatchObject({ status: 422 })
  })
})

describe('keeping one', () => {
  test('is refused below what is drawn, with another supplier, and over what somebody else changed', async () => {
    const { id, version } = await add()
    const tray = await lay([await approvedLine('600.00')])
    await issue(tray)
    const keep = (more: Partial<KeptAgreement>, seen = version) =>
      rekko.as(GRETA, (ctx) => keepAgreement(ctx, id, seen, kept(more)))
    await expect(keep({ ceiling: '599.99' })).rejects.toMatchObject({ status: 409 })
    await expect(keep({ supplierId: idOf('supplier', 'Corrigan Pumps') })).rejects.toMatchObject({ status: 409 })
    await expect(keep({ currency: 'GBP' })).rejects.toMatchObject({ status: 409 })
    await expect(keep({ endsOn: addDays(TODAY, -31) })).rejects.toMatchObject({ status: 422 })
    await keep({ ceiling: '600.00' })
    await expect(keep({ ceiling: '900.00' })).rejects.toMatchObject({ status: 412 })
    expect(await figures(id)).toEqual(['600.00', '0.00', '0.00'])
  })

  test('its keeper hears once that its share is reached, and once a renewal of the day it is due', async () => {
    const { id } = await add({ renewOn: TODAY })
    const heard = async (words: string) =>
      (await rekko.as(GRETA, readNotices)).notices.filter((n) => n.link?.endsWith(id) && n.sentence.includes(words))
        .length
    for (const price of ['799.99', '0.01', '10.00']) {
      const tray = await lay([await approvedLine(price)])
      await issue(tray)
    }
    expect(await heard('warning share')).toBe(1)
    for (let i = 0; i < 2; i += 1) await rekko.as('Signe Aalto', keepAgreements)
    expect(await heard('whether it goes on')).toBe(1)
    const { agreements } = await rekko.as(GRETA, (ctx) => listAgreements(ctx, { words: 'waste', standing: 'in force' }))
    expect(agreements.find((a) => a.id === id)?.marks).toEqual([
      'its warning share is reached',
      expect.stringMatching(/^its renewal is due since /) as string,
    ])
    const { bytes } = await rekko.as(GRETA, (ctx) => exportAgreements(ctx, { words: '', standing: 'any', as: 'csv' }))
    expect(bytes.toString('utf8')).toContain('Waste of the year')
  })
})

test('whoever sends a request is told that it passes what is left, and goes on', async () => {
  const { id, number } = await add({ ceiling: '500.00', endsOn: addDays(TODAY, 20) })
  await approvedLine('300.00')
  const draftId = crypto.randomUUID()
  const draft = soundDraft([], { lines: [freeLine('250.00')] })
  await rekko.as(OWEN, (ctx) => createDraft(ctx, draftId, draft))
  const facts = await rekko.as(OWEN, (ctx) =>
    readDraftFacts(ctx, { departmentId: draft.departmentId ?? undefined, requisitionId: draftId }),
  )
  const { missing, subject } = computeDraft(draft, readFacts(facts))
  expect(missing.filter((m) => m.code.startsWith('agreement'))).toMatchObject([
    { code: 'agreement-passed', agreement: number, stops: false, by: { amount: '50.00' } },
    { code: 'agreement-ends', stops: false },
  ])
  expect(subject.codings.map((c) => c.hasAgreement)).toEqual([true])
  await rekko.as(OWEN, (ctx) => sendRequisition(ctx, draftId, 1))
  expect(await figures(id)).toEqual(['0.00', '550.00', '-50.00'])
})
