import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, expect, test } from 'vitest'
import type { JobPlan, JobView } from '#shared/contract/job'
import {
  budgetLineId,
  fiscalYear,
  idOf,
  personId,
  startRekko,
  until,
  versionOf,
  type Client,
  type Rekko,
} from '../setup/rekko'

let rekko: Rekko
let owen: Client, rosa: Client, priya: Client, leonie: Client
beforeAll(async () => {
  rekko = await startRekko()
  owen = await rekko.as('Owen Marsh')
  rosa = await rekko.as('Rosa Castell')
  priya = await rekko.as('Priya Lindqvist')
  leonie = await rekko.as('Leonie Farrow')
})
afterAll(() => rekko.stop())

const part = (description: string, quantity: string, more: Partial<JobPlan['parts'][number]> = {}) => ({
  id: randomUUID(),
  itemId: null,
  description,
  quantity,
  unit: 'H87',
  estimate: '10.00',
  ...more,
})
const plan = (parts: JobPlan['parts'], more: Partial<JobPlan> = {}): JobPlan => ({
  startsOn: null,
  endsOn: null,
  shipToId: null,
  budgetLineId: null,
  people: [],
  parts,
  ...more,
})
const view = async (who: Client, id: string) => (await who.call<JobView>('GET', `/api/jobs/${id}`)).body
const keep = (who: Client, id: string, version: number, body: JobPlan) =>
  who.call<{ version: number; detail: string }>('PUT', `/api/jobs/${id}`, { version, body })
const raiseOpen = (who: Client, id: string, version: number, partIds: string[] | null = null) =>
  who.call<{ id: string; lines: number; version: number }>('POST', `/api/jobs/${id}/raise`, {
    version,
    body: { partIds },
  })
const progress = async (id: string) => (await view(owen, id)).parts.map((p) => Object.values(p.progress).join(' '))

test('parts are raised once, and open again as often as what asked for them goes', async () => {
  const id = idOf('job', 'J-101')
  const lamp = part('Lamps', '6', { itemId: idOf('item', 'CP-UV-80A'), estimate: null })
  const paint = part('Paint of our own', '2.5', { unit: 'LTR' })
  const pays = budgetLineId('Water Systems', '616', fiscalYear())
  expect(
    await keep(owen, id, 0, plan([lamp, paint], { budgetLineId: pays, people: [personId('Priya Lindqvist')] })),
  ).toMatchObject({ status: 200, body: { version: 2 } })
  expect(await keep(rosa, id, 0, plan([]))).toMatchObject({ status: 412 })
  expect(await view(owen, id)).toMatchObject({ estimate: { amount: '25.00' }, ordered: { amount: '0.00' } })
  expect(await progress(id)).toEqual(['0 0 0 6', '0 0 0 2.5'])

  // Two who raise at once raise each part once.
  const both = await Promise.all([raiseOpen(owen, id, 2), raiseOpen(rosa, id, 2)])
  expect(both.map((r) => r.status).sort()).toEqual([200, 412])
  const [first, who] = both[0]?.status === 200 ? [both[0].body, owen] : [both[1]?.body, rosa]
  expect(first?.lines).toBe(2)
  expect(await progress(id)).toEqual(['6 0 0 0', '2.5 0 0 0'])
  expect(await raiseOpen(owen, id, 3)).toMatchObject({ status: 409 })
  // What is asked for cannot be planned away, nor to less.
  expect((await keep(owen, id, 3, plan([paint]))).body.detail).toContain('“Lamps” 6 are asked for already')
  expect((await keep(owen, id, 3, plan([{ ...lamp, quantity: '5' }, paint]))).status).toBe(409)

  // The draft says what a hand-written one would, and is its raiser’s own.
  const draft = `/api/requisitions/${first?.id ?? ''}`
  const kept = await who.call<{ draft: { lines: Record<string, unknown>[]; jobId: string } }>('GET', draft)
  expect(kept.body.draft).toMatchObject({
    jobId: id,
    lines: [
      { itemId: lamp.itemId, quantity: '6', codings: [{ budgetLineId: pays }], jobId: id },
      { description: 'Paint of our own', quantity: '2.5', unitPrice: '10' },
    ],
  })
  // A line that is taken off is open again; one of which less is asked for, the rest.
  const [one, two] = kept.body.draft.lines
  const lessened = { ...kept.body.draft, lines: [{ ...one, quantity: '4' }] }
  expect((await who.call('PUT', draft, { version: 1, body: { draft: lessened } })).status).toBe(200)
  expect(await progress(id)).toEqual(['4 0 0 2', '0 0 0 2.5'])
  // Put back, it asks for it again.
  const back = { ...lessened, lines: [one, two] }
  expect((await who.call('PUT', draft, { version: 2, body: { draft: back } })).status).toBe(200)
  expect(await progress(id)).toEqual(['6 0 0 0', '2.5 0 0 0'])
  expect((await who.call('DELETE', draft, { version: 3 })).status).toBe(204)
  expect(await progress(id)).toEqual(['0 0 0 6', '0 0 0 2.5'])

  // Raised by part, sent and ordered: what was ordered stands beside the estimate.
  const again = await raiseOpen(owen, id, 3, [paint.id])
  expect(again.body.lines).toBe(1)
  const { id: requisition } = again.body
  const [line] = await rekko.sql<{ id: string }>('select id from requisition_line where requisition_id = $1', [
    requisition,
  ])
  const d = (
    await owen.call<{ draft: { lines: Record<string, unknown>[] } }>('GET', `/api/requisitions/${requisition}`)
  ).body.draft
  const supplierId = idOf('supplier', 'Harbour Waste')
  const full = { ...d, lines: d.lines.map((l) => ({ ...l, supplierId })), needBy: '2198-01-05' }
  expect(
    (await owen.call('PUT', `/api/requisitions/${requisition}`, { version: 1, body: { draft: full } })).status,
  ).toBe(200)
  const sent = await owen.call<{ state: string }>('POST', `/api/requisitions/${requisition}/send`, { version: 2 })
  expect(sent).toMatchObject({ status: 200, body: { state: 'approved' } })
  expect((await progress(id))[1]).toBe('0 2.5 0 0')
  const tray = await leonie.call<{ orderId: string }>('POST', '/api/trays', {
    body: { orderId: null, supplierId: null, parts: [{ lineId: line?.id, quantity: null }] },
  })
  const order = tray.body.orderId
  const issued = await leonie.call('POST', `/api/orders/${order}/issue`, { version: await versionOf(rekko, order) })
  expect(issued.status).toBe(200)
  expect((await progress(id))[1]).toBe('0 2.5 2.5 0')
  expect((await view(owen, id)).ordered).toEqual({ amount: '25.00', currency: 'EUR' })
})

test('a job is changed by its people, its department and administrators; others are told its name', async () => {
  const id = idOf('job', 'J-104')
  expect((await keep(owen, id, 0, plan([part('Wire', '3')]))).status).toBe(403)
  expect((await raiseOpen(owen, id, 0)).status).toBe(403)
  const harriet = await rekko.as('Harriet Voss')
  const wire = part('Wire', '3')
  expect((await keep(harriet, id, 0, plan([wire], { people: [personId('Priya Lindqvist')] }))).status).toBe(200)
  expect(await view(owen, id)).toMatchObject({ name: 'Outdoor pens, spring', parts: [], people: [], mayChange: false })
  expect(await view(priya, id)).toMatchObject({ isIn: true, mayChange: true, parts: [{ description: 'Wire' }] })
  expect((await raiseOpen(priya, id, 2)).status).toBe(200)
  // A part of another job, an unknown item, and days that end before they begin.
  expect((await keep(harriet, idOf('job', 'J-105'), 0, plan([wire]))).status).toBe(422)
  expect((await keep(harriet, id, 3, plan([wire, part('x', '1', { itemId: randomUUID() })]))).status).toBe(422)
  expect((await keep(harriet, id, 3, plan([wire], { startsOn: '2198-02-01', endsOn: '2198-01-01' }))).status).toBe(422)
  expect((await keep(harriet, id, 3, plan([part('x', '0')]))).status).toBe(422)
  expect((await keep(harriet, id, 3, plan([part('x', '1', { unit: 'QQQ' })]))).status).toBe(422)
  for (const nobody of [{ people: [randomUUID()] }, { shipToId: randomUUID() }, { budgetLineId: randomUUID() }])
    expect((await keep(harriet, id, 3, plan([wire], nobody))).status).toBe(422)
  expect((await view(priya, id)).parts).toHaveLength(1)
})

test('what is added asks for itself where a kind says so; a draft stays where something is missing', async () => {
  const harriet = await rekko.as('Harriet Voss')
  const form = async () =>
    (await harriet.call<{ form: { kinds: { code: string }[] }; version: number }>('GET', '/api/request-form')).body
  const setKind = async (raisesParts: boolean) => {
    const { form: f, version } = await form()
    const kinds = f.kinds.map((k, i) => ({ ...k, raisesParts: raisesParts && i === 1 }))
    expect((await harriet.call('PUT', '/api/request-form', { version, body: { ...f, kinds } })).status).toBe(200)
    return kinds[1]?.code
  }
  const id = idOf('job', 'J-103')
  const asked = () =>
    rekko.sql<{ state: string; kind: string; lines: number; owner: string }>(
      `select d.state, r.kind_code as kind, p.name as owner,
         (select count(*)::int from requisition_line l where l.requisition_id = r.id) as lines
       from requisition r join document d using (id) join person p on p.id = d.owner_id
       where r.job_id = $1 order by d.changed_at`,
      [id],
    )
  const before = part('Kept as before', '1')
  expect((await keep(harriet, id, 0, plan([before], { people: [personId('Owen Marsh')] }))).status).toBe(200)
  const code = await setKind(true)
  expect((await view(owen, id)).raisesAs).not.toBeNull()
  // An item knows its supplier and its price, and the job who pays.
  const lamp = part('Lamp', '1', { itemId: idOf('item', 'CP-UV-80A'), estimate: null })
  const pays = budgetLineId('Water Systems', '616', fiscalYear())
  const { version } = await view(owen, id)
  const body = plan([before, lamp], { people: [personId('Owen Marsh')], budgetLineId: pays })
  expect((await keep(owen, id, version, body)).status).toBe(200)
  const [first] = await until('the lamp to be asked for', async () => {
    const found = await asked()
    return found.length === 1 && found[0]?.state !== 'draft' && found
  })
  expect(first).toMatchObject({ kind: code, lines: 1, owner: 'Owen Marsh', state: 'approved' })
  expect((await view(owen, id)).parts.map((p) => p.progress.open)).toEqual(['1', '0'])
  // Kept again without anything new, nothing more is asked for.
  const then = await view(owen, id)
  expect((await keep(owen, id, then.version, { ...body, parts: [before, lamp] })).status).toBe(200)
  // A line of one's own words names no supplier and no price: it waits, and they hear what is missing.
  const own = part('Something without a price', '1', { estimate: null })
  const { version: last } = await view(owen, id)
  expect((await keep(owen, id, last, { ...body, parts: [before, lamp, own] })).status).toBe(200)
  const told = await until('to be told', async () => {
    const { notices } = (await owen.call<{ notices: { sentence: string }[] }>('GET', '/api/notices')).body
    return notices.find((n) => n.sentence.includes('could not be sent'))
  })
  // By when it is needed it knows from the job.
  expect(told.sentence).toMatch(/^What you added to a job .* could not be sent: /)
  expect(told.sentence).not.toContain('by when')
  const all = await asked()
  expect(all).toHaveLength(2)
  expect(all.map((r) => [r.state, r.lines]).sort()).toEqual([
    ['approved', 1],
    ['draft', 1],
  ])
  await setKind(false)
  expect((await view(owen, id)).raisesAs).toBeNull()
})
