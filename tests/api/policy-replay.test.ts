import { afterAll, beforeAll, expect, test } from 'vitest'
import type { PolicyForm } from '#core/approval/policy-form'
import { money } from '#core/base/money'
import { decide } from '../../server/approval/decide'
import { keepDraft } from '../../server/decide/policy-draft'
import { findDraft } from '../../server/decide/policy-reads'
import { readApprovalPolicy } from '../../server/decide/read-policy'
import { replayDraft } from '../../server/decide/replay-draft'
import { REQUISITION } from '../../server/requisition/kind'
import { createDraft } from '../../server/requisition/save-draft'
import { sendRequisition } from '../../server/requisition/send-requisition'
import { freeLine, personId, soundDraft, TODAY } from '../setup/rekko'
import { openUseCases, type UseCases } from '../setup/use-cases'

let rekko: UseCases
const ids: string[] = []
beforeAll(async () => {
  rekko = await openUseCases()
  await rekko.arrange('update budget_balance set budgeted = budgeted + 100000')
  for (const price of ['260', '299.99', '300', '900']) {
    const id = crypto.randomUUID()
    ids.push(id)
    await rekko.as('Owen Marsh', (ctx) => createDraft(ctx, id, soundDraft([], { lines: [freeLine(price)] })))
    await rekko.as('Owen Marsh', (ctx) => sendRequisition(ctx, id, 1))
  }
  const first = await rekko.as('Owen Marsh', (ctx) => REQUISITION.find(ctx.tx, ids[0] ?? ''))
  await rekko.as('Ines Adeyemi', (ctx) => decide(ctx, REQUISITION, ids[0] ?? '', first?.version ?? 0, 'approve', ''))
  await rekko.arrange(
    "update approval_decision set at = r.created_at + interval '2 hours' from approval_route r where r.id = route_id",
  )
})
afterAll(() => rekko.stop())

const draftVersion = async () => (await rekko.as('Harriet Voss', (ctx) => findDraft(ctx.tx)))?.version ?? 0
const draft = (change: (form: PolicyForm) => PolicyForm) =>
  rekko.as('Harriet Voss', async (ctx) => {
    const { form } = await readApprovalPolicy(ctx)
    await keepDraft(ctx, (await findDraft(ctx.tx))?.version ?? 0, change(form))
  })
const replay = async (by: string, more: Partial<Parameters<typeof replayDraft>[1]> = {}) => {
  const wish = { from: TODAY, until: TODAY, departmentIds: [], after: null, draft: await draftVersion(), ...more }
  return rekko.as(by, (ctx) => replayDraft(ctx, wish))
}

test('without a draft nothing is replayed', async () => {
  await expect(replay('Greta Molin')).rejects.toThrow(/no draft/)
})
test('requests of these days under the draft: counted for all, named for who sees them', async () => {
  await draft((form) => ({
    ...form,
    ending: 'passes',
    rules: form.rules.map((r) =>
      r.steps.some((s) => s.who.by === 'chain')
        ? { ...r, conditions: [{ on: 'amount' as const, from: money('300.00 EUR') }] }
        : r,
    ),
  }))
  const finance = await replay('Greta Molin')
  expect([finance.total, finance.next, finance.replayed.requests]).toEqual([4, null, 4])
  expect(finance.replayed.atOnce).toEqual({ now: 0, draft: 2 })
  expect(finance.replayed.changed['passes at once']).toBe(2)
  expect(finance.replayed.asked[personId('Ines Adeyemi')]).toEqual({ now: 4, draft: 2 })
  expect(new Set(finance.changed.map((c) => c.id))).toEqual(new Set(ids.slice(0, 2)))
  // One was decided two hours after it was sent, and four were asked of one person: eight hours become four.
  expect(finance.replayed.hours).toEqual({ now: 8, draft: 4 })
  // An administrator who buys too sees what was approved.
  const administrator = await replay('Harriet Voss')
  expect([administrator.replayed, administrator.changed.map((c) => c.id)]).toEqual([finance.replayed, [ids[0]]])
})
test('only of these days and departments; another draft meanwhile is said', async () => {
  const none = { from: '2020-01-01', until: '2020-12-31' }
  expect((await replay('Greta Molin', none)).replayed.requests).toBe(0)
  expect((await replay('Greta Molin', { departmentIds: [crypto.randomUUID()] })).total).toBe(0)
  await expect(replay('Greta Molin', { from: TODAY, until: '2020-01-01' })).rejects.toThrow(/before the first/)
  await expect(replay('Greta Molin', { draft: 99 })).rejects.toThrow(/changed the draft/)
  const after = await replay('Greta Molin', { after: 'ffffffff-ffff-4fff-bfff-ffffffffffff' })
  expect([after.total, after.replayed.requests]).toEqual([null, 0])
})
