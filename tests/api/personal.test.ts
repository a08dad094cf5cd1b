import { afterAll, beforeAll, expect, test } from 'vitest'
import { addDays } from '#core/base/day'
import type { ListView } from '#shared/contract/lists'
import type { PersonPage } from '#shared/contract/personal'
import { openDatabase } from '../../server/db/client'
import { inTransaction } from '../../server/db/transaction'
import { takeTasks } from '../../server/queue/take-tasks'
import { purge } from '../../server/upkeep/purge'
import {
  freeLine,
  moment,
  personId,
  raise,
  soundDraft,
  startRekko,
  TODAY,
  until,
  type Client,
  type Rekko,
} from '../setup/rekko'

let rekko: Rekko
let harriet: Client
beforeAll(async () => {
  rekko = await startRekko()
  harriet = await rekko.as('Harriet Voss')
})
afterAll(() => rekko.stop())

const page = async (id: string) => (await harriet.call<PersonPage>('GET', `/api/people/${id}/page`)).body
const erase = (id: string, name: string) =>
  harriet.call<{ detail: string }>('POST', `/api/people/${id}/erasure`, { body: { name } })
/** Changes one column of one entry of the list of people. */
async function change(email: string, column: string, to: string) {
  const { version, entries } = (await harriet.call<ListView>('GET', '/api/lists/people')).body
  const values = entries.find((e) => e.values.email === email)?.values ?? {}
  const columns = Object.keys(values)
  const cells = [columns.map((c) => (c === column ? to : (values[c] ?? '')))]
  return harriet.call<{ detail: string }>('POST', '/api/lists/people/rows', {
    version,
    body: { columns, cells, source: '', gone: 'keep' },
  })
}

test('before somebody leaves it is told what they own and hold up', async () => {
  const owen = await rekko.as('Owen Marsh')
  await raise(owen, soundDraft([], { lines: [freeLine('900')] }))
  expect(await page(personId('Owen Marsh'))).toMatchObject({ requests: 1, drafts: 0, isErased: false })
  expect(await page(personId('Ines Adeyemi'))).toMatchObject({ waiting: 1 })
  expect((await page(personId('Ines Adeyemi'))).reports).toContain('Owen Marsh')
  expect((await page(personId('Tomas Brandt'))).budgetLines.length).toBeGreaterThan(0)
  expect((await owen.call('GET', `/api/people/${personId('Owen Marsh')}/page`)).status).toBe(403)
})

test('an administrator signs somebody out everywhere, tokens too, and never themselves', async () => {
  const sorrel = await rekko.as('Sorrel Quist')
  const at = `/api/people/${personId('Sorrel Quist')}/sessions`
  expect((await sorrel.call('DELETE', at)).status).toBe(403)
  expect((await harriet.call('DELETE', `/api/people/${personId('Harriet Voss')}/sessions`)).status).toBe(409)
  expect((await harriet.call<{ sessions: number }>('DELETE', at)).body.sessions).toBe(1)
  expect((await sorrel.call('GET', '/api/session')).status).toBe(401)
})

test('what is kept of somebody is taken along, by an administrator and by themselves', async () => {
  const owen = await rekko.as('Owen Marsh')
  const own = await owen.call<{ person: { name: string }; documents: unknown[] }>('GET', '/api/profile/data')
  expect(own).toMatchObject({ status: 200, body: { person: { name: 'Owen Marsh' } } })
  expect(own.body.documents.length).toBeGreaterThan(0)
  const at = `/api/people/${personId('Owen Marsh')}/data`
  expect((await harriet.call('GET', at)).status).toBe(200)
  expect((await owen.call('GET', at)).status).toBe(403)
})

test('whoever left and owns nothing is erased: documents and events go on naming one person', async () => {
  const rosa = personId('Rosa Castell')
  const who = await rekko.as('Rosa Castell')
  const sent = await raise(who, soundDraft([], { lines: [freeLine('30')] }))
  expect(await erase(rosa, 'Rosa Castell')).toMatchObject({ status: 409 })
  expect(sent.body.state).toBe('approved')
  expect((await change('rosa.castell@hallamere.example', 'leftOn', addDays(TODAY, -1))).status).toBe(200)
  expect((await erase(rosa, 'Rosa Castell')).body.detail).toContain('hand it over first')
  // A buyer gives what is left to somebody else.
  const leonie = await rekko.as('Leonie Farrow')
  const handed = await leonie.call('POST', `/api/people/${rosa}/owned/hand-over`, {
    body: { requestsTo: personId('Owen Marsh'), ordersTo: null },
  })
  expect(handed.status).toBe(200)
  expect(await erase(rosa, 'Rosa')).toMatchObject({ status: 422 })
  expect((await erase(rosa, 'Rosa Castell')).status).toBe(204)
  expect((await erase(rosa, 'Rosa Castell')).status).toBe(409)
  const erased = await page(rosa)
  expect(erased).toMatchObject({ isErased: true, jobTitle: '', sessions: 0, tokens: 0 })
  expect(JSON.stringify(erased)).not.toMatch(/rosa|castell/i)
  // The request is there, and names whoever raised it by the name that tells nobody.
  const [kept] = await rekko.sql<{ name: string }>(
    'select p.name from requisition r join person p on p.id = r.raised_by_id where r.id = $1',
    [sent.id],
  )
  expect(kept?.name).toBe(erased.name)
  expect((await who.call('GET', '/api/session')).status).toBe(401)
})

test('somebody stays an administrator for good', async () => {
  const [{ n } = { n: '0' }] = await rekko.sql<{ n: string }>(
    "select count(*) as n from role_grant where role = 'administrator'",
  )
  await rekko.sql("delete from role_grant where role = 'administrator' and person_id <> $1", [personId('Harriet Voss')])
  expect(Number(n)).toBeGreaterThan(0)
  const refused = await change('harriet.voss@hallamere.example', 'leftOn', addDays(TODAY, 30))
  expect(refused).toMatchObject({ status: 409 })
  expect(refused.body.detail).toContain('Nobody would be an administrator')
})

test('what is kept for some days goes by itself, and what stays for good stays', async () => {
  const organisation = async () => (await harriet.call<Record<string, unknown>>('GET', '/api/organisation')).body
  const setKept = async (kept: object) => {
    const { version, ...said } = await organisation()
    const { name, address, mailFrom, tolerancePercent, toleranceAmount, secondFactorFor } = said
    const body = { name, address, mailFrom, tolerancePercent, toleranceAmount, secondFactorFor, kept }
    return harriet.call('PUT', '/api/organisation', { version: Number(version), body })
  }
  const good = { sessions: null, notices: null, letters: null, people: null }
  expect((await organisation()).kept).toEqual({ ...good, sessions: 30 })
  expect((await setKept({ ...good, notices: 0 })).status).toBe(422)
  const database = openDatabase(rekko.appUrl, 2)
  takeTasks()
  const purgeNow = () => inTransaction(database.db, (tx) => purge(tx, moment()))
  const old = addDays(TODAY, -40)
  await rekko.sql("update person set left_on = $1 where name = 'Jonas Abara'", [old])
  await rekko.sql(
    `insert into notice (person_id, at, told, about_kind, about_id, read_at)
     select id, $1, '{"code":"plain","subject":"s","sentence":"old"}', 'settings', id, $1 from person`,
    [old],
  )
  await rekko.sql(`update notice set read_at = null where person_id = $1`, [personId('Owen Marsh')])
  // What is on its way would be marked as sent today after all.
  await until('all mail to have left', async () => {
    const waiting = await rekko.sql('select 1 from outgoing_mail where sent_at is null and cancelled_at is null')
    return waiting.length === 0
  })
  await rekko.sql('update outgoing_mail set sent_at = $1', [old])
  const count = async () =>
    (
      await rekko.sql<{ notices: number; mails: number; left: string }>(
        `select (select count(*)::int from notice where told ->> 'sentence' = 'old') as notices,
           (select count(*)::int from outgoing_mail where sent_at = $1) as mails,
           (select name from person where left_on = $1) as left`,
        [old],
      )
    )[0]
  expect((await setKept(good)).status).toBe(200)
  const before = await count()
  await purgeNow()
  expect(await count()).toEqual(before)
  expect(before?.mails).toBeGreaterThan(0)
  // From 40 days on it is still kept; from 39 it goes.
  expect((await setKept({ ...good, notices: 41, letters: 41, people: 40 })).status).toBe(200)
  await purgeNow()
  expect(await count()).toEqual(before)
  expect((await setKept({ ...good, notices: 39, letters: 39, people: 39 })).status).toBe(200)
  await purgeNow()
  expect(await count()).toMatchObject({ notices: 1, mails: 0, left: expect.stringMatching(/^Former colleague/) })
  await database.pool.end()
})
