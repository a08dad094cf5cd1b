import { afterAll, beforeAll, expect, test } from 'vitest'
import { decide } from '../../server/approval/decide'
import { listOpenActors } from '../../server/approval/reads'
import { routeAgain } from '../../server/approval/route-again'
import { moveWaiting } from '../../server/decide/move-waiting'
import { readWaiting } from '../../server/decide/read-waiting'
import { REQUISITION } from '../../server/requisition/kind'
import { createDraft } from '../../server/requisition/save-draft'
import { sendRequisition } from '../../server/requisition/send-requisition'
import { readTrail } from '../../server/trail/read-trail'
import { freeLine, personId, soundDraft } from '../setup/rekko'
import { openUseCases, type UseCases } from '../setup/use-cases'

// Owen Marsh’s manager is Ines Adeyemi, who decides up to 1,000. Harriet Voss is the administrator; Signe Aalto the
// auditor; Marguerite Oduya decides in the end.
let rekko: UseCases
beforeAll(async () => {
  rekko = await openUseCases()
  await rekko.arrange('delete from holiday')
})
afterAll(() => rekko.stop())

async function raise(): Promise<string> {
  const id = crypto.randomUUID()
  await rekko.as('Owen Marsh', (ctx) => createDraft(ctx, id, soundDraft([], { lines: [freeLine('260')] })))
  await rekko.as('Owen Marsh', (ctx) => sendRequisition(ctx, id, 1))
  return id
}
type Move = Parameters<typeof moveWaiting>[1]['move']
const waiting = (who = 'Harriet Voss', words = '') => rekko.as(who, (ctx) => readWaiting(ctx, words))
const seatsOf = async (...ids: string[]) => {
  const numbers = await Promise.all(
    ids.map(async (id) => (await rekko.as('Owen Marsh', (c) => readTrail(c, id))).number),
  )
  return (await waiting()).steps.filter((s) => numbers.includes(s.number)).map((s) => s.seatId)
}
const move = (seatIds: string[], what: Move) =>
  rekko.as('Harriet Voss', (ctx) => moveWaiting(ctx, { seatIds, move: what, comment: 'She is at sea.' }))
const open = async (id: string) =>
  (await rekko.as('Owen Marsh', (ctx) => listOpenActors(ctx.tx, id))).map((p) => p.name)
test('an administrator sees number and name of what waits; whoever sees all documents sees what it is', async () => {
  const id = await raise()
  const [number] = [(await rekko.as('Owen Marsh', (ctx) => readTrail(ctx, id))).number]
  const asAdministrator = (await waiting()).steps.find((s) => s.number === number)
  expect(asAdministrator).toMatchObject({ name: 'Ines Adeyemi', document: null, days: 0 })
  const asAuditor = (await waiting('Signe Aalto')).steps.find((s) => s.number === number)
  expect(asAuditor?.document).toMatchObject({ id, owner: 'Owen Marsh' })
  await rekko.arrange(`update approval_seat set opened_at = now() - interval '20 days' where document_id = $1`, [id])
  const [longest] = (await waiting()).steps
  expect([longest?.number, (longest?.days ?? 0) >= 13 && (longest?.days ?? 0) <= 15]).toEqual([number, true])
  expect((await waiting('Harriet Voss', 'ines')).total).toBeGreaterThan(0)
  expect((await waiting('Harriet Voss', 'nobody of this name')).total).toBe(0)
})

test('several are passed on at once, all or none, each by its own event', async () => {
  const [a, b] = [await raise(), await raise()]
  const seats = await seatsOf(a, b)
  // One may not be decided by whom it is passed on to: neither is moved, and which it was is said.
  await rekko.arrange('update document set owned_by = array[$2::uuid] where id = $1', [b, personId('Kaveh Dorani')])
  await expect(move(seats, { does: 'pass on', toId: personId('Kaveh Dorani') })).rejects.toThrow(/R-.*nobody decides/)
  expect([await open(a), await open(b)]).toEqual([['Ines Adeyemi'], ['Ines Adeyemi']])
  await rekko.arrange(`update document set owned_by = '{}' where id = $1`, [b])
  await expect(move(seats, { does: 'pass on', toId: personId('Harriet Voss') })).rejects.toThrow(/to themselves/)
  expect(await move(seats, { does: 'pass on', toId: personId('Kaveh Dorani') })).toEqual({ moved: 2 })
  expect([await open(a), await open(b)]).toEqual([['Kaveh Dorani'], ['Kaveh Dorani']])
  const trail = await rekko.as('Owen Marsh', (ctx) => readTrail(ctx, a))
  expect(trail.entries.map((e) => `${e.who} ${e.what}`)).toContain(
    'Harriet Voss passed it on to Kaveh Dorani: “She is at sea.”',
  )
  // Pressed again, they wait elsewhere by now.
  await expect(move(seats, { does: 'remind' })).rejects.toThrow(/no longer/)
})

test('nobody says who decides on their own', async () => {
  const id = await raise()
  const seats = await seatsOf(id)
  await rekko.arrange('update document set owned_by = array[$2::uuid] where id = $1', [id, personId('Harriet Voss')])
  await expect(move(seats, { does: 'pass on', toId: personId('Kaveh Dorani') })).rejects.toThrow(/is your own/)
  await move(seats, { does: 'remind' })
  await rekko.arrange(`update document set owned_by = '{}' where id = $1`, [id])
})

test('skipping asks whoever decides in the end, where the policy has it, and approves nothing', async () => {
  const id = await raise()
  const seats = await seatsOf(id)
  expect((await waiting()).skipTo).toBeNull()
  await expect(move(seats, { does: 'skip' })).rejects.toThrow(/has no step skipped/)
  await rekko.arrange('update approval_policy set may_skip = true')
  expect((await waiting()).skipTo).toBe('Marguerite Oduya')
  await move(seats, { does: 'skip' })
  expect([await open(id), (await rekko.as('Owen Marsh', (ctx) => readTrail(ctx, id))).state]).toEqual([
    ['Marguerite Oduya'],
    'in approval',
  ])
  const version = (await rekko.as('Owen Marsh', (ctx) => readTrail(ctx, id))).version
  const done = await rekko.as('Marguerite Oduya', (ctx) => decide(ctx, REQUISITION, id, version, 'approve', ''))
  expect(done.state).toBe('approved')
  await rekko.arrange('update approval_policy set may_skip = false')
})

test('whoever is reminded is told; less than a day later it is refused, and nobody is', async () => {
  const [a, b] = [await raise(), await raise()]
  const seats = await seatsOf(a, b)
  await move(seats.slice(0, 1), { does: 'remind' })
  await expect(move(seats, { does: 'remind' })).rejects.toThrow(/less than a day/)
  expect((await waiting()).steps.filter((s) => seats.includes(s.seatId) && s.remindedAt !== null)).toHaveLength(1)
})

test('what nobody is found for stands there with the reason, by its number', async () => {
  const id = await raise()
  await rekko.arrange('update approval_policy set fallback_id = null')
  await rekko.arrange(`update person set left_on = '2020-01-01' where name in ('Ines Adeyemi', 'Tomas Brandt',
    'Marguerite Oduya', 'Aldous Penhale')`)
  await rekko.as('Harriet Voss', async (ctx) =>
    routeAgain(ctx, REQUISITION, (await REQUISITION.find(ctx.tx, id, true)) ?? expect.fail('gone')),
  )
  const { held } = await waiting()
  expect(held).toMatchObject([{ id: null, title: null }])
  expect(held[0]?.why).toMatch(/nobody who decides in the end/)
})
