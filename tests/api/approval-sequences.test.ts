import { randomUUID } from 'node:crypto'
import { eq } from 'drizzle-orm'
import fc from 'fast-check'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { addDays } from '#core/base/day'
import { fills, progressOf } from '#core/approval/progress'
import type { Seat } from '#core/approval/route'
import { dec } from '#core/base/decimal'
import { decide } from '../../server/approval/decide'
import { findRoute, listOpenActors, readDecisions } from '../../server/approval/reads'
import { routeAgain } from '../../server/approval/route-again'
import { takeBack } from '../../server/approval/take-back'
import { approvalRoute } from '../../server/db/schema/approval'
import { Problem } from '../../server/http/problem'
import { listAbsences } from '../../server/people/absence-reads'
import { endAway, setAway } from '../../server/people/set-away'
import { REQUISITION } from '../../server/requisition/kind'
import { findRequisition } from '../../server/requisition/reads'
import { handOver } from '../../server/requisition/hand-over'
import { createDraft, saveDraft } from '../../server/requisition/save-draft'
import { sendRequisition } from '../../server/requisition/send-requisition'
import { withdrawRequisition } from '../../server/requisition/withdraw-requisition'
import { freeLine, personId, soundDraft, TODAY } from '../setup/rekko'
import { openUseCases, type UseCases } from '../setup/use-cases'

// Sequences, not steps: whatever was done, in whatever order, an approval never counts for more than its giver saw.
let rekko: UseCases
beforeAll(async () => {
  rekko = await openUseCases()
  for (const [name, steps] of Object.entries(POLICIES)) {
    await rekko.arrange(
      `with p as (insert into approval_policy (number, name, in_force_at, ending)
       select 1 + max(number), $2, '2999-01-01', 'fallback' from approval_policy returning id),
     r as (insert into approval_rule (policy_id, position, name, conditions)
       select id, 0, 'all', '[]' from p returning id)
     insert into approval_step (rule_id, position, rank, who)
       select r.id, s.n, (s.s ->> 'rank')::int, s.s -> 'who'
       from r, jsonb_array_elements($1::jsonb) with ordinality s(s, n)`,
      [JSON.stringify(steps.map(([who, rank]) => ({ rank, who: { by: 'person', personId: personId(who) } }))), name],
    )
  }
  await putInForce('side by side')
})
/** Two who decide side by side and one after them; or one after the other, from the other end. */
const POLICIES = {
  'side by side': [
    ['Ines Adeyemi', 10],
    ['Tomas Brandt', 10],
    ['Marguerite Oduya', 20],
  ],
  'one by one': [
    ['Marguerite Oduya', 10],
    ['Tomas Brandt', 20],
    ['Ines Adeyemi', 30],
  ],
} as const
type PolicyName = keyof typeof POLICIES
const putInForce = (name: PolicyName) =>
  rekko.arrange(`update approval_policy set in_force_at = case when name = $1 then $2 else '2999-01-01' end::date`, [
    name,
    TODAY,
  ])
/** As if it were another year: today's is then not that in which something was sent. */
const beginYearIn = (month: number) => rekko.arrange('update organisation set fiscal_start_month = $1', [month])
afterAll(() => rekko.stop())

const DECIDERS = ['Ines Adeyemi', 'Tomas Brandt', 'Marguerite Oduya', 'Harriet Voss'] as const
/** Also people who decide may come to own it, and give it away again. */
const OWNERS = ['Owen Marsh', 'Rosa Castell', 'Ines Adeyemi', 'Tomas Brandt'] as const
const as: UseCases['as'] = (who, work) => rekko.as(who, work)
/** What is refused changes nothing; anything else that goes wrong is a fault. */
async function attempt(work: () => Promise<unknown>): Promise<void> {
  try {
    await work()
  } catch (error) {
    if (!(error instanceof Problem)) throw error
  }
}

type Step =
  | { readonly do: 'send'; readonly price: number }
  | { readonly do: 'approve' | 'sendBack' | 'take back' | 'away' | 'back'; readonly who: (typeof DECIDERS)[number] }
  | { readonly do: 'withdraw' | 'new year' | 'old year' }
  | { readonly do: 'leave' | 'return'; readonly who: (typeof DECIDERS)[number] }
  | { readonly do: 'policy'; readonly name: PolicyName }
  | { readonly do: 'hand over'; readonly to: (typeof OWNERS)[number] }
const who = fc.constantFrom(...DECIDERS)
const step: fc.Arbitrary<Step> = fc.oneof(
  { weight: 3, arbitrary: fc.record({ do: fc.constant('send' as const), price: fc.integer({ min: 1, max: 4 }) }) },
  { weight: 6, arbitrary: fc.record({ do: fc.constant('approve' as const), who }) },
  {
    weight: 3,
    arbitrary: fc.record({ do: fc.constantFrom('sendBack' as const, 'take back' as const, 'away' as const), who }),
  },
  { weight: 1, arbitrary: fc.record({ do: fc.constant('back' as const), who }) },
  { weight: 1, arbitrary: fc.constant({ do: 'withdraw' as const }) },
  { weight: 1, arbitrary: fc.record({ do: fc.constantFrom('new year' as const, 'old year' as const) }) },
  { weight: 2, arbitrary: fc.record({ do: fc.constantFrom('leave' as const, 'return' as const), who }) },
  {
    weight: 1,
    arbitrary: fc.record({ do: fc.constant('policy' as const), name: fc.constantFrom('side by side', 'one by one') }),
  },
  { weight: 1, arbitrary: fc.record({ do: fc.constant('hand over' as const), to: fc.constantFrom(...OWNERS) }) },
)

async function take(id: string, s: Step): Promise<void> {
  const kept = await findRequisition(rekko.db, id)
  if (kept === null) throw new Error('it is gone')
  const { version } = kept
  const owner = OWNERS.find((name) => personId(name) === kept.ownerId) ?? 'Owen Marsh'
  switch (s.do) {
    case 'send':
      await attempt(async () => {
        const draft = { ...kept.draft, lines: kept.draft.lines.map((l) => ({ ...l, unitPrice: `${s.price}00` })) }
        const saved = await as(owner, (ctx) => saveDraft(ctx, id, version, draft))
        await as(owner, (ctx) => sendRequisition(ctx, id, saved.version))
      })
      return
    case 'withdraw':
      await attempt(() => as(owner, (ctx) => withdrawRequisition(ctx, id, version)))
      return
    case 'approve':
    case 'sendBack':
      await attempt(() => as(s.who, (ctx) => decide(ctx, REQUISITION, id, version, s.do as 'approve', 'because')))
      return
    case 'take back': {
      const { decisions } = await readDecisions(rekko.db, id)
      const last = decisions.findLast((d) => d.actorId === personId(s.who))
      if (last !== undefined) await attempt(() => as(s.who, (ctx) => takeBack(ctx, REQUISITION, id, last.id)))
      return
    }
    case 'away':
      await attempt(() =>
        as(s.who, (ctx) =>
          setAway(ctx, {
            personId: personId(s.who),
            from: TODAY,
            until: TODAY,
            substituteId: s.who === 'Harriet Voss' ? null : personId('Harriet Voss'),
            note: '',
          }),
        ),
      )
      break
    case 'back':
      for (const a of await listAbsences(rekko.db, TODAY, personId(s.who)))
        await attempt(() => as(s.who, (ctx) => endAway(ctx, a.id, a.version)))
      break
    case 'hand over':
      await attempt(() => as(owner, (ctx) => handOver(ctx, id, version, personId(s.to))))
      break
    case 'leave':
    case 'return':
      await rekko.arrange('update person set left_on = $2 where id = $1', [
        personId(s.who),
        s.do === 'leave' ? addDays(TODAY, -1) : null,
      ])
      break
    case 'policy':
      await putInForce(s.name)
      break
    case 'new year':
    case 'old year':
      // No first month makes today lie in another year in December; then nothing changes.
      await beginYearIn(s.do === 'old year' ? 4 : Math.min(12, Number(TODAY.slice(5, 7)) + 1))
  }
  // What a task does after people changed.
  const now = await findRequisition(rekko.db, id)
  if (now !== null) await as('Owen Marsh', (ctx) => routeAgain(ctx, REQUISITION, now))
}

/** What holds at any moment of any sequence. */
async function check(id: string): Promise<void> {
  const kept = await findRequisition(rekko.db, id)
  const route = await findRoute(rekko.db, id)
  if (kept === null || route === null) return
  const { decisions, standing } = await readDecisions(rekko.db, id)
  const amounts = new Map(
    (
      await rekko.db
        .select({ id: approvalRoute.id, amount: approvalRoute.amount })
        .from(approvalRoute)
        .where(eq(approvalRoute.documentId, id))
    ).map((r) => [r.id, r.amount]),
  )
  for (const approval of standing) {
    const theirs = decisions.findLast((d) => d.actorId === approval.actorId && !d.takenBack)
    expect([kept.state, theirs?.outcome]).toEqual([kept.state, 'approved'])
    expect(dec(amounts.get(theirs?.routeId ?? '') ?? '0').gte(dec(route.amount))).toBe(true)
    // Nor did they ever own it since it was sent.
    expect([kept.ownerId, kept.raisedById, ...kept.ownedBy]).not.toContain(approval.actorId)
  }
  // Approved is what every seat of the route was approved for, and nobody is asked who approved already.
  const filled = (seat: Seat) => standing.some((a) => fills(seat, a))
  if (kept.state === 'approved') expect(route.route.steps.every((s) => s.seats.every(filled))).toBe(true)
  const asked = (await listOpenActors(rekko.db, id)).map((a) => a.id)
  for (const actorId of asked) expect(standing.map((a) => a.actorId)).not.toContain(actorId)
  if (kept.state !== 'in approval') return
  // Those are asked whom the core would ask; nobody only where nobody may decide, and then it is held.
  const model = progressOf(route.route, standing)
  expect([...asked].sort()).toEqual([...new Set(model.open.map((s) => s.actorId))].sort())
  expect(asked.length > 0).toBe(route.state === 'open')
  expect(route.state).toBe(model.state === 'held' ? 'held' : 'open')
}

test('under any sequence of sending, deciding, handing over, absence, leaving and a new policy or year', async () => {
  await fc.assert(
    fc.asyncProperty(fc.array(step, { minLength: 3, maxLength: 14 }), async (steps) => {
      const id = randomUUID()
      await as('Owen Marsh', (ctx) => createDraft(ctx, id, soundDraft([], { lines: [freeLine('100')] })))
      for (const s of [{ do: 'send', price: 2 } as const, ...steps]) {
        await take(id, s)
        await check(id)
      }
      for (const who of DECIDERS) {
        await take(id, { do: 'return', who })
        await take(id, { do: 'back', who })
      }
      await putInForce('side by side')
      await beginYearIn(4)
    }),
    { numRuns: process.env.REKKO_DEEP === '1' ? 400 : 25 },
  )
}, 600_000)
