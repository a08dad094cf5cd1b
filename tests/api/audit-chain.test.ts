import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import pg from 'pg'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import type { ChainHead } from '#core/audit/integrity'
import { checkChain, layChain } from '../../server/audit/lay-chain'
import { appendEvent } from '../../server/audit/store'
import { checkIntegrity, readLooks } from '../../server/look-back/check-integrity'
import { exportEvents, readEvents } from '../../server/look-back/read-events'
import { createDraft } from '../../server/requisition/save-draft'
import { sendRequisition } from '../../server/requisition/send-requisition'
import { verifyDatabase, verifyFile, verifyFromCommand } from '../../scripts/setup/verify-audit'
import { freeLine, personId, soundDraft, until } from '../setup/rekko'
import { openUseCases, type UseCases } from '../setup/use-cases'

let rekko: UseCases
const folder = mkdtempSync('/var/tmp/rekko-chain-')
beforeAll(async () => {
  rekko = await openUseCases()
  for (const line of ['600', '40']) {
    const id = crypto.randomUUID()
    await rekko.as('Owen Marsh', (ctx) => createDraft(ctx, id, soundDraft([], { lines: [freeLine(line)] })))
    await rekko.as('Owen Marsh', (ctx) => sendRequisition(ctx, id, 1))
  }
  for (let i = 0; i < 30; i += 1) await happens(`event ${i}`)
})
afterAll(async () => {
  rmSync(folder, { recursive: true, force: true })
  await rekko.stop()
})

const SUBJECT = '00000000-0000-4000-8000-00000000000a'
const happens = (type: string) =>
  rekko.as('Owen Marsh', (ctx) =>
    appendEvent(ctx, { type, subjectKind: 'session', subjectId: SUBJECT, after: { amount: '12.50', at: [1, null] } }),
  )
const check = (kept: ChainHead | null = null) => rekko.as('Signe Aalto', (ctx) => checkChain(ctx.tx, kept))
/** Lays until so many are linked: transactions of other tests, which share the database's server, hold it up. */
const linked = (links: number) =>
  until(`${links} links`, async () => {
    await layChain(rekko.db)
    return (await check()).links >= links
  })
/** Does what nobody may do, past all that forbids it, and undoes it after a look. */
async function tampered<T>(how: string, look: () => Promise<T>): Promise<T> {
  await rekko.arrange('create table kept_event as select * from event')
  await rekko.arrange('create table kept_link as select * from event_link')
  await rekko.arrange('set session_replication_role = replica')
  try {
    await rekko.arrange(how)
    return await look()
  } finally {
    await rekko.arrange('delete from event_link; delete from event')
    await rekko.arrange('insert into event select * from kept_event; insert into event_link select * from kept_link')
    await rekko.arrange('drop table kept_event, kept_link; set session_replication_role = origin')
  }
}

test('events are linked once, in their order, whoever lays; nothing of an open transaction is passed by', async () => {
  await Promise.all([layChain(rekko.db), layChain(rekko.db)])
  await linked(32)
  const whole = await check()
  expect(whole).toMatchObject({ links: 32, fault: null })
  // One that began earlier is still open: what it writes comes before what is written now.
  const slow = new pg.Client({ connectionString: rekko.url })
  await slow.connect()
  await slow.query('begin')
  await slow.query(
    `insert into event (at, type, subject_kind, subject_id) values (now(), 'slow', 'session', '${SUBJECT}')`,
  )
  await happens('quick')
  await layChain(rekko.db)
  expect((await check()).links).toBe(whole.links)
  await slow.query('commit')
  await slow.end()
  await linked(whole.links + 2)
  expect(await check()).toMatchObject({ links: whole.links + 2, fault: null })
  await layChain(rekko.db)
  expect((await check()).links).toBe(whole.links + 2)
})

describe('what was tampered with is found', () => {
  const aged = `update event_link set laid_at = now() - interval '3 hours' where number < 25`
  test.each([
    ['a changed event', `update event set after = '{"amount":"12.51"}' where type = 'event 7'`, 'event-changed'],
    ['a moved moment', `update event set at = at + interval '1 second' where type = 'event 7'`, 'event-changed'],
    [
      'another actor',
      `update event set actor_id = '${personId('Ines Adeyemi')}' where type = 'event 7'`,
      'event-changed',
    ],
    ['a removed event', `delete from event where type = 'event 7'`, 'event-gone'],
    [
      'an event removed with its link',
      `delete from event_link where seq = (select seq from event where type = 'event 7');
       delete from event where type = 'event 7'`,
      'link-missing',
    ],
    [
      'two events in each other’s place',
      `update event_link l set seq = -o.seq from event_link o where l.number + o.number = 21 and l.number in (10, 11);
       update event_link set seq = -seq where seq < 0`,
      'event-changed',
    ],
    [
      'an event that was put among old ones',
      `${aged}; insert into event (seq, at, type, subject_kind, subject_id)
         values ((select min(seq) - 1 from event), now(), 'forged', 'session', '${SUBJECT}')`,
      'event-unlinked',
    ],
  ])('%s', async (_, how, code) => {
    expect(await tampered(how, async () => (await check()).fault)).toMatchObject({ code })
    expect((await check()).fault).toBeNull()
  })

  test('an event put among old ones that was linked afterwards', async () => {
    const forged = `${aged}; insert into event (seq, at, type, subject_kind, subject_id)
      values ((select min(seq) - 1 from event), now(), 'forged', 'session', '${SUBJECT}')`
    const fault = await tampered(forged, async () => {
      await linked(35)
      return (await check()).fault
    })
    expect(fault).toMatchObject({ code: 'event-late' })
  })

  test('an end that was cut off, by the head that was kept outside alone', async () => {
    const { head } = await check()
    if (head === null) throw new Error('there is a head')
    const cut = `delete from event where seq in (select seq from event_link where number > ${head.number - 3});
      delete from event_link where number > ${head.number - 3}`
    const [blind, seen] = await tampered(cut, async () => [(await check()).fault, (await check(head)).fault])
    expect([blind, seen]).toEqual([null, { code: 'head-differs', number: head.number, seq: null }])
    expect((await check({ number: head.number - 1, hash: 'f'.repeat(64) })).fault).toMatchObject({
      code: 'head-differs',
    })
  })
})

test('links are laid for good: the application may neither change nor take away one', async () => {
  for (const statement of ['update event_link set hash = hash', 'delete from event_link', 'truncate event_link'])
    await expect(rekko.as('Owen Marsh', ({ tx }) => tx.execute(statement))).rejects.toMatchObject({
      cause: { code: '42501' },
    })
})

test('an export is verified without the database, and tells what was changed in it', async () => {
  const path = join(folder, 'chain.jsonl')
  const whole = await verifyDatabase(rekko.url, null, path)
  expect(await verifyFile(path, whole.head)).toEqual(whole)
  const lines = readFileSync(path, 'utf8').split('\n')
  const at = lines.findIndex((l) => l.includes('"event 7"'))
  const write = (changed: string[]) => {
    const other = join(folder, 'changed.jsonl')
    writeFileSync(other, changed.join('\n'))
    return verifyFile(other, whole.head)
  }
  const edited = (l: string) => l.replace('"12.50"', '"12.51"')
  expect((await write(lines.map((l, i) => (i === at ? edited(l) : l)))).fault).toMatchObject({ code: 'event-changed' })
  expect((await write(lines.filter((_, i) => i !== at))).fault).toMatchObject({ code: 'link-missing' })
  expect((await write(lines.slice(0, -3))).fault).toMatchObject({ code: 'head-differs' })
  await expect(write(['no event'])).rejects.toThrow(/Line 1 is no event/)
  expect(await verifyFromCommand([path])).toBe(0)
  expect(await verifyFromCommand([path, '--head', `1:${'0'.repeat(64)}`])).toBe(1)
  expect(await verifyFromCommand([join(folder, 'none')])).toBe(2)
})

test('who looks back finds events by person, document, kind and day, a page at a time, with their proof', async () => {
  const look = (q: Parameters<typeof readEvents>[1]) => rekko.as('Signe Aalto', (ctx) => readEvents(ctx, q))
  const all = await look({})
  expect(all.events[0]?.seq).toBeGreaterThan(all.events.at(-1)?.seq ?? Infinity)
  expect((await look({ type: 'event 7' })).events).toMatchObject([{ actor: 'Owen Marsh', after: { amount: '12.50' } }])
  expect((await look({ personId: personId('Ines Adeyemi') })).events).toEqual([])
  const sent = (await look({ type: 'sent', kind: 'requisition' })).events
  expect(sent).toHaveLength(2)
  const number = sent[0]?.about.toLowerCase() ?? ''
  expect((await look({ number })).events.every((e) => e.about.toLowerCase() === number)).toBe(true)
  expect((await look({ from: '2199-01-01' })).events).toEqual([])
  expect((await look({ before: all.events[4]?.seq })).events[0]?.seq).toBe(all.events[5]?.seq)
  const lines = (await rekko.as('Signe Aalto', (ctx) => exportEvents(ctx, { kind: 'session' }))).toString().trim()
  for (const line of lines.split('\n')) expect(JSON.parse(line)).toMatchObject({ previous: expect.any(String) })
})

test('a look finds nothing of what is sound, and everything that is not, and is kept', async () => {
  const look = () => rekko.as('Harriet Voss', (ctx) => checkIntegrity(ctx, ctx.actor.id))
  expect(await look()).toMatchObject({ broken: [], chain: { fault: null } })
  await rekko.arrange('update budget_balance set reserved = reserved + 0.01 where reserved > 0')
  await rekko.arrange(`update number_series set last = last + 1 where series = 'R'`)
  await rekko.arrange(`update approval_route set amount = amount + 1 where state = 'open'`)
  expect((await look()).broken.map((b) => b.check)).toEqual(['balances', 'stages', 'numbers'])
  await rekko.arrange('update budget_balance set reserved = reserved - 0.01 where reserved > 0')
  await rekko.arrange(`update number_series set last = last - 1 where series = 'R'`)
  await rekko.arrange(`update approval_route set amount = amount - 1 where state = 'open'`)
  expect((await look()).broken).toEqual([])
  const looks = await rekko.as('Signe Aalto', readLooks)
  expect(looks.map((l) => l.found.broken.length).sort()).toEqual([0, 0, 3])
  expect(looks[0]?.by).toBe('Harriet Voss')
})
