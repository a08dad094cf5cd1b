import { Secret, TOTP } from 'otpauth'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { TOKEN_RIGHTS, type Right } from '#core/people/rights'
import { ALL_ROUTES } from '#shared/contract/all-routes'
import type { OrganisationView } from '#shared/contract/organisation'
import {
  freeLine,
  moment,
  personId,
  raise,
  soundDraft,
  startRekko,
  until,
  type Client,
  type Rekko,
} from '../setup/rekko'

let rekko: Rekko
beforeAll(async () => {
  rekko = await startRekko()
})
afterAll(async () => {
  await rekko.stop()
})
interface Token {
  id: string
  token: string
  detail?: string
}
const make = (who: Client, rights: readonly Right[], days = 30) =>
  who.call<Token>('POST', '/api/tokens', { body: { name: 'a script', rights, days } })
/** Somebody who has nothing but a token. */
const script = (token: string): Client => ({
  cookie: '',
  call: (method, path, o = {}) =>
    rekko.nobody.call(method, path, { ...o, headers: { ...o.headers, authorization: `Bearer ${token}` } }),
})

describe('tokens', () => {
  test('do what they were given and nothing more; are told once, and their use is noted', async () => {
    const owen = await rekko.as('Owen Marsh')
    const { body: made } = await make(owen, ['see own', 'see catalogue'])
    const it = script(made.token)
    expect((await it.call('GET', '/api/catalogue')).status).toBe(200)
    const mine = await it.call<{ rows: unknown[] }>('GET', '/api/requisitions')
    expect(mine.status).toBe(200)
    expect((await it.call('GET', '/api/budgets')).status).toBe(403)
    const draft = soundDraft([], { lines: [freeLine('10')] })
    const id = crypto.randomUUID()
    expect((await it.call('POST', '/api/requisitions', { body: { id, draft } })).status).toBe(403)
    const { body } = await owen.call<{ tokens: Record<string, unknown>[] }>('GET', '/api/tokens')
    expect(body.tokens[0]).toMatchObject({ name: 'a script', usedAt: expect.any(String) as string })
    expect(JSON.stringify(body)).not.toContain(made.token.slice(6))
    const [kept] = await rekko.sql<{ row: string }>('select access_token::text as row from access_token')
    expect(kept?.row).not.toContain(made.token.slice(6))
  })
  test('change things without a page’s marks, and only within their rights', async () => {
    const owen = await rekko.as('Owen Marsh')
    const { body: made } = await make(owen, ['raise', 'see own'])
    const it = script(made.token)
    const sent = await raise(it, soundDraft([], { lines: [freeLine('10')] }))
    expect(sent.status).toBe(200)
    // A foreign page may send what it likes: it has no token.
    const foreign = await owen.call('POST', '/api/notices/read', { headers: { 'sec-fetch-site': 'cross-site' } })
    expect(foreign.status).toBe(403)
  })
  test('cannot be given what their owner has not, nor make tokens or see to the account', async () => {
    const owen = await rekko.as('Owen Marsh')
    expect((await make(owen, ['order'])).status).toBe(409)
    expect((await make(owen, [])).status).toBe(422)
    expect((await make(owen, ['see own'], 400)).status).toBe(422)
    const all = await make(owen, ['see own', 'raise', 'decide', 'see budgets'])
    const it = script(all.body.token)
    for (const path of ['/api/tokens', '/api/profile', '/api/second-factor', '/api/sessions'])
      expect((await it.call('GET', path)).status, path).toBe(403)
    expect((await make(it, ['see own'])).status).toBe(403)
    expect(TOKEN_RIGHTS).not.toContain('confirm changes')
  })
  test('never do more than their owner, on every route, also after a right was lost', async () => {
    const leonie = await rekko.as('Leonie Farrow')
    const rights = TOKEN_RIGHTS.filter((r) => !['keep settings', 'keep budgets'].includes(r))
    const held = (await leonie.call<{ rights: Right[] }>('GET', '/api/tokens')).body.rights
    const { body: made } = await make(leonie, held)
    expect(held.every((r) => rights.includes(r))).toBe(true)
    const it = script(made.token)
    const walk = async (who: Client) => {
      const answers: [string, boolean][] = []
      for (const r of ALL_ROUTES) {
        if (r.method !== 'GET' || r.bytes !== 'none' || r.access === 'public' || r.access === 'keep own account')
          continue
        const path = r.path.replace('{list}', 'items').replace(/\{\w+\}/g, crypto.randomUUID())
        answers.push([r.name, (await who.call('GET', path)).status === 403])
      }
      return answers
    }
    expect(await walk(it)).toEqual(await walk(leonie))
    await rekko.sql("delete from role_grant where person_id = $1 and role = 'buyer'", [personId('Leonie Farrow')])
    expect((await it.call('GET', '/api/desk')).status).toBe(403)
    expect(await walk(it)).toEqual(await walk(leonie))
    await rekko.sql("insert into role_grant (person_id, role) values ($1, 'buyer')", [personId('Leonie Farrow')])
    expect((await it.call('GET', '/api/desk')).status).toBe(200)
  })
  test('end at will, with their time, and with their owner; another’s cannot be ended', async () => {
    const owen = await rekko.as('Owen Marsh')
    const priya = await rekko.as('Priya Lindqvist')
    const one = (await make(owen, ['see own'])).body
    expect((await priya.call('DELETE', `/api/tokens/${one.id}`)).status).toBe(404)
    expect((await owen.call('DELETE', `/api/tokens/${one.id}`)).status).toBe(204)
    expect((await owen.call('DELETE', `/api/tokens/${one.id}`)).status).toBe(404)
    expect((await script(one.token).call('GET', '/api/session')).status).toBe(401)
    const two = (await make(owen, ['see own'])).body
    await rekko.sql('update access_token set expires_at = $2 where id = $1', [
      two.id,
      new Date(moment().getTime() - 3_600_000),
    ])
    expect((await script(two.token).call('GET', '/api/session')).status).toBe(401)
    const three = (await make(priya, ['see own'])).body
    await rekko.sql('update person set left_on = current_date - 60 where id = $1', [personId('Priya Lindqvist')])
    expect((await script(three.token).call('GET', '/api/session')).status).toBe(401)
    await rekko.sql('update person set left_on = null where id = $1', [personId('Priya Lindqvist')])
    expect((await script('rekko_nothing').call('GET', '/api/session')).status).toBe(401)
  })
})

const codeAt = (secret: string, ahead = 0) =>
  new TOTP({ algorithm: 'SHA1', digits: 6, period: 30, secret: Secret.fromBase32(secret) }).generate({
    timestamp: moment().getTime() + ahead * 1000,
  })
const enter = (code?: string) =>
  rekko.nobody.call<{ type: string; name: string }>('POST', '/api/session', {
    body: {
      email: 'tomas.brandt@hallamere.example',
      password: 'sea-salt-and-patience',
      ...(code === undefined ? {} : { code }),
    },
  })

describe('a second factor', () => {
  test('holds once a code was written; then signing in asks for one, and each counts once', async () => {
    const tomas = await rekko.as('Tomas Brandt')
    const { body: begun } = await tomas.call<{ secret: string }>('POST', '/api/second-factor')
    // Begun and not confirmed it asks for nothing.
    expect((await enter()).status).toBe(200)
    const wrong = await tomas.call('PUT', '/api/second-factor', { body: { code: '000000' } })
    expect(wrong.status).toBe(422)
    const confirmed = await tomas.call<{ codes: string[] }>('PUT', '/api/second-factor', {
      body: { code: codeAt(begun.secret, -30) },
    })
    expect(confirmed.body.codes).toHaveLength(10)
    const [kept] = await rekko.sql<{ row: string }>('select second_factor::text as row from second_factor')
    expect(kept?.row).not.toContain(begun.secret)

    const asked = await enter()
    expect([asked.status, asked.body.type]).toEqual([401, 'urn:rekko:needs-code'])
    expect((await enter('123456')).body.type).toBe('urn:rekko:wrong-code')
    const code = codeAt(begun.secret)
    expect((await enter(code)).status).toBe(200)
    // The same code a second time, as by somebody who looked over a shoulder.
    expect((await enter(code)).body.type).toBe('urn:rekko:wrong-code')
    const [first = ''] = confirmed.body.codes
    expect((await enter(first.toUpperCase())).status).toBe(200)
    expect((await enter(first)).body.type).toBe('urn:rekko:wrong-code')
    await until('the mail', async () =>
      (await rekko.mails()).some((m) => m.to.includes('tomas') && m.subject.startsWith('Signing in asks for a code')),
    )
    await rekko.sql('delete from sign_in_attempt')
  })
  test('codes are counted by the person: neither asking for one nor another address forgets', async () => {
    const answers: number[] = []
    for (let i = 0; i < 14; i += 1) {
      // Even where the tries to sign in are forgotten, as from an address that was not seen before.
      await rekko.sql("delete from sign_in_attempt where key not like 'code of%'")
      answers.push((await enter('123456')).status)
      await enter()
    }
    expect(answers.slice(0, 10)).toEqual(Array.from({ length: 10 }, () => 401))
    expect(answers.slice(10)).toContain(429)
    // Asking for a code is no failure, and is answered all the same.
    expect((await enter()).body.type).toBe('urn:rekko:needs-code')
    await rekko.sql('delete from sign_in_attempt')
  })
  test('a password chosen by mail asks for it too: a mailbox is one factor of two', async () => {
    await rekko.nobody.call('POST', '/api/password-keys', { body: { email: 'tomas.brandt@hallamere.example' } })
    let key = ''
    await until('the mail', async () => {
      const mail = (await rekko.mails()).findLast((m) => m.to.includes('tomas') && m.text.includes('/password?key='))
      key = /key=(\S+)/.exec(mail?.text ?? '')?.[1] ?? ''
      return key !== ''
    })
    const body = { key, next: 'nine wet herons in a row' }
    const asked = await rekko.nobody.call<{ type: string }>('PUT', '/api/password-keys', { body })
    expect([asked.status, asked.body.type]).toEqual([401, 'urn:rekko:needs-code'])
    const tries: number[] = []
    for (let i = 0; i < 12; i += 1)
      tries.push((await rekko.nobody.call('PUT', '/api/password-keys', { body: { ...body, code: '111111' } })).status)
    expect(tries).toContain(429)
    await rekko.sql('delete from sign_in_attempt')
  })
  test('is taken away by a code; by an administrator who was asked to, never their own', async () => {
    const harriet = await rekko.as('Harriet Voss')
    const tomas = personId('Tomas Brandt')
    expect((await harriet.call('DELETE', `/api/people/${personId('Harriet Voss')}/second-factor`)).status).toBe(409)
    expect((await harriet.call('DELETE', `/api/people/${tomas}/second-factor`)).status).toBe(204)
    expect((await harriet.call('DELETE', `/api/people/${tomas}/second-factor`)).status).toBe(404)
    expect((await enter()).status).toBe(200)
  })
  test('asked of the office it leaves them nothing else until they have one, by token neither', async () => {
    const harriet = await rekko.as('Harriet Voss')
    const greta = await rekko.as('Greta Molin')
    const token = script((await make(greta, ['see budgets'])).body.token)
    const { body: o } = await harriet.call<OrganisationView>('GET', '/api/organisation')
    const { name, address, mailFrom, tolerancePercent, toleranceAmount } = o
    const body = { name, address, mailFrom, tolerancePercent, toleranceAmount, secondFactorFor: 'office' }
    expect((await harriet.call('PUT', '/api/organisation', { body, version: o.version })).status).toBe(200)
    const refused = await greta.call<{ detail: string }>('GET', '/api/budgets')
    expect([refused.status, refused.body.detail]).toEqual([403, expect.stringContaining('second factor first')])
    expect((await token.call('GET', '/api/budgets')).status).toBe(403)
    const me = await greta.call<{ landing: string; rights: string[] }>('GET', '/api/session')
    expect(me.body).toMatchObject({ landing: '/account', rights: ['see own', 'keep own account'] })
    // Others go on as before.
    expect((await (await rekko.as('Owen Marsh')).call('GET', '/api/budgets')).status).toBe(200)
    const { body: begun } = await greta.call<{ secret: string }>('POST', '/api/second-factor')
    await greta.call('PUT', '/api/second-factor', { body: { code: codeAt(begun.secret) } })
    expect((await greta.call('GET', '/api/budgets')).status).toBe(200)
    expect((await token.call('GET', '/api/budgets')).status).toBe(200)
    await rekko.sql("update organisation set second_factor_for = 'nobody'")
  })
})

describe('a profile', () => {
  const said = { locale: 'de-DE', theme: 'dark', mailsWaiting: 'daily', mailsNews: 'never' }
  test('is kept, and what is no language is refused', async () => {
    const ines = await rekko.as('Ines Adeyemi')
    expect((await ines.call('PUT', '/api/profile', { body: said })).status).toBe(204)
    expect((await ines.call('GET', '/api/profile')).body).toEqual(said)
    expect((await ines.call('GET', '/api/session')).body).toMatchObject({ locale: 'de-DE', theme: 'dark' })
    expect((await ines.call('PUT', '/api/profile', { body: { ...said, locale: 'xx-XX' } })).status).toBe(422)
    expect((await ines.call('PUT', '/api/profile', { body: { ...said, theme: 'pink' } })).status).toBe(422)
  })
  test('what waits comes in one letter, in its reader’s ways, and no mail of its own', async () => {
    const owen = await rekko.as('Owen Marsh')
    const sent = await raise(owen, soundDraft([], { lines: [freeLine('1200.50')] }))
    expect(sent.body.state).toBe('in approval')
    await until(
      'the notice',
      async () =>
        (
          await rekko.sql('select 1 from notice where person_id = $1 and about_id = $2', [
            personId('Ines Adeyemi'),
            sent.id,
          ])
        ).length,
    )
    const mails = await rekko.sql('select 1 from outgoing_mail where person_id = $1 and about_id = $2', [
      personId('Ines Adeyemi'),
      sent.id,
    ])
    expect(mails).toHaveLength(0)
  })
})
