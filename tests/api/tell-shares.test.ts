import { afterAll, beforeAll, expect, test } from 'vitest'
import { createDraft } from '../../server/requisition/save-draft'
import { sendRequisition } from '../../server/requisition/send-requisition'
import { withdrawRequisition } from '../../server/requisition/withdraw-requisition'
import { findRequisition } from '../../server/requisition/reads'
import { listNotices } from '../../server/people/notice-reads'
import { listPayingLines } from '../../server/budget/reads'
import { tellShares } from '../../server/upkeep/tell-shares'
import { budgetLineId, fiscalYear, freeLine, personId, soundDraft } from '../setup/rekko'
import { openUseCases, type UseCases } from '../setup/use-cases'

// Tomas Brandt holds the budgets of Water Systems.
const WASTE = budgetLineId('Water Systems', '616', fiscalYear())
let rekko: UseCases
beforeAll(async () => {
  rekko = await openUseCases()
})
afterAll(() => rekko.stop())

const tell = () => rekko.as('Greta Molin', tellShares)
const told = async () =>
  (await rekko.as('Tomas Brandt', (ctx) => listNotices(ctx.tx, personId('Tomas Brandt')))).flatMap((n) =>
    n.told.code === 'budget-share' ? [[n.told.line, n.told.share]] : [],
  )
async function send(price: string): Promise<string> {
  const id = crypto.randomUUID()
  await rekko.as('Owen Marsh', (ctx) => createDraft(ctx, id, soundDraft([], { lines: [freeLine(price)] })))
  await rekko.as('Owen Marsh', (ctx) => sendRequisition(ctx, id, 1))
  return id
}

async function standing(): Promise<number> {
  const of = { departmentId: null, fiscalYear: 0, ids: [WASTE] }
  const [line] = await rekko.as('Greta Molin', (ctx) => listPayingLines(ctx.tx, of, 'EUR'))
  return (line?.periods ?? []).reduce((sum, p) => sum + Number(p.reserved.amount) + Number(p.committed.amount), 0)
}

test('whoever holds a line hears of each share once, and again after it fell below', async () => {
  await rekko.arrange(`update budget_line set tell_at = '{75,100}' where id = $1`, [WASTE])
  // What is there already of it, and 1,000 more: so the shares are of a sum that the test knows.
  const stands = await standing()
  await rekko.arrange('update budget_balance set budgeted = 0, adjustments = 0 where budget_line_id = $1', [WASTE])
  await rekko.arrange('update budget_balance set budgeted = $2 where budget_line_id = $1 and period = 1', [
    WASTE,
    String(stands * 4 + 1000),
  ])
  await tell()
  const before = (await told()).length
  const first = await send(String(stands * 2 + 760))
  await tell()
  await tell()
  expect((await told()).length).toBe(before + 1)
  const kept = await rekko.as('Owen Marsh', (ctx) => findRequisition(ctx.tx, first))
  await rekko.as('Owen Marsh', (ctx) => withdrawRequisition(ctx, first, kept?.version ?? 0))
  await tell()
  expect((await told()).length).toBe(before + 1)
  await send(String(stands * 2 + 800))
  await tell()
  expect((await told()).length).toBe(before + 2)
})
