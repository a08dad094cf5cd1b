import { afterAll, beforeAll, expect, test } from 'vitest'
import { addDays } from '#core/base/day'
import { computeProposal } from '../../server/order/compute-proposal'
import { layOnTray, takeOffTray } from '../../server/order/lay-tray'
import { putAside } from '../../server/order/put-aside'
import { readDesk } from '../../server/order/read-desk'
import { readMe } from '../../server/session/read-me'
import { readTrail } from '../../server/trail/read-trail'
import { closeWorkshop } from '../../server/files/workshop'
import { ordering } from '../setup/ordering'
import { moment, TODAY } from '../setup/rekko'
import { openUseCases, type UseCases } from '../setup/use-cases'

const [LEONIE, OWEN] = ['Leonie Farrow', 'Owen Marsh']
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

const later = (days: number) => new Date(moment().getTime() + days * 86_400_000)
const day = (days: number) => addDays(TODAY, days)
const put = (lineIds: string[], until: string | null, reason = '', by = LEONIE) =>
  rekko.as(by, (ctx) => putAside(ctx, { lineIds, until, reason }))
const desk = (aside: 'no' | 'yes', at = moment()) =>
  rekko.as(LEONIE, (ctx) => readDesk(ctx, 500, { words: '', supplier: 'any', due: 'any', aside }), at)
const stands = async (id: string, at = moment()) => {
  const [waits, aside] = [await desk('no', at), await desk('yes', at)]
  for (const d of [waits, aside]) expect(d.total).toBe(d.lines.length)
  const counted = (await rekko.as(LEONIE, (ctx) => readMe(ctx), at)).waiting.order
  expect(counted).toBe(waits.lines.length)
  const inWaits = waits.lines.some((l) => l.id === id)
  const inAside = aside.lines.some((l) => l.id === id)
  return inWaits && inAside ? 'twice' : inWaits ? 'waits' : inAside ? 'aside' : 'nowhere'
}
const proposed = async (id: string, at = moment()) => {
  const options = {
    choose: 'oldest',
    waitFor: null,
    windowDays: null,
    mostRequests: null,
    byDepartment: false,
  } as const
  const { rows } = await rekko.as(LEONIE, (ctx) => computeProposal(ctx, options), at)
  return rows.has(id)
}

test('a line that is put aside waits nowhere until its day, and on it waits again by itself', async () => {
  const id = await approvedLine('12.50')
  expect([await stands(id), await proposed(id)]).toEqual(['waits', true])
  await put([id], day(7), '  quotes are on their way ')
  expect([await stands(id), await proposed(id)]).toEqual(['aside', false])
  expect((await desk('yes')).lines.find((l) => l.id === id)).toMatchObject({
    ...{ asideUntil: day(7), asideReason: 'quotes are on their way' },
  })
  expect([await stands(id, later(6)), await stands(id, later(7))]).toEqual(['aside', 'waits'])
  expect([await proposed(id, later(6)), await proposed(id, later(7))]).toEqual([false, true])
  // Put aside again it is for the new day; taken up again it waits at once.
  await put([id], day(20))
  expect(await stands(id, later(7))).toBe('aside')
  await put([id], null)
  expect(await stands(id)).toBe('waits')
  await put([id], null)
  expect(await stands(id)).toBe('waits')
})

test('whoever asked reads on the trail until when, and why', async () => {
  const id = await approvedLine('12.50')
  await put([id], day(7), 'quotes are on their way')
  await put([id], null)
  const requestId = (await desk('no')).lines.find((l) => l.id === id)?.requisitionId ?? ''
  const { entries } = await rekko.as(OWEN, (ctx) => readTrail(ctx, requestId))
  const said = entries.map((e) => `${e.what} ${e.more}`)
  expect(said).toContainEqual(expect.stringMatching(/^put aside until .*: .* “quotes are on their way”$/))
  expect(said).toContainEqual(expect.stringMatching(/^took up again: /))
})

test('laid on a tray it is put aside no more, also what is left of it; taken off, it waits', async () => {
  const id = await approvedLine('12.50', OWEN, '10')
  await put([id], day(7))
  const parts = [{ lineId: id, quantity: '4' }]
  const { orderId } = await rekko.as(LEONIE, (ctx) => layOnTray(ctx, { orderId: null, supplierId: null, parts }))
  expect(await stands(id)).toBe('waits')
  // The rest may be put aside while a part lies on a tray, and stays so when that is taken off or ordered.
  await put([id], day(7))
  expect(await stands(id)).toBe('aside')
  await rekko.as(LEONIE, (ctx) => takeOffTray(ctx, orderId, null))
  expect(await stands(id)).toBe('aside')
  await put([id], null)
  const whole = await lay([id])
  await expect(put([id], day(7))).rejects.toThrow(/lies on a tray or is ordered already/)
  await issue(whole)
  await expect(put([id], day(7))).rejects.toMatchObject({ status: 409 })
})

test('what cannot be put aside is refused in a sentence, and nothing is', async () => {
  const [one, two] = [await approvedLine('12.50'), await approvedLine('13.50')]
  await expect(put([one, two], day(0))).rejects.toThrow(/Say a later day/)
  await expect(put([one], day(400))).rejects.toThrow(/at the latest/)
  await expect(put([one, one], day(3))).rejects.toMatchObject({ status: 422 })
  await expect(put([one, crypto.randomUUID()], day(3))).rejects.toMatchObject({ status: 404 })
  await expect(put([one], day(3), '', OWEN)).rejects.toMatchObject({ status: 404 })
  const laid = await lay([two])
  await expect(put([one, two], day(3))).rejects.toThrow(/lies on a tray/)
  expect(await stands(one)).toBe('waits')
  await rekko.as(LEONIE, (ctx) => takeOffTray(ctx, laid, null))
})
