import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { personId, startRekko, type Rekko } from '../setup/rekko'

let rekko: Rekko
let real: Rekko
beforeAll(async () => {
  ;[rekko, real] = await Promise.all([startRekko(), startRekko({ isDemo: false })])
})
afterAll(async () => {
  await Promise.all([rekko.stop(), real.stop()])
})
const signIn = (r: Rekko, email: string, password: string, headers: Record<string, string> = {}) =>
  r.nobody.call('POST', '/api/session', { body: { email, password }, headers })

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
  const [RIGHT, KEY] = ['sea-salt-and-patience', `person ${BRYN} from 127.0.0.1`]
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
      expect.stringMatching(/^Too many tries to sign in; wait (one|two) seconds?\.$/),
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
    expect(body.paths['/api/requisitions/{id}/decisions']?.post?.requestBody).toBeDefined()
  })
})
