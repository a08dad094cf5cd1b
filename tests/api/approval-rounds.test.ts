import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { addDays } from '#core/base/day'
import type { Draft } from '#core/requisition/draft'
import type { RequestView } from '#shared/contract/request-view'
import {
  decide,
  freeLine,
  personId,
  raise,
  soundDraft,
  startRekko,
  TODAY,
  until,
  versionOf,
  type Client,
  type Rekko,
} from '../setup/rekko'

// An approval never counts for more than its giver saw, and decisions made stay (rules of calculation, approval).
let rekko: Rekko
const cast: Record<string, Client> = {}
const who = (name: string): Client => cast[name] ?? expect.fail(`${name} is not here`)
const [OWEN, BOSS, SECOND] = ['Owen Marsh', 'Ines Adeyemi', 'Tomas Brandt'] as const
beforeAll(async () => {
  rekko = await startRekko()
  for (const name of [OWEN, BOSS, SECOND, 'Marguerite Oduya', 'Harriet Voss']) cast[name] = await rekko.as(name)
})
afterAll(() => rekko.stop())

type Step = { rank: number; who: object; mustCover?: boolean }
const person = (name: string, rank = 10): Step => ({ rank, who: { by: 'person', personId: personId(name) } })
/** Puts a policy of one rule in force, in place of any other. */
async function policy(...steps: Step[]): Promise<void> {
  await rekko.sql(`update approval_policy set in_force_at = '2999-01-01'`)
  await rekko.sql(
    `with p as (insert into approval_policy (number, name, in_force_at, ending, fallback_id)
       select 1 + max(number), 'of a test', $3::date, 'fallback', $1 from approval_policy returning id),
     r as (insert into approval_rule (policy_id, position, name, conditions)
       select id, 0, 'all', '[]' from p returning id)
     insert into approval_step (rule_id, position, rank, who, must_cover)
       select r.id, s.n, (s.s ->> 'rank')::int, s.s -> 'who', coalesce((s.s ->> 'mustCover')::boolean, false)
       from r, jsonb_array_elements($2::jsonb) with ordinality s(s, n)`,
    [personId('Harriet Voss'), JSON.stringify(steps), TODAY],
  )
}
const waitsFor = async (id: string): Promise<string[]> =>
  (
    await rekko.sql<{ name: string }>(
      `select p.name from approval_seat s join person p on p.id = s.actor_id
       where s.document_id = $1 and s.state = 'open' order by 1`,
      [id],
    )
  ).map((r) => r.name)
/** Waits until open routes were worked out again, which a task does. */
const routed = () =>
  until(
    'routing again',
    async () =>
      (await rekko.sql(`select 1 from pgboss.job where name like 'route-%' and state < 'completed'`)).length === 0,
  )
/** Sets somebody away today; what comes back sets them here again. Open routes were worked out anew after either. */
const away = async (name: string, substitute: string | null): Promise<() => Promise<unknown>> => {
  const { body, status } = await who(name).call<{ id: string }>('POST', '/api/absences', {
    body: { from: TODAY, until: TODAY, substituteId: substitute === null ? null : personId(substitute) },
  })
  expect(status).toBe(200)
  await routed()
  return async () => {
    await who(name).call('DELETE', `/api/absences/${body.id}`, { version: 1 })
    await routed()
  }
}
const stateOf = async (id: string): Promise<string> =>
  (await rekko.sql<{ state: string }>('select state from document where id = $1', [id]))[0]?.state ?? ''
const draftFor = (price: string): Draft => soundDraft([], { lines: [freeLine(price)] })
/** Changes what a requisition says, and sends it again. */
async function sendAgain(id: string, change: (draft: Draft) => Draft): Promise<number> {
  const { body } = await who(OWEN).call<{ draft: Draft; version: number }>('GET', `/api/requisitions/${id}`)
  const kept = await who(OWEN).call<{ version: number }>('PUT', `/api/requisitions/${id}`, {
    body: { draft: change(body.draft) },
    version: body.version,
  })
  expect(kept.status).toBe(200)
  const version = await versionOf(rekko, id)
  return (await who(OWEN).call('POST', `/api/requisitions/${id}/send`, { version, key: `again-${id}-${version}` }))
    .status
}
const at =
  (unitPrice: string) =>
  (draft: Draft): Draft => ({
    ...draft,
    lines: draft.lines.map((l) => ({ ...l, unitPrice })),
  })

describe('an approval counts for what its giver saw', () => {
  test('100 approved by one and sent back by the other: at 900 both are asked again', async () => {
    await policy(person(BOSS), person(SECOND))
    const { id } = await raise(who(OWEN), draftFor('100.00'))
    expect(await waitsFor(id)).toEqual([BOSS, SECOND])
    await decide(rekko, who(BOSS), id, 'approve')
    await decide(rekko, who(SECOND), id, 'sendBack', 'Ask for more.')
    expect(await sendAgain(id, at('900.00'))).toBe(200)
    expect(await waitsFor(id)).toEqual([BOSS, SECOND])
    await decide(rekko, who(SECOND), id, 'approve')
    expect([await stateOf(id), await waitsFor(id)]).toEqual(['in approval', [BOSS]])
    await decide(rekko, who(BOSS), id, 'approve')
    expect(await stateOf(id)).toBe('approved')
  })
  test('sent back and sent again with less, only whoever has not approved is asked', async () => {
    await policy(person(BOSS), person(SECOND))
    const { id } = await raise(who(OWEN), draftFor('100.00'))
    await decide(rekko, who(BOSS), id, 'approve')
    await decide(rekko, who(SECOND), id, 'sendBack', 'Less, please.')
    expect(await sendAgain(id, at('90.00'))).toBe(200)
    expect(await waitsFor(id)).toEqual([SECOND])
    // Whoever decides sees what changed; its trail shows the request as it is now.
    const { body } = await who(SECOND).call<{ changes: string[] }>('GET', `/api/documents/${id}/decision`)
    expect(body.changes).toEqual([expect.stringMatching(/: 100\.00 → 90\.00 EUR$/)])
    const trail = await who(OWEN).call<{ request: RequestView }>('GET', `/api/requisitions/${id}/trail`)
    expect(trail.body.request.lines.map((l) => [l.unitPrice, l.net?.amount])).toEqual([['90', '90.00']])
    // More again than what the boss saw last, in a third sending: everybody is asked.
    await decide(rekko, who(SECOND), id, 'sendBack', 'More, please.')
    expect(await sendAgain(id, at('100.01'))).toBe(200)
    expect(await waitsFor(id)).toEqual([BOSS, SECOND])
  })
  test('withdrawn after an approval, raised and sent: the earlier step is asked again', async () => {
    await policy(person(BOSS, 10), person(SECOND, 20))
    const { id } = await raise(who(OWEN), draftFor('170.00'))
    await decide(rekko, who(BOSS), id, 'approve')
    expect(await waitsFor(id)).toEqual([SECOND])
    await who(OWEN).call('POST', `/api/requisitions/${id}/withdraw`, { version: await versionOf(rekko, id) })
    expect(await sendAgain(id, at('260.00'))).toBe(200)
    expect(await waitsFor(id)).toEqual([BOSS])
    // Nor does routing again count what they approved of before.
    const back = await away(BOSS, 'Marguerite Oduya')
    expect(await waitsFor(id)).toEqual(['Marguerite Oduya'])
    await back()
    expect(await waitsFor(id)).toEqual([BOSS])
  })
  test.each([
    ['title', (d: Draft) => ({ ...d, title: 'Something else' })],
    ['part number', (d: Draft) => ({ ...d, lines: d.lines.map((l) => ({ ...l, supplierPart: 'X-9' })) })],
  ])('another %s starts the route again', async (_, change) => {
    await policy(person(BOSS, 10), person(SECOND, 20))
    const { id } = await raise(who(OWEN), draftFor('100.00'))
    await decide(rekko, who(BOSS), id, 'approve')
    await decide(rekko, who(SECOND), id, 'sendBack', 'Say it otherwise.')
    expect(await sendAgain(id, change)).toBe(200)
    expect(await waitsFor(id)).toEqual([BOSS])
  })
  test('a file that is taken away starts the route again, one that is added does not', async () => {
    await policy(person(BOSS, 10), person(SECOND, 20))
    const { id } = await raise(who(OWEN), draftFor('100.00'))
    const attach = () =>
      who(OWEN).call<{ id: string }>('POST', `/api/requisitions/${id}/attachments?name=q.pdf&kind=quote`, {
        raw: '%PDF-1.4\n%%EOF',
        headers: { 'content-type': 'application/pdf' },
      })
    const back = async () => {
      await decide(rekko, who(SECOND), id, 'sendBack', 'Once more.')
    }
    await decide(rekko, who(BOSS), id, 'approve')
    await back()
    const file = await attach()
    expect(file.status).toBe(200)
    expect(await sendAgain(id, (d) => d)).toBe(200)
    expect(await waitsFor(id)).toEqual([SECOND])
    await back()
    expect((await who(OWEN).call('DELETE', `/api/requisitions/${id}/attachments/${file.body.id}`)).status).toBe(204)
    expect(await sendAgain(id, (d) => d)).toBe(200)
    expect(await waitsFor(id)).toEqual([BOSS])
  })
})

describe('decisions made stay', () => {
  test('who approved and goes away is not asked again through a substitute, nor is the next skipped', async () => {
    await policy(person(BOSS, 10), person(SECOND, 20))
    const { id } = await raise(who(OWEN), draftFor('100.00'))
    await decide(rekko, who(BOSS), id, 'approve')
    for (const substitute of ['Marguerite Oduya', null]) {
      const back = await away(BOSS, substitute)
      expect(await waitsFor(id)).toEqual([SECOND])
      await back()
      expect(await waitsFor(id)).toEqual([SECOND])
    }
  })
  test('in a chain, whoever approved and covers ends it, also when they are away since', async () => {
    await policy({ rank: 10, who: { by: 'chain', until: 'covered' } }, person('Marguerite Oduya', 20))
    const { id } = await raise(who(OWEN), draftFor('400.00'))
    expect(await waitsFor(id)).toEqual([BOSS])
    await decide(rekko, who(BOSS), id, 'approve')
    const back = await away(BOSS, null)
    expect(await waitsFor(id)).toEqual(['Marguerite Oduya'])
    await back()
  })
  test('a substitute’s decision stays when whoever they stood in for is back', async () => {
    await policy(person(BOSS, 10), person(SECOND, 20))
    const back = await away(BOSS, 'Marguerite Oduya')
    const { id } = await raise(who(OWEN), draftFor('100.00'))
    expect(await waitsFor(id)).toEqual(['Marguerite Oduya'])
    await decide(rekko, who('Marguerite Oduya'), id, 'approve')
    await back()
    expect(await waitsFor(id)).toEqual([SECOND])
  })
})

test('routing again starts from what was sent: holders and year are not lost when the calendar moves on', async () => {
  await policy({ rank: 10, who: { by: 'budget holders' } })
  const { id } = await raise(who(OWEN), draftFor('100.00'))
  const before = await waitsFor(id)
  expect(before.length).toBeGreaterThan(0)
  // As if today lay in the next fiscal year: the draft's own year is then another, what was sent is not.
  // (In December no first month makes it so; then it only shows that nothing else is lost.)
  const month = Number(TODAY.slice(5, 7))
  await rekko.sql('update organisation set fiscal_start_month = $1', [month >= 4 ? Math.min(12, month + 1) : 1])
  const tomorrow = addDays(TODAY, 1)
  const { body } = await who('Harriet Voss').call<{ id: string }>('POST', '/api/absences', {
    body: { from: tomorrow, until: tomorrow, substituteId: null },
  })
  await routed()
  expect(await waitsFor(id)).toEqual(before)
  await who('Harriet Voss').call('DELETE', `/api/absences/${body.id}`, { version: 1 })
  await routed()
  await rekko.sql('update organisation set fiscal_start_month = 4')
  expect(await waitsFor(id)).toEqual(before)
  expect(await stateOf(id)).toBe('in approval')
})

describe('a trail of what was stopped says so, and that nobody is asked', () => {
  type Trail = {
    sentence: string
    stations: { name: string; note: string }[]
    route: { name: string; you: boolean; state: string }[]
  }
  const trailOf = async (id: string) => {
    const { body } = await who(OWEN).call<Trail>('GET', `/api/requisitions/${id}/trail`)
    const decision = body.stations.find((s) => s.name === 'Decision')?.note
    return [body.sentence, decision, ...body.route.map((s) => `${s.name}: ${s.state}`)]
  }
  test.each([
    [
      'sent back',
      (id: string) => decide(rekko, who(SECOND), id, 'sendBack', 'Say it otherwise.'),
      ['sent back, to be changed.', 'sent back', `${BOSS}: done`, `${SECOND}: sent back`, 'Harriet Voss: over'],
    ],
    [
      'rejected',
      (id: string) => decide(rekko, who(SECOND), id, 'reject', 'Not this year.'),
      ['rejected.', 'rejected', `${BOSS}: done`, `${SECOND}: rejected`, 'Harriet Voss: over'],
    ],
    [
      'withdrawn',
      async (id: string) =>
        who(OWEN).call('POST', `/api/requisitions/${id}/withdraw`, { version: await versionOf(rekko, id) }),
      ['withdrawn.', 'withdrawn', `${BOSS}: done`, `${SECOND}: over`, 'Harriet Voss: over'],
    ],
  ] as const)('%s', async (_, stop, expected) => {
    await policy(person(BOSS, 10), person(SECOND, 20), person('Harriet Voss', 30))
    const { id } = await raise(who(OWEN), draftFor('100.00'))
    await decide(rekko, who(BOSS), id, 'approve')
    await stop(id)
    expect(await trailOf(id)).toEqual(expected)
  })
  test('whoever reads it is spoken to by a fact, and keeps their name', async () => {
    await policy(person(BOSS))
    const { id } = await raise(who(OWEN), draftFor('100.00'))
    const { body } = await who(BOSS).call<Trail & { next: string }>('GET', `/api/requisitions/${id}/trail`)
    expect([body.sentence, body.next, body.route.map((s) => [s.name, s.you])]).toEqual([
      'waits for you.',
      'You decide; then it goes on by itself.',
      [[BOSS, true]],
    ])
  })
})

test('where nobody is left who may decide it is held, and administrators hear of it by its number alone', async () => {
  await policy(person(BOSS, 10), person(SECOND, 20))
  await rekko.sql(`update approval_policy set fallback_id = null where in_force_at = $1::date`, [TODAY])
  const { id, body } = await raise(who(OWEN), draftFor('100.00'))
  const back = await away(SECOND, null)
  // It is held only where it comes to the step; nobody hears of it before.
  const heard = () =>
    rekko.sql<{ told: { code: string; number: string } }>(
      `select told from notice where about_id = $1 and told ->> 'code' = 'held'`,
      [id],
    )
  expect(await heard()).toEqual([])
  await decide(rekko, who(BOSS), id, 'approve')
  expect([await stateOf(id), await waitsFor(id)]).toEqual(['in approval', []])
  expect((await heard()).map((n) => n.told)).toContainEqual({ code: 'held', number: body.number })
  await back()
  expect(await waitsFor(id)).toEqual([SECOND])
})
