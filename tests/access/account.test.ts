import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { personId, startRekko, type Client, type Rekko } from '../setup/rekko'

let rekko: Rekko
beforeAll(async () => {
  rekko = await startRekko()
})
afterAll(() => rekko.stop())

const NOW = 'sea-salt-and-patience'
interface Listed {
  sessions: { id: string; isThis: boolean; browser: string; fromAddress: string; byDemo: boolean }[]
}
const listed = async (who: Client) => (await who.call<Listed>('GET', '/api/sessions')).body.sessions
const isIn = async (who: Client) => (await who.call('GET', '/api/session')).status === 200
const signIn = (email: string, password: string) =>
  rekko.nobody.call('POST', '/api/session', { body: { email, password } })
const change = (who: Client, current: string, next: string) =>
  who.call<{ detail: string }>('PUT', '/api/session/password', { body: { current, next } })

describe('where one is signed in', () => {
  test('is listed, with browser and address and without what a cookie holds', async () => {
    const r = await rekko.nobody.call('POST', '/api/session', {
      body: { email: 'owen.marsh@hallamere.example', password: NOW },
      headers: { 'user-agent': 'Mozilla/5.0 (X11; Linux x86_64; rv:140.0) Gecko/20100101 Firefox/140.0' },
    })
    expect(r.status).toBe(200)
    const owen = await rekko.as('Owen Marsh')
    const sessions = await listed(owen)
    expect(sessions.map((s) => [s.isThis, s.browser, s.fromAddress])).toEqual([
      [true, '', '127.0.0.1'],
      [false, 'Firefox on Linux', '127.0.0.1'],
    ])
    const secrets = await rekko.sql<{ id: string }>('select id from session where person_id = $1', [
      personId('Owen Marsh'),
    ])
    for (const { id } of secrets) expect(JSON.stringify(sessions)).not.toContain(id)
  })
  test('each is ended by oneself alone, and is worth nothing from that moment', async () => {
    const [here, there, stranger] = [
      await rekko.as('Ines Adeyemi'),
      await rekko.as('Ines Adeyemi'),
      await rekko.as('Leonie Farrow'),
    ]
    const other = (await listed(here)).find((s) => !s.isThis)?.id ?? ''
    expect((await stranger.call('DELETE', `/api/sessions/${other}`)).status).toBe(404)
    expect(await isIn(there)).toBe(true)
    expect((await here.call('DELETE', `/api/sessions/${other}`)).status).toBe(204)
    expect([await isIn(here), await isIn(there)]).toEqual([true, false])
    expect((await here.call('DELETE', `/api/sessions/${other}`)).status).toBe(404)
  })
  test('all others end at once, and their open streams with them', async () => {
    const [here, there] = [await rekko.as('Greta Molin'), await rekko.as('Greta Molin')]
    const stream = await fetch(`${rekko.url}/api/live`, { headers: { cookie: there.cookie } })
    const end = (async () => {
      const reader = stream.body?.getReader()
      while (reader !== undefined && !(await reader.read()).done);
      return 'ended'
    })()
    expect((await here.call<{ ended: number }>('DELETE', '/api/sessions')).body).toEqual({ ended: 1 })
    expect(await end).toBe('ended')
    expect([await isIn(here), await isIn(there)]).toEqual([true, false])
    expect((await here.call<{ ended: number }>('DELETE', '/api/sessions')).body).toEqual({ ended: 0 })
  })
  test('a session ends fourteen days after it began, however busy it was; a leaver’s at once', async () => {
    const [old, leaver] = [await rekko.as('Signe Aalto'), await rekko.as('Wes Okafor')]
    await rekko.sql("update session set created_at = created_at - interval '13 days 23 hours' where person_id = $1", [
      personId('Signe Aalto'),
    ])
    expect(await isIn(old)).toBe(true)
    await rekko.sql("update session set created_at = created_at - interval '2 hours' where person_id = $1", [
      personId('Signe Aalto'),
    ])
    expect(await isIn(old)).toBe(false)
    await rekko.sql("update person set left_on = '2001-01-01' where id = $1", [personId('Wes Okafor')])
    expect(await isIn(leaver)).toBe(false)
  })
})

describe('another password', () => {
  const EMAIL = 'tomas.brandt@hallamere.example'
  const NEXT = 'Elf Möwen zählen Schiffe'
  test('is taken with the one of now; every other session ends, and the person is told', async () => {
    const [here, there] = [await rekko.as('Tomas Brandt'), await rekko.as('Tomas Brandt')]
    expect((await change(here, NOW, NEXT)).status).toBe(204)
    expect([await isIn(here), await isIn(there)]).toEqual([true, false])
    expect([(await signIn(EMAIL, NOW)).status, (await signIn(EMAIL, NEXT)).status]).toEqual([401, 200])
    // Verified as it was written: another case is another password.
    expect((await signIn(EMAIL, NEXT.toLowerCase())).status).toBe(401)
    const told = (await here.call<{ notices: { sentence: string; link: string }[] }>('GET', '/api/notices')).body
    expect(told.notices[0]?.sentence).toContain('was changed from 127.0.0.1, and you were signed out everywhere else')
    expect(told.notices[0]?.link).toBe('/account')
    const mails = await rekko.sql(
      "select 1 from outgoing_mail where to_address = $1 and told ->> 'code' = 'password-changed'",
      [EMAIL],
    )
    expect(mails).toHaveLength(1)
    const events = await rekko.sql(
      "select after from event where type = 'password changed' and subject_id = $1 and subject_kind = 'session'",
      [personId('Tomas Brandt')],
    )
    expect(events).toEqual([{ after: { from: '127.0.0.1', ended: 1 } }])
    // And back, so that one's old password is worth nothing to whoever has the page of before.
    expect((await change(here, NOW, 'another one entirely')).status).toBe(422)
  })
  test.each([
    ['fourteen chars', 'A password has at least 15 characters; a few words you like will do. This has 14 characters.'],
    [
      'qwertyuiopasdfgh',
      'It would soon be guessed: it is made of passwords that many people have. Add a word or two that nobody would ' +
        'expect.',
    ],
    [
      'priya@hallamere.example',
      'It would soon be guessed: it is made of your name, your address or the organisation’s. Add a word or two that ' +
        'nobody would expect.',
    ],
    [NOW, 'This is the password you have.'],
    ['x'.repeat(201), 'A password has at most 200 characters.'],
  ])('%s is refused by a sentence, and nothing is held against who wrote it', async (next, sentence) => {
    const priya = await rekko.as('Priya Lindqvist')
    expect(await change(priya, NOW, next)).toMatchObject({ status: 422, body: { detail: sentence } })
    expect(
      await rekko.sql('select 1 from sign_in_attempt where key = $1', [`password of ${personId('Priya Lindqvist')}`]),
    ).toEqual([])
    expect((await signIn('priya.lindqvist@hallamere.example', NOW)).status).toBe(200)
  })
  test('the one of now is not found out by trying on a page left open', async () => {
    const bryn = await rekko.as('Bryn Tolliver')
    for (let i = 0; i < 10; i += 1)
      expect((await change(bryn, `wrong ${i}`, 'seven wet otters sing')).body.detail).toBe(
        'This is not the password you have now.',
      )
    expect((await change(bryn, NOW, 'seven wet otters sing')).status).toBe(429)
    expect(
      await rekko.sql("select 1 from event where type = 'password change refused' and subject_id = $1", [
        personId('Bryn Tolliver'),
      ]),
    ).toHaveLength(10)
    // Waiting helps, and signing in was never in the way.
    await rekko.sql("update sign_in_attempt set window_from = window_from - interval '1 minute'")
    expect((await change(bryn, NOW, 'seven wet otters sing')).status).toBe(204)
  })
  test('two changes at the same moment leave one password, and it works', async () => {
    const mara = await rekko.as('Priya Lindqvist')
    const both = ['a kettle under the pier', 'the pier under a kettle']
    const statuses = (await Promise.all(both.map((next) => change(mara, NOW, next)))).map((r) => r.status)
    const signedIn = await Promise.all(both.map((p) => signIn('priya.lindqvist@hallamere.example', p)))
    expect(statuses.filter((s) => s === 204).length).toBe(1)
    expect(signedIn.map((r) => r.status).sort()).toEqual([200, 401])
  })
})
