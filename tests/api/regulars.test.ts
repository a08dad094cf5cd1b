import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { addDays } from '#core/base/day'
import type { Draft } from '#core/requisition/draft'
import { asRegular } from '#core/requisition/line-source'
import type { RegularList, SourceGroup, TemplateView } from '#shared/contract/regulars'
import { openDatabase, type Db } from '../../server/db/client'
import { inTransaction } from '../../server/db/transaction'
import type { Put } from '../../server/queue/enqueue'
import { takeTasks } from '../../server/queue/take-tasks'
import type { TaskData } from '../../server/queue/tasks'
import { repeatAll, repeatTemplate } from '../../server/regulars/repeat-templates'
import { sendByItself } from '../../server/requisition/send-by-itself'
import { freeLine, idOf, moment, raise, soundDraft, startRekko, TODAY, type Client, type Rekko } from '../setup/rekko'

/** Carries out what was put there to raise templates, twice each, as a queue may. */
async function repeatEach(db: Db, tasks: readonly Put[]): Promise<void> {
  for (const { name, data } of tasks.filter((t) => t.name === 'repeat-template')) {
    const { templateId } = data as TaskData['repeat-template']
    for (const id of [templateId, templateId])
      await inTransaction(db, (tx) => repeatTemplate(tx, id, moment())).catch((e: unknown) => {
        throw new Error(`${name}: ${String(e)}`)
      })
  }
}

let rekko: Rekko
let [owen, rosa, priya, leonie]: Client[] = []
beforeAll(async () => {
  rekko = await startRekko()
  // The tasks of a rhythm run here as they do in a server.
  Object.assign(process.env, {
    DATABASE_URL: rekko.appUrl,
    REKKO_SESSION_SECRET: 'a-secret-for-tests-that-is-long-enough',
  })
  ;[owen, rosa, priya, leonie] = await Promise.all(
    ['Owen Marsh', 'Rosa Castell', 'Priya Lindqvist', 'Leonie Farrow'].map(rekko.as),
  )
})
afterAll(async () => {
  await rekko.stop()
})
const who = (c: Client | undefined): Client => c ?? rekko.nobody
const water = idOf('department', 'Water Systems')
const entryOf = (d: Draft) => d.lines.map(asRegular)
const source = async (name: string, query = '', by = owen) =>
  (
    await who(by).call<{
      groups: SourceGroup[]
      items: { supplierPart: string; prices: unknown[] }[]
      suppliers: Record<string, string>
    }>('GET', `/api/line-sources/${name}?${query}`)
  ).body

describe('regulars', () => {
  const lists = async (by = owen) => (await who(by).call<{ lists: RegularList[] }>('GET', '/api/regulars')).body.lists
  const entries = entryOf(
    soundDraft([
      { part: 'CP-QS-25', quantity: 6 },
      { part: 'CP-GS-25', quantity: 12 },
    ]),
  )
  test(
    'one’s own are seen by nobody else, a department’s by its people; both may be written anew at the ' +
      'version seen',
    async () => {
      const own = await who(owen).call<{ id: string }>('POST', '/api/regulars', {
        body: { name: 'Night box', departmentId: null, entries },
        key: randomUUID(),
      })
      const shared = await who(owen).call<{ id: string }>('POST', '/api/regulars', {
        body: { name: 'Lamp change', departmentId: water, entries },
        key: randomUUID(),
      })
      expect((await lists()).map((l) => [l.name, l.department, l.entries.length])).toEqual([
        ['Night box', null, 2],
        ['Lamp change', 'Water Systems', 2],
      ])
      expect((await lists(rosa)).map((l) => l.name)).toEqual(['Lamp change'])
      expect(await lists(priya)).toEqual([])
      const write = (by: Client | undefined, id: string, version: number) =>
        who(by).call('PUT', `/api/regulars/${id}`, { version, body: { name: 'Lamps', entries: entries.slice(1) } })
      expect((await write(rosa, own.body.id, 1)).status).toBe(404)
      expect((await write(priya, shared.body.id, 1)).status).toBe(404)
      expect((await write(rosa, shared.body.id, 1)).body).toMatchObject({ version: 2 })
      expect((await write(owen, shared.body.id, 1)).status).toBe(412)
      expect((await lists(rosa))[0]).toMatchObject({
        name: 'Lamps',
        entries: [{ supplierPart: 'CP-GS-25', quantity: '12' }],
      })
      expect((await who(priya).call('DELETE', `/api/regulars/${shared.body.id}`, { version: 2 })).status).toBe(404)
      const { groups, items } = await source('regulars')
      expect(groups.map((g) => [g.name, g.note, g.lines.length])).toEqual([
        ['Night box', 'your own', 2],
        ['Lamps', 'Water Systems', 1],
      ])
      expect(items.map((i) => i.supplierPart).sort()).toEqual(['CP-GS-25', 'CP-QS-25'])
      expect((await who(rosa).call('DELETE', `/api/regulars/${shared.body.id}`, { version: 2 })).status).toBe(204)
    },
  )
  test('a list for a department that is not one’s own, or with an item that is not there, is refused', async () => {
    expect(
      (
        await who(owen).call('POST', '/api/regulars', {
          body: { name: 'x', departmentId: idOf('department', 'Animal Care'), entries },
        })
      ).status,
    ).toBe(403)
    expect(
      (
        await who(owen).call('POST', '/api/regulars', {
          body: { name: 'x', departmentId: null, entries: entries.map((e) => ({ ...e, itemId: randomUUID() })) },
        })
      ).status,
    ).toBe(422)
    expect(
      (await who(owen).call('POST', '/api/regulars', { body: { name: ' ', departmentId: null, entries } })).status,
    ).toBe(422)
  })
})

describe('where lines come from', () => {
  let requisition = ''
  let order = ''
  beforeAll(async () => {
    const draft = soundDraft([], {
      title: 'Rope and lamps',
      lines: [{ ...freeLine('40'), description: 'Rope of the old kind' }],
    })
    requisition = (await raise(who(owen), draft)).id
    await raise(who(priya), soundDraft([{ part: 'FL-SAL-500', quantity: 1 }], { title: 'Not theirs' }, 'Animal Care'))
    const tray = await who(leonie).call<{ orderId: string }>('POST', '/api/trays', {
      body: { orderId: null, supplierId: null, parts: [{ lineId: draft.lines[0]?.id, quantity: null }] },
    })
    order = tray.body.orderId
    const [at] = await rekko.sql<{ version: number }>('select version from document where id = $1', [order])
    expect((await who(leonie).call('POST', `/api/orders/${order}/issue`, { version: at?.version ?? 0 })).status).toBe(
      200,
    )
  })
  test(
    'what the department bought, its requests and their orders are offered, each with its account; not those ' +
      'of others',
    async () => {
      const bought = await source('bought')
      expect(bought.groups[0]?.lines.map((l) => [l.description, l.account])).toContainEqual([
        'Rope of the old kind',
        '616',
      ])
      expect((await source('bought', '', rosa)).groups[0]?.lines.map((l) => l.description)).toContain(
        'Rope of the old kind',
      )
      expect(JSON.stringify(await source('bought', `departmentId=${idOf('department', 'Animal Care')}`))).not.toContain(
        'Salinity',
      )
      expect((await source('requests')).groups.map((g) => g.name)).toContain('Rope and lamps')
      // A colleague does not see what its owner asked for, and so is not offered it.
      expect((await source('requests', '', rosa)).groups).toEqual([])
      expect((await source('orders')).groups[0]?.lines.map((l) => l.description)).toEqual(['Rope of the old kind'])
      expect((await source('orders', '', rosa)).groups).toEqual([])
      expect((await source('orders', '', leonie)).groups.length).toBeGreaterThan(0)
      expect((await source('bought', 'words=nothing+of+this')).groups).toEqual([])
      expect((await source('bought', 'words=ROPE')).groups[0]?.lines).toHaveLength(1)
      expect((await who(owen).call('GET', '/api/line-sources/elsewhere')).status).toBe(404)
    },
  )
  test('one begins from a request or an order that one sees', async () => {
    const begin = (path: string, by = owen) =>
      who(by).call<{ draft: Draft; suppliers: Record<string, string> }>('GET', path)
    const copy = (await begin(`/api/requisitions/${requisition}/copy`)).body
    expect(copy.draft).toMatchObject({
      title: 'Rope and lamps',
      needBy: null,
      lines: [{ description: 'Rope of the old kind', unitPrice: '40' }],
    })
    expect(copy.draft.lines[0]?.codings).toHaveLength(1)
    expect(Object.values(copy.suppliers)).toEqual(['Harbour Waste'])
    const ordered = (await begin(`/api/orders/${order}/copy`)).body.draft
    expect(ordered).toMatchObject({
      departmentId: water,
      lines: [{ description: 'Rope of the old kind', codings: [] }],
    })
    for (const path of [`/api/requisitions/${requisition}/copy`, `/api/orders/${order}/copy`])
      expect((await begin(path, rosa)).status).toBe(404)
    // A buyer begins the same for their own department: what paid there does not pay here.
    expect((await begin(`/api/requisitions/${requisition}/copy`, leonie)).body.draft).toMatchObject({
      departmentId: idOf('department', 'Purchasing and Finance'),
      lines: [{ codings: [] }],
    })
  })
  test('an account is proposed from what the department called alike', async () => {
    const proposed = async (words: string, department = water) =>
      (
        await who(owen).call<{ account: string | null }>(
          'GET',
          `/api/account-proposal?departmentId=${department}&words=${encodeURIComponent(words)}`,
        )
      ).body.account
    expect(await proposed('rope, old kind')).toBe('616')
    expect(await proposed('a microscope')).toBeNull()
    expect(await proposed('rope of the old kind', idOf('department', 'Animal Care'))).toBeNull()
  })
})

describe('templates', () => {
  const templates = async (by = owen) =>
    (await who(by).call<{ templates: TemplateView[] }>('GET', '/api/templates')).body.templates
  const make = (
    body: Partial<{ name: string; departmentId: string | null; draft: Draft; rhythm: TemplateView['rhythm'] }>,
    by = owen,
  ) =>
    who(by).call<{ id: string }>('POST', '/api/templates', {
      body: {
        name: 'Lamps',
        departmentId: null,
        draft: soundDraft([{ part: 'CP-QS-25', quantity: 12 }], { title: 'Lamps again' }),
        rhythm: null,
        ...body,
      },
    })
  const mine = async () =>
    (
      await who(owen).call<{ rows: { id: string; title: string; state: string }[] }>(
        'GET',
        '/api/requisitions?words=again&limit=100',
      )
    ).body.rows

  test('are begun from at today’s price, and changed only by their owner', async () => {
    const { id } = (await make({ departmentId: water })).body
    await rekko.sql(
      "update template set draft = jsonb_set(draft, '{lines,0,unitPrice}', '\"29.00\"'), version = 1 where id = $1",
      [id],
    )
    await rekko.sql("update template set draft = jsonb_set(draft, '{lines,0,listPrice}', '\"29.00\"') where id = $1", [
      id,
    ])
    const begun = (await who(rosa).call<{ draft: Draft }>('GET', `/api/templates/${id}/copy`)).body.draft
    expect(begun).toMatchObject({
      title: 'Lamps again',
      needBy: null,
      lines: [{ unitPrice: '27.9', listPrice: '27.9', quantity: '12' }],
    })
    expect((await templates(rosa)).map((t) => [t.name, t.mine])).toEqual([['Lamps', false]])
    expect(
      (
        await who(rosa).call('PUT', `/api/templates/${id}`, {
          version: 1,
          body: { name: 'Mine now', departmentId: null, rhythm: null },
        })
      ).status,
    ).toBe(403)
    expect((await who(priya).call('GET', `/api/templates/${id}/copy`)).status).toBe(404)
    expect(
      (
        await who(owen).call('PUT', `/api/templates/${id}`, {
          version: 1,
          body: { name: 'Lamps, alone', departmentId: null, rhythm: null },
        })
      ).body,
    ).toMatchObject({ version: 2 })
    expect(await templates(rosa)).toEqual([])
    expect((await who(owen).call('DELETE', `/api/templates/${id}`, { version: 1 })).status).toBe(412)
    expect((await who(owen).call('DELETE', `/api/templates/${id}`, { version: 2 })).status).toBe(204)
    expect((await make({ departmentId: idOf('department', 'Animal Care') })).status).toBe(403)
  })

  test(
    'with a rhythm they raise themselves when their day has come, once, and wait for a look or are ' + 'sent',
    async () => {
      const rhythm = { every: 'month' as const, startsOn: TODAY, sendsItself: false, neededAfter: 8 }
      const waits = (await make({ name: 'Waits again', rhythm })).body.id
      const sends = (
        await make({
          name: 'Sends again',
          draft: soundDraft([{ part: 'CP-GS-25', quantity: 1 }], { title: 'Seals again' }),
          rhythm: { ...rhythm, sendsItself: true },
        })
      ).body.id
      const unsound = (
        await make({
          name: 'Unsound again',
          draft: soundDraft([], { title: 'Nothing again', why: '' }),
          rhythm: { ...rhythm, sendsItself: true },
        })
      ).body.id
      const next = async (id: string) => (await templates()).find((t) => t.id === id)?.nextOn
      // Its first day is today, which has begun: the next time is in a month.
      expect((await next(waits)) ?? '').toSatisfy((day: string) => day > addDays(TODAY, 26) && day < addDays(TODAY, 32))
      await rekko.sql('update template set next_on = $1', [addDays(TODAY, -3)])
      const { db, pool } = openDatabase(rekko.appUrl, 2)
      const tasks = takeTasks()
      try {
        await repeatAll(db, moment())
        await repeatEach(db, tasks)
        await repeatAll(db, moment())
        await repeatEach(db, tasks)
        expect((await mine()).map((r) => [r.title, r.state]).sort()).toEqual([
          ['Lamps again', 'draft'],
          ['Nothing again', 'draft'],
          ['Seals again', 'draft'],
        ])
        const toSend = tasks
          .filter((t) => t.name === 'send-repeated')
          .map((t) => (t.data as TaskData['send-repeated']).requisitionId)
        expect(toSend).toHaveLength(2)
        for (const id of [...toSend, ...toSend]) await sendByItself(db, id, 'rhythm', moment())
      } finally {
        await pool.end()
      }
      expect((await mine()).map((r) => [r.title, r.state]).sort()).toEqual([
        ['Lamps again', 'draft'],
        ['Nothing again', 'draft'],
        ['Seals again', 'approved'],
      ])
      expect(await next(unsound)).toBe(await next(sends))
      const notices = (
        await who(owen).call<{ notices: { sentence: string }[] }>('GET', '/api/notices')
      ).body.notices.map((n) => n.sentence)
      expect(notices).toContain('Waits again was raised again by its rhythm and waits for your look.')
      expect(notices.find((n) => n.startsWith('Nothing again was raised'))).toContain(
        'could not be sent: Say why it is needed',
      )
      const [raised] = await rekko.sql<{ need_by: string; why: string }>(
        "select need_by::text, why from document join requisition using (id) where title = 'Seals again'",
      )
      expect((raised?.need_by ?? '') > TODAY).toBe(true)
    },
  )

  test('the rhythm of somebody who left ends, and raises nothing more', async () => {
    const { id } = (
      await make(
        { name: 'Of somebody gone', rhythm: { every: 'week', startsOn: TODAY, sendsItself: false, neededAfter: 5 } },
        rosa,
      )
    ).body
    await rekko.sql('update template set next_on = $1 where id = $2', [TODAY, id])
    await rekko.sql("update person set left_on = $1 where name = 'Rosa Castell'", [addDays(TODAY, -1)])
    const { db, pool } = openDatabase(rekko.appUrl, 2)
    const tasks = takeTasks()
    try {
      await repeatAll(db, moment())
      await repeatEach(db, tasks)
    } finally {
      await pool.end()
    }
    expect(await rekko.sql('select repeats, next_on from template where id = $1', [id])).toEqual([
      { repeats: null, next_on: null },
    ])
    expect(
      await rekko.sql("select 1 from document d join person p on p.id = d.owner_id where p.name = 'Rosa Castell'"),
    ).toEqual([])
  })
})
