import { randomUUID } from 'node:crypto'
import { sql } from 'drizzle-orm'
import { afterAll, beforeAll, expect, test } from 'vitest'
import type { LivePush } from '#shared/contract/live'
import { recording } from '../../scripts/bench/capture'
import { listen, startHub } from '../../server/live/hub'
import { insertSession } from '../../server/people/session-store'
import { createDraft, saveDraft } from '../../server/requisition/save-draft'
import { sendRequisition } from '../../server/requisition/send-requisition'
import { readMe } from '../../server/session/read-me'
import { freeLine, moment, personId, soundDraft, until } from '../setup/rekko'
import { openUseCases, type UseCases } from '../setup/use-cases'

const LIFE = { idleMinutes: 60, sessionDays: 14 }
const PEOPLE = ['Owen Marsh', 'Ines Adeyemi', 'Leonie Farrow', 'Greta Molin', 'Priya Lindqvist']
const PAGES = 55
let rekko: UseCases
beforeAll(async () => {
  rekko = await openUseCases()
})
afterAll(() => rekko.stop())

test('a change told to many open pages takes a few statements, and brings what waits for each along', async () => {
  const { db, pool, statements } = recording(rekko.url)
  const heard = new Map(PEOPLE.map((name) => [name, [] as LivePush[]]))
  const stops = await Promise.all(
    Array.from({ length: PAGES }, async (_, i) => {
      const name = PEOPLE[i % PEOPLE.length] ?? ''
      const sessionId = randomUUID()
      await insertSession(rekko.db, {
        id: sessionId,
        personId: personId(name),
        now: moment(),
        byDemo: false,
        fromAddress: '',
        agent: '',
      })
      return listen({
        sessionId,
        push: (push) => {
          heard.get(name)?.push(push)
        },
        close: () => undefined,
      })
    }),
  )
  const hub = startHub(rekko.url, db, moment, LIFE)
  await until('the hub listens', async () => {
    const found = await db.execute(sql`select 1 from pg_stat_activity where application_name = 'rekko-live'
      and query like 'listen%' and state = 'idle'`)
    return found.rows.length > 0
  })
  const id = randomUUID()
  const pushes = (name: string) => heard.get(name) ?? []
  const hears = (name: string) => pushes(name).some((p) => p.changes.some((c) => c.id === id))
  const told = async (name: string) =>
    until(`${name} hears`, () =>
      Promise.resolve(pushes(name).filter((p) => p.changes.some((c) => c.id === id)).length >= 11),
    )

  const draft = soundDraft([], { lines: [freeLine('1200')] })
  await rekko.as('Owen Marsh', (ctx) => createDraft(ctx, id, draft))
  await rekko.as('Owen Marsh', (ctx) => saveDraft(ctx, id, 1, draft))
  await told('Owen Marsh')
  expect(PEOPLE.filter(hears)).toEqual(['Owen Marsh'])
  for (const list of heard.values()) list.length = 0

  statements.length = 0
  await rekko.as('Owen Marsh', (ctx) => sendRequisition(ctx, id, 2))
  await told('Ines Adeyemi')
  // Who is here, who sees it, and what waits for them: whoever asks for each page anew asks 275 times.
  expect(statements.length).toBeLessThanOrEqual(3)
  expect(hears('Priya Lindqvist')).toBe(false)
  for (const name of ['Owen Marsh', 'Ines Adeyemi']) {
    const { waiting, unread } = await rekko.as(name, readMe)
    expect(pushes(name).at(-1)?.waiting).toEqual({ at: waiting, unread })
  }
  expect(pushes('Ines Adeyemi').at(-1)?.waiting?.at.decision).toBe(1)

  // Many changes of one moment are told together, each once.
  for (const list of heard.values()) list.length = 0
  statements.length = 0
  const more = Array.from({ length: 10 }, () => randomUUID())
  for (const draftId of more) await rekko.as('Owen Marsh', (ctx) => createDraft(ctx, draftId, soundDraft([])))
  await rekko.as('Owen Marsh', async (ctx) => {
    for (const version of [1, 2]) for (const draftId of more) await saveDraft(ctx, draftId, version, soundDraft([]))
  })
  await until('all are heard of', () => {
    const changes = pushes('Owen Marsh').flatMap((p) => p.changes.map((c) => c.id))
    return Promise.resolve(more.every((draftId) => changes.filter((c) => c === draftId).length === 11))
  })
  expect(pushes('Owen Marsh').length).toBeLessThan(11 * more.length)
  await hub.stop()
  for (const stop of stops) stop()
  await pool.end()
})
