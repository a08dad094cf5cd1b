import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import type { OrganisationView } from '#shared/contract/organisation'
import { fiscalPeriod } from '#core/base/day'
import { freeLine, soundDraft, startRekko, TODAY, until, type Client, type Rekko } from '../setup/rekko'

let rekko: Rekko
let admin: Client
let finance: Client
beforeAll(async () => {
  rekko = await startRekko()
  admin = await rekko.as('Harriet Voss')
  finance = await rekko.as('Greta Molin')
})
afterAll(async () => {
  await rekko.stop()
})
const see = async (who = admin) => (await who.call<OrganisationView>('GET', '/api/organisation')).body
const SAID = {
  name: 'Hallamere Trust',
  address: 'Quay Gate 2, Hallamere',
  letterhead: 'Telephone 0100 2 · register 17',
  mailFrom: 'orders@hallamere.example',
  tolerancePercent: '2.5',
  toleranceAmount: '40',
  secondFactorFor: 'nobody',
}

describe('who we are', () => {
  test('is changed at the version that was seen, with an event of before and after', async () => {
    const { version } = await see()
    const kept = await admin.call<{ version: number }>('PUT', '/api/organisation', { body: SAID, version })
    expect(kept.body.version).toBe(version + 1)
    expect(await see()).toMatchObject({ ...SAID, version: version + 1 })
    const late = await admin.call('PUT', '/api/organisation', { body: { ...SAID, name: 'Late' }, version })
    expect(late.status).toBe(412)
    const [event] = await rekko.sql<{ before: object; after: object }>(
      "select before, after from event where type = 'organisation changed'",
    )
    expect(event).toMatchObject({ before: { name: 'Hallamere Oceanarium' }, after: { name: 'Hallamere Trust' } })
  })
  test.each([
    [{ tolerancePercent: '101' }, 'between 0 and 100'],
    [{ tolerancePercent: '1.234' }, 'at most two decimals'],
    [{ toleranceAmount: '-1' }, 'nothing or more'],
  ])('%j is refused with a sentence', async (wrong, sentence) => {
    const { version } = await see()
    const body = { ...SAID, ...wrong }
    const { status, body: problem } = await admin.call<{ detail: string }>('PUT', '/api/organisation', {
      body,
      version,
    })
    expect([status, problem.detail]).toEqual([422, expect.stringContaining(sentence)])
  })
  test('finance and buyers read it and do not change it', async () => {
    const { version } = await see(finance)
    expect((await finance.call('PUT', '/api/organisation', { body: SAID, version })).status).toBe(403)
    expect((await (await rekko.as('Owen Marsh')).call('GET', '/api/organisation')).status).toBe(403)
  })
})

describe('periods', () => {
  const set = (who: Client, year: number, period: number, closed: boolean) =>
    who.call('PUT', `/api/fiscal-years/${year}/periods/${period}`, { body: { closed } })
  const found = async (year: number, period: number) =>
    (await see()).years.find((y) => y.year === year)?.periods.find((p) => p.period === period)
  const events = async () =>
    (await rekko.sql("select seq from event where type in ('period closed', 'period opened')")).length

  test('closed and opened twice leave one event each; a request in a closed one is refused, then taken', async () => {
    const owen = await rekko.as('Owen Marsh')
    const now = fiscalPeriod(TODAY, 4)
    const before = await events()
    expect((await set(finance, now.year, now.period, true)).status).toBe(204)
    expect((await set(finance, now.year, now.period, true)).status).toBe(204)
    expect(await events()).toBe(before + 1)
    expect((await found(now.year, now.period))?.closed).toBe(true)
    const draft = soundDraft([], { lines: [freeLine('12.50')], accountingDate: TODAY })
    const id = crypto.randomUUID()
    await owen.call('POST', '/api/requisitions', { body: { id, draft } })
    const send = (version: number) => owen.call<{ detail: string }>('POST', `/api/requisitions/${id}/send`, { version })
    const refused = await send(1)
    expect([refused.status, refused.body.detail]).toEqual([409, expect.stringContaining('closed')])
    expect((await set(finance, now.year, now.period, false)).status).toBe(204)
    expect(await events()).toBe(before + 2)
    expect((await send(1)).status).toBe(200)
  })
  test('the year after the last is added once; one that leaves a gap is refused; only finance does it', async () => {
    const last = Math.max(...(await see()).years.map((y) => y.year))
    expect((await admin.call('PUT', `/api/fiscal-years/${last + 1}`)).status).toBe(403)
    expect((await finance.call('PUT', `/api/fiscal-years/${last + 2}`)).status).toBe(409)
    expect((await finance.call('PUT', `/api/fiscal-years/${last + 1}`)).status).toBe(204)
    expect((await finance.call('PUT', `/api/fiscal-years/${last + 1}`)).status).toBe(204)
    const added = (await see()).years.find((y) => y.year === last + 1)
    expect(added?.periods.map((p) => p.period)).toEqual(Array.from({ length: 12 }, (_, i) => i + 1))
    expect(await rekko.sql("select seq from event where type = 'fiscal year added'")).toHaveLength(1)
    expect((await set(finance, 2099, 1, true)).status).toBe(404)
  })
})

test('a letter to oneself leaves at once; what the mail server answers is heard where it refuses', async () => {
  const { status, body } = await admin.call<{ to: string; detail: string }>('POST', '/api/test-letters')
  expect([status, body.to]).toEqual([200, 'harriet.voss@hallamere.example'])
  await until('the letter', async () => (await rekko.mails()).some((m) => m.subject.endsWith('arrive')))
  await rekko.closePostOffice()
  const down = await admin.call<{ detail: string }>('POST', '/api/test-letters')
  expect([down.status, down.body.detail]).toEqual([409, expect.stringContaining('The mail server answered')])
  await rekko.openPostOffice()
})
