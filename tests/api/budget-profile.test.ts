import { afterAll, beforeAll, expect, test } from 'vitest'
import { beginYear, planYear } from '../../server/budget/begin-year'
import { listPayingLines } from '../../server/budget/reads'
import { setProfile } from '../../server/budget/set-profile'
import { adjustBudget } from '../../server/budget/transfer-money'
import { checkIntegrity } from '../../server/look-back/check-integrity'
import { budgetLineId, fiscalYear, idOf, personId } from '../setup/rekko'
import { openUseCases, type UseCases } from '../setup/use-cases'

let rekko: UseCases
beforeAll(async () => {
  rekko = await openUseCases()
})
afterAll(() => rekko.stop())

const LINE = () => budgetLineId('Water Systems', '616', fiscalYear())
const given = async () => {
  const of = { departmentId: null, fiscalYear: 0, ids: [LINE()] }
  const [line] = await rekko.as('Greta Molin', (ctx) => listPayingLines(ctx.tx, of, 'EUR'))
  return line?.periods.map((p) => p.budgeted.amount) ?? expect.fail('the line is there')
}
const spread = async (how: 'evenly' | 'last year' | 'by hand', amounts?: string[], seen?: string[]) => {
  const before = seen ?? (await given())
  return rekko.as('Greta Molin', (ctx) => setProfile(ctx, LINE(), { how, amounts, seen: before }))
}

test('a year is spread by hand and evenly again; it stays what it was', async () => {
  const even = await given()
  const cents = even.reduce((s, a) => s + Math.round(Number(a) * 100), 0)
  // All of it in the first month but for a cent in the last.
  const byHand = even.map((_, i) => (i === 0 ? ((cents - 1) / 100).toFixed(2) : i === 11 ? '0.01' : '0'))
  await spread('by hand', byHand)
  expect(await given()).toEqual(byHand.map((a) => Number(a).toFixed(2)))
  await expect(spread('by hand', [...byHand.slice(0, 11), '0.02'])).rejects.toThrow(/0.01 more than the year/)
  await expect(spread('by hand', byHand.slice(0, 11))).rejects.toThrow(/each month/)
  await expect(spread('by hand', [...byHand.slice(0, 10), '-0.01', '0.02'])).rejects.toThrow(/less than nothing/)
  // What somebody else changed meanwhile is not written over.
  await expect(spread('evenly', undefined, even)).rejects.toThrow(/changed meanwhile/)
  await spread('evenly')
  expect(await given()).toEqual(even)
  expect((await rekko.as('Signe Aalto', (ctx) => checkIntegrity(ctx, null))).broken).toEqual([])
})
test('a year is begun from the one before, times a factor: what was seen, and once', async () => {
  // The year after this one is there already.
  const year = fiscalYear() + 2
  const plan = (factor: string, from: 'planned' | 'given' = 'planned') =>
    rekko.as('Greta Molin', (ctx) => planYear(ctx, year, { factor, from }))
  const begin = (factor: string, seen: string) =>
    rekko.as('Greta Molin', (ctx) => beginYear(ctx, year, { factor, from: 'planned', seen }))
  const whole = await plan('1.025')
  expect(whole.lines.length).toBeGreaterThan(20)
  expect(Math.abs(Number(whole.is.amount) - Number(whole.was.amount) * 1.025)).toBeLessThan(whole.lines.length / 100)
  // Money that was moved counts in what was given, not in what was planned.
  await rekko.as('Greta Molin', (ctx) =>
    adjustBudget(ctx, {
      budgetLineId: budgetLineId('Water Systems', '616', year - 1),
      period: 3,
      amount: '1000',
      reason: 'a test',
    }),
  )
  expect((await plan('1.025')).is).toEqual(whole.is)
  expect(Number((await plan('1', 'given')).is.amount)).toBe(Number((await plan('1')).is.amount) + 1000)
  await expect(begin('1.1', whole.is.amount)).rejects.toThrow(/changed meanwhile/)
  const both = await Promise.allSettled([begin('1.025', whole.is.amount), begin('1.025', whole.is.amount)])
  expect(both.flatMap((r) => (r.status === 'fulfilled' ? [r.value] : []))).toEqual([{ lines: whole.lines.length }])
  await expect(begin('1.025', whole.is.amount)).rejects.toThrow(/there already/)
  expect((await plan('1.025')).lines).toEqual([])
  const of = { departmentId: idOf('department', 'Water Systems'), fiscalYear: year, ids: [] }
  const lines = await rekko.as('Greta Molin', (ctx) => listPayingLines(ctx.tx, of, 'EUR'))
  expect(lines.find((l) => l.account === '616')).toMatchObject({ fiscalYear: year, holderId: personId('Tomas Brandt') })
  expect(lines.every((l) => l.periods.length === 12)).toBe(true)
  expect((await rekko.as('Signe Aalto', (ctx) => checkIntegrity(ctx, null))).broken).toEqual([])
})
test('as last year went, where there is one to go by', async () => {
  await expect(spread('last year')).rejects.toThrow(/nothing of this line/)
  await rekko.arrange(
    `update budget_balance set spent = case period when 3 then 30 when 9 then 90 else 0 end where budget_line_id = $1`,
    [budgetLineId('Water Systems', '616', fiscalYear() - 1)],
  )
  const year = (await given()).reduce((s, a) => s + Math.round(Number(a) * 100), 0)
  await spread('last year')
  const now = (await given()).map((a) => Math.round(Number(a) * 100))
  expect(now.filter((a) => a !== 0)).toHaveLength(2)
  expect([(now[2] ?? 0) + (now[8] ?? 0), Math.round((now[8] ?? 0) / (now[2] ?? 1))]).toEqual([year, 3])
})
