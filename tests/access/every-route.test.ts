import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { may, RIGHTS, type RoleGrant } from '#core/people/rights'
import { ALL_ROUTES } from '#shared/contract/all-routes'
import type { RouteSpec } from '#shared/contract/route'
import { freeLine, raise, soundDraft, startRekko, type Client, type Rekko } from '../setup/rekko'

/** One person of each role, and what they hold; a stranger holds nothing that touches the document. */
const PEOPLE: { name: string; grants: RoleGrant[]; sees: boolean }[] = [
  { name: 'Owen Marsh', grants: [], sees: true },
  { name: 'Ines Adeyemi', grants: [], sees: true },
  { name: 'Tomas Brandt', grants: [], sees: true },
  { name: 'Leonie Farrow', grants: [{ role: 'buyer', departmentId: null }], sees: false },
  {
    name: 'Harriet Voss',
    grants: [
      { role: 'buyer', departmentId: null },
      { role: 'administrator', departmentId: null },
    ],
    sees: false,
  },
  { name: 'Greta Molin', grants: [{ role: 'finance', departmentId: null }], sees: true },
  { name: 'Signe Aalto', grants: [{ role: 'auditor', departmentId: null }], sees: true },
  { name: 'Wes Okafor', grants: [{ role: 'receiver', departmentId: null }], sees: false },
  { name: 'Sorrel Quist', grants: [], sees: false },
]

let rekko: Rekko
let requisition = ''
const clients = new Map<string, Client>()
beforeAll(async () => {
  rekko = await startRekko()
  for (const p of PEOPLE) clients.set(p.name, await rekko.as(p.name))
  // In approval: its owner, those who decide, holders of what it touches, finance and auditors see it.
  requisition = (await raise(clients.get('Owen Marsh') ?? rekko.nobody, soundDraft([], { lines: [freeLine('1200')] })))
    .id
})
afterAll(async () => {
  await rekko.stop()
})

const address = (spec: RouteSpec) =>
  spec.path
    .replace('{id}', spec.path.startsWith('/api/requisitions') ? requisition : randomUUID())
    .replace(/\{\w+\}/g, () => randomUUID())
const call = (who: Client, spec: RouteSpec) =>
  who.call(spec.method, address(spec), { ...(spec.ifMatch ? { version: 999 } : {}), body: {} })
const walkable = ALL_ROUTES.filter((r) => r.bytes !== 'stream')

describe('every route', () => {
  test.each(walkable.filter((r) => r.access !== 'public').map((r) => [`${r.method} ${r.path}`, r] as const))(
    '%s needs somebody who is signed in',
    async (_, spec) => {
      const r = await call(rekko.nobody, spec)
      expect(r.status).toBe(401)
      expect(r.headers.get('content-type')).toContain('application/problem+json')
      const forged = await rekko.nobody.call(spec.method, address(spec), {
        headers: { cookie: 'rekko=Fe26.2**forged' },
        body: {},
      })
      expect(forged.status).toBe(401)
    },
  )

  describe.each(PEOPLE)('as $name', ({ name, grants, sees }) => {
    test.each(
      walkable
        .filter((r) => r.access !== 'public' && r.name !== 'signOut')
        .map((r) => [`${r.method} ${r.path}`, r] as const),
    )('%s', async (_, spec) => {
      const r = await call(clients.get(name) ?? rekko.nobody, spec)
      const right = spec.access
      if (right === 'public') return
      if (!may(grants, right)) {
        expect(r.status).toBe(403)
        return
      }
      expect(r.status).not.toBe(401)
      expect(r.status).toBeLessThan(500)
      const onTheirs =
        spec.path.startsWith('/api/requisitions/{id}') && spec.method === 'GET' && !spec.path.includes('attachment')
      if (onTheirs) expect(r.status).toBe(sees ? 200 : 404)
      // Nobody who does not see it hears anything but that there is nothing (or that what they sent cannot be read).
      if (!sees && spec.path.startsWith('/api/requisitions/{id}') && spec.method !== 'GET')
        expect([404, 422]).toContain(r.status)
    })
  })
})

describe('what lists hold', () => {
  test('nothing of a document that one may not see', async () => {
    for (const { name, sees } of PEOPLE.filter((p) => !p.sees)) {
      expect(sees).toBe(false)
      for (const path of [
        '/api/requisitions',
        '/api/waiting',
        '/api/notices',
        '/api/budgets',
        ...(name === 'Leonie Farrow' || name === 'Harriet Voss' ? ['/api/desk', '/api/orders'] : []),
      ]) {
        const r = await (clients.get(name) ?? rekko.nobody).call('GET', path)
        expect([name, path, r.status]).toEqual([name, path, 200])
        expect(JSON.stringify(r.body)).not.toContain(requisition)
      }
    }
  })

  test('colleagues of the department see what its budget lines hold, not what each entry is about', async () => {
    const [touched] = await rekko.sql<{ id: string }>(
      'select budget_line_id as id from budget_entry where document_id = $1',
      [requisition],
    )
    const seen = async (name: string) =>
      await (clients.get(name) ?? rekko.nobody).call<{
        entries: { amount: string; number: string | null; title: string }[]
      }>('GET', `/api/budgets/${touched?.id ?? ''}/entries`)
    expect((await seen('Tomas Brandt')).body.entries[0]).toMatchObject({
      number: expect.stringMatching(/^R-/) as string,
      title: 'A test',
    })
    expect((await seen('Ines Adeyemi')).body.entries[0]).toMatchObject({ number: null, title: '' })
    expect((await seen('Sorrel Quist')).status).toBe(404)
  })

  test('only an administrator sets absences of others', async () => {
    const [ines] = await rekko.sql<{ id: string }>("select id from person where name = 'Ines Adeyemi'")
    const body = { personId: ines?.id, from: '2199-01-01', until: '2199-01-02', substituteId: null }
    expect((await (clients.get('Owen Marsh') ?? rekko.nobody).call('POST', '/api/absences', { body })).status).toBe(403)
    expect((await (clients.get('Harriet Voss') ?? rekko.nobody).call('POST', '/api/absences', { body })).status).toBe(
      200,
    )
  })
})

// The table of rights once more, by hand.
test('the table of rights says who may do what', () => {
  const everyone = [
    'raise',
    'see own',
    'keep own account',
    'decide',
    'be away',
    'see catalogue',
    'name suppliers',
    'see people',
    'see budgets',
  ]
  const held: Record<string, string[]> = {
    buyer: [
      ...['see approved lines', 'see orders', 'order', 'change owners', 'keep lists', 'keep catalogue'],
      ...['keep suppliers', 'see ordering rules'],
    ],
    receiver: [],
    finance: [
      ...['see all documents', 'see orders', 'approve suppliers', 'see all budgets', 'keep budgets', 'keep lists'],
      ...['keep suppliers', 'confirm changes', 'see policy', 'see what waits', 'see ordering rules'],
    ],
    auditor: [
      ...['see all documents', 'see orders', 'see all budgets', 'see policy'],
      ...['look back', 'see integrity', 'see what waits', 'see ordering rules'],
    ],
    administrator: [
      ...['see ordering rules', 'set absences of others', 'keep settings', 'keep lists', 'keep catalogue'],
      ...['confirm changes', 'see policy', 'see integrity', 'see what waits', 'move what waits'],
    ],
  }
  for (const [role, more] of Object.entries(held)) {
    const rights = (Object.keys(RIGHTS) as (keyof typeof RIGHTS)[]).filter((r) =>
      may([{ role: role as 'buyer', departmentId: null }], r),
    )
    expect([role, rights.sort()]).toEqual([role, [...everyone, ...more].sort()])
  }
})
