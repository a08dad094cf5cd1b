import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { brokenRules } from '../setup/invariants'
import { freeLine, personId, raise, soundDraft, startRekko, until, type Rekko } from '../setup/rekko'

let rekko: Rekko
beforeAll(async () => {
  rekko = await startRekko()
})
afterAll(() => rekko.stop())

const ORDERS = 200

test('killed twice while 200 orders are made by themselves, each is issued, numbered and sent once', async () => {
  const [owen, harriet, greta] = [
    await rekko.as('Owen Marsh'),
    await rekko.as('Harriet Voss'),
    await rekko.as('Greta Molin'),
  ]
  await rekko.sql('update budget_balance set budgeted = 100000000')
  const sent: string[] = []
  const raiseOn = async () => {
    for (let n = 0; n < ORDERS / 4; n += 1)
      sent.push((await raise(owen, soundDraft([], { lines: [freeLine('40'), freeLine('10')] }))).id)
  }
  await Promise.all([raiseOn(), raiseOn(), raiseOn(), raiseOn()])

  const form = {
    ...{ kinds: [], departmentIds: [], categoryIds: [], supplierIds: [], price: 'any', upTo: '100' },
    ...{ time: { each: 'day', hour: 7 }, mostRequests: 1, windowDays: null, byDepartment: false },
    ...{ choose: 'cheapest', waitFor: null },
  }
  const { body } = await harriet.call<{ id: string }>('POST', '/api/ordering-rules', {
    body: { name: 'One by one', buyerId: personId('Leonie Farrow'), form },
  })
  const move = async (who: typeof harriet, by: string, version: number) => {
    const reply = await who.call('PUT', `/api/ordering-rules/${body.id}/state`, { body: { move: by }, version })
    expect([by, reply.status]).toEqual([by, 200])
  }
  await move(harriet, 'ask', 1)
  await move(greta, 'confirm', 2)
  // Whoever asks twice, also by a key that bounces, has it done once: what is ordered is not ordered again.
  const carryOut = async () => {
    const key = randomUUID()
    for (let i = 0; i < 2; i += 1)
      expect((await harriet.call('POST', `/api/ordering-rules/${body.id}/runs`, { body: {}, key })).status).toBe(200)
  }
  const issued = async () =>
    (
      await rekko.sql<{ n: number }>(
        `select count(*)::int as n from purchase_order join document using (id) where number is not null`,
      )
    )[0]?.n ?? 0
  for (const atLeast of [20, 90]) {
    await carryOut()
    await until('some orders', async () => (await issued()) >= atLeast, 120)
    await rekko.kill()
    expect(await issued()).toBeLessThan(ORDERS)
    await rekko.startAgain()
    // A whole order or none: nothing lies on a tray.
    expect(await rekko.sql('select * from tray_part')).toEqual([])
    expect(await brokenRules(rekko)).toEqual([])
  }
  await carryOut()
  await until('every order', async () => (await issued()) === ORDERS, 240)

  const served = await rekko.sql<{ requisition_id: string; orders: number; lines: number }>(
    `select l.requisition_id, count(distinct x.order_id)::int as orders, count(*)::int as lines
      from order_line x join order_line_source s on s.order_line_id = x.id
      join requisition_line l on l.id = s.requisition_line_id group by 1`,
  )
  expect(served.map((s) => [s.orders, s.lines]).filter(([orders, lines]) => orders !== 1 || lines !== 2)).toEqual([])
  expect(served.map((s) => s.requisition_id).sort()).toEqual([...sent].sort())
  const numbers = await rekko.sql<{ number: string }>(
    `select number from purchase_order join document using (id) order by number`,
  )
  expect(numbers.map((n) => Number(n.number.slice(-5)))).toEqual(Array.from({ length: ORDERS }, (_, i) => i + 1))
  // Each order stands in the run that made it, and there are as many as the runs say.
  const made = await rekko.sql<{ made: number; orders: number }>(
    `select made, (select count(*)::int from purchase_order o where o.run_id = r.id) as orders from ordering_run r`,
  )
  expect(made.filter((m) => m.made !== m.orders)).toEqual([])
  expect(made.reduce((n, m) => n + m.made, 0)).toBe(ORDERS)
  await until(
    'every mail',
    async () => {
      const subjects = (await rekko.mails()).map((m) => m.subject)
      return numbers.every((n) => subjects.some((s) => s.includes(n.number)))
    },
    240,
  )
  const mails = await rekko.mails()
  for (const { number } of numbers)
    expect([number, new Set(mails.filter((m) => m.subject.includes(number)).map((m) => m.messageId)).size]).toEqual([
      number,
      1,
    ])
  expect(await brokenRules(rekko)).toEqual([])
}, 600_000)
