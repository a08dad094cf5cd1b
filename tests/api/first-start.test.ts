import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { addDays, dayOf, fiscalPeriod } from '#core/base/day'
import { BLANK_DRAFT, BLANK_LINE } from '#core/requisition/draft'
import { LISTS } from '#core/lists/definitions'
import type { ListName } from '#core/lists/list'
import { recogniseColumns } from '#core/lists/read-rows'
import type { FirstStartView } from '#shared/contract/first-start'
import type { ListView } from '#shared/contract/lists'
import type { Me } from '#shared/contract/session'
import { startRekko, until, versionOf, type Client, type Rekko } from '../setup/rekko'

/** Each test goes on where the one before it ended: from nothing to an order in the post office. */
let rekko: Rekko
let admin: Client
beforeAll(async () => {
  rekko = await startRekko({ template: 'empty', isDemo: false })
})
afterAll(async () => {
  await rekko.stop()
})

const PASSWORD = 'grey heron over the weir'
const beginning = (key: string) => ({
  key,
  name: 'Weirside Trust',
  street: 'Mill Lane 4',
  postcode: '8021',
  town: 'Weirside',
  country: 'DK',
  mailFrom: 'orders@weirside.example',
  currency: 'DKK',
  timeZone: 'Europe/Copenhagen',
  fiscalStartMonth: 4,
  taxRate: '25',
  reducedRate: null,
  department: 'Office',
  costCentre: '100',
  person: 'Asta Holm',
  email: 'Asta.Holm@weirside.example',
  password: PASSWORD,
  limit: '100000',
  policy: 'managers',
})
const stateOf = async (key: string) =>
  (await rekko.nobody.call<FirstStartView>('GET', `/api/first-start?key=${key}`)).body
const keyOf = (address: URL) => address.searchParams.get('key') ?? ''
const missing = async () =>
  (await admin.call<{ steps: { code: string; done: boolean }[] }>('GET', '/api/set-up')).body.steps
    .filter((s) => !s.done)
    .map((s) => s.code)
async function bring(list: ListName, head: string, ...rows: string[]): Promise<void> {
  const { version } = (await admin.call<ListView>('GET', `/api/lists/${list}`)).body
  const body = {
    columns: recogniseColumns(LISTS[list], head.split('|')),
    cells: rows.map((r) => r.split('|')),
    source: `${list}.csv`,
    gone: 'keep',
  }
  const kept = await admin.call('POST', `/api/lists/${list}/rows`, { body, version })
  expect([list, kept.status, kept.body.detail]).toEqual([list, 200, undefined])
}

test('what waits for an organisation says so, and only the newest printed address opens the beginning', async () => {
  expect((await rekko.nobody.call('GET', '/api/health')).status).toBe(200)
  expect((await rekko.nobody.call('GET', '/api/demo-people')).body).toEqual({ people: [], postOffice: null })
  const first = keyOf(rekko.firstAddress())
  expect(await stateOf('guessed')).toMatchObject({ opens: false, isSetUp: false, countries: [] })
  expect(await stateOf(first)).toMatchObject({ opens: true })
  const second = await rekko.second()
  expect(await stateOf(first)).toMatchObject({ opens: false })
  const { opens, countries, currencies } = await stateOf(keyOf(rekko.firstAddress(second.url)))
  expect([opens, countries.some((c) => c.id === 'DK'), currencies.some((c) => c.id === 'DKK')]).toEqual([
    true,
    true,
    true,
  ])
  await second.stop()
})

test('a beginning that is refused loses nothing; one that is taken opens once', async () => {
  const key = keyOf(await freshAddress())
  const weak = await rekko.nobody.call('POST', '/api/first-start', {
    body: { ...beginning(key), password: 'asta holm asta holm' },
  })
  expect([weak.status, weak.body.fields]).toMatchObject([422, [{ field: 'password' }]])
  for (const change of [
    { timeZone: 'Moon/Base' },
    { taxRate: '101' },
    { name: ' ' },
    { currency: 'XXZ' },
    { region: 'BY' },
  ])
    expect(
      (await rekko.nobody.call('POST', '/api/first-start', { body: { ...beginning(key), ...change } })).status,
    ).toBe(422)
  const both = await Promise.all(
    [1, 2].map(() => rekko.nobody.call<Me>('POST', '/api/first-start', { body: beginning(key) })),
  )
  expect(both.map((r) => r.status).sort()).toEqual([200, 404])
  const begun = both.find((r) => r.status === 200)
  if (begun === undefined) throw new Error('nobody began')
  expect(begun.body).toMatchObject({ name: 'Asta Holm', organisation: { name: 'Weirside Trust', baseCurrency: 'DKK' } })
  expect(begun.body.rights).toEqual(
    expect.arrayContaining(['keep settings', 'keep budgets', 'order', 'approve suppliers']),
  )
  admin = rekko.by(begun)
  expect(await stateOf(key)).toMatchObject({ opens: false, isSetUp: true })
  // Public holidays of Denmark by date-holidays: Constitution Day is none since it is no public one; Christmas Day is.
  const days = await rekko.sql<{ day: string }>('select day::text from holiday')
  expect(days.map((d) => d.day.slice(5))).toContain('12-25')
  const periods = await rekko.sql('select year, period, from_day::text from fiscal_period order by 1, 2')
  const { year } = fiscalPeriod(dayOf(new Date(), 'Europe/Copenhagen'), 4)
  expect([periods.length, periods[0]]).toEqual([24, { year, period: 1, from_day: `${year}-04-01` }])
})

/** A start prints another address where nobody has begun. */
async function freshAddress(): Promise<URL> {
  const before = rekko.firstAddress().href
  await rekko.kill()
  await rekko.startAgain()
  // It answers a moment before its address is printed.
  return until('another address', () => {
    const now = rekko.firstAddress()
    return Promise.resolve(now.href === before ? null : now)
  })
}

test('what is missing is told in order, and goes as lists are brought', async () => {
  expect(await missing()).toEqual(['accounts', 'budgetLines', 'people', 'suppliers', 'reached'])
  await bring('departments', 'Code|Name|Part of|Usual place', '200|Garden|Office|Weirside')
  await bring('accounts', 'Account|Name', '4100|Plants and soil')
  await bring(
    'people',
    'E-mail|Name|Department|Manager|Own limit|Roles',
    'bo.lind@weirside.example|Bo Lind|Garden|Asta Holm||',
  )
  const { year } = fiscalPeriod(dayOf(new Date(), 'Europe/Copenhagen'), 4)
  await bring('budget-lines', 'Year|Department|Account|Name|Amount|Control', `${year}|Garden|4100|Garden|50000|refuses`)
  await bring(
    'suppliers',
    'Number|Name|Currency|E-mail|Address|Town',
    '7|Fenwick Nursery|DKK|post@fenwick.example|Road 1|Ry',
  )
  expect(await missing()).toEqual(['uninvited'])
})

/** What the newest mail to somebody leads to. */
async function linkTo(who: string): Promise<string> {
  let link: string | undefined
  await until(`a mail to ${who}`, async () => {
    link = (await rekko.mails())
      .filter((m) => m.to.includes(who))
      .map((m) => /\/password\?key=(\S+)/.exec(m.text)?.[1])
      .findLast((k) => k !== undefined)
    return link !== undefined
  })
  return link ?? ''
}

test('whoever is invited chooses a password once, a forgotten one again, and nobody learns who is here', async () => {
  expect((await admin.call('POST', '/api/invitations')).body).toEqual({ invited: 1 })
  const key = await linkTo('bo.lind@weirside.example')
  const weak = await rekko.nobody.call('PUT', '/api/password-keys', { body: { key, next: 'too short' } })
  expect(weak.status).toBe(422)
  const both = await Promise.all(
    [1, 2].map(() => rekko.nobody.call('PUT', '/api/password-keys', { body: { key, next: 'a wet spade in autumn' } })),
  )
  expect(both.map((r) => r.status).sort()).toEqual([200, 404])
  expect(await missing()).toEqual([])
  // The secret is not kept where the mail was.
  expect(await rekko.sql("select 1 from outgoing_mail where sent_at is not null and path like '%key=%'")).toEqual([])
  const asked = await rekko.nobody.call('POST', '/api/password-keys', { body: { email: 'BO.LIND@weirside.example' } })
  const stranger = await rekko.nobody.call('POST', '/api/password-keys', { body: { email: 'no.one@weirside.example' } })
  expect([asked.status, asked.body]).toEqual([stranger.status, stranger.body])
  await until('the second mail', async () => (await linkTo('bo.lind@weirside.example')) !== key)
  const bo = await rekko.nobody.call<Me>('PUT', '/api/password-keys', {
    body: { key: await linkTo('bo.lind@weirside.example'), next: 'three snails on a wall' },
  })
  expect(bo.status).toBe(200)
  // The session that began with the first password has ended.
  const before = both.find((r) => r.status === 200)
  if (before !== undefined) expect((await rekko.by(before).call('GET', '/api/session')).status).toBe(401)
  for (const [password, status] of [
    ['a wet spade in autumn', 401],
    ['three snails on a wall', 200],
  ] as const)
    expect(
      (await rekko.nobody.call('POST', '/api/session', { body: { email: 'bo.lind@weirside.example', password } }))
        .status,
    ).toBe(status)
})

test('the first request is raised, decided and ordered, and the order is in the post office', async () => {
  const signedIn = await rekko.nobody.call('POST', '/api/session', {
    body: { email: 'bo.lind@weirside.example', password: 'three snails on a wall' },
  })
  const bo = rekko.by(signedIn)
  interface Choices {
    departments: { id: string; name: string; usualShipToId: string }[]
  }
  const choices = (await bo.call<Choices>('GET', '/api/raise-choices')).body
  expect(choices.departments.map((d) => d.name)).toEqual(['Garden'])
  const [department] = choices.departments
  const [line] = (await admin.call<ListView>('GET', '/api/lists/budget-lines')).body.entries
  const [supplier] = (await admin.call<ListView>('GET', '/api/lists/suppliers')).body.entries
  const lineId = randomUUID()
  const draft = {
    ...BLANK_DRAFT,
    departmentId: department?.id ?? null,
    shipToId: department?.usualShipToId ?? null,
    title: 'Soil',
    why: 'the beds are empty',
    kind: 'goods',
    needBy: addDays(dayOf(new Date(), 'Europe/Copenhagen'), 20),
    lines: [
      {
        ...BLANK_LINE,
        id: lineId,
        own: {},
        description: 'Potting soil, 40 litres',
        quantity: '10',
        unitPrice: '39.50',
        currency: 'DKK',
        taxCode: 'S',
        supplierId: supplier?.id ?? '',
        splitMethod: 'percent',
        codings: [{ budgetLineId: line?.id ?? '', value: null }],
      },
    ],
  }
  const id = randomUUID()
  expect((await bo.call('POST', '/api/requisitions', { body: { id, draft } })).body.detail).toBeUndefined()
  const sent = await bo.call('POST', `/api/requisitions/${id}/send`, { version: 1 })
  expect([sent.status, sent.body.detail, sent.body.state]).toEqual([200, undefined, 'in approval'])
  const decided = await admin.call('POST', `/api/documents/${id}/decisions`, {
    body: { outcome: 'approve', comment: '' },
    version: await versionOf(rekko, id),
  })
  expect(decided.body).toMatchObject({ state: 'approved' })
  const tray = await admin.call<{ orderId: string }>('POST', '/api/trays', {
    body: { orderId: null, supplierId: null, parts: [{ lineId, quantity: null }] },
  })
  const issued = await admin.call('POST', `/api/orders/${tray.body.orderId}/issue`, { version: 1 })
  expect([issued.status, issued.body.detail]).toEqual([200, undefined])
  await until('the order in the post office', async () =>
    (await rekko.mails()).some((m) => m.to.includes('post@fenwick.example') && m.attachments.length > 0),
  )
})
