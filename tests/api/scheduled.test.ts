import { afterAll, beforeAll, expect, test } from 'vitest'
import type { ScheduledView } from '#shared/contract/scheduled'
import { REKKO } from '../../server/people/actor'
import { keepRun } from '../../server/upkeep/run-scheduled'
import { readScheduled } from '../../server/upkeep/scheduled-work'
import { moment, startRekko, until, type Client, type Rekko } from '../setup/rekko'
import { openUseCases, type UseCases } from '../setup/use-cases'

let rekko: Rekko
let alone: UseCases
let harriet: Client
beforeAll(async () => {
  rekko = await startRekko()
  harriet = await rekko.as('Harriet Voss')
  alone = await openUseCases()
})
afterAll(async () => {
  await rekko.stop()
  await alone.stop()
})
const work = async (task: string): Promise<ScheduledView> =>
  (await harriet.call<{ work: ScheduledView[] }>('GET', '/api/scheduled-work')).body.work.find(
    (w) => w.task === task,
  ) ?? expect.fail(`${task} is scheduled`)
const pause = (task: string, paused: boolean) =>
  harriet.call('PUT', `/api/scheduled-work/${task}/pause`, { body: { paused } })

test('what is asked for is done now, kept with who asked, and stays on its schedule', async () => {
  expect((await harriet.call('POST', '/api/scheduled-work/keep-suppliers/runs', {})).status).toBe(200)
  const done = await until('it is done', async () => {
    const w = await work('keep-suppliers')
    return w.runs.length > 0 ? w : null
  })
  expect(done.runs[0]).toMatchObject({ by: 'Harriet Voss', error: null })
  expect(done.next).not.toBeNull()
})

test('what is paused has no next time, until it goes on; what guards what is kept is never paused', async () => {
  expect((await pause('daily-letters', true)).status).toBe(200)
  expect(await work('daily-letters')).toMatchObject({ paused: { by: 'Harriet Voss' }, next: null })
  // Again is once; and it goes on.
  expect((await pause('daily-letters', true)).status).toBe(200)
  expect((await pause('daily-letters', false)).status).toBe(200)
  expect(await work('daily-letters')).toMatchObject({ paused: null })
  const refused = await pause('lay-chain', true)
  expect([refused.status, refused.body.detail]).toEqual([409, expect.stringMatching(/never paused/)])
  expect((await pause('no such work', true)).status).toBe(404)
  expect((await harriet.call('POST', '/api/scheduled-work/send-mail/runs', {})).status).toBe(404)
})

test('administrators are told of the first run that failed, and not of each; the last twenty are kept', async () => {
  const run = (error: string | null) =>
    alone.as('Harriet Voss', ({ tx }) =>
      keepRun({ tx, now: moment(), actor: REKKO }, { task: 'purge', beganAt: moment(), error, byId: null }),
    )
  const told = async () =>
    alone.as('Harriet Voss', async ({ tx }) => {
      const { notice } = await import('../../server/db/schema/people')
      const all = await tx.select({ told: notice.told }).from(notice)
      return all.filter((n) => n.told.code === 'scheduled-failed').length
    })
  await run(null)
  await run('the disk is full')
  await run('the disk is full')
  expect(await told()).toBe(1)
  await run(null)
  await run('again')
  expect(await told()).toBe(2)
  for (let i = 0; i < 22; i += 1) await run(null)
  const { work: all } = await alone.as('Harriet Voss', (ctx) => readScheduled(ctx))
  expect(all.find((w) => w.task === 'purge')?.runs).toHaveLength(20)
})
