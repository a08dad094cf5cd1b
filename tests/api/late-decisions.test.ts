import { afterAll, beforeAll, expect, test } from 'vitest'
import type { DocumentHead } from '../../server/document/kind'
import { decide } from '../../server/approval/decide'
import { listOpenSeats } from '../../server/approval/reads'
import { remindLate } from '../../server/approval/remind-late'
import { routeAgain } from '../../server/approval/route-again'
import type { Context } from '../../server/context'
import { DECIDABLES } from '../../server/kinds'
import { REKKO } from '../../server/people/actor'
import { createDraft } from '../../server/requisition/save-draft'
import { sendRequisition } from '../../server/requisition/send-requisition'
import { freeLine, moment, personId, soundDraft } from '../setup/rekko'
import { openUseCases, type UseCases } from '../setup/use-cases'

let rekko: UseCases
beforeAll(async () => {
  rekko = await openUseCases()
  await rekko.arrange('update approval_policy set remind_days = 2, escalate_days = 4')
  await rekko.arrange('delete from holiday')
})
afterAll(() => rekko.stop())

const REQUISITIONS = DECIDABLES.requisition ?? expect.fail('requisitions are decided on')
const [INES, TOMAS] = [personId('Ines Adeyemi'), personId('Tomas Brandt')]
/** Something of 600 asks Ines Adeyemi; it came to her on a Tuesday. */
async function raise(openedOn = '2026-11-17T15:00:00Z'): Promise<string> {
  const id = crypto.randomUUID()
  await rekko.as('Owen Marsh', (ctx) => createDraft(ctx, id, soundDraft([], { lines: [freeLine('600')] })))
  await rekko.as('Owen Marsh', (ctx) => sendRequisition(ctx, id, 1))
  await rekko.arrange(`update approval_seat set opened_at = $2 where document_id = $1`, [id, openedOn])
  return id
}
const withDocument = <T>(id: string, now: string, work: (ctx: Context, d: DocumentHead) => Promise<T>) =>
  rekko.as('Owen Marsh', async ({ tx }) => {
    const document = (await REQUISITIONS.find(tx, id, true)) ?? expect.fail('it is there')
    return work({ tx, now: new Date(now), actor: REKKO }, document)
  })
const look = (id: string, now: string) => withDocument(id, now, (ctx, d) => remindLate(ctx, REQUISITIONS, d as never))
const seats = async (id: string) =>
  (await rekko.as('Owen Marsh', (ctx) => listOpenSeats(ctx.tx, id))).map((s) => [
    s.actorId,
    s.remindedAt !== null,
    s.lateAt !== null,
  ])

test('reminded once after two business days; after four the next manager is asked beside', async () => {
  const id = await raise()
  await look(id, '2026-11-18T23:30:00Z')
  expect(await seats(id)).toEqual([[INES, false, false]])
  await look(id, '2026-11-19T00:30:00Z')
  expect(await seats(id)).toEqual([[INES, true, false]])
  await look(id, '2026-11-20T09:00:00Z')
  // The fourth business day after a Tuesday is a Monday.
  await look(id, '2026-11-22T12:00:00Z')
  expect(await seats(id)).toEqual([[INES, true, false]])
  await look(id, '2026-11-23T01:00:00Z')
  expect((await seats(id)).sort()).toEqual(
    [
      [INES, true, true],
      [TOMAS, false, false],
    ].sort(),
  )
  // Again, and routed again, it stays.
  await look(id, '2026-11-23T02:00:00Z')
  expect(await withDocument(id, moment().toISOString(), (ctx, d) => routeAgain(ctx, REQUISITIONS, d as never))).toBe(
    false,
  )
  expect(await seats(id)).toHaveLength(2)
  const version = await withDocument(id, moment().toISOString(), (_, d) => Promise.resolve(d.version))
  const done = await rekko.as('Tomas Brandt', (ctx) => decide(ctx, REQUISITIONS, id, version, 'approve', ''))
  expect(done.state).toBe('approved')
  expect(await seats(id)).toEqual([])
})

test('whoever is asked decides all the same, and the manager is asked no more', async () => {
  const id = await raise()
  await look(id, '2026-11-24T09:00:00Z')
  expect(await seats(id)).toHaveLength(2)
  const version = await withDocument(id, moment().toISOString(), (_, d) => Promise.resolve(d.version))
  expect((await rekko.as('Ines Adeyemi', (ctx) => decide(ctx, REQUISITIONS, id, version, 'approve', ''))).state).toBe(
    'approved',
  )
  expect(await seats(id)).toEqual([])
})

test('a policy without days reminds nobody, however long it waits', async () => {
  await rekko.arrange('update approval_policy set remind_days = null, escalate_days = null')
  const id = await raise('2026-01-05T09:00:00Z')
  await look(id, '2026-11-24T09:00:00Z')
  expect(await seats(id)).toEqual([[INES, false, false]])
})
