import { randomUUID } from 'node:crypto'
import pg from 'pg'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { addDays } from '#core/base/day'
import {
  budgetLineId,
  decide,
  disagreements,
  fiscalYear,
  freeLine,
  raise,
  soundDraft,
  startRekko,
  TODAY,
  versionOf,
  type Client,
  type Rekko,
} from '../setup/rekko'

let rekko: Rekko
let owen: Client, ines: Client, tomas: Client, leonie: Client, harriet: Client
beforeAll(async () => {
  rekko = await startRekko()
  ;[owen, ines, tomas, leonie, harriet] = (await Promise.all(
    ['Owen Marsh', 'Ines Adeyemi', 'Tomas Brandt', 'Leonie Farrow', 'Harriet Voss'].map((n) => rekko.as(n)),
  )) as [Client, Client, Client, Client, Client]
})
afterAll(async () => {
  await rekko.stop()
})

describe('at the same moment', () => {
  test('the same absence twelve times is one, and the same tax number twenty times one supplier', async () => {
    const days = { from: addDays(TODAY, 40), until: addDays(TODAY, 44), substituteId: null }
    const away = await Promise.all(
      Array.from({ length: 12 }, () =>
        harriet.call<{ detail: string }>('POST', '/api/absences', { body: { ...days } }),
      ),
    )
    expect(away.filter((r) => r.status === 200)).toHaveLength(1)
    expect(away.filter((r) => r.status !== 200).every((r) => /overlap/.test(r.body.detail))).toBe(true)
    expect(await rekko.sql('select 1 from absence where from_day = $1', [days.from])).toHaveLength(1)

    const named = await Promise.all(
      Array.from({ length: 20 }, (_, i) =>
        owen.call('POST', '/api/suppliers', {
          body: {
            name: `Quay Lamps ${i}`,
            town: 'Quay',
            taxNumber: i % 2 === 0 ? 'HL 99-1' : 'hl991',
            currency: 'EUR',
          },
          key: randomUUID(),
        }),
      ),
    )
    expect(named.filter((r) => r.status === 200)).toHaveLength(1)
    expect(named.filter((r) => r.status !== 200).every((r) => r.status === 409)).toBe(true)
  })

  test(
    '50 requisitions against one budget line that refuses, with room for exactly 17: 17 pass, 33 are refused ' +
      'with a reason',
    async () => {
      const line = budgetLineId('Water Systems', '612', fiscalYear())
      await rekko.sql(
        'update budget_balance set budgeted = case when period = 1 then 1709.99 else 0 end where budget_line_id = $1',
        [line],
      )
      const drafts = await Promise.all(
        Array.from({ length: 50 }, async () => {
          const id = randomUUID()
          const draft = soundDraft([], {
            lines: [{ ...freeLine('100'), codings: [{ budgetLineId: line, value: null }] }],
          })
          expect((await owen.call('POST', '/api/requisitions', { body: { id, draft } })).status).toBe(200)
          return id
        }),
      )
      const replies = await Promise.all(
        drafts.map((id) =>
          owen.call<{ number?: string; detail?: string; type?: string }>('POST', `/api/requisitions/${id}/send`, {
            version: 1,
          }),
        ),
      )
      const passed = replies.filter((r) => r.status === 200)
      const refused = replies.filter((r) => r.status === 409)
      expect([passed.length, refused.length]).toEqual([17, 33])
      for (const r of refused)
        expect(r.body).toMatchObject({
          type: 'urn:rekko:missing',
          detail: 'Salt and water has EUR 9.99 left, and does not allow more: this is EUR 90.01 too much.',
        })
      const [balance] = await rekko.sql<{ reserved: string; left: string }>(
        'select sum(reserved)::numeric(20,2)::text as reserved, sum(budgeted - reserved)::numeric(20,2)::text as ' +
          'left from budget_balance where budget_line_id = $1',
        [line],
      )
      expect(balance).toEqual({ reserved: '1700.00', left: '9.99' })
      const [ledger] = await rekko.sql<{ sum: string; n: number }>(
        'select sum(amount)::numeric(20,2)::text as sum, count(*)::int as n ' +
          'from budget_entry where budget_line_id = $1',
        [line],
      )
      expect(ledger).toEqual({ sum: '1700.00', n: 17 })
      expect(await disagreements(rekko)).toEqual([])
      // Their numbers have no gap, and those refused took none.
      const numbers = passed.map((r) => Number(r.body.number?.split('-')[2])).sort((a, b) => a - b)
      expect(numbers).toEqual(Array.from({ length: 17 }, (_, i) => (numbers[0] ?? 0) + i))
      const [kept] = await rekko.sql<{ n: number }>(
        "select count(*)::int as n from document where kind = 'requisition' and state = 'draft' and number is null",
      )
      expect(kept?.n).toBe(33)
    },
  )

  test('numbers stay without gaps when some of those that send roll back', async () => {
    const sound = soundDraft([], { lines: [freeLine('1')] })
    const broken = soundDraft([], { lines: [freeLine('1')], why: '' })
    const all = await Promise.all(
      Array.from({ length: 24 }, (_, i) =>
        raise(owen, i % 3 === 0 ? { ...broken, lines: [freeLine('1')] } : { ...sound, lines: [freeLine('1')] }),
      ),
    )
    expect(all.filter((r) => r.status === 200)).toHaveLength(16)
    const rows = await rekko.sql<{ n: number }>(
      "select split_part(number, '-', 3)::int as n from document where kind = 'requisition' and number is not " +
        'null order by 1',
    )
    expect(rows.map((r) => r.n)).toEqual(rows.map((_, i) => i + 1))
  })

  test('one requisition sent ten times over is sent once', async () => {
    const id = randomUUID()
    await owen.call('POST', '/api/requisitions', { body: { id, draft: soundDraft([], { lines: [freeLine('10')] }) } })
    const replies = await Promise.all(
      Array.from({ length: 10 }, () => owen.call('POST', `/api/requisitions/${id}/send`, { version: 1 })),
    )
    expect(replies.filter((r) => r.status === 200)).toHaveLength(1)
    for (const r of replies.filter((x) => x.status !== 200)) expect([409, 412]).toContain(r.status)
    expect(await rekko.sql('select 1 from budget_entry where document_id = $1', [id])).toHaveLength(1)
  })

  test('two who decide side by side: one decision counts, the other hears what happened', async () => {
    const sent = await raise(owen, soundDraft([{ part: 'CP-IMP-140', quantity: 2 }]))
    const version = await versionOf(rekko, sent.id)
    const replies = await Promise.all(
      [ines, ines].map((who, i) =>
        who.call<{ detail: string }>('POST', `/api/documents/${sent.id}/decisions`, {
          body: { outcome: i === 0 ? 'approve' : 'reject', comment: 'x' },
          version,
        }),
      ),
    )
    expect(replies.map((r) => r.status).sort()).toEqual([200, 412])
    expect(replies.find((r) => r.status === 412)?.body.detail).toMatch(/Ines Adeyemi: (approved|rejected)/)
  })

  test('a line lies on one tray only, and a tray is issued once, whoever presses when', async () => {
    const sent = await raise(owen, soundDraft([], { lines: [freeLine('50')] }))
    const [line] = await rekko.sql<{ id: string }>('select id from requisition_line where requisition_id = $1', [
      sent.id,
    ])
    const laid = await Promise.all(
      [leonie, harriet, leonie, harriet].map((who) =>
        who.call<{ orderId: string }>('POST', '/api/trays', {
          body: { orderId: null, supplierId: null, parts: [{ lineId: line?.id, quantity: null }] },
        }),
      ),
    )
    expect(laid.map((r) => r.status).sort()).toEqual([200, 409, 409, 409])
    const at = laid.findIndex((r) => r.status === 200)
    const winner = at % 2 === 0 ? leonie : harriet
    const issued = await Promise.all(
      Array.from({ length: 6 }, () =>
        winner.call('POST', `/api/orders/${laid[at]?.body.orderId ?? ''}/issue`, { version: 1 }),
      ),
    )
    expect(issued.filter((r) => r.status === 200)).toHaveLength(1)
    expect(await rekko.sql("select 1 from document where kind = 'order' and number is not null")).toHaveLength(1)
    expect(await disagreements(rekko)).toEqual([])
  })
})

describe('lost updates', () => {
  test('a change without a version is 428, an old one 412 and nothing is overwritten', async () => {
    const id = randomUUID()
    const draft = soundDraft([], { lines: [freeLine('10')] })
    await owen.call('POST', '/api/requisitions', { body: { id, draft } })
    expect((await owen.call('PUT', `/api/requisitions/${id}`, { body: { draft } })).status).toBe(428)
    expect(
      (await owen.call('PUT', `/api/requisitions/${id}`, { body: { draft: { ...draft, why: 'first' } }, version: 1 }))
        .status,
    ).toBe(200)
    expect(
      await owen.call('PUT', `/api/requisitions/${id}`, { body: { draft: { ...draft, why: 'second' } }, version: 1 }),
    ).toMatchObject({ status: 412, body: { type: 'urn:rekko:stale' } })
    expect((await owen.call<{ draft: { why: string } }>('GET', `/api/requisitions/${id}`)).body.draft.why).toBe('first')
    expect(
      (await owen.call('PUT', `/api/requisitions/${id}`, { body: { draft }, headers: { 'if-match': 'abc' } })).status,
    ).toBe(400)
  })
})

describe('the same Idempotency-Key', () => {
  test('sends once and answers alike; used for something else it is refused', async () => {
    const id = randomUUID()
    await owen.call('POST', '/api/requisitions', { body: { id, draft: soundDraft([], { lines: [freeLine('10')] }) } })
    const key = `once-${id}`
    const replies = await Promise.all(
      [1, 2, 3].map(() => owen.call<{ number: string }>('POST', `/api/requisitions/${id}/send`, { version: 1, key })),
    )
    expect(replies.map((r) => r.status)).toEqual([200, 200, 200])
    expect(new Set(replies.map((r) => r.body.number)).size).toBe(1)
    const other = randomUUID()
    await owen.call('POST', '/api/requisitions', {
      body: { id: other, draft: soundDraft([], { lines: [freeLine('10')] }) },
    })
    expect((await owen.call('POST', `/api/requisitions/${other}/send`, { version: 1, key })).status).toBe(422)
    expect((await owen.call('POST', `/api/requisitions/${other}/send`, { version: 1, key: 'short' })).status).toBe(400)
  })
})

describe('the database defends itself', () => {
  test('the application’s role may neither change nor delete an entry or an event', async () => {
    const client = new pg.Client({ connectionString: rekko.appUrl })
    await client.connect()
    for (const statement of [
      'update budget_entry set amount = 0',
      'delete from budget_entry',
      'truncate budget_entry',
      "update event set type = 'x'",
      'delete from event',
      'drop table event',
      'alter table event add column x int',
      'create table mine (x int)',
    ]) {
      await expect(client.query(statement)).rejects.toThrow(/permission denied|must be owner/)
    }
    await client.end()
  })

  test('a balance cannot reserve less than nothing', async () => {
    await expect(rekko.sql('update budget_balance set reserved = -1')).rejects.toThrow(/budget_balance_reserved/)
  })

  test('a decision is an event with who, when, what before and after', async () => {
    const sent = await raise(owen, soundDraft([{ part: 'CP-UV-80A', quantity: 8 }]))
    await decide(rekko, ines, sent.id, 'approve')
    await decide(rekko, tomas, sent.id, 'reject', 'Not now.')
    const events = await rekko.sql(
      'select type, before, after, p.name from event e join person p on p.id = e.actor_id where subject_id = $1 ' +
        'order by seq',
      [sent.id],
    )
    expect(events).toMatchObject([
      {
        type: 'sent',
        name: 'Owen Marsh',
        before: { state: 'draft' },
        after: { state: 'in approval', amount: { amount: '1184.00', currency: 'EUR' } },
      },
      { type: 'approved', name: 'Ines Adeyemi' },
      { type: 'rejected', name: 'Tomas Brandt', after: { comment: 'Not now.' } },
    ])
  })
})
