import { afterAll, afterEach, beforeAll, describe, expect, test } from 'vitest'
import { addDays, type Day } from '#core/base/day'
import type { KeptRule } from '#shared/contract/ordering'
import { closeWorkshop } from '../../server/files/workshop'
import { beginRuns, orderAtOnce } from '../../server/ordering/begin-runs'
import { addRule, askForRun, keepRule, moveRule } from '../../server/ordering/keep-rule'
import { readRules } from '../../server/ordering/read-rules'
import { readRun, readRuns } from '../../server/ordering/read-runs'
import { runRule } from '../../server/ordering/run-rule'
import { tryRule } from '../../server/ordering/try-rule'
import { findRequisitionsOfLines } from '../../server/order/tray-reads'
import { readDesk } from '../../server/order/read-desk'
import { takeTasks } from '../../server/queue/take-tasks'
import { readNotices } from '../../server/session/read-notices'
import { readTrail } from '../../server/trail/read-trail'
import { ordering } from '../setup/ordering'
import { moment, personId, TODAY } from '../setup/rekko'
import { openUseCases, type UseCases } from '../setup/use-cases'

// Leonie Farrow orders up to 3,000; Harriet Voss is the only administrator, so that Greta Molin confirms.
const [LEONIE, HARRIET, GRETA, SIGNE] = ['Leonie Farrow', 'Harriet Voss', 'Greta Molin', 'Signe Aalto'] as const
let rekko: UseCases
beforeAll(async () => {
  rekko = await openUseCases()
  await rekko.arrange('update budget_balance set budgeted = budgeted + 1000000')
})
afterAll(async () => {
  await closeWorkshop()
  await rekko.stop()
})
afterEach(async () => {
  await rekko.arrange('update requisition_line set cancelled = quantity - ordered')
  await rekko.arrange(`update ordering_rule set state = 'ended'`)
})
const { approvedLine, lay } = ordering(() => rekko)

const FORM: KeptRule['form'] = {
  ...{ kinds: [], departmentIds: [], categoryIds: [], supplierIds: [], price: 'any', upTo: null },
  ...{ time: { each: 'approval' }, mostRequests: null, windowDays: null, byDepartment: false },
  ...{ choose: 'cheapest', waitFor: null },
}
const kept = (form: Partial<KeptRule['form']> = {}, name = 'Small ones'): KeptRule => ({
  ...{ name, buyerId: personId(LEONIE) },
  form: { ...FORM, ...form },
})
async function inForce(form: Partial<KeptRule['form']> = {}, name?: string): Promise<string> {
  const { id } = await rekko.as(HARRIET, (ctx) => addRule(ctx, kept(form, name)))
  await rekko.as(HARRIET, (ctx) => moveRule(ctx, id, 1, 'ask'))
  await rekko.as(GRETA, (ctx) => moveRule(ctx, id, 2, 'confirm'))
  return id
}
const run = (ruleId: string, requisitionId: string | null = null) =>
  runRule(rekko.db, { ruleId, cause: 'asked', byId: null, requisitionId }, moment())
const runsOf = async (ruleId: string) => (await rekko.as(LEONIE, (ctx) => readRuns(ctx, { rule: ruleId }))).runs
async function report(ruleId: string) {
  const [last] = await runsOf(ruleId)
  return rekko.as(LEONIE, (ctx) => readRun(ctx, last?.id ?? expect.fail('it ran')))
}
const ruleAt = async (id: string, who: string = HARRIET) =>
  (await rekko.as(who, readRules)).rules.find((r) => r.id === id) ?? expect.fail('it is there')
const requisitionOf = async (lineId: string) =>
  (await rekko.as(LEONIE, (ctx) => findRequisitionsOfLines(ctx.tx, [lineId]))).get(lineId) ?? expect.fail('it waits')
const attempt = (work: Promise<unknown>) =>
  work.then(
    () => 'done',
    (e: Error & { type?: string; detail?: string }) => e.detail ?? e.message,
  )

describe('a rule', () => {
  test('orders nothing until somebody else than its writer puts it in force', async () => {
    await approvedLine('100')
    const { id } = await rekko.as(HARRIET, (ctx) => addRule(ctx, kept()))
    await run(id)
    const ask = await rekko.as(HARRIET, (ctx) => moveRule(ctx, id, 1, 'ask'))
    await run(id)
    expect(await runsOf(id)).toEqual([])
    expect(await attempt(rekko.as(HARRIET, (ctx) => moveRule(ctx, id, ask.version, 'confirm')))).toContain(
      'Whoever wrote it does not put it in force',
    )
    expect(await attempt(rekko.as(LEONIE, (ctx) => moveRule(ctx, id, ask.version, 'confirm')))).toContain('Whoever')
    expect((await ruleAt(id)).may).toEqual(['change', 'end'])
    expect((await ruleAt(id, GRETA)).may).toEqual(['confirm', 'send back'])
    await rekko.as(GRETA, (ctx) => moveRule(ctx, id, ask.version, 'confirm'))
    await run(id)
    expect((await report(id)).made).toBe(1)
  })

  test('that is changed orders nothing until it is put in force anew; paused, neither, and it goes on', async () => {
    const id = await inForce()
    await approvedLine('100')
    const changed = await rekko.as(HARRIET, (ctx) => keepRule(ctx, id, 3, kept({ upTo: '50' })))
    await run(id)
    expect((await ruleAt(id)).state).toBe('draft')
    expect((await ruleAt(id)).confirmedBy).toBeNull()
    await rekko.as(HARRIET, (ctx) => moveRule(ctx, id, changed.version, 'ask'))
    await rekko.as(GRETA, (ctx) => moveRule(ctx, id, changed.version + 1, 'confirm'))
    // The buyer in whose name it orders may stop it, and nobody else's buyer may.
    await rekko.as(LEONIE, (ctx) => moveRule(ctx, id, changed.version + 2, 'pause'))
    await run(id)
    expect(await runsOf(id)).toEqual([])
    expect(await attempt(rekko.as(LEONIE, (ctx) => askForRun(ctx, id)))).toContain('is paused')
    await rekko.as(LEONIE, (ctx) => moveRule(ctx, id, changed.version + 3, 'let go on'))
    await run(id)
    expect((await report(id)).leftLines).toMatchObject([
      { reason: 'The order would come to EUR 100.00: the rule orders up to EUR 50.00.', count: 1 },
    ])
    expect(await attempt(rekko.as(SIGNE, (ctx) => moveRule(ctx, id, changed.version + 4, 'end')))).toContain(
      'Only administrators',
    )
    await rekko.as(HARRIET, (ctx) => moveRule(ctx, id, changed.version + 4, 'end'))
    expect(await attempt(rekko.as(HARRIET, (ctx) => moveRule(ctx, id, changed.version + 5, 'ask')))).toContain(
      'is ended',
    )
    await rekko.as(HARRIET, (ctx) => moveRule(ctx, id, changed.version + 5, 'take up again'))
    expect((await ruleAt(id)).state).toBe('draft')
  })

  test('names a buyer who is here', async () => {
    expect(
      await attempt(rekko.as(HARRIET, (ctx) => addRule(ctx, { ...kept(), buyerId: personId('Owen Marsh') }))),
    ).toContain('Name a buyer')
    const id = await inForce()
    await approvedLine('100')
    await rekko.arrange(`update person set left_on = $1 where id = $2`, ['2026-01-01', personId(LEONIE)])
    try {
      await run(id)
    } finally {
      await rekko.arrange(`update person set left_on = null where id = $1`, [personId(LEONIE)])
    }
    expect(await report(id)).toMatchObject({
      made: 0,
      trouble: 'Leonie Farrow orders nothing any more: name another buyer.',
    })
  })
})

describe('a run', () => {
  test('makes what its trial showed, which kept nothing, and says what is left and why', async () => {
    await approvedLine('100')
    await approvedLine('250')
    // Alone above what Leonie Farrow may order.
    await approvedLine('3100', 'Harriet Voss')
    await approvedLine('200', 'Harriet Voss')
    const before = await rekko.as(LEONIE, (ctx) => readDesk(ctx, 200))
    const tried = await rekko.as(GRETA, (ctx) =>
      tryRule(ctx, { form: { ...FORM, mostRequests: 1 }, buyerId: personId(LEONIE) }),
    )
    expect(await rekko.as(LEONIE, (ctx) => readDesk(ctx, 200))).toEqual(before)
    const id = await inForce({ mostRequests: 1 })
    await run(id)
    const done = await report(id)
    expect(done.orders.map((o) => [o.supplier, Number(o.net)])).toEqual(
      tried.orders.map((o) => [o.supplier, Number(o.net.amount)]),
    )
    expect(done.made).toBe(tried.orders.length)
    expect(done.leftLines.map((l) => [l.reason, l.count])).toEqual(tried.left.map((l) => [l.reason, l.count]))
    expect(done.made).toBe(3)
    expect(done.leftLines.map((l) => l.reason)).toEqual([
      'The order would come to EUR 3,100.00: in whose name it is made may order up to EUR 3,000.00.',
    ])
    // In the order's and the request's trails, and told to the buyer.
    const [first] = done.orders
    const trail = await rekko.as(LEONIE, (ctx) => readTrail(ctx, first?.requests[0]?.id ?? ''))
    expect(JSON.stringify(trail)).toContain('Small ones')
    const notices = await rekko.as(LEONIE, (ctx) => readNotices(ctx))
    expect(JSON.stringify(notices)).toContain('by “Small ones” in your name')
  })

  test('leaves what is too large alone, and orders the rest together', async () => {
    const id = await inForce({ upTo: '500' })
    for (const price of ['450', '600', '30']) await approvedLine(price)
    await run(id)
    const done = await report(id)
    expect(done.orders.map((o) => [Number(o.net), o.requests.length])).toEqual([[480, 2]])
    expect(done.leftLines).toMatchObject([{ count: 1 }])
    expect(done.leftLines[0]?.reason).toContain('would come to EUR 600.00')
  })

  test('that finds the same again is counted, until something changes', async () => {
    const id = await inForce({ upTo: '50' })
    await approvedLine('100')
    for (const _ of [1, 2, 3]) await run(id)
    expect(await runsOf(id)).toMatchObject([{ times: 3, made: 0, left: 1 }])
    await approvedLine('120')
    await run(id)
    expect(await runsOf(id)).toMatchObject([
      { times: 1, left: 2 },
      { times: 3, left: 1 },
    ])
  })

  test('leaves what lies on a tray, and orders by its own tray what comes', async () => {
    const id = await inForce()
    const mine = await lay([await approvedLine('80')])
    await approvedLine('90')
    await run(id)
    expect((await report(id)).orders.map((o) => Number(o.net))).toEqual([90])
    const { trays } = await rekko.as(LEONIE, (ctx) => readDesk(ctx, 200))
    expect(trays.map((t) => t.id)).toContain(mine)
  })

  test('two at once order each line once', async () => {
    const id = await inForce({ mostRequests: 1 })
    for (const price of ['10', '20', '30', '40']) await approvedLine(price)
    await Promise.all([run(id), run(id)])
    const made = (await runsOf(id)).reduce((n, r) => n + r.made, 0)
    expect(made).toBe(4)
    expect((await runsOf(id)).flatMap((r) => r.trouble ?? [])).toEqual([])
  })

  test('is begun for what was approved only where the rule covers some of it', async () => {
    const [small, other] = [await inForce(), await inForce({ kinds: ['travel'] }, 'Journeys')]
    const lineId = await approvedLine('70')
    const requisitionId = await requisitionOf(lineId)
    await run(other, requisitionId)
    await run(small, requisitionId)
    expect([await runsOf(other), (await runsOf(small)).length]).toEqual([[], 1])
    // What is ordered already begins nothing; what is approved begins each that orders at once.
    const tasks = takeTasks()
    await orderAtOnce(rekko.db, requisitionId)
    expect(tasks).toEqual([])
    const next = await requisitionOf(await approvedLine('75'))
    await orderAtOnce(rekko.db, next)
    expect(tasks.filter((t) => t.name === 'order-by-rule')).toHaveLength(2)
  })

  test('at an hour comes once on a business day, also after a night without a server', async () => {
    const id = await inForce({ time: { each: 'day', hour: 7 } })
    let monday = addDays(TODAY, 1)
    while (new Date(`${monday}T12:00:00Z`).getUTCDay() !== 1) monday = addDays(monday, 1)
    const begun = async (day: Day, time: string) => {
      const tasks = takeTasks()
      await beginRuns(rekko.db, new Date(`${day}T${time}:00Z`))
      return tasks.filter((t) => t.name === 'order-by-rule' && JSON.stringify(t.data).includes(id)).length
    }
    expect(await begun(addDays(monday, -1), '12:00')).toBe(0)
    expect(await begun(monday, '05:30')).toBe(0)
    expect(await begun(monday, '16:30')).toBe(1)
    expect(await begun(monday, '17:30')).toBe(0)
    expect(await begun(addDays(monday, 1), '09:30')).toBe(1)
    await rekko.as(HARRIET, async (ctx) => moveRule(ctx, id, (await ruleAt(id)).version, 'pause'))
    expect(await begun(addDays(monday, 2), '09:30')).toBe(0)
  })

  test('whose server died is ended by the next, which goes on', async () => {
    const id = await inForce()
    await rekko.arrange(
      `insert into ordering_run (id, rule_id, buyer_id, form, cause, began_at, last_at)
        values (gen_random_uuid(), $1, $2, '{}', 'time', $3, $3)`,
      [id, personId(LEONIE), new Date(moment().getTime() - 3_600_000)],
    )
    await approvedLine('60')
    await run(id)
    expect((await runsOf(id)).map((r) => [r.made, r.trouble])).toEqual([
      [1, null],
      [0, 'It was interrupted; the next run went on.'],
    ])
  })

  test('that stops at a fault says so once, however often it is tried, and goes on when it is gone', async () => {
    const id = await inForce()
    await approvedLine('65')
    await rekko.arrange(`create function refuse_all() returns trigger language plpgsql as
      $$ begin raise exception 'a fault on purpose'; end $$`)
    await rekko.arrange('create trigger fault before insert on order_revision execute function refuse_all()')
    try {
      for (const _ of [1, 2]) await expect(run(id)).rejects.toThrow()
    } finally {
      await rekko.arrange('drop trigger fault on order_revision')
    }
    expect(await runsOf(id)).toMatchObject([{ made: 0, times: 2, trouble: expect.stringContaining('tried again') }])
    await run(id)
    expect(await report(id)).toMatchObject({ made: 1, trouble: null })
  })

  test('is read by a buyer of another part without the lines, and without words of theirs', async () => {
    const id = await inForce()
    // Refused: nobody knows where to send it.
    const lineId = await approvedLine('100')
    await rekko.arrange(`update supplier set email = null where name = 'Harbour Waste'`)
    try {
      await run(id)
    } finally {
      await rekko.arrange(`update supplier set email = 'orders@harbour-waste.example' where name = 'Harbour Waste'`)
    }
    const [last] = await runsOf(id)
    const runId = last?.id ?? expect.fail('it ran')
    const whole = await rekko.as(LEONIE, (ctx) => readRun(ctx, runId))
    expect(whole.leftLines).toMatchObject([{ count: 1, lines: [{ lineId }] }])
    await rekko.arrange(
      `insert into role_grant (person_id, role, department_id) select $1, 'buyer', id from department where name = $2`,
      [personId('Priya Lindqvist'), 'Animal Care'],
    )
    const part = await rekko.as('Priya Lindqvist', (ctx) => readRun(ctx, runId))
    expect(part.leftLines).toEqual([
      { reason: 'Issuing it was refused. Whoever sees all of its lines reads why.', count: 1, lines: [] },
    ])
  })
})
