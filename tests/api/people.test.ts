import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { addDays } from '#core/base/day'
import type { AbsenceView, PersonFound } from '#shared/contract/people'
import type { Me, Notice } from '#shared/contract/session'
import {
  decide,
  freeLine,
  personId,
  raise,
  soundDraft,
  startRekko,
  TODAY,
  type Client,
  type Rekko,
} from '../setup/rekko'

let rekko: Rekko
let owen: Client, ines: Client, harriet: Client
beforeAll(async () => {
  rekko = await startRekko()
  ;[owen, ines, harriet] = (await Promise.all(['Owen Marsh', 'Ines Adeyemi', 'Harriet Voss'].map(rekko.as))) as [
    Client,
    Client,
    Client,
  ]
})
afterAll(async () => {
  await rekko.stop()
})

test('people are found by any part of their name, whatever its case; whoever has left is offered no more', async () => {
  const found = async (words: string) =>
    (
      await owen.call<{ people: PersonFound[] }>('GET', `/api/people?words=${encodeURIComponent(words)}`)
    ).body.people.map((p) => p.name)
  expect(await found('ADEY')).toEqual(['Ines Adeyemi'])
  expect(await found('ines ad')).toContain('Ines Adeyemi')
  const [leaver] = await rekko.sql<{ name: string }>('select name from person where left_on < $1 limit 1', [TODAY])
  expect(leaver).toBeDefined()
  expect(await found(leaver?.name ?? '')).toEqual([])
  expect(await found('%')).toEqual([])
})

describe('what one was told', () => {
  test('stands unread until it was read, and is nobody else’s', async () => {
    const { id } = await raise(owen, soundDraft([], { title: 'Told about', lines: [freeLine('300')] }))
    expect((await decide(rekko, ines, id, 'approve')).status).toBe(200)
    const notices = async (who: Client) => (await who.call<{ notices: Notice[] }>('GET', '/api/notices')).body.notices
    const [newest] = await notices(owen)
    expect(newest).toMatchObject({ read: false, link: `/trail/${id}` })
    expect(newest?.sentence).toContain('Told about')
    const unread = async () => (await owen.call<Me>('GET', '/api/session')).body.unread
    const before = await unread()
    expect(before).toBeGreaterThan(0)
    await owen.call('POST', '/api/notices/read')
    expect([await unread(), (await notices(owen))[0]?.read]).toEqual([0, true])
    expect(
      (await notices(ines)).some(
        (n) => n.sentence.includes('Told about') && n.link === `/trail/${id}` && n.id === newest?.id,
      ),
    ).toBe(false)
  })
})

describe('days away', () => {
  const set = (who: Client, body: object) =>
    who.call<{ id: string; detail: string }>('POST', '/api/absences', {
      body: { from: addDays(TODAY, 3), until: addDays(TODAY, 5), substituteId: null, ...body },
      key: randomUUID(),
    })
  const list = async (who: Client) =>
    (await who.call<{ mine: AbsenceView[]; others: AbsenceView[] }>('GET', '/api/absences')).body
  test.each<[string, object, string]>([
    ['the last day before the first', { until: addDays(TODAY, 2) }, 'The last day lies before the first.'],
    ['days that have passed', { from: addDays(TODAY, -5), until: addDays(TODAY, -1) }, 'These days have passed.'],
    ['oneself as the substitute', { substituteId: personId('Owen Marsh') }, 'A person cannot stand in for themselves.'],
    ['a substitute who is not there', { substituteId: randomUUID() }, 'The substitute does not exist or has left.'],
  ])('%s are refused with a sentence', async (_, body, detail) => {
    expect(await set(owen, body)).toMatchObject({ status: 422, body: { detail } })
  })

  test(
    'are written down once, overlap with no other, and are ended at the version seen by whom they concern or ' +
      'an administrator',
    async () => {
      expect((await set(owen, { substituteId: personId('Rosa Castell') })).status).toBe(200)
      expect((await set(owen, { from: addDays(TODAY, 5), until: addDays(TODAY, 9) })).body.detail).toContain(
        'overlap with another absence',
      )
      const [mine] = (await list(owen)).mine
      expect(mine).toMatchObject({ from: addDays(TODAY, 3), until: addDays(TODAY, 5), substitute: 'Rosa Castell' })
      expect((await list(harriet)).others.map((a) => a.id)).toContain(mine?.id)
      expect((await list(ines)).others).toEqual([])
      const end = (who: Client, version: number) => who.call('DELETE', `/api/absences/${mine?.id ?? ''}`, { version })
      expect([
        (await end(ines, mine?.version ?? 0)).status,
        (await end(owen, 99)).status,
        (await end(harriet, mine?.version ?? 0)).status,
        (await end(owen, mine?.version ?? 0)).status,
      ]).toEqual([403, 412, 204, 404])
      expect((await list(owen)).mine).toEqual([])
    },
  )
})
