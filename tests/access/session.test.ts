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
  test('after too many tries for one person everybody waits, with the right password too', async () => {
    let last = 0
    for (let i = 0; i < 11; i += 1) last = (await signIn(rekko, 'bryn.tolliver@hallamere.example', `wrong ${i}`)).status
    expect(last).toBe(429)
    const right = await signIn(rekko, 'bryn.tolliver@hallamere.example', 'sea-salt-and-patience')
    expect([right.status, right.headers.get('retry-after')]).toEqual([429, '60'])
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
