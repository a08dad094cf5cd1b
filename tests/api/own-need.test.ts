import { afterAll, beforeAll, beforeEach, describe, expect, test } from 'vitest'
import {
  decide,
  freeLine,
  personId,
  raise,
  soundDraft,
  startRekko,
  versionOf,
  type Client,
  type Rekko,
} from '../setup/rekko'

// Nobody decides or orders their own need, also not by a detour (who may see and do what, separation of duties).
let rekko: Rekko
let [owen, rosa, ines, tomas, leonie]: Client[] = []
beforeAll(async () => {
  rekko = await startRekko()
  ;[owen, rosa, ines, tomas, leonie] = await Promise.all(
    ['Owen Marsh', 'Rosa Castell', 'Ines Adeyemi', 'Tomas Brandt', 'Leonie Farrow'].map(rekko.as),
  )
})
afterAll(() => rekko.stop())
const who = (c: Client | undefined): Client => c ?? rekko.nobody
const handOver = async (by: Client | undefined, id: string, to: string) =>
  who(by).call<{ detail: string }>('POST', `/api/requisitions/${id}/owner`, {
    version: await versionOf(rekko, id),
    body: { personId: personId(to) },
  })
const asked = async (id: string) =>
  (
    await rekko.sql<{ name: string }>(
      `select p.name from approval_seat s join person p on p.id = s.actor_id
       where s.document_id = $1 and s.state = 'open' order by 1`,
      [id],
    )
  ).map((r) => r.name)

describe('whoever owned it since it was sent', () => {
  test('does not decide it, though it was given away; nor does it come back to whoever decided', async () => {
    const { id } = await raise(who(owen), soundDraft([], { lines: [freeLine('900', {}, '610')] }))
    expect(await asked(id)).toEqual(['Ines Adeyemi'])
    // To the manager, who gives it to a subordinate and would be asked again.
    expect((await handOver(owen, id, 'Ines Adeyemi')).status).toBe(200)
    expect((await handOver(ines, id, 'Rosa Castell')).status).toBe(200)
    expect(await asked(id)).toEqual(['Tomas Brandt'])
    expect((await decide(rekko, who(ines), id, 'approve')).status).toBe(404)
    expect((await decide(rekko, who(tomas), id, 'approve')).status).toBe(200)
    expect(await handOver(rosa, id, 'Tomas Brandt')).toMatchObject({
      status: 409,
      body: { detail: 'Tomas Brandt has decided on it and cannot own it.' },
    })
  })
  test('is free to decide again once it was sent by somebody else anew', async () => {
    const { id } = await raise(who(owen), soundDraft([], { lines: [freeLine('900', {}, '610')] }))
    await handOver(owen, id, 'Ines Adeyemi')
    await handOver(ines, id, 'Rosa Castell')
    await who(rosa).call('POST', `/api/requisitions/${id}/withdraw`, { version: await versionOf(rekko, id) })
    await who(rosa).call('POST', `/api/requisitions/${id}/send`, { version: await versionOf(rekko, id), key: `2${id}` })
    expect(await asked(id)).toEqual(['Ines Adeyemi'])
  })
  test('does not order it alone, and as its raiser neither; together with another need it is fine', async () => {
    await rekko.sql(
      `insert into department_member (person_id, department_id) select $1, id from department
       where name = 'Water Systems'`,
      [personId('Leonie Farrow')],
    )
    const own = await raise(who(leonie), soundDraft([{ part: 'CP-GS-25', quantity: 2 }]))
    const [line] = await rekko.sql<{ id: string }>('select id from requisition_line where requisition_id = $1', [
      own.id,
    ])
    await rekko.sql("update document set state = 'approved' where id = $1", [own.id])
    expect((await handOver(leonie, own.id, 'Rosa Castell')).status).toBe(200)
    const tray = await who(leonie).call<{ orderId: string }>('POST', '/api/trays', {
      body: { orderId: null, supplierId: null, parts: [{ lineId: line?.id, quantity: null }] },
    })
    expect(await who(leonie).call('POST', `/api/orders/${tray.body.orderId}/issue`, { version: 1 })).toMatchObject({
      status: 409,
      body: { detail: expect.stringContaining('This serves your own need alone') as string },
    })
    await who(leonie).call('POST', `/api/trays/${tray.body.orderId}/take-off`, { body: { lineIds: null } })
    await rekko.sql('update requisition set raised_by_id = $2 where id = $1', [own.id, personId('Rosa Castell')])
    await rekko.sql("update document set owned_by = '{}' where id = $1", [own.id])
    const other = await who(leonie).call<{ orderId: string }>('POST', '/api/trays', {
      body: { orderId: null, supplierId: null, parts: [{ lineId: line?.id, quantity: null }] },
    })
    expect((await who(leonie).call('POST', `/api/orders/${other.body.orderId}/issue`, { version: 1 })).status).toBe(200)
  })
})

describe('the window of an own limit', () => {
  beforeEach(async () => {
    await rekko.sql("update document set state = 'withdrawn' where kind = 'requisition' and number is not null")
    await rekko.sql('update approval_policy set own_limit_days = 7')
  })
  const harbour = (price: string) => raise(who(owen), soundDraft([], { lines: [freeLine(price, {}, '610')] }))
  // Owen's own limit is 250.
  test('holds what was asked of one supplier against it together, up to the cent', async () => {
    expect((await harbour('150.00')).body.state).toBe('approved')
    expect((await harbour('100.00')).body.state).toBe('approved')
    const above = await harbour('0.01')
    expect(above.body.state).toBe('in approval')
    expect(await asked(above.id)).toEqual(['Ines Adeyemi'])
    // Another supplier is another matter.
    expect((await raise(who(owen), soundDraft([{ part: 'CP-GS-25', quantity: 2 }]))).body.state).toBe('approved')
  })
  test('what lies further back, is over or somebody else’s does not count', async () => {
    const first = await harbour('200.00')
    await rekko.sql("update document set sent_at = sent_at - interval '7 days' where id = $1", [first.id])
    expect((await harbour('200.00')).body.state).toBe('approved')
    expect((await harbour('200.00')).body.state).toBe('in approval')
    await rekko.sql("update document set state = 'cancelled' where kind = 'requisition' and number is not null")
    expect((await harbour('200.00')).body.state).toBe('approved')
    expect((await raise(who(rosa), soundDraft([], { lines: [freeLine('200.00', {}, '610')] }))).body.state).toBe(
      'approved',
    )
  })
  test('of two sent at the same moment one sees the other', async () => {
    const states = (await Promise.all([harbour('200.00'), harbour('200.00')])).map((r) => r.body.state)
    expect(states.sort()).toEqual(['approved', 'in approval'])
  })
  test('the page hears of it before it is sent', async () => {
    await harbour('200.00')
    const facts = (by: Client | undefined, owner: string) =>
      who(by).call<{ ownRecent: { amount: { amount: string } }[] }>(
        'GET',
        `/api/draft-facts?ownerId=${personId(owner)}`,
      )
    expect((await facts(owen, 'Owen Marsh')).body.ownRecent.map((r) => r.amount.amount)).toEqual(['200.00'])
    // Of what somebody else owns nothing is told: what one raises for them no own limit spares.
    expect((await facts(rosa, 'Owen Marsh')).body.ownRecent).toEqual([])
  })
})
