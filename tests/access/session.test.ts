import { scryptSync } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { personId, startRekko, type Rekko } from '../setup/rekko'

let rekko: Rekko
let real: Rekko
beforeAll(async () => {
  ;[rekko, real] = await Promise.all([startRekko(), startRekko({ isDemo: false, isSecure: true })])
})
afterAll(async () => {
  await Promise.all([rekko.stop(), real.stop()])
})
const signIn = (r: Rekko, email: string, password: string, headers: Record<string, string> = {}) =>
  r.nobody.call('POST', '/api/session', { body: { email, password }, headers })

const RIGHT = 'sea-salt-and-patience'
describe('signing in', () => {
  test('one press works in the demo, and is refused outside of it', async () => {
    expect(
      (await rekko.nobody.call('POST', '/api/session/demo', { body: { personId: personId('Owen Marsh') } })).status,
    ).toBe(200)
    expect(
      (await real.nobody.call('POST', '/api/session/demo', { body: { personId: personId('Owen Marsh') } })).status,
    ).toBe(404)
    expect((await real.nobody.call('GET', '/api/demo-people')).body).toEqual({ people: [], postOffice: null })
    expect((await signIn(real, 'owen.marsh@hallamere.example', 'sea-salt-and-patience')).status).toBe(200)
  })
  test('in the demo only as whom the demo shows', async () => {
    expect(
      (await rekko.nobody.call('POST', '/api/session/demo', { body: { personId: personId('Wes Okafor') } })).status,
    ).toBe(404)
  })
  test('the cookie is sealed, not readable by scripts, and same-site', async () => {
    const cookie =
      (await signIn(rekko, 'OWEN.MARSH@hallamere.example', 'sea-salt-and-patience')).headers.getSetCookie()[0] ?? ''
    expect(cookie).toMatch(/^rekko=Fe26\.2\*\*.*HttpOnly/)
    expect(cookie).toMatch(/SameSite=Lax/i)
    expect(cookie).not.toContain('owen')
    const behindHttps = (await signIn(real, 'owen.marsh@hallamere.example', RIGHT)).headers.getSetCookie()[0] ?? ''
    // The prefix asks for all three (RFC 6265bis, 4.1.3.2).
    expect(behindHttps).toMatch(/^__Host-rekko=Fe26\.2\*\*.*; Path=\/;.*; HttpOnly; Secure/)
    expect(behindHttps).not.toContain('Domain=')
    expect((await real.as('Ines Adeyemi')).cookie).toMatch(/^__Host-rekko=/)
    expect((await (await real.as('Ines Adeyemi')).call('GET', '/api/session')).status).toBe(200)
  })
  test('a wrong password and an unknown person are told alike; a leaver cannot come in', async () => {
    const [wrong, unknown] = [
      await signIn(rekko, 'owen.marsh@hallamere.example', 'x'),
      await signIn(rekko, 'nobody@hallamere.example', 'x'),
    ]
    expect([wrong.status, unknown.status]).toEqual([401, 401])
    expect(wrong.body.detail).toBe(unknown.body.detail)
    expect((await signIn(rekko, 'anselm.kirwan@hallamere.example', 'sea-salt-and-patience')).status).toBe(401)
  })
  const BRYN = 'bryn.tolliver@hallamere.example'
  const KEY = `person ${BRYN} from 127.0.0.1`
  /** As if so many seconds had passed since the last try that counted. */
  const wait = (key: string, seconds: number) =>
    rekko.sql('update sign_in_attempt set window_from = window_from - make_interval(secs => $2) where key = $1', [
      key,
      seconds,
    ])
  test('after ten failures from one address each next try waits longer, with the right password too', async () => {
    for (let i = 0; i < 10; i += 1) expect((await signIn(rekko, BRYN, `wrong ${i}`)).status).toBe(401)
    const held = await signIn(rekko, BRYN, RIGHT)
    expect([held.status, held.body.detail]).toEqual([
      429,
      expect.stringMatching(/^Too many tries; wait (one|two) seconds?\.$/),
    ])
    expect(Number(held.headers.get('retry-after'))).toBeLessThanOrEqual(2)
    // What is refused counts nothing; each failure after that doubles the pause.
    await wait(KEY, 2)
    expect((await signIn(rekko, BRYN, 'wrong again')).status).toBe(401)
    expect((await signIn(rekko, BRYN, RIGHT)).status).toBe(429)
    await wait(KEY, 2)
    expect((await signIn(rekko, BRYN, RIGHT)).status).toBe(429)
    await wait(KEY, 2)
    expect((await signIn(rekko, BRYN, RIGHT)).status).toBe(200)
    // Signed in, nothing is held against anybody any more.
    expect(await rekko.sql('select 1 from sign_in_attempt where key = $1', [KEY])).toEqual([])
  })
  test('eight who sign in as one at the same moment all come in', async () => {
    const eight = await Promise.all(Array.from({ length: 8 }, () => signIn(rekko, BRYN, RIGHT)))
    expect(eight.map((r) => r.status)).toEqual(eight.map(() => 200))
  })
  test('failures elsewhere shut nobody out, and no pause is longer than a quarter of an hour', async () => {
    await rekko.sql('insert into sign_in_attempt (key, window_from, count) values ($1, now(), 900), ($2, now(), 900)', [
      `person ${BRYN} from 203.0.113.9`,
      KEY,
    ])
    await rekko.sql("update sign_in_attempt set window_from = '1970-01-01' where key = $1", [KEY])
    expect((await signIn(rekko, BRYN, RIGHT)).status).toBe(200)
  })
  test('an office behind one address signs in as often as it likes; only what fails counts', async () => {
    for (let i = 0; i < 55; i += 1) expect((await signIn(rekko, BRYN, RIGHT)).status).toBe(200)
    const [row] = await rekko.sql<{ count: string }>(
      "select count from sign_in_attempt where key = 'address 127.0.0.1'",
    )
    expect(Number(row?.count ?? '0')).toBeLessThan(50)
  })
  test('signed out, a copy of the cookie is worth nothing', async () => {
    const ines = await rekko.as('Ines Adeyemi')
    expect((await ines.call('GET', '/api/session')).status).toBe(200)
    expect((await ines.call('DELETE', '/api/session')).status).toBe(204)
    expect((await ines.call('GET', '/api/session')).status).toBe(401)
  })
  test('a session ends after its idle time', async () => {
    const tomas = await rekko.as('Tomas Brandt')
    await rekko.sql("update session set seen_at = seen_at - interval '9 hours'")
    expect((await tomas.call('GET', '/api/session')).status).toBe(401)
  })
})

describe('changes asked for by other sites', () => {
  test.each([
    [{ 'sec-fetch-site': 'cross-site' }],
    [{ 'sec-fetch-site': 'same-site' }],
    [{ origin: 'https://elsewhere.example' }],
    [{ origin: 'null' }],
  ])('%j are not made', async (headers) => {
    const owen = await rekko.as('Owen Marsh')
    expect((await owen.call('POST', '/api/notices/read', { headers })).status).toBe(403)
    expect((await signIn(rekko, 'owen.marsh@hallamere.example', 'sea-salt-and-patience', headers)).status).toBe(403)
  })
  test('our own are', async () => {
    const owen = await rekko.as('Owen Marsh')
    expect(
      (
        await owen.call('POST', '/api/notices/read', {
          headers: { 'sec-fetch-site': 'same-origin', origin: rekko.url },
        })
      ).status,
    ).toBe(204)
    expect((await owen.call('POST', '/api/notices/read', { headers: { origin: rekko.url } })).status).toBe(204)
  })
})

describe('headers', () => {
  test('a page carries a policy with a nonce, and nothing that breaks plain HTTP or opens it to others', async () => {
    const page = await fetch(`${rekko.url}/sign-in`)
    const policy = page.headers.get('content-security-policy') ?? ''
    expect(policy).toMatch(/script-src [^;]*'nonce-[^']+'/)
    expect(policy).toMatch(/frame-ancestors 'none'/)
    expect(policy).not.toMatch(/unsafe-eval|upgrade-insecure-requests/)
    expect(page.headers.get('strict-transport-security')).toBeNull()
    expect(page.headers.get('access-control-allow-origin')).toBeNull()
    expect(page.headers.get('cross-origin-embedder-policy')).toBeNull()
    expect(page.headers.get('x-powered-by')).toBeNull()
    expect(page.headers.get('x-content-type-options')).toBe('nosniff')
    const api = await fetch(`${rekko.url}/api/health`, { headers: { origin: 'https://elsewhere.example' } })
    expect(api.headers.get('access-control-allow-origin')).toBeNull()
    expect(api.headers.get('cache-control')).toBe('no-store')
  })
  test('health tells of process, database, queue and mail', async () => {
    expect((await rekko.nobody.call('GET', '/api/health')).body).toEqual({
      ok: true,
      process: 'works',
      database: 'works',
      queue: 'works',
      mail: 'works',
    })
  })
  test('the API describes itself in OpenAPI 3.1', async () => {
    const { body } = await rekko.nobody.call<{
      openapi: string
      paths: Record<string, Record<string, { operationId: string; requestBody?: unknown }>>
    }>('GET', '/api/openapi.json')
    expect(body.openapi).toBe('3.1.0')
    expect(
      Object.values(body.paths)
        .flatMap((p) => Object.values(p))
        .map((o) => o.operationId),
    ).toContain('sendRequisition')
    expect(body.paths['/api/documents/{id}/decisions']?.post?.requestBody).toBeDefined()
  })
})

describe('what a stranger and a proxy see', () => {
  test('a password hash of before opens as well, and is made anew with the parameters of today', async () => {
    const email = 'priya.lindqvist@hallamere.example'
    const hash = async () =>
      (await rekko.sql<{ hash: string }>('select password_hash as hash from person where email = $1', [email]))[0]?.hash
    // scrypt with N 16384, r 8, p 1 and no parameters named: as hashes were kept at first.
    const salt = Buffer.from('a salt of before')
    const key = scryptSync(RIGHT, salt, 32, { N: 16_384, r: 8, p: 1 })
    await rekko.sql('update person set password_hash = $2 where email = $1', [
      email,
      `scrypt:${salt.toString('base64url')}:${key.toString('base64url')}`,
    ])
    expect((await signIn(rekko, email, 'wrong')).status).toBe(401)
    expect((await signIn(rekko, email, RIGHT)).status).toBe(200)
    expect(await hash()).toMatch(/^scrypt:16384:8:5:/)
    expect((await signIn(rekko, email, RIGHT)).status).toBe(200)
  })

  test('sign-ins and refusals are events of the person, with the address they came from', async () => {
    await signIn(rekko, 'owen.marsh@hallamere.example', 'not this')
    await signIn(rekko, 'owen.marsh@hallamere.example', RIGHT)
    const events = await rekko.sql(
      "select type, after from event where subject_kind = 'session' and subject_id = $1 order by seq desc limit 2",
      [personId('Owen Marsh')],
    )
    expect(events).toEqual([
      { type: 'signed in', after: { from: '127.0.0.1' } },
      { type: 'sign-in refused', after: { from: '127.0.0.1', why: 'wrong-password' } },
    ])
  })

  test('a method that an address does not take is 405 and says which it takes', async () => {
    const r = await fetch(`${rekko.url}/api/session`, { method: 'PATCH' })
    expect([r.status, r.headers.get('allow')?.split(', ').sort()]).toEqual([405, ['DELETE', 'GET', 'POST']])
    expect((await fetch(`${rekko.url}/api/requisitions/x/send`)).status).toBe(405)
    expect((await fetch(`${rekko.url}/api/nothing`)).status).toBe(404)
  })

  test('pages and answers leave compressed where that is understood; live changes flow as they are', async () => {
    const encodingOf = async (path: string, headers: Record<string, string>) => {
      const stop = new AbortController()
      const r = await fetch(rekko.url + path, { headers, signal: stop.signal })
      const told = [r.headers.get('content-encoding'), r.headers.get('vary')?.includes('Accept-Encoding') ?? false]
      stop.abort()
      return told
    }
    const { cookie } = await rekko.as('Owen Marsh')
    expect(await encodingOf('/sign-in', { 'accept-encoding': 'gzip' })).toEqual(['gzip', true])
    expect(await encodingOf('/api/raise-choices', { cookie, 'accept-encoding': 'br, gzip' })).toEqual(['br', true])
    expect(await encodingOf('/api/raise-choices', { cookie, 'accept-encoding': 'identity' })).toEqual([null, true])
    expect((await encodingOf('/api/live', { cookie, 'accept-encoding': 'gzip' }))[0]).toBeNull()
    // The page that says that there is nothing comes whole, too.
    const lost = await fetch(`${rekko.url}/trail/00000000-0000-4000-8000-000000000000`, {
      headers: { cookie, accept: 'text/html', 'accept-encoding': 'gzip, br' },
    })
    expect(lost.status).toBe(404)
    expect(await lost.text()).toMatch(/^<!DOCTYPE html>.*<h1/s)
  })

  test('no page is kept by a proxy or a browser; what all pages share is', async () => {
    const page = await fetch(`${rekko.url}/sign-in`)
    expect(page.headers.get('cache-control')).toBe('private, no-store')
    const script = /\/_nuxt\/[\w-]+\.js/.exec(await page.text())?.[0] ?? ''
    expect((await fetch(rekko.url + script)).headers.get('cache-control')).toContain('immutable')
  })
})
