import { afterAll, beforeAll, expect, test } from 'vitest'
import { moneyOf } from '#core/base/money'
import { listBudgets } from '../../server/budget/list-budgets'
import { readTransfers } from '../../server/budget/read-transfers'
import { adjustBudget, decideTransfer, proposeTransfer, takeBackTransfer } from '../../server/budget/transfer-money'
import { checkIntegrity } from '../../server/look-back/check-integrity'
import { createDraft } from '../../server/requisition/save-draft'
import { sendRequisition } from '../../server/requisition/send-requisition'
import { budgetLineId, fiscalYear, freeLine, soundDraft } from '../setup/rekko'
import { openUseCases, type UseCases } from '../setup/use-cases'

// Tomas Brandt holds the lines of Water Systems, Kaveh Dorani those of Animal Care; Greta Molin is finance.
let rekko: UseCases
beforeAll(async () => {
  rekko = await openUseCases()
})
afterAll(() => rekko.stop())

const line = (department: string, account: string) => budgetLineId(department, account, fiscalYear())
const WASTE = line('Water Systems', '616')
const TOOLS = line('Water Systems', '630')
const FEED = line('Animal Care', '622')
const given = async (id: string) =>
  (await rekko.as('Greta Molin', (ctx) => listBudgets(ctx, undefined))).lines.find((l) => l.id === id) ??
  expect.fail('no such line')
const left = async (id: string) => (await given(id)).available.amount
const propose = (by: string, fromLineId: string, toLineId: string, amount: string, reason = 'for the winter') =>
  rekko.as(by, (ctx) => proposeTransfer(ctx, { fromLineId, toLineId, period: 1, amount, reason }))
const decide = (by: string, id: string, outcome: 'agree' | 'refuse' = 'agree', comment = '') =>
  rekko.as(by, (ctx) => decideTransfer(ctx, id, outcome, comment))
const waits = async (name: string) =>
  (await rekko.as(name, (ctx) => readTransfers(ctx, undefined))).transfers.filter((t) => t.decides).map((t) => t.id)
const isSound = async () => {
  const { broken } = await rekko.as('Signe Aalto', (ctx) => checkIntegrity(ctx, null))
  expect(broken).toEqual([])
}

test('proposing is the yes for one’s own line: the other holder decides, and then it moves', async () => {
  const before = [await left(FEED), await left(WASTE)]
  const { id } = await propose('Tomas Brandt', FEED, WASTE, '500.00')
  expect([await waits('Kaveh Dorani'), await waits('Tomas Brandt'), await waits('Greta Molin')]).toEqual([[id], [], []])
  expect([await left(FEED), await left(WASTE)]).toEqual(before)
  await expect(decide('Tomas Brandt', id)).rejects.toThrow(/Another decides/)
  await expect(decide('Greta Molin', id)).rejects.toThrow(/Another decides/)
  await decide('Kaveh Dorani', id)
  expect([await left(FEED), await left(WASTE)]).toEqual(
    [-500, 500].map((by, i) => moneyOf((Number(before[i]) + by).toFixed(2), 'EUR').amount),
  )
  expect((await given(WASTE)).moved.amount).toBe('500.00')
  await expect(decide('Kaveh Dorani', id)).rejects.toThrow(/done already/)
  await isSound()
})

test('finance decides where one holds both, and never on what they proposed themselves', async () => {
  const { id } = await propose('Tomas Brandt', TOOLS, WASTE, '10.00')
  expect([await waits('Greta Molin'), await waits('Kaveh Dorani')]).toEqual([[id], []])
  await decide('Greta Molin', id)
  const own = await propose('Greta Molin', FEED, WASTE, '1.00')
  expect(await waits('Kaveh Dorani')).toEqual([own.id])
  await rekko.as('Greta Molin', (ctx) => takeBackTransfer(ctx, own.id))
  await expect(decide('Kaveh Dorani', own.id)).rejects.toThrow(/taken back already/)
})

test('whoever holds neither line proposes nothing; what is not there does not move, then or later', async () => {
  await expect(propose('Owen Marsh', FEED, WASTE, '1.00')).rejects.toThrow(/Only whoever holds/)
  await expect(propose('Tomas Brandt', FEED, WASTE, '99999999.00')).rejects.toThrow(/too much/)
  await expect(propose('Tomas Brandt', WASTE, WASTE, '1.00')).rejects.toThrow(/two different/)
  await expect(propose('Tomas Brandt', FEED, WASTE, '1.00', ' ')).rejects.toThrow(/what it is for/)
  // Both fit when they are proposed; together they are more than there is.
  const all = (Number(await left(TOOLS)) - 5).toFixed(2)
  const [a, b] = [await propose('Tomas Brandt', TOOLS, FEED, all), await propose('Tomas Brandt', TOOLS, FEED, '6.00')]
  await decide('Kaveh Dorani', a.id)
  await expect(decide('Kaveh Dorani', b.id)).rejects.toThrow(/too much/)
  expect(await waits('Kaveh Dorani')).toEqual([b.id])
  await expect(decide('Kaveh Dorani', b.id, 'refuse')).rejects.toThrow(/why it is refused/)
  await decide('Kaveh Dorani', b.id, 'refuse', 'It is gone.')
  await isSound()
})

test('finance adjusts at once, with a reason, up and down', async () => {
  const before = Number(await left(FEED))
  const adjust = (by: string, amount: string, reason = 'the grant came') =>
    rekko.as(by, (ctx) => adjustBudget(ctx, { budgetLineId: FEED, period: 3, amount, reason }))
  await adjust('Greta Molin', '250.00')
  await adjust('Greta Molin', '-50.00')
  expect(await left(FEED)).toBe((before + 200).toFixed(2))
  await expect(adjust('Greta Molin', '0.00')).rejects.toThrow(/by how much/)
  await expect(adjust('Greta Molin', '1.00', '')).rejects.toThrow(/why/)
  await isSound()
})

test('a transfer and a sending at the same moment never both take the last money of a line that refuses', async () => {
  const SALT = line('Water Systems', '612')
  const rest = await left(SALT)
  const { id } = await propose('Kaveh Dorani', SALT, FEED, rest)
  const draftId = crypto.randomUUID()
  const lines = [freeLine('300', {}, '612')]
  await rekko.as('Owen Marsh', (ctx) => createDraft(ctx, draftId, soundDraft([], { lines })))
  const ended = await Promise.allSettled([
    decide('Tomas Brandt', id),
    rekko.as('Owen Marsh', (ctx) => sendRequisition(ctx, draftId, 1)),
  ])
  expect(ended.filter((e) => e.status === 'fulfilled')).toHaveLength(1)
  expect(Number(await left(SALT))).toBeGreaterThanOrEqual(0)
  await isSound()
})
