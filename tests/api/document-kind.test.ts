import { randomUUID } from 'node:crypto'
import { sql } from 'drizzle-orm'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { money } from '#core/base/money'
import type { SentSubject } from '#core/approval/policy'
import { askQuestion } from '../../server/approval/ask-question'
import { decide } from '../../server/approval/decide'
import type { Decidable } from '../../server/approval/decidable'
import { openRoute } from '../../server/approval/open-route'
import { judgeAgain } from '../../server/approval/judge-again'
import { routeAgain } from '../../server/approval/route-again'
import { takeBack } from '../../server/approval/take-back'
import { listEvents } from '../../server/audit/reads'
import type { Context } from '../../server/context'
import { named, readOne } from '../../server/db/read'
import { approvalSeat } from '../../server/db/schema/approval'
import { document } from '../../server/db/schema/document'
import { attachFile } from '../../server/document/attach-file'
import type { DocumentHead } from '../../server/document/kind'
import { readAttachment } from '../../server/document/read-attachment'
import { listRemarks } from '../../server/document/reads'
import { insertDocument, setLeft, setState } from '../../server/document/store'
import { listWhoSee, maySee } from '../../server/document/visible'
import { findActor } from '../../server/people/actor-reads'
import { listNotices } from '../../server/people/notice-reads'
import { moment, personId } from '../setup/rekko'
import { openUseCases, type UseCases } from '../setup/use-cases'

/** A kind of document that nobody knew before: a memo, of one record. It has no rows besides its document. */
interface Memo extends DocumentHead {
  readonly kind: 'memo'
}
const m = named(document, 'm')
const s = named(approvalSeat, 's')
const find = (tx: Context['tx'], id: string, lock = false) =>
  readOne(
    tx,
    {
      id: m.id,
      kind: sql<'memo'>`${m.kind}`,
      number: m.number,
      title: m.title,
      ownerId: m.ownerId,
      ownedBy: m.ownedBy,
      state: m.state,
      version: m.version,
    },
    sql`from ${m} where ${m.id} = ${id} and ${m.kind} = 'memo' ${lock ? sql`for update` : sql``}`,
  )
const lock = async (ctx: Context, id: string): Promise<Memo> => {
  const memo = await find(ctx.tx, id, true)
  if (memo === null || !(await maySee(ctx, MEMO, id))) throw new Error('404')
  return memo
}
const MEMO: Decidable<Memo> = {
  name: 'memo',
  called: 'This memo',
  row: m,
  visibleTo: (actor) => sql`(${m.kind} = 'memo' and (${m.ownerId} = ${actor.id}
    or exists (select 1 from ${s} where ${s.documentId} = ${m.id} and ${s.actorId} = ${actor.id})))`,
  find,
  lock,
  lockFor: lock,
  path: (id) => `/memos/${id}`,
  changePath: (id) => `/memos/${id}`,
  whose: (memo) => ({ raisedById: memo.ownerId, departmentId: '' }),
  takeOutcome: (ctx, memo, outcome) =>
    setState(
      ctx.tx,
      memo.id,
      outcome.state === 'approved' ? 'approved' : outcome.state === 'stopped' ? outcome.by : 'in approval',
      ctx.now,
    ),
  wasActedOn: () => null,
  tellApproved: (told) => ({ told }),
}

let rekko: UseCases
beforeAll(async () => {
  rekko = await openUseCases()
})
afterAll(() => rekko.stop())
const as: UseCases['as'] = (who, work) => rekko.as(who, work)
const memo = (id: string) => find(rekko.db, id).then((m) => m ?? expect.fail('the memo is gone'))

async function raiseMemo(title: string): Promise<string> {
  const id = randomUUID()
  await as('Owen Marsh', async (ctx) => {
    await insertDocument(ctx.tx, { id, kind: 'memo', title, ownerId: ctx.actor.id, now: ctx.now })
    const sent: SentSubject = {
      document: 'requisition',
      kind: 'memo',
      amount: money('700.00 EUR'),
      codings: [],
      overBudget: false,
    }
    const judged = await judgeAgain(ctx, MEMO, (await find(ctx.tx, id)) ?? expect.fail('no memo'), { sent })
    const about = { id, kind: 'memo', number: null, title }
    await openRoute(ctx, about, { round: 1, keepsEarlier: false, ...judged })
    await setLeft(ctx.tx, id, { number: `M-${id.slice(0, 8)}`, state: 'in approval', now: ctx.now })
  })
  return id
}

test('a new kind is decided, taken back, asked about and routed again by one record', async () => {
  const id = await raiseMemo('A new bench for the quay')
  await as('Ines Adeyemi', (ctx) => askQuestion(ctx, MEMO, id, 'Of wood?', null))
  expect((await listRemarks(rekko.db, id)).map((r) => [r.kind, r.text])).toEqual([['question', 'Of wood?']])
  const first = await as('Ines Adeyemi', async (ctx) => decide(ctx, MEMO, id, (await memo(id)).version, 'approve', ''))
  expect(first.state).toBe('approved')
  await as('Ines Adeyemi', (ctx) => takeBack(ctx, MEMO, id, first.decisionId))
  expect((await memo(id)).state).toBe('in approval')
  await as('Harriet Voss', async (ctx) => expect(await routeAgain(ctx, MEMO, await memo(id))).toBe(false))
  await as('Ines Adeyemi', async (ctx) =>
    decide(ctx, MEMO, id, (await memo(id)).version, 'sendBack', 'Of stone, please.'),
  )
  expect((await memo(id)).state).toBe('sent back')
  expect((await listEvents(rekko.db, id)).map((e) => e.type)).toEqual([
    'sent back',
    'decision taken back',
    'approved',
    'asked',
  ])
  const told = (await listNotices(rekko.db, personId('Owen Marsh'))).filter((n) => n.aboutId === id)
  expect(told.map((n) => n.told.code)).toEqual(['decided', 'asked'])
})

test('its files follow it, its visibility is one rule, what is sealed is its owner’s until the moment', async () => {
  const id = await raiseMemo('A plan of the quay')
  const pdf = Buffer.from('%PDF-1.4\n1 0 obj<</Type/Catalog>>endobj\ntrailer<</Root 1 0 R>>\n%%EOF')
  const upload = { bytes: pdf, name: 'plan.pdf', kind: 'drawing', forSupplier: false } as const
  const kept = await as('Owen Marsh', (ctx) => attachFile(ctx, MEMO, id, upload))
  expect((await as('Ines Adeyemi', (ctx) => readAttachment(ctx, MEMO, id, kept.id))).name).toBe('plan.pdf')
  await expect(as('Sorrel Quist', (ctx) => readAttachment(ctx, MEMO, id, kept.id))).rejects.toThrow('does not exist')
  const actors = await as('Owen Marsh', async ({ tx, now }) => {
    const found = []
    for (const who of ['Owen Marsh', 'Ines Adeyemi', 'Sorrel Quist']) {
      const actor = await findActor(tx, personId(who), now)
      if (actor) found.push(actor)
    }
    return found
  })
  const sees = async (now: Date) => [...(await listWhoSee({ tx: rekko.db, now }, MEMO, id, actors))].sort()
  const [owen, ines] = [personId('Owen Marsh'), personId('Ines Adeyemi')]
  expect(await sees(moment())).toEqual([owen, ines].sort())
  const opening = new Date(moment().getTime() + 3_600_000)
  await rekko.db.execute(sql`update document set sealed_until = ${opening.toISOString()} where id = ${id}`)
  expect(await sees(moment())).toEqual([owen])
  expect(await sees(opening)).toEqual([owen, ines].sort())
})
