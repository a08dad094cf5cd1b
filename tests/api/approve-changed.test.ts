import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import type { MayChange } from '#core/approval/policy-form'
import type { LineChange } from '#core/requisition/decided-change'
import { decide } from '../../server/approval/decide'
import { findRoute, listApprovals, listDecisions, listOpenActors } from '../../server/approval/reads'
import { takeBack } from '../../server/approval/take-back'
import { listPayingLines } from '../../server/budget/reads'
import { readRequestDecision } from '../../server/decide/read-request-decision'
import { checkIntegrity } from '../../server/look-back/check-integrity'
import { approveChanged } from '../../server/requisition/approve-changed'
import { REQUISITION } from '../../server/requisition/kind'
import { findRequisition } from '../../server/requisition/reads'
import { createDraft } from '../../server/requisition/save-draft'
import { sendRequisition } from '../../server/requisition/send-requisition'
import { readTrail } from '../../server/trail/read-trail'
import { budgetLineId, fiscalYear, freeLine, moment, soundDraft } from '../setup/rekko'
import { openUseCases, type UseCases } from '../setup/use-cases'

// Owen Marsh asks; Ines Adeyemi, up to 2,000, and then Tomas Brandt decide. Tomas holds the budgets of Water Systems.
const [OWEN, INES, TOMAS] = ['Owen Marsh', 'Ines Adeyemi', 'Tomas Brandt'] as const
const line = (account: string) => budgetLineId('Water Systems', account, fiscalYear())
const [WASTE, TOOLS] = [line('616'), line('630')]
let rekko: UseCases
beforeAll(async () => {
  rekko = await openUseCases()
  await rekko.arrange('update budget_balance set budgeted = budgeted + 1000000')
})
afterAll(() => rekko.stop())
const may = (what: MayChange) => rekko.arrange('update approval_policy set may_change = $1', [what])

const read = (id: string) =>
  rekko.as(OWEN, async (ctx) => (await findRequisition(ctx.tx, id)) ?? expect.fail('it is there'))
const waitsFor = async (id: string) => (await rekko.as(OWEN, (ctx) => listOpenActors(ctx.tx, id))).map((p) => p.name)
const approved = (id: string) => rekko.as(OWEN, async (ctx) => (await listApprovals(ctx.tx, id)).length)
/** What stands reserved of the year of a budget line. */
async function reserved(id: string): Promise<number> {
  const of = { departmentId: null, fiscalYear: 0, ids: [id] }
  const [found] = await rekko.as(OWEN, (ctx) => listPayingLines(ctx.tx, of, 'EUR'))
  return (found?.periods ?? []).reduce((sum, p) => sum + Number(p.reserved.amount), 0)
}
async function sent(price = '300', quantity = '10'): Promise<{ id: string; lineId: string }> {
  const id = crypto.randomUUID()
  const draft = soundDraft([], { lines: [freeLine(price, { quantity })] })
  await rekko.as(OWEN, (ctx) => createDraft(ctx, id, draft))
  await rekko.as(OWEN, (ctx) => sendRequisition(ctx, id, 1))
  return { id, lineId: draft.lines[0]?.id ?? '' }
}
const approve = async (who: string, id: string) => {
  const { version } = await read(id)
  return rekko.as(who, (ctx) => decide(ctx, REQUISITION, id, version, 'approve', ''))
}
const change = async (who: string, id: string, changes: readonly LineChange[], comment = '') => {
  const { version } = await read(id)
  return rekko.as(who, (ctx) => approveChanged(ctx, id, version, changes, comment))
}
const isSound = async () => {
  expect((await rekko.as('Signe Aalto', (ctx) => checkIntegrity(ctx, null))).broken).toEqual([])
}

describe('less of a line', () => {
  test('is approved with it: approvals before stay, the money follows, its owner hears of it', async () => {
    await may('quantities')
    const { id, lineId } = await sent()
    expect(await waitsFor(id)).toEqual([INES])
    await approve(INES, id)
    const before = await reserved(WASTE)
    expect(await rekko.as(TOMAS, async (ctx) => (await readRequestDecision(ctx, id)).mayChange)).toBe('quantities')
    const { state } = await change(TOMAS, id, [{ lineId, quantity: '4.5' }], 'Four and a half will do.')
    expect([state, (await read(id)).state]).toEqual(['approved', 'approved'])
    expect((await read(id)).lines[0]?.quantity).toBe('4.5')
    expect(await reserved(WASTE)).toBeCloseTo(before - 1650, 6)
    expect(await approved(id)).toBe(2)
    const trail = await rekko.as(OWEN, (ctx) => readTrail(ctx, id))
    expect(trail.entries.map((e) => [e.who, e.more])).toContainEqual([
      TOMAS,
      'changed with it: Something of our own: 10 → 4.5 service',
    ])
    await isSound()
  })
  test('so little that fewer are needed is approved at once', async () => {
    const { id, lineId } = await sent()
    expect((await change(INES, id, [{ lineId, quantity: '2' }])).state).toBe('approved')
    expect((await rekko.as(OWEN, (ctx) => findRoute(ctx.tx, id)))?.amount).toBe('600')
    await isSound()
  })
  test('is refused where the policy has none of it, where it is more or nothing, and by others', async () => {
    const { id, lineId } = await sent()
    await expect(change(INES, id, [{ lineId, quantity: '11' }])).rejects.toThrow(/lowered, not raised/)
    await expect(change(INES, id, [{ lineId, quantity: '0' }])).rejects.toThrow(/something has to be left/)
    await expect(change(INES, id, [{ lineId, budgetLineId: TOOLS }])).rejects.toThrow(/does not let/)
    await expect(change(TOMAS, id, [{ lineId, quantity: '1' }])).rejects.toThrow()
    await expect(change(OWEN, id, [{ lineId, quantity: '1' }])).rejects.toThrow()
    await may('nothing')
    await expect(change(INES, id, [{ lineId, quantity: '1' }])).rejects.toThrow(/does not let/)
    expect((await read(id)).lines[0]?.quantity).toBe('10')
    expect(await waitsFor(id)).toEqual([INES])
    await isSound()
  })
  test('taken back, it is as it was, with the approvals before it', async () => {
    await may('quantities')
    const { id, lineId } = await sent()
    await approve(INES, id)
    const before = await reserved(WASTE)
    const { decisionId } = await change(TOMAS, id, [{ lineId, quantity: '1' }])
    await rekko.as(TOMAS, (ctx) => takeBack(ctx, REQUISITION, id, decisionId))
    const back = await read(id)
    expect([back.state, back.lines[0]?.quantity, back.sentDraft?.lines[0]?.quantity]).toEqual([
      'in approval',
      '10',
      '10',
    ])
    expect(await reserved(WASTE)).toBe(before)
    expect([await waitsFor(id), await approved(id)]).toEqual([[TOMAS], 1])
    await isSound()
    expect((await approve(TOMAS, id)).state).toBe('approved')
    await isSound()
  })
})

describe('another budget line that pays', () => {
  test('moves the reservation, and only the approval of whoever changed it counts', async () => {
    await may('quantities and payers')
    const { id, lineId } = await sent()
    await approve(INES, id)
    const [waste, tools] = [await reserved(WASTE), await reserved(TOOLS)]
    const seen = await rekko.as(TOMAS, (ctx) => readRequestDecision(ctx, id))
    expect(seen.payers[0]?.now).toBe(WASTE)
    expect(seen.payers[0]?.may.map((p) => p.id)).toContain(TOOLS)
    expect((await change(TOMAS, id, [{ lineId, budgetLineId: TOOLS }])).state).toBe('in approval')
    expect([await reserved(WASTE), await reserved(TOOLS)]).toEqual([waste - 3000, tools + 3000])
    expect([await waitsFor(id), await approved(id)]).toEqual([[INES], 1])
    const anew = await rekko.as(INES, (ctx) => readRequestDecision(ctx, id))
    expect(anew.changes).toEqual(['Something of our own: another who pays'])
    expect((await approve(INES, id)).state).toBe('approved')
    await isSound()
  })
  test('taken back, the line from before pays, and the approvals before stand again', async () => {
    const { id, lineId } = await sent()
    await approve(INES, id)
    const [waste, tools] = [await reserved(WASTE), await reserved(TOOLS)]
    const { decisionId } = await change(TOMAS, id, [{ lineId, quantity: '9', budgetLineId: TOOLS }])
    await rekko.as(TOMAS, (ctx) => takeBack(ctx, REQUISITION, id, decisionId))
    expect([await reserved(WASTE), await reserved(TOOLS)]).toEqual([waste, tools])
    expect([await waitsFor(id), await approved(id)]).toEqual([[TOMAS], 1])
    const decisions = await rekko.as(OWEN, (ctx) => listDecisions(ctx.tx, id))
    expect(decisions.map((d) => [d.actor, d.takenBack])).toEqual([
      [INES, false],
      [TOMAS, true],
    ])
    await isSound()
  })
  test('that refuses is asked under lock, and one of another department or year never pays', async () => {
    const { id, lineId } = await sent()
    await rekko.arrange(`update budget_line set control = 'refuses' where id = $1`, [TOOLS])
    await rekko.arrange('update budget_balance set budgeted = 0 where budget_line_id = $1', [TOOLS])
    await expect(change(INES, id, [{ lineId, budgetLineId: TOOLS }])).rejects.toThrow(/would be passed by/)
    for (const other of [
      budgetLineId('Animal Care', '622', fiscalYear()),
      budgetLineId('Water Systems', '630', fiscalYear() + 1),
    ])
      await expect(change(INES, id, [{ lineId, budgetLineId: other }])).rejects.toThrow(/does not pay/)
    expect([(await read(id)).state, await waitsFor(id)]).toEqual(['in approval', [INES]])
    await isSound()
  })
})

test('two who change it at once: one does, the other is told', async () => {
  await may('quantities')
  const { id, lineId } = await sent()
  const { version } = await read(id)
  const at = moment()
  const both = await Promise.allSettled(
    ['5', '6'].map((quantity) =>
      rekko.as(INES, (ctx) => approveChanged(ctx, id, version, [{ lineId, quantity }], ''), at),
    ),
  )
  expect(both.map((r) => r.status).sort()).toEqual(['fulfilled', 'rejected'])
  await isSound()
})
