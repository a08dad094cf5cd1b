import { afterAll, beforeAll, expect, test } from 'vitest'
import { addDays } from '#core/base/day'
import { listOpenActors } from '../../server/approval/reads'
import { routeAgain } from '../../server/approval/route-again'
import { readAbsences } from '../../server/people/find-people'
import { endAway, setAway } from '../../server/people/set-away'
import { REQUISITION } from '../../server/requisition/kind'
import { createDraft } from '../../server/requisition/save-draft'
import { sendRequisition } from '../../server/requisition/send-requisition'
import { freeLine, idOf, personId, soundDraft, TODAY } from '../setup/rekko'
import { openUseCases, type UseCases } from '../setup/use-cases'

// Ines Adeyemi is Owen Marsh's manager; both are of Water Systems, which Hallamere's whole house stands above.
let rekko: UseCases
beforeAll(async () => {
  rekko = await openUseCases()
})
afterAll(() => rekko.stop())

const WATER = idOf('department', 'Water Systems')
const away = (byDepartment: readonly { departmentId: string; substituteId: string }[], substitute = 'Greta Molin') =>
  rekko.as('Ines Adeyemi', (ctx) =>
    setAway(ctx, {
      ...{ personId: personId('Ines Adeyemi'), from: TODAY, until: addDays(TODAY, 3) },
      ...{ substituteId: personId(substitute), byDepartment, note: '' },
    }),
  )
const back = (id: string) => rekko.as('Ines Adeyemi', (ctx) => endAway(ctx, id, 1))
async function asked(): Promise<string[]> {
  const id = crypto.randomUUID()
  const draft = soundDraft([], { lines: [freeLine('1200')] })
  await rekko.as('Owen Marsh', (ctx) => createDraft(ctx, id, draft))
  await rekko.as('Owen Marsh', (ctx) => sendRequisition(ctx, id, 1))
  return (await rekko.as('Owen Marsh', (ctx) => listOpenActors(ctx.tx, id))).map((p) => p.name)
}

test('one stands in for a department, another for the rest', async () => {
  const { id } = await away([{ departmentId: WATER, substituteId: personId('Kaveh Dorani') }])
  expect(await asked()).toEqual(['Kaveh Dorani'])
  const mine = await rekko.as('Ines Adeyemi', readAbsences)
  expect(mine.mine[0]?.byDepartment.map((s) => [s.department, s.substitute])).toEqual([
    ['Water Systems', 'Kaveh Dorani'],
  ])
  // Whoever stands in for one department hears for which.
  const covers = await rekko.as('Kaveh Dorani', readAbsences)
  expect(covers.covers.find((a) => a.id === id)?.byDepartment.map((s) => s.department)).toEqual(['Water Systems'])
  await back(id)
  const other = await away([
    { departmentId: idOf('department', 'Animal Care'), substituteId: personId('Kaveh Dorani') },
  ])
  expect(await asked()).toEqual(['Greta Molin'])
  await back(other.id)
  expect(await asked()).toEqual(['Ines Adeyemi'])
})
test('what waits follows when it is said, and when it ends', async () => {
  const id = crypto.randomUUID()
  await rekko.as('Owen Marsh', (ctx) => createDraft(ctx, id, soundDraft([], { lines: [freeLine('1200')] })))
  await rekko.as('Owen Marsh', (ctx) => sendRequisition(ctx, id, 1))
  const follow = () =>
    rekko.as('Harriet Voss', async (ctx) =>
      routeAgain(ctx, REQUISITION, (await REQUISITION.find(ctx.tx, id, true)) ?? expect.fail('gone')),
    )
  const waits = async () => (await rekko.as('Owen Marsh', (ctx) => listOpenActors(ctx.tx, id))).map((p) => p.name)
  const said = await away([{ departmentId: WATER, substituteId: personId('Kaveh Dorani') }])
  await follow()
  expect(await waits()).toEqual(['Kaveh Dorani'])
  await back(said.id)
  await follow()
  expect(await waits()).toEqual(['Ines Adeyemi'])
})
test('nobody stands in for themselves, for an unknown department, or twice for one', async () => {
  await expect(away([{ departmentId: WATER, substituteId: personId('Ines Adeyemi') }])).rejects.toThrow(/themselves/)
  await expect(away([{ departmentId: crypto.randomUUID(), substituteId: personId('Kaveh Dorani') }])).rejects.toThrow(
    /not known/,
  )
  await expect(
    away(['Kaveh Dorani', 'Greta Molin'].map((n) => ({ departmentId: WATER, substituteId: personId(n) }))),
  ).rejects.toThrow(/one person for each/)
  expect((await rekko.as('Ines Adeyemi', readAbsences)).mine).toEqual([])
})
