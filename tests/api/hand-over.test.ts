import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import {
  decide,
  freeLine,
  personId,
  raise,
  soundDraft,
  startRekko,
  until,
  versionOf,
  type Client,
  type Rekko,
  TODAY,
} from '../setup/rekko'

let rekko: Rekko
let [owen, rosa, ines, leonie]: Client[] = []
beforeAll(async () => {
  rekko = await startRekko()
  ;[owen, rosa, ines, leonie] = await Promise.all(
    ['Owen Marsh', 'Rosa Castell', 'Ines Adeyemi', 'Leonie Farrow'].map(rekko.as),
  )
})
afterAll(async () => {
  await rekko.stop()
})
const who = (c: Client | undefined): Client => c ?? rekko.nobody
const give = async (by: Client | undefined, id: string, to: string, everything = false) =>
  who(by).call<{ detail: string; others: number }>('POST', `/api/requisitions/${id}/owner`, {
    version: await versionOf(rekko, id),
    body: { personId: personId(to), everything },
  })
const mine = async (c: Client | undefined) =>
  (await who(c).call<{ rows: { id: string }[] }>('GET', '/api/requisitions?limit=100')).body.rows.map((r) => r.id)

describe('one requisition', () => {
  test('goes over with every right and waiting action; both hear of it, and the trail says it', async () => {
    const { id } = await raise(who(owen), soundDraft([], { lines: [freeLine('1200')] }))
    await who(ines).call('POST', `/api/requisitions/${id}/questions`, { body: { text: 'Which pump?' } })
    expect((await give(owen, id, 'Rosa Castell')).status).toBe(200)
    expect(await mine(rosa)).toContain(id)
    expect(await mine(owen)).not.toContain(id)
    // The question waits for the new owner now; the old one, who raised it, still sees it and may not answer.
    expect((await who(owen).call('GET', `/api/requisitions/${id}/trail`)).status).toBe(200)
    expect((await who(owen).call('POST', `/api/requisitions/${id}/answers`, { body: { text: 'P4' } })).status).toBe(403)
    expect((await who(rosa).call('POST', `/api/requisitions/${id}/answers`, { body: { text: 'P4' } })).status).toBe(200)
    const trail = (
      await who(rosa).call<{ owner: string; entries: { what: string }[] }>('GET', `/api/requisitions/${id}/trail`)
    ).body
    expect(trail.owner).toBe('Rosa Castell')
    expect(trail.entries.map((e) => e.what)).toContain('handed it over to Rosa Castell')
    await until('the mail to the new owner', async () =>
      (await rekko.mails()).some((m) => m.subject.startsWith('Yours now')),
    )
    expect(
      (await who(rosa).call('POST', `/api/requisitions/${id}/withdraw`, { version: await versionOf(rekko, id) }))
        .status,
    ).toBe(200)
  })

  test(
    'to the one who was asked to decide: nobody decides what they own, so the route goes on without ' + 'them',
    async () => {
      const { id } = await raise(who(owen), soundDraft([], { lines: [freeLine('900')] }))
      expect((await give(owen, id, 'Ines Adeyemi')).status).toBe(200)
      expect((await decide(rekko, who(ines), id, 'approve')).status).toBe(403)
      const open = await rekko.sql<{ name: string }>(
        'select p.name from approval_seat s join person p on p.id = s.actor_id where s.document_id = $1 and ' +
          "s.state = 'open'",
        [id],
      )
      expect(open.map((o) => o.name)).toEqual(['Tomas Brandt'])
    },
  )

  test(
    'is refused to strangers, to the same owner, to whoever left, and at an old version; nothing changes ' + 'then',
    async () => {
      const { id } = await raise(who(owen), soundDraft([], { lines: [freeLine('12')] }))
      expect((await give(await rekko.as('Sorrel Quist'), id, 'Sorrel Quist')).status).toBe(404)
      expect((await give(rosa, id, 'Rosa Castell')).status).toBe(404)
      expect(await give(owen, id, 'Owen Marsh')).toMatchObject({ status: 409, body: { detail: 'You own it already.' } })
      const [gone] = await rekko.sql<{ name: string }>('select name from person where left_on < $1 limit 1', [TODAY])
      expect((await give(owen, id, gone?.name ?? '')).body.detail).toContain('not here any more')
      expect(
        (
          await who(owen).call('POST', `/api/requisitions/${id}/owner`, {
            version: 99,
            body: { personId: personId('Rosa Castell') },
          })
        ).status,
      ).toBe(412)
      expect(
        (await rekko.sql<{ owner: string }>('select owner_id as owner from document where id = $1', [id]))[0]?.owner,
      ).toBe(personId('Owen Marsh'))
    },
  )
})

test('a buyer hands over everything that somebody owns and that is not over, at once; others may not', async () => {
  const sorrel = await rekko.as('Sorrel Quist')
  const own = () =>
    raise(sorrel, soundDraft([{ part: 'MC-SH-12', quantity: 2 }], { title: 'Shackles' }, 'Research Boat'))
  const [first, second, third] = [await own(), await own(), await own()]
  expect([first.status, second.status, third.status]).toEqual([200, 200, 200])
  // One of them is over.
  await sorrel.call('POST', `/api/requisitions/${third.id}/cancel-rest`, { version: await versionOf(rekko, third.id) })
  expect((await give(sorrel, first.id, 'Rosa Castell', true)).status).toBe(403)
  expect(await give(leonie, first.id, 'Rosa Castell', true)).toMatchObject({ status: 200, body: { others: 1 } })
  expect(await mine(rosa)).toEqual(expect.arrayContaining([first.id, second.id]))
  expect(await mine(sorrel)).toEqual([third.id])
})

test('routing again writes nothing when nothing changes', async () => {
  const { id } = await raise(who(owen), soundDraft([], { lines: [freeLine('1200')] }))
  const harriet = await rekko.as('Harriet Voss')
  const routed = async () =>
    (await rekko.sql("select 1 from event where subject_id = $1 and type = 'routed again'", [id])).length
  const away = (from: string, until: string) =>
    harriet.call('POST', '/api/absences', {
      body: { personId: personId('Ines Adeyemi'), from, until, substituteId: null },
    })
  // Far ahead: her requests are routed again, and come out as they were.
  expect((await away('2199-01-01', '2199-01-02')).status).toBe(200)
  expect(await routed()).toBe(0)
  expect((await away(TODAY, TODAY)).status).toBe(200)
  await until('the new route', async () => (await routed()) === 1)
})
