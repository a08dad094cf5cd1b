import { afterAll, beforeAll, expect, test } from 'vitest'
import type { Context } from '../../server/context'
import { decide } from '../../server/approval/decide'
import { listOpenActors } from '../../server/approval/reads'
import { listPayingLines } from '../../server/budget/reads'
import { checkIntegrity } from '../../server/look-back/check-integrity'
import { issueOrder } from '../../server/order/issue-order'
import { layOnTray } from '../../server/order/lay-tray'
import { findOrder } from '../../server/order/reads'
import { cancelRest } from '../../server/requisition/cancel-rest'
import { REQUISITION } from '../../server/requisition/kind'
import { findRequisition } from '../../server/requisition/reads'
import { createDraft } from '../../server/requisition/save-draft'
import { sendRequisition } from '../../server/requisition/send-requisition'
import { withdrawRequisition } from '../../server/requisition/withdraw-requisition'
import { endYear } from '../../server/year-end/end-year'
import { exportYearEnd } from '../../server/year-end/export-year-end'
import { readYearEnd } from '../../server/year-end/read-year-end'
import { budgetLineId, fiscalYear, freeLine, soundDraft } from '../setup/rekko'
import { openUseCases, type UseCases } from '../setup/use-cases'

// Greta Molin is finance; the fiscal year begins in April, and the next one's lines are there already.
let rekko: UseCases
beforeAll(async () => {
  rekko = await openUseCases()
})
afterAll(() => rekko.stop())

const YEAR = fiscalYear()
const SPRING = new Date(`${YEAR + 1}-04-09T10:00:00Z`)
const WASTE = budgetLineId('Water Systems', '616', YEAR)
const PUMPS = budgetLineId('Water Systems', '610', YEAR)
const nextOf = (account: string) => budgetLineId('Water Systems', account, YEAR + 1)

const inSpring = <T>(who: string, work: (ctx: Context) => Promise<T>) => rekko.as(who, work, SPRING)
/** What stands of a budget line, period by period where something does. */
async function stands(id: string): Promise<[number, string, string, string][]> {
  const of = { departmentId: null, fiscalYear: 0, ids: [id] }
  const [line] = await rekko.as('Greta Molin', (ctx) => listPayingLines(ctx.tx, of, 'EUR'))
  return (line?.periods ?? [])
    .map((p): [number, string, string, string] => [
      ...([p.period, p.reserved.amount, p.committed.amount, p.adjustments.amount] as const),
    ])
    .filter((p) => p.slice(1).some((a) => Number(a) !== 0))
}
const isSound = async () => {
  expect((await rekko.as('Signe Aalto', (ctx) => checkIntegrity(ctx, null))).broken).toEqual([])
}
const owen = (id: string) =>
  rekko.as('Owen Marsh', async (ctx) => (await findRequisition(ctx.tx, id)) ?? expect.fail('it is there'))
async function sent(price: string, quantity = '1', account = '616'): Promise<string> {
  const id = crypto.randomUUID()
  const draft = soundDraft([], { lines: [freeLine(price, { quantity }, account)] })
  await rekko.as('Owen Marsh', (ctx) => createDraft(ctx, id, draft))
  await rekko.as('Owen Marsh', (ctx) => sendRequisition(ctx, id, 1))
  return id
}
async function approve(id: string, at?: Date): Promise<void> {
  for (let kept = await owen(id); kept.state === 'in approval'; kept = await owen(id)) {
    const [next] = await rekko.as('Owen Marsh', (ctx) => listOpenActors(ctx.tx, id))
    await rekko.as(next?.name ?? '', (ctx) => decide(ctx, REQUISITION, id, kept.version, 'approve', ''), at)
  }
}
/** Orders as much of the line of a request as is named. */
async function order(id: string, quantity: string, at?: Date): Promise<string> {
  const lineId = (await owen(id)).lines[0]?.id ?? ''
  const parts = [{ lineId, quantity }]
  const laid = await rekko.as('Harriet Voss', (ctx) => layOnTray(ctx, { orderId: null, supplierId: null, parts }), at)
  const tray = await rekko.as('Harriet Voss', (ctx) => findOrder(ctx.tx, laid.orderId))
  await rekko.as('Harriet Voss', (ctx) => issueOrder(ctx, laid.orderId, tray?.version ?? 0), at)
  return laid.orderId
}
const open = () => inSpring('Greta Molin', (ctx) => readYearEnd(ctx, YEAR))
const seen = async (id: string) => {
  const line = (await open()).lines.find((l) => l.id === id) ?? expect.fail('it is open')
  return (Number(line.reserved.amount) + Number(line.committed.amount)).toFixed(2)
}
let runs = 0
async function end(lines: readonly { id: string; choice: 'carry' | 'release' }[], withMoney = false) {
  const of = await Promise.all(lines.map(async (l) => ({ ...l, seen: await seen(l.id) })))
  // Each a minute after the one before: what a run entered is told by its moment.
  runs += 1
  const at = new Date(SPRING.getTime() + runs * 60_000)
  return rekko.as('Greta Molin', (ctx) => endYear(ctx, YEAR, { lines: of, withMoney }), at)
}

test('a year that is not over is not ended', async () => {
  await sent('40.00')
  const of = [{ id: WASTE, choice: 'carry' as const, seen: await seen(WASTE) }]
  await expect(rekko.as('Greta Molin', (ctx) => endYear(ctx, YEAR, { lines: of, withMoney: false }))).rejects.toThrow(
    /not over yet/,
  )
  expect(await rekko.as('Greta Molin', (ctx) => readYearEnd(ctx, YEAR))).toMatchObject({ mayEnd: false })
})

test('what is carried pays from the next year: decided, ordered in parts, and cancelled there', async () => {
  const waits = await sent('900.00')
  const partly = await sent('10.00', '10')
  await approve(partly)
  const first = await order(partly, '4')
  const before = (await stands(WASTE)).map(([, r, c]) => Number(r) + Number(c)).reduce((a, b) => a + b, 0)
  await end([{ id: WASTE, choice: 'carry' }])
  expect(await stands(WASTE)).toEqual([])
  const [there, ...more] = await stands(nextOf('616'))
  expect(more).toEqual([])
  expect([there?.[0], Number(there?.[1]) + Number(there?.[2])]).toEqual([1, before])
  expect((await owen(waits)).lines[0]?.codings.map((c) => c.budgetLineId)).toEqual([nextOf('616')])
  await isSound()

  // It stays in approval, is approved, ordered, and moves nothing between years.
  const [, reserved = '0', committed = '0'] = there ?? []
  await approve(waits, SPRING)
  await order(waits, '1', SPRING)
  await order(partly, '2', SPRING)
  expect(await stands(WASTE)).toEqual([])
  const move = (by: number) => [
    ...[[1, (Number(reserved) - by).toFixed(2), (Number(committed) + by).toFixed(2), '0.00']],
  ]
  expect(await stands(nextOf('616'))).toEqual(move(920))
  const rest = await owen(partly)
  await rekko.as('Owen Marsh', (ctx) => cancelRest(ctx, partly, rest.version), SPRING)
  expect(await stands(nextOf('616'))).toEqual([
    [1, (Number(reserved) - 960).toFixed(2), (Number(committed) + 920).toFixed(2), '0.00'],
  ])
  expect((await rekko.as('Greta Molin', (ctx) => findOrder(ctx.tx, first)))?.state).toBe('issued')
  await isSound()
})

test('carried in approval it may come back with no more, and its round goes on', async () => {
  const id = await sent('900.00')
  await end([{ id: WASTE, choice: 'carry' }])
  const kept = await owen(id)
  expect(kept.sentDraft?.lines[0]?.codings).toEqual(kept.lines[0]?.codings)
  const [before] = await stands(nextOf('616'))
  await rekko.as('Owen Marsh', (ctx) => withdrawRequisition(ctx, id, kept.version), SPRING)
  const [after] = await stands(nextOf('616'))
  expect(Number(before?.[1]) - Number(after?.[1] ?? '0')).toBe(900)
  await isSound()
})

test('what is released holds nothing; what it was for is still ordered, and takes its money then', async () => {
  const [waits, ready] = [await sent('700.00', '1', '610'), await sent('10.00', '10', '610')]
  await approve(ready)
  await order(ready, '3')
  await end([{ id: PUMPS, choice: 'release' }])
  expect(await stands(PUMPS)).toEqual([])
  expect(await stands(nextOf('610'))).toEqual([])
  await isSound()
  await approve(waits, SPRING)
  expect(await stands(PUMPS)).toEqual([])
  await order(ready, '2', SPRING)
  expect((await stands(PUMPS)).map((p) => p.slice(1))).toEqual([['0.00', '20.00', '0.00']])
  const kept = await owen(waits)
  await rekko.as('Owen Marsh', (ctx) => cancelRest(ctx, waits, kept.version), SPRING)
  expect((await stands(PUMPS)).map((p) => p.slice(1))).toEqual([['0.00', '20.00', '0.00']])
  await isSound()
  // What was promised since is carried in another run.
  await end([{ id: PUMPS, choice: 'carry' }])
  expect(await stands(nextOf('610'))).toEqual([[1, '0.00', '20.00', '0.00']])
  await isSound()
})

test('its money comes along, period by period, and the report says every entry', async () => {
  const [before] = await stands(nextOf('616'))
  await sent('55.00')
  const { id } = await end([{ id: WASTE, choice: 'carry' }], true)
  const [after] = await stands(nextOf('616'))
  expect([Number(after?.[1]) - Number(before?.[1]), after?.[3]]).toEqual([55, '55.00'])
  expect((await stands(WASTE)).map((p) => p.slice(1))).toEqual([['0.00', '0.00', '-55.00']])
  await isSound()
  const file = await inSpring('Greta Molin', (ctx) => exportYearEnd(ctx, YEAR, id, 'csv'))
  const rows = file.bytes.toString('utf8').trim().split('\r\n').slice(1)
  expect(rows.map((r) => r.split(',').slice(-3))).toEqual([
    ['asked for', 'carried', '-55'],
    ['asked for', 'carried', '55'],
  ])
  const runs = (await open()).runs
  expect(runs[0]).toMatchObject({ id, by: 'Greta Molin', withMoney: true })
  expect(runs[0]?.lines.map((l) => [l.id, l.choice, l.reserved.amount])).toEqual([[WASTE, 'carry', '55.00']])
})

test('only what was seen is ended, only where there is a line to carry to, and two at once end it once', async () => {
  await sent('60.00')
  const lines = [{ id: WASTE, choice: 'carry' as const, seen: await seen(WASTE) }]
  await sent('1.00')
  const run = (of: typeof lines) =>
    inSpring('Greta Molin', (ctx) => endYear(ctx, YEAR, { lines: of, withMoney: false }))
  await expect(run(lines)).rejects.toThrow(/changed meanwhile/)
  await rekko.arrange('update budget_line set retired = true where id = $1', [nextOf('616')])
  const now = [{ id: WASTE, choice: 'carry' as const, seen: await seen(WASTE) }]
  await expect(run(now)).rejects.toThrow(/no line in/)
  await rekko.arrange('update budget_line set retired = false where id = $1', [nextOf('616')])
  const both = await Promise.allSettled([run(now), run(now)])
  expect(both.map((r) => r.status).sort()).toEqual(['fulfilled', 'rejected'])
  expect((await stands(WASTE)).filter(([, r, c]) => Number(r) + Number(c) !== 0)).toEqual([])
  await isSound()
})

test('what was open before Rekko is carried with its list, and not where the next year’s has it already', async () => {
  const insert = `insert into opening_balance (budget_line_id, period, stage, number, name, amount)
    values ($1, $2, 'committed', 'OLD-7', 'a pump on its way', $3)`
  await rekko.arrange(insert, [WASTE, 3, '200'])
  await rekko.arrange(
    `with o as (select * from opening_balance where number = 'OLD-7'), e as (insert into budget_entry
       (at, budget_line_id, period, stage, amount, document_kind, document_id, line_id, coding_at, cause)
       select now(), budget_line_id, period, 'committed', amount, 'opening', id, id, 0, 'from before' from o)
     update budget_balance b set committed = committed + 200 from o
     where b.budget_line_id = o.budget_line_id and b.period = o.period`,
  )
  await rekko.arrange(`update budget_line set orders_behind = orders_behind + 1 where id = $1`, [WASTE])
  await rekko.arrange(insert, [nextOf('616'), 1, '5'])
  await expect(end([{ id: WASTE, choice: 'carry' }])).rejects.toThrow(/OLD-7 stands in the list/)
  await rekko.arrange(`delete from opening_balance where number = 'OLD-7' and amount = 5`)
  const [before] = await stands(nextOf('616'))
  await end([{ id: WASTE, choice: 'carry' }])
  const [after] = await stands(nextOf('616'))
  expect(Number(after?.[2]) - Number(before?.[2])).toBe(200)
  await isSound()
})
