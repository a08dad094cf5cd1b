import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { money } from '#core/base/money'
import type { PeopleFacts, Person } from '#core/people/person'
import type { Condition, Policy, PolicyStep, Rule, Subject } from './policy'
import { addReplayed, CHANGED_HOW, NOTHING_REPLAYED, replayPolicy, type ReplayFacts } from './policy-replay'
import { makeRoute } from './route'

const euro = (amount: string) => money(`${amount} EUR`)
const person = (id: string, managerId: string | null, own: string | null, deciding: string | null): Person => ({
  ...{ id, name: id, managerId, departmentId: 'd', orderingLimit: null, leftOn: null },
  ownLimit: own === null ? null : euro(own),
  decidingLimit: deciding === null ? null : euro(deciding),
})
const people: PeopleFacts = {
  people: new Map(
    [
      person('owen', 'ines', '400', null),
      person('ines', 'tomas', null, '2000'),
      person('tomas', 'maggie', null, '15000'),
      person('maggie', null, null, '25000'),
    ].map((p) => [p.id, p]),
  ),
  absences: [],
  today: '2026-11-27',
}
const chain: PolicyStep = { rank: 10, who: { by: 'chain', until: 'covered' }, mustCover: false }
const rule = (id: string, more: Partial<Rule> = {}): Rule => ({
  ...{ id, name: '', conditions: [], steps: [], sparesManagers: false },
  ...more,
})
const policy = (rules: readonly Rule[], more: Partial<Policy> = {}): Policy => ({
  ...{ id: 'p', ending: 'passes', fallbackId: 'maggie', ownLimitDays: null },
  rules,
  ...more,
})
const subject = (amount: string, more: Partial<Subject> = {}): Subject => ({
  ...{ document: 'requisition', kind: 'goods', amount: euro(amount), together: euro(amount), ownerId: 'owen' },
  ...{ raisedById: 'owen', ownedBy: [], departmentId: 'd', branch: ['d'], overBudget: false },
  codings: [{ budgetLineId: 'l', account: '1', category: null, supplier: 'known', currency: 'EUR', holderId: 'tomas' }],
  ...more,
})
const AS_IT_IS = policy([rule('chain', { steps: [chain] })])
const facts = (draft: Policy, more: Partial<ReplayFacts> = {}): ReplayFacts => ({
  ...{ now: AS_IT_IS, draft, people, hours: { ines: 4, tomas: 10 }, usualHours: 6 },
  ...more,
})
const past = (...amounts: string[]) => amounts.map((a, i) => ({ id: `${i}`, subject: subject(a) }))

describe('past requests under a draft', () => {
  // Worked out by hand: 299.99, 300 and 1,999 end at Ines, 2,000.01 goes on to Tomas.
  const draft = policy([rule('chain', { conditions: [{ on: 'amount', from: euro('300') }], steps: [chain] })])
  const { replayed, changed } = replayPolicy(past('299.99', '300', '1999', '2000.01'), facts(draft))
  test('decisions, who gets them, what passes at once, and how long it waits', () => {
    expect(replayed).toEqual({
      requests: 4,
      decisions: { now: 5, draft: 4 },
      atOnce: { now: 0, draft: 1 },
      held: { now: 0, draft: 0 },
      asked: { ines: { now: 4, draft: 3 }, tomas: { now: 1, draft: 1 } },
      changed: { ...NOTHING_REPLAYED.changed, 'passes at once': 1 },
      hours: { now: 26, draft: 22 },
    })
    expect(changed).toEqual([{ id: '0', how: 'passes at once' }])
  })
  test('a step that any one may decide is one decision, and waits for the quickest', () => {
    const group: PolicyStep = {
      ...{ rank: 20, mustCover: false },
      who: { by: 'group', name: 'g', mode: 'any', members: ['ines', 'tomas', 'maggie'] },
    }
    const one = replayPolicy(past('100'), facts(policy([rule('g', { steps: [group] })]))).replayed
    expect([one.decisions.draft, one.hours.draft, Object.keys(one.asked).length]).toEqual([1, 4, 3])
  })
  test('what is held is held, and waits for nobody', () => {
    const nobody = policy([], { ending: 'fallback', fallbackId: null })
    const { replayed: r, changed: c } = replayPolicy(past('100'), facts(nobody))
    expect([r.held, r.hours.draft, c]).toEqual([{ now: 0, draft: 1 }, 0, [{ id: '0', how: 'is held' }]])
  })
  test('the same policy changes nothing', () => {
    expect(replayPolicy(past('1', '400', '30000'), facts(AS_IT_IS)).changed).toEqual([])
  })
})

const EDGES = [
  '0',
  '299.99',
  '300',
  '300.01',
  '400',
  '400.01',
  '1999.99',
  '2000',
  '2000.01',
  '15000',
  '15000.01',
  '99999',
]
const anyRule = fc
  .record({
    from: fc.option(fc.constantFrom(...EDGES), { nil: undefined }),
    over: fc.option(fc.boolean(), { nil: undefined }),
    spares: fc.boolean(),
    until: fc.constantFrom('covered' as const, 'top' as const),
    holders: fc.boolean(),
    of: fc.constantFrom<Condition[]>(
      [],
      [{ on: 'account', codes: ['1'] }],
      [{ on: 'project', codes: ['J1'] }],
      [{ on: 'category', ids: ['salt'] }],
      [{ on: 'department', ids: ['top'], branch: true }],
      [{ on: 'department', ids: ['d'], branch: false }],
      [{ on: 'supplier', sorts: ['proposed'] }],
      [{ on: 'owner', ids: ['ines'] }],
      [{ on: 'currency', codes: ['GBP'] }],
      [{ on: 'agreement', is: true }],
      [{ on: 'agreement', is: false }],
      [{ on: 'kind', kinds: ['service'] }],
    ),
  })
  .map(({ from, over, spares, until, holders, of }, i = 0): Rule =>
    rule(`${from}${over}${spares}${until}${holders}${i}`, {
      conditions: [
        ...of,
        ...(from === undefined ? [] : [{ on: 'amount', from: euro(from) } as const]),
        ...(over === undefined ? [] : [{ on: 'over budget', is: over } as const]),
      ],
      steps: spares ? [] : [{ ...chain, who: holders ? { by: 'budget holders' } : { by: 'chain', until } }],
      sparesManagers: spares,
    }),
  )
const anyPolicy = fc
  .record({
    rules: fc.array(anyRule, { maxLength: 4 }),
    ending: fc.constantFrom('fallback' as const, 'passes' as const),
  })
  .map(({ rules, ending }) =>
    policy(
      rules.map((r, i) => ({ ...r, id: `${i}` })),
      { ending },
    ),
  )
const anyCoding = fc.record({
  budgetLineId: fc.constantFrom('l', 'm'),
  account: fc.constantFrom('1', '2'),
  project: fc.constantFrom(null, 'J1', 'J2'),
  category: fc.constantFrom(null, 'salt', 'pumps'),
  supplier: fc.constantFrom('known' as const, 'proposed' as const),
  currency: fc.constantFrom('EUR', 'GBP'),
  hasAgreement: fc.boolean(),
  holderId: fc.constantFrom(null, 'tomas', 'maggie'),
})
const anySubject = fc
  .record({
    amount: fc.constantFrom(...EDGES),
    together: fc.constantFrom(...EDGES),
    ownerId: fc.constantFrom('owen', 'ines', 'maggie'),
    overBudget: fc.boolean(),
    kind: fc.constantFrom('goods', 'service'),
    departmentId: fc.constantFrom('d', 'e'),
    codings: fc.array(anyCoding, { minLength: 1, maxLength: 3 }),
  })
  .map(({ amount, together, ...more }) =>
    subject(amount, {
      ...more,
      together: euro(together),
      raisedById: more.ownerId,
      branch: more.departmentId === 'd' ? ['d', 'top'] : ['e'],
    }),
  )

test('together they come to what each comes to by itself, and in parts', () => {
  fc.assert(
    fc.property(anyPolicy, anyPolicy, fc.array(anySubject, { maxLength: 30 }), (now, draft, subjects) => {
      const all = subjects.map((s, i) => ({ id: `${i}`, subject: s }))
      const f = facts(draft, { now })
      const whole = replayPolicy(all, f)
      const parts = all.map((one) => replayPolicy([one], f))
      expect(parts.map((p) => p.replayed).reduce(addReplayed, NOTHING_REPLAYED)).toEqual(whole.replayed)
      expect(parts.flatMap((p) => p.changed)).toEqual(whole.changed)
      // Against the routes themselves.
      const asked = (p: Policy, s: Subject) =>
        makeRoute(s, p, people).steps.flatMap((x) => x.seats.map((y) => y.actorId))
      expect(whole.replayed.asked.tomas?.draft ?? 0).toBe(
        subjects.filter((s) => asked(draft, s).includes('tomas')).length,
      )
      expect(CHANGED_HOW.reduce((n, how) => n + whole.replayed.changed[how], 0)).toBe(whole.changed.length)
    }),
    { numRuns: 300 },
  )
})
