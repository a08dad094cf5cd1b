import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, expect, test } from 'vitest'
import type { RaiseChoices } from '#shared/contract/requisition'
import { freeLine, personId, soundDraft, startRekko, until, versionOf, type Client, type Rekko } from '../setup/rekko'

let rekko: Rekko
let owen: Client
let rosa: Client
beforeAll(async () => {
  rekko = await startRekko()
  ;[owen, rosa] = [await rekko.as('Owen Marsh'), await rekko.as('Rosa Castell')]
})
afterAll(async () => {
  await rekko.stop()
})
const keep = async (owner: string | null, who = owen) => {
  const id = randomUUID()
  const r = await who.call<{ version: number; detail: string }>('POST', '/api/requisitions', {
    body: {
      id,
      draft: soundDraft([], { title: 'For somebody', lines: [freeLine('12')] }),
      ownerId: owner === null ? null : personId(owner),
    },
  })
  return { ...r, id }
}
const mine = async (c: Client) =>
  (await c.call<{ rows: { id: string }[] }>('GET', '/api/requisitions?limit=100')).body.rows.map((r) => r.id)

test('one may raise for oneself and for people of one’s departments, and for nobody else', async () => {
  const { people } = (await owen.call<RaiseChoices>('GET', '/api/raise-choices')).body
  expect(people[0]?.name).toBe('Owen Marsh')
  expect(people.map((p) => p.name)).toContain('Rosa Castell')
  expect(people.map((p) => p.name)).not.toContain('Sorrel Quist')
  expect((await keep('Rosa Castell')).status).toBe(200)
  const refused = await keep('Sorrel Quist')
  expect(refused).toMatchObject({ status: 403, body: { detail: 'You may raise for people of your departments only.' } })
  expect(await rekko.sql('select 1 from requisition where id = $1', [refused.id])).toEqual([])
})

test('a draft for somebody else is written and sent by whoever raises it; then it is its owner’s', async () => {
  const { id } = await keep('Rosa Castell')
  expect(await mine(owen)).toContain(id)
  expect(await mine(rosa)).toContain(id)
  const draft = soundDraft([], { title: 'For Rosa', lines: [freeLine('14')] })
  expect(
    (
      await owen.call('PUT', `/api/requisitions/${id}`, {
        version: 1,
        body: { draft, ownerId: personId('Rosa Castell') },
      })
    ).body,
  ).toMatchObject({ version: 2 })
  const sent = await owen.call<{ state: string }>('POST', `/api/requisitions/${id}/send`, {
    version: 2,
    key: `send-${id}`,
  })
  // Within both their own limits, and yet decided by a manager: one's own limit is for what one both owns and sends.
  expect(sent).toMatchObject({ status: 200, body: { state: 'in approval' } })
  expect(await mine(owen)).not.toContain(id)
  expect(await mine(rosa)).toContain(id)
  await until('the mail to its owner', async () =>
    (await rekko.mails()).some((m) => m.subject === 'Raised for you: For Rosa'),
  )
  expect(
    (await owen.call('POST', `/api/requisitions/${id}/withdraw`, { version: await versionOf(rekko, id) })).status,
  ).toBe(403)
  expect(
    (await rosa.call('POST', `/api/requisitions/${id}/withdraw`, { version: await versionOf(rekko, id) })).status,
  ).toBe(200)
  // Neither of them may decide it, and after the first sending for whom it is changes only by handing over.
  const seats = await rekko.sql<{ name: string }>(
    'select p.name from approval_seat s join person p on p.id = s.actor_id where s.document_id = $1',
    [id],
  )
  expect(seats.length).toBeGreaterThan(0)
  for (const name of ['Owen Marsh', 'Rosa Castell']) expect(seats.map((s) => s.name)).not.toContain(name)
  // Its owner's page works it out as the server will: raised by somebody else, so that no limit of their own spares
  // anybody.
  const facts = (who: Client) =>
    who.call<{ ownerId: string; raisedById: string }>(
      'GET',
      `/api/draft-facts?requisitionId=${id}&ownerId=${personId('Rosa Castell')}`,
    )
  expect((await facts(rosa)).body).toMatchObject({
    ownerId: personId('Rosa Castell'),
    raisedById: personId('Owen Marsh'),
  })
  expect((await facts(await rekko.as('Sorrel Quist'))).body).toMatchObject({
    ownerId: personId('Sorrel Quist'),
    raisedById: personId('Sorrel Quist'),
  })
  const back = await rosa.call('PUT', `/api/requisitions/${id}`, {
    version: await versionOf(rekko, id),
    body: { draft, ownerId: personId('Owen Marsh') },
  })
  expect(back.status).toBe(403)
})

test('for somebody of another department, their departments and their place apply', async () => {
  // Owen may raise for Animal Care too; so he may for its people, and then for what is open to them alone.
  await rekko.sql(
    `insert into department_member (person_id, department_id) select $1, id from department where name = 'Animal Care'`,
    [personId('Owen Marsh')],
  )
  const { people, departments } = (await owen.call<RaiseChoices>('GET', '/api/raise-choices')).body
  const named = (ids: readonly string[]) => ids.map((id) => departments.find((d) => d.id === id)?.name)
  const priya = people.find((p) => p.name === 'Priya Lindqvist')
  expect(named(priya?.departmentIds ?? [])[0]).toBe('Animal Care')
  expect(departments.find((d) => d.name === 'Animal Care')?.usualShipToId).not.toBeNull()
  expect(departments[0]?.name).toBe('Water Systems')
  const { id } = await keep('Priya Lindqvist')
  const missing = async (department: string) => {
    const draft = soundDraft([], { lines: [freeLine('14')] }, department)
    await owen.call('PUT', `/api/requisitions/${id}`, {
      version: await versionOf(rekko, id),
      body: { draft, ownerId: personId('Priya Lindqvist') },
    })
    const facts = await owen.call<{ departmentIds: string[] }>(
      'GET',
      `/api/draft-facts?requisitionId=${id}&departmentId=${draft.departmentId ?? ''}`,
    )
    return facts.body.departmentIds.includes(draft.departmentId ?? '')
  }
  expect([await missing('Animal Care'), await missing('Water Systems')]).toEqual([true, false])
  const sent = await owen.call<{ detail: string }>('POST', `/api/requisitions/${id}/send`, {
    version: await versionOf(rekko, id),
    key: `send-${id}`,
  })
  expect(sent).toMatchObject({ status: 409 })
})

test('for whom it is may change while it is a draft; the version follows', async () => {
  const { id } = await keep(null)
  const draft = soundDraft([], { lines: [freeLine('12')] })
  const changed = await owen.call<{ version: number }>('PUT', `/api/requisitions/${id}`, {
    version: 1,
    body: { draft, ownerId: personId('Rosa Castell') },
  })
  expect(changed.body.version).toBe(await versionOf(rekko, id))
  expect(
    (
      await owen.call('PUT', `/api/requisitions/${id}`, {
        version: changed.body.version,
        body: { draft, ownerId: personId('Owen Marsh') },
      })
    ).status,
  ).toBe(200)
  expect(await mine(rosa)).not.toContain(id)
})

test('the facts of a draft for somebody else are those of its owner, for whoever may raise for them', async () => {
  const facts = async (owner: string) =>
    (await owen.call<{ ownerId: string; raisedById: string }>('GET', `/api/draft-facts?ownerId=${personId(owner)}`))
      .body
  expect(await facts('Rosa Castell')).toMatchObject({
    ownerId: personId('Rosa Castell'),
    raisedById: personId('Owen Marsh'),
  })
  expect((await facts('Sorrel Quist')).ownerId).toBe(personId('Owen Marsh'))
})
