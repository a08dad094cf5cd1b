import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import type { OwnedView } from '#shared/contract/owner'
import {
  decide,
  freeLine,
  personId,
  raise,
  soundDraft,
  startRekko,
  until,
  versionOf,
  type Client,
  type Rekko,
  TODAY,
} from '../setup/rekko'

let rekko: Rekko
let [owen, rosa, ines, leonie]: Client[] = []
beforeAll(async () => {
  rekko = await startRekko()
  ;[owen, rosa, ines, leonie] = await Promise.all(
    ['Owen Marsh', 'Rosa Castell', 'Ines Adeyemi', 'Leonie Farrow'].map(rekko.as),
  )
})
afterAll(async () => {
  await rekko.stop()
})
const who = (c: Client | undefined): Client => c ?? rekko.nobody
const give = async (by: Client | undefined, id: string, to: string, everything = false) =>
  who(by).call<{ detail: string; others: number }>('POST', `/api/requisitions/${id}/owner`, {
    version: await versionOf(rekko, id),
    body: { personId: personId(to), everything },
  })
const mine = async (c: Client | undefined) =>
  (await who(c).call<{ rows: { id: string }[] }>('GET', '/api/requisitions?limit=100')).body.rows.map((r) => r.id)

describe('one requisition', () => {
  test('goes over with every right and waiting action; both hear of it, and the trail says it', async () => {
    const { id } = await raise(who(owen), soundDraft([], { lines: [freeLine('1200')] }))
    await who(ines).call('POST', `/api/documents/${id}/questions`, { body: { text: 'Which pump?' } })
    expect((await give(owen, id, 'Rosa Castell')).status).toBe(200)
    expect(await mine(rosa)).toContain(id)
    expect(await mine(owen)).not.toContain(id)
    // The question waits for the new owner now; the old one, who raised it, still sees it and may not answer.
    expect((await who(owen).call('GET', `/api/requisitions/${id}/trail`)).status).toBe(200)
    expect((await who(owen).call('POST', `/api/documents/${id}/answers`, { body: { text: 'P4' } })).status).toBe(403)
    expect((await who(rosa).call('POST', `/api/documents/${id}/answers`, { body: { text: 'P4' } })).status).toBe(200)
    const trail = (
      await who(rosa).call<{ owner: string; entries: { what: string }[] }>('GET', `/api/requisitions/${id}/trail`)
    ).body
    expect(trail.owner).toBe('Rosa Castell')
    expect(trail.entries.map((e) => e.what)).toContain('handed it over to Rosa Castell')
    await until('the mail to the new owner', async () =>
      (await rekko.mails()).some((m) => m.subject.startsWith('Yours now')),
    )
    expect(
      (await who(rosa).call('POST', `/api/requisitions/${id}/withdraw`, { version: await versionOf(rekko, id) }))
        .status,
    ).toBe(200)
  })

  test(
    'to the one who was asked to decide: nobody decides what they own, so the route goes on without ' + 'them',
    async () => {
      const { id } = await raise(who(owen), soundDraft([], { lines: [freeLine('900')] }))
      expect((await give(owen, id, 'Ines Adeyemi')).status).toBe(200)
      expect((await decide(rekko, who(ines), id, 'approve')).status).toBe(403)
      const open = await rekko.sql<{ name: string }>(
        'select p.name from approval_seat s join person p on p.id = s.actor_id where s.document_id = $1 and ' +
          "s.state = 'open'",
        [id],
      )
      expect(open.map((o) => o.name)).toEqual(['Tomas Brandt'])
    },
  )

  test(
    'is refused to strangers, to the same owner, to whoever left, and at an old version; nothing changes ' + 'then',
    async () => {
      const { id } = await raise(who(owen), soundDraft([], { lines: [freeLine('12')] }))
      expect((await give(await rekko.as('Sorrel Quist'), id, 'Sorrel Quist')).status).toBe(404)
      expect((await give(rosa, id, 'Rosa Castell')).status).toBe(404)
      expect(await give(owen, id, 'Owen Marsh')).toMatchObject({ status: 409, body: { detail: 'You own it already.' } })
      const [gone] = await rekko.sql<{ name: string }>('select name from person where left_on < $1 limit 1', [TODAY])
      expect((await give(owen, id, gone?.name ?? '')).body.detail).toContain('not here any more')
      expect(
        (
          await who(owen).call('POST', `/api/requisitions/${id}/owner`, {
            version: 99,
            body: { personId: personId('Rosa Castell') },
          })
        ).status,
      ).toBe(412)
      expect(
        (await rekko.sql<{ owner: string }>('select owner_id as owner from document where id = $1', [id]))[0]?.owner,
      ).toBe(personId('Owen Marsh'))
    },
  )
})

test('a buyer hands over everything that somebody owns and that is not over, at once; others may not', async () => {
  const sorrel = await rekko.as('Sorrel Quist')
  const own = () =>
    raise(sorrel, soundDraft([{ part: 'MC-SH-12', quantity: 2 }], { title: 'Shackles' }, 'Research Boat'))
  const [first, second, third] = [await own(), await own(), await own()]
  expect([first.status, second.status, third.status]).toEqual([200, 200, 200])
  // One of them is over.
  await sorrel.call('POST', `/api/requisitions/${third.id}/cancel-rest`, { version: await versionOf(rekko, third.id) })
  expect((await give(sorrel, first.id, 'Rosa Castell', true)).status).toBe(403)
  expect(await give(leonie, first.id, 'Rosa Castell', true)).toMatchObject({ status: 200, body: { others: 1 } })
  expect(await mine(rosa)).toEqual(expect.arrayContaining([first.id, second.id]))
  expect(await mine(sorrel)).toEqual([third.id])
})

test('all that a leaver owns is looked at and handed over, drafts, orders and trays too', async () => {
  const [sorrel, harriet] = [await rekko.as('Sorrel Quist'), await rekko.as('Harriet Voss')]
  const sent = await raise(
    sorrel,
    soundDraft([{ part: 'MC-SH-12', quantity: 2 }], { title: 'More shackles' }, 'Research Boat'),
  )
  const draftId = randomUUID()
  const draft = soundDraft([], { title: 'Not sent', lines: [freeLine('9')] }, 'Research Boat')
  await sorrel.call('POST', '/api/requisitions', { body: { id: draftId, draft, ownerId: null } })
  const owned = (by: Client | undefined, name: string) =>
    who(by).call<OwnedView>('GET', `/api/people/${personId(name)}/owned`)
  expect((await owned(owen, 'Sorrel Quist')).status).toBe(403)
  const before = (await owned(leonie, 'Sorrel Quist')).body
  // What was cancelled is over; of a draft nothing is shown but that there is one.
  expect(before.requests.map((r) => r.title)).toEqual(['More shackles'])
  expect([before.drafts, before.orders.length, before.trays]).toEqual([1, 0, 0])
  expect(JSON.stringify(before)).not.toContain('Not sent')

  // A tray of Leonie's and an order that she issued go to another buyer.
  const lines = (
    await who(leonie).call<{ lines: { id: string; requisitionId: string }[] }>('GET', '/api/desk')
  ).body.lines.filter((l) => l.requisitionId === sent.id)
  const laid = await who(leonie).call<{ orderId: string }>('POST', '/api/trays', {
    body: { orderId: null, supplierId: null, parts: lines.map((l) => ({ lineId: l.id, quantity: '1' })) },
  })
  const issued = await who(leonie).call('POST', `/api/orders/${laid.body.orderId}/issue`, { version: 1 })
  expect(issued.status).toBe(200)
  await who(leonie).call('POST', '/api/trays', {
    body: { orderId: null, supplierId: null, parts: lines.map((l) => ({ lineId: l.id, quantity: '1' })) },
  })
  const giveAll = (by: Client | undefined, name: string, body: object) =>
    who(by).call<{ detail: string }>('POST', `/api/people/${personId(name)}/owned/hand-over`, { body })
  const to = (name: string) => personId(name)
  expect((await giveAll(owen, 'Sorrel Quist', { requestsTo: to('Owen Marsh'), ordersTo: null })).status).toBe(403)
  expect((await giveAll(leonie, 'Sorrel Quist', { requestsTo: null, ordersTo: null })).status).toBe(422)
  expect(await giveAll(harriet, 'Leonie Farrow', { requestsTo: null, ordersTo: to('Rosa Castell') })).toMatchObject({
    status: 409,
    body: { detail: 'Rosa Castell is no buyer, and orders are owned by buyers.' },
  })
  expect(await giveAll(leonie, 'Sorrel Quist', { requestsTo: to('Rosa Castell'), ordersTo: null })).toMatchObject({
    status: 200,
    body: { requests: 1, drafts: 1, orders: 0, trays: 0 },
  })
  expect(await mine(rosa)).toEqual(expect.arrayContaining([sent.id, draftId]))
  expect((await who(rosa).call('GET', `/api/requisitions/${draftId}`)).status).toBe(200)
  expect(await giveAll(harriet, 'Leonie Farrow', { requestsTo: null, ordersTo: to('Harriet Voss') })).toMatchObject({
    status: 200,
    body: { orders: 1, trays: 1 },
  })
  const hers = (await harriet.call<{ trays: { supplier: string }[] }>('GET', '/api/desk')).body.trays
  expect(hers.map((t) => t.supplier)).toContain('Mistral Chandlery')
  const order = (await harriet.call<{ buyer: string }>('GET', `/api/orders/${laid.body.orderId}`)).body
  expect(order.buyer).toBe('Harriet Voss')
  expect((await owned(harriet, 'Leonie Farrow')).body).toMatchObject({ requests: [], drafts: 0, orders: [], trays: 0 })
  // One mail for all of it; nobody is told of their own doing.
  await until('the mail about it', async () =>
    (await rekko.mails()).some((m) => m.subject === 'Handed over to you: what was Sorrel Quist’s'),
  )
})

test('routing again writes nothing when nothing changes', async () => {
  const { id } = await raise(who(owen), soundDraft([], { lines: [freeLine('1200')] }))
  const harriet = await rekko.as('Harriet Voss')
  const routed = async () =>
    (await rekko.sql("select 1 from event where subject_id = $1 and type = 'routed again'", [id])).length
  const away = (from: string, until: string) =>
    harriet.call('POST', '/api/absences', {
      body: { personId: personId('Ines Adeyemi'), from, until, substituteId: null },
    })
  // Far ahead: her requests are routed again, and come out as they were.
  expect((await away('2199-01-01', '2199-01-02')).status).toBe(200)
  expect(await routed()).toBe(0)
  expect((await away(TODAY, TODAY)).status).toBe(200)
  await until('the new route', async () => (await routed()) === 1)
})
