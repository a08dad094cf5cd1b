import { request, type ClientRequest } from 'node:http'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import type { DeskLine, OrderHead, OrderView } from '#shared/contract/order'
import { idOf, personId, raise, soundDraft, startRekko, until, type Client, type Rekko } from '../setup/rekko'

let rekko: Rekko
let [owen, priya, leonie, wes]: Client[] = []
let order = ''
const requests: string[] = []
/** Two people of two departments, whose lines go onto one order; each notes things for colleagues. */
beforeAll(async () => {
  rekko = await startRekko()
  // The goods yard's Wes buys for one department only.
  await rekko.sql("insert into role_grant (person_id, role, department_id) values ($1, 'buyer', $2)", [
    personId('Wes Okafor'),
    idOf('department', 'Research Boat'),
  ])
  ;[owen, priya, leonie, wes] = await Promise.all(
    ['Owen Marsh', 'Priya Lindqvist', 'Leonie Farrow', 'Wes Okafor'].map((n) => rekko.as(n)),
  )
  const part = { part: 'FL-GLM-100', quantity: 1 }
  const place = idOf('ship-to', 'Goods Yard')
  const of = (who: string) => ({
    title: `Gloves for ${who}`,
    shipToId: place,
    attention: `${who} in person`,
    telephone: `0100 ${who}`,
    noteInternal: `${who} keeps a few under the stairs`,
  })
  const sent = [
    await raise(who(owen), soundDraft([{ ...part, account: '620' }], of('Owen'))),
    await raise(who(priya), soundDraft([{ ...part, account: '620' }], of('Priya'), 'Animal Care')),
  ]
  expect(sent.map((s) => [s.status, s.body.state])).toEqual([
    [200, 'approved'],
    [200, 'approved'],
  ])
  requests.push(...sent.map((s) => s.id))
  const { lines } = (await who(leonie).call<{ lines: DeskLine[] }>('GET', '/api/desk')).body
  const parts = lines.filter((l) => requests.includes(l.requisitionId)).map((l) => ({ lineId: l.id, quantity: null }))
  const tray = await who(leonie).call<{ orderId: string }>('POST', '/api/trays', {
    body: { orderId: null, supplierId: null, parts },
  })
  order = tray.body.orderId
  expect((await who(leonie).call('POST', `/api/orders/${order}/issue`, { version: 1 })).status).toBe(200)
  await until(
    'the PDF',
    async () => (await rekko.sql('select 1 from order_revision where pdf_hash is not null')).length,
  )
})
afterAll(async () => {
  await rekko.stop()
})
const who = (c: Client | undefined): Client => c ?? rekko.nobody

describe('an order that serves two people', () => {
  test('each reads their own notes, telephone and attention on it, and nothing of the other’s', async () => {
    for (const [reader, own, other] of [
      [owen, 'Owen', 'Priya'],
      [priya, 'Priya', 'Owen'],
    ] as const) {
      const seen = await who(reader).call<OrderView>('GET', `/api/orders/${order}`)
      expect(seen.status).toBe(200)
      const text = JSON.stringify(seen.body)
      expect(text).toContain(`${own} keeps a few`)
      expect(text).toContain(`0100 ${own}`)
      expect(text).not.toContain(`${other} keeps a few`)
      expect(text).not.toContain(`0100 ${other}`)
      expect(text).not.toContain(`${other} in person`)
      const pdf = await who(reader).call<{ detail: string }>('GET', `/api/orders/${order}/pdf`)
      expect(pdf).toMatchObject({ status: 403, body: { detail: expect.stringContaining('Leonie Farrow') as string } })
    }
  })
  test('its buyer reads it whole, with its PDF', async () => {
    const text = JSON.stringify((await who(leonie).call<OrderView>('GET', `/api/orders/${order}`)).body)
    for (const name of ['Owen', 'Priya']) expect(text).toContain(`${name} keeps a few`)
    expect((await who(leonie).call('GET', `/api/orders/${order}/pdf`)).status).toBe(200)
  })
  test('a buyer of another department sees it nowhere: page, PDF, list, Find', async () => {
    expect((await who(wes).call('GET', `/api/orders/${order}`)).status).toBe(404)
    expect((await who(wes).call('GET', `/api/orders/${order}/pdf`)).status).toBe(404)
    expect((await who(wes).call<{ orders: OrderHead[] }>('GET', '/api/orders')).body.orders).toEqual([])
    const found = await who(wes).call<{ hits: { kind: string }[] }>('GET', '/api/find?words=P-2')
    expect(found.body.hits.filter((h) => h.kind === 'order')).toEqual([])
  })
})

/** What a signed-in person's open page hears. */
function follow(client: Client): { heard: string[]; ended: () => boolean; stop: () => void; open: Promise<void> } {
  const heard: string[] = []
  let over = false
  let sent: ClientRequest | undefined
  const open = new Promise<void>((resolve) => {
    sent = request(`${rekko.url}/api/live`, { headers: { cookie: client.cookie } }, (reply) => {
      reply.on('data', (chunk: Buffer) => {
        heard.push(chunk.toString())
        resolve()
      })
      reply.on('close', () => {
        over = true
      })
    })
    sent.on('error', () => undefined)
    sent.end()
  })
  return { heard, open, ended: () => over, stop: () => sent?.destroy() }
}

describe('a reply holds what its description names', () => {
  test('of a supplier no terms, freight or address', async () => {
    const { body } = await who(owen).call<{ suppliers: object[] }>('GET', '/api/suppliers?words=corrigan')
    expect(Object.keys(body.suppliers[0] ?? {}).sort()).toEqual(
      ['currency', 'facts', 'id', 'leadDays', 'name', 'number', 'standing', 'town', 'warning'].sort(),
    )
  })
  test('of a department that is not open no budget line, and of colleagues no limits but for deciding', async () => {
    type Facts = {
      budgetLines: object[]
      people: { id: string; ownLimit: unknown; orderingLimit: unknown; decidingLimit: unknown }[]
    }
    const facts = async (department: string) =>
      (await who(owen).call<Facts>('GET', `/api/draft-facts?departmentId=${idOf('department', department)}`)).body
    expect((await facts('Water Systems')).budgetLines.length).toBeGreaterThan(3)
    expect((await facts('Research Boat')).budgetLines).toEqual([])
    const { people } = await facts('Water Systems')
    expect(people.length).toBeGreaterThan(2)
    for (const p of people) {
      expect(p.orderingLimit).toBeNull()
      if (p.id !== personId('Owen Marsh')) expect(p.ownLimit).toBeNull()
    }
    expect(people.find((p) => p.id === personId('Owen Marsh'))?.ownLimit).not.toBeNull()
  })
})

describe('open pages', () => {
  test('hear of what they may see, of nobody else’s draft, and of nothing after signing out', async () => {
    const [mine, finance, leaving] = [
      await rekko.as('Owen Marsh'),
      await rekko.as('Greta Molin'),
      await rekko.as('Owen Marsh'),
    ]
    const pages = [follow(mine), follow(who(leonie)), follow(finance), follow(leaving)] as const
    const [own, buyer, accounts, left] = pages
    await Promise.all(pages.map((p) => p.open))
    const { id } = await raise(mine, soundDraft([{ part: 'CP-GS-25', quantity: 1 }]))
    const draftId = '22222222-2222-4222-8222-222222222222'
    const draft = soundDraft([])
    await mine.call('POST', '/api/requisitions', { body: { id: draftId, draft } })
    await mine.call('PUT', `/api/requisitions/${draftId}`, { body: { draft }, version: 1 })
    const hears = (p: { heard: string[] }, what: string) => p.heard.join('').includes(what)
    await until('its owner’s page', async () => Promise.resolve(hears(own, draftId)))
    await until('the buyer’s page', async () => Promise.resolve(hears(buyer, id)))
    expect([hears(buyer, draftId), hears(accounts, draftId), hears(accounts, id)]).toEqual([false, false, true])
    await leaving.call('DELETE', '/api/session')
    await until('the end of the stream', async () => Promise.resolve(left.ended()))
    expect(own.ended()).toBe(false)
    for (const p of pages) p.stop()
  })
})
