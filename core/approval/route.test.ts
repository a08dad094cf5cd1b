import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { money } from '#core/base/money'
import { makeRoute, type Route } from '#core/approval/route'
import { nextAfter, progressOf } from '#core/approval/progress'
import type { Approved } from '#core/approval/standing'
import {
  holds,
  isFor,
  RULE_DOCUMENTS,
  type Condition,
  type Policy,
  type PolicyStep,
  type Rule,
  type Subject,
} from '#core/approval/policy'
import { rulesThatMayFit } from '#core/approval/rule-index'
import type { Absence, PeopleFacts, Person } from '#core/people/person'

const TODAY = '2026-11-25'
const limit = (amount: string | null) => (amount === null ? null : money(`${amount} EUR`))
const person = (id: string, managerId: string | null, deciding: string | null, more: Partial<Person> = {}): Person => ({
  id,
  name: id,
  managerId,
  departmentId: 'd',
  ownLimit: null,
  decidingLimit: limit(deciding),
  orderingLimit: null,
  leftOn: null,
  ...more,
})
const CAST = [
  person('owen', 'ines', null, { ownLimit: money('400.00 EUR') }),
  person('ines', 'tomas', '2000.00'),
  person('tomas', 'maggie', '15000.00'),
  person('maggie', null, '25000.00'),
  person('harriet', null, null),
  person('kaveh', 'maggie', '5000.00'),
  person('a', null, '900000.00'),
  person('b', null, '900000.00'),
  person('c', null, '900000.00'),
]
const facts = (change: Partial<Record<string, Partial<Person>>> = {}, absences: Absence[] = []): PeopleFacts => ({
  people: new Map(CAST.map((p) => [p.id, { ...p, ...change[p.id] }])),
  absences,
  today: TODAY,
})
const away = (personId: string, substituteId: string | null, from = TODAY, until = TODAY): Absence => ({
  personId,
  from,
  until,
  substituteId,
})
const OF_A_LINE = { supplier: 'known', currency: 'EUR' } as const
const subject = (amount: string, more: Partial<Subject> = {}): Subject => ({
  document: 'requisition',
  kind: 'goods',
  amount: money(`${amount} EUR`),
  together: money(`${amount} EUR`),
  ownerId: 'owen',
  raisedById: 'owen',
  ownedBy: [],
  departmentId: 'd',
  branch: ['d', 'top'],
  codings: [],
  overBudget: false,
  ...more,
})
const CHAIN: PolicyStep = { rank: 10, who: { by: 'chain', until: 'covered' }, mustCover: false }
const policy = (rules: Partial<Policy['rules'][number]>[], more: Partial<Policy> = {}): Policy => ({
  id: 'p',
  ending: 'fallback',
  fallbackId: 'harriet',
  ownLimitDays: null,
  rules: rules.map((r, i) => ({ id: `r${i}`, name: '', conditions: [], steps: [], sparesManagers: false, ...r })),
  ...more,
})
const OWN = { sparesManagers: true, conditions: [{ on: 'over budget' as const, is: false }] }
const gave = (actorId: string, forId: string | null = null) => ({ actorId, forId })
const actors = (r: Route) =>
  r.steps.map((s) => s.seats.map((x) => (x.forId === null ? x.actorId : `${x.actorId} for ${x.forId}`)).join('+'))

// Check values: common practice, no source.
describe('the chain of managers and limits', () => {
  test('a requester with a limit of 400 passes 180 at once, and 1,250 goes to the manager', () => {
    const p = policy([OWN, { steps: [CHAIN] }])
    expect(makeRoute(subject('180.00'), p, facts())).toMatchObject({ steps: [], held: null })
    expect(actors(makeRoute(subject('1250.00'), p, facts()))).toEqual(['ines'])
    expect(actors(makeRoute(subject('400.00'), p, facts()))).toEqual([])
    expect(actors(makeRoute(subject('400.01'), p, facts()))).toEqual(['ines'])
  })
  test('with "from 300 the manager; all else passes", 299.99 passes and 300.00 goes to the manager', () => {
    const p = policy([{ conditions: [{ on: 'amount', from: money('300.00 EUR') }], steps: [CHAIN] }], {
      ending: 'passes',
    })
    expect(actors(makeRoute(subject('299.99'), p, facts()))).toEqual([])
    expect(actors(makeRoute(subject('300.00'), p, facts()))).toEqual(['ines'])
  })
  test('with limits 2,000 and 15,000, 2,000.00 stops at the first and 2,000.01 reaches the second', () => {
    expect(actors(makeRoute(subject('2000.00'), policy([{ steps: [CHAIN] }]), facts()))).toEqual(['ines'])
    expect(actors(makeRoute(subject('2000.01'), policy([{ steps: [CHAIN] }]), facts()))).toEqual(['ines', 'tomas'])
  })
  test('a chain in which nobody covers asks its levels and then the fallback', () => {
    expect(actors(makeRoute(subject('90000.00'), policy([{ steps: [CHAIN] }]), facts()))).toEqual([
      'ines',
      'tomas',
      'maggie',
      'harriet',
    ])
  })
  test('with a window, an own limit covers only what was asked of the same supplier together', () => {
    const p = policy([OWN, { steps: [CHAIN] }], { ownLimitDays: 7 })
    const held = (together: string) => makeRoute(subject('180.00', { together: money(`${together} EUR`) }), p, facts())
    expect(actors(held('400.00'))).toEqual([])
    expect(actors(held('400.01'))).toEqual(['ines'])
    expect(held('400.01').notes).toContainEqual({
      code: 'own-limit-together',
      limit: money('400.00 EUR'),
      together: money('400.01 EUR'),
      days: 7,
    })
    // What its own limit would not cover alone needs no such word.
    const alone = makeRoute(subject('500.00', { together: money('700.00 EUR') }), p, facts())
    expect(alone.notes.map((n) => n.code)).not.toContain('own-limit-together')
  })
  test('a requester’s own limit does not help with what somebody else raised, nor beyond the budget', () => {
    const p = policy([OWN, { steps: [CHAIN] }])
    expect(actors(makeRoute(subject('180.00', { raisedById: 'kaveh' }), p, facts()))).toEqual(['ines'])
    expect(actors(makeRoute(subject('180.00', { overBudget: true }), p, facts()))).toEqual(['ines'])
  })
  test('it spares the managers’ steps and no others', () => {
    const p = policy([
      OWN,
      { steps: [CHAIN, { rank: 20, who: { by: 'person', personId: 'kaveh' }, mustCover: false }] },
    ])
    expect(actors(makeRoute(subject('180.00'), p, facts()))).toEqual(['kaveh'])
  })
  test('to the top, every level is asked', () => {
    expect(
      actors(
        makeRoute(subject('1.00'), policy([{ steps: [{ ...CHAIN, who: { by: 'chain', until: 'top' } }] }]), facts()),
      ),
    ).toEqual(['ines', 'tomas', 'maggie'])
  })
  // The levels' limits are 2,000 and 15,000, and nobody stands above them.
  test('to the top, where nobody covers, all levels are asked and then the fallback; without one it is held', () => {
    const top = { steps: [{ ...CHAIN, who: { by: 'chain' as const, until: 'top' as const } }] }
    const two = facts({ tomas: { managerId: null } })
    expect(actors(makeRoute(subject('20000.00'), policy([top]), two))).toEqual(['ines', 'tomas', 'harriet'])
    expect(makeRoute(subject('20000.00'), policy([top], { fallbackId: null }), two)).toMatchObject({
      held: { code: 'no-fallback', because: 'nobody covers' },
    })
    expect(actors(makeRoute(subject('15000.00'), policy([top]), two))).toEqual(['ines', 'tomas'])
  })
  test('a circle in the reporting line ends', () => {
    expect(
      actors(makeRoute(subject('90000.00'), policy([{ steps: [CHAIN] }]), facts({ maggie: { managerId: 'ines' } }))),
    ).toEqual(['ines', 'tomas', 'maggie', 'harriet'])
  })
})

describe('who is absent, gone or barred', () => {
  const p = policy([{ steps: [CHAIN] }])
  test('a substitute acts, where limits count within the absent person’s', () => {
    expect(actors(makeRoute(subject('1800.00'), p, facts({}, [away('ines', 'kaveh')])))).toEqual(['kaveh for ines'])
    expect(actors(makeRoute(subject('2500.00'), p, facts({}, [away('ines', 'kaveh')])))).toEqual([
      'kaveh for ines',
      'tomas',
    ])
  })
  test('both days of an absence are inside it', () => {
    expect(actors(makeRoute(subject('5.00'), p, facts({}, [away('ines', 'kaveh', '2026-11-20', TODAY)])))).toEqual([
      'kaveh for ines',
    ])
    expect(
      actors(makeRoute(subject('5.00'), p, facts({}, [away('ines', 'kaveh', '2026-11-20', '2026-11-24')]))),
    ).toEqual(['ines'])
  })
  test('a substitute who is absent too hands on to theirs; a circle counts as nobody', () => {
    expect(actors(makeRoute(subject('5.00'), p, facts({}, [away('ines', 'kaveh'), away('kaveh', 'a')])))).toEqual([
      'a for ines',
    ])
    expect(actors(makeRoute(subject('5.00'), p, facts({}, [away('ines', 'kaveh'), away('kaveh', 'ines')])))).toEqual([
      'tomas',
    ])
  })
  test('absent without one, or gone: the chain goes on', () => {
    expect(actors(makeRoute(subject('5.00'), p, facts({}, [away('ines', null)])))).toEqual(['tomas'])
    expect(actors(makeRoute(subject('5.00'), p, facts({ ines: { leftOn: '2026-11-24' } })))).toEqual(['tomas'])
    expect(actors(makeRoute(subject('5.00'), p, facts({ ines: { leftOn: TODAY } })))).toEqual(['ines'])
  })
  test('any other step that stands empty goes to the fallback', () => {
    const named = policy([{ steps: [{ rank: 1, who: { by: 'person', personId: 'kaveh' }, mustCover: false }] }])
    expect(actors(makeRoute(subject('5.00'), named, facts({}, [away('kaveh', null)])))).toEqual(['harriet'])
  })
  test('nor what they owned at any time since it was last sent, in whatever step', () => {
    const passedOn = subject('5.00', { ownedBy: ['ines'] })
    expect(actors(makeRoute(passedOn, p, facts()))).toEqual(['tomas'])
    // Not as somebody's substitute either, nor by an approval that stands from before.
    expect(actors(makeRoute(passedOn, p, facts({}, [away('tomas', 'ines')])))).not.toContain('ines for tomas')
    expect(actors(makeRoute(passedOn, p, facts(), [gave('ines')]))).toEqual(['tomas'])
    expect(makeRoute(passedOn, p, facts()).notes).toContainEqual({ code: 'own-document', personId: 'ines' })
  })
  test('nobody decides what they raised or own, also not through their being a substitute', () => {
    expect(actors(makeRoute(subject('5.00', { raisedById: 'ines' }), p, facts()))).toEqual(['tomas'])
    expect(actors(makeRoute(subject('5.00'), p, facts({}, [away('ines', 'owen')])))).toEqual(['tomas'])
  })
  test('without a fallback, or with one who may not, the route is held and never approved', () => {
    const gone = facts({
      ines: { leftOn: '2026-01-01' },
      tomas: { leftOn: '2026-01-01' },
      maggie: { leftOn: '2026-01-01' },
    })
    const held = makeRoute(subject('5.00'), policy([{ steps: [CHAIN] }], { fallbackId: null }), gone)
    expect(held.held).toEqual({ code: 'no-fallback', because: 'step is empty' })
    expect(progressOf(held, []).state).toBe('held')
    expect(makeRoute(subject('5.00', { ownerId: 'harriet', raisedById: 'harriet' }), policy([]), facts()).held).toEqual(
      { code: 'fallback-barred', because: 'no rule fits' },
    )
    expect(makeRoute(subject('5.00'), policy([]), facts({}, [away('harriet', null)])).held).toEqual({
      code: 'fallback-away',
      because: 'no rule fits',
    })
  })
})

describe('steps side by side, and asking once', () => {
  const group = (mode: 'any' | 'all', members: string[], rank = 5): PolicyStep => ({
    rank,
    mustCover: false,
    who: { by: 'group', name: 'g', mode, members },
  })
  test('the same person is asked once, at their last place; they leave an earlier "any one" step', () => {
    const p = policy([{ steps: [group('any', ['tomas', 'kaveh'], 1), { ...CHAIN, rank: 2 }] }])
    expect(actors(makeRoute(subject('2500.00'), p, facts()))).toEqual(['kaveh', 'ines', 'tomas'])
    const alone = policy([{ steps: [group('any', ['tomas'], 1), { ...CHAIN, rank: 2 }] }])
    expect(actors(makeRoute(subject('2500.00'), alone, facts()))).toEqual(['ines', 'tomas'])
  })
  test('must cover leaves out whose limit does not cover', () => {
    const p = policy([{ steps: [{ ...group('any', ['ines', 'kaveh']), mustCover: true }] }])
    expect(actors(makeRoute(subject('2500.00'), p, facts()))).toEqual(['kaveh'])
    expect(actors(makeRoute(subject('5000.01'), p, facts()))).toEqual(['harriet'])
  })
  test('budget holders: one step each, side by side, all', () => {
    const p = policy([{ steps: [{ rank: 5, who: { by: 'budget holders' }, mustCover: false }] }])
    const codings = [
      ['x', 'tomas'],
      ['y', 'kaveh'],
      ['z', 'tomas'],
    ].map(([budgetLineId = '', holderId = '']) => ({
      ...OF_A_LINE,
      budgetLineId,
      holderId,
      account: '',
      category: null,
    }))
    const route = makeRoute(subject('5.00', { codings }), p, facts())
    expect(actors(route)).toEqual(['tomas', 'kaveh'])
    expect(progressOf(route, []).open.map((s) => s.actorId)).toEqual(['tomas', 'kaveh'])
    expect(progressOf(route, [gave('tomas')]).state).toBe('waiting')
    expect(nextAfter(route, [gave('tomas')], gave('kaveh')).state).toBe('approved')
  })
  test('any one decides for all; all means all', () => {
    const any = makeRoute(subject('5.00'), policy([{ steps: [group('any', ['a', 'b'])] }]), facts())
    expect(progressOf(any, [gave('b')]).state).toBe('approved')
    const all = makeRoute(subject('5.00'), policy([{ steps: [group('all', ['a', 'b', 'c'])] }]), facts())
    expect(progressOf(all, [gave('b'), gave('c')]).open.map((s) => s.actorId)).toEqual(['a'])
  })
  test('conditions: department or branch, category, account, kind; of codings any one', () => {
    const to = (conditions: Policy['rules'][number]['conditions']) =>
      policy([{ conditions, steps: [group('any', ['a'])] }], { ending: 'passes' })
    const codings = [
      { ...OF_A_LINE, budgetLineId: 'x', account: '610', category: 'c1', holderId: null },
      {
        supplier: 'proposed' as const,
        currency: 'DKK',
        budgetLineId: 'y',
        account: '612',
        category: null,
        holderId: null,
      },
    ]
    const fits = (conditions: Policy['rules'][number]['conditions']) =>
      actors(makeRoute(subject('5.00', { codings }), to(conditions), facts())).length === 1
    expect(fits([{ on: 'department', ids: ['top'], branch: true }])).toBe(true)
    expect(fits([{ on: 'department', ids: ['top'], branch: false }])).toBe(false)
    expect(fits([{ on: 'supplier', sorts: ['proposed'] }])).toBe(true)
    expect(fits([{ on: 'supplier', sorts: ['undecided'] }])).toBe(false)
    expect(fits([{ on: 'currency', codes: ['DKK'] }])).toBe(true)
    expect(fits([{ on: 'currency', codes: ['GBP'] }])).toBe(false)
    expect(
      fits([
        { on: 'account', codes: ['612'] },
        { on: 'category', ids: ['c1'] },
      ]),
    ).toBe(true)
    expect(fits([{ on: 'kind', kinds: ['travel'] }])).toBe(false)
    expect(fits([{ on: 'amount', below: money('5.00 EUR') }])).toBe(false)
  })
})

test(
  'property: whoever is here, nobody is asked twice, nobody decides their own, and it ends in people or is ' + 'held',
  () => {
    const ids = CAST.map((p) => p.id)
    const anyFacts = fc.record({
      amount: fc.integer({ min: 1, max: 4_000_000 }),
      awayIds: fc.subarray(ids),
      gone: fc.subarray(ids),
      owner: fc.constantFrom(...ids),
      raiser: fc.constantFrom(...ids),
      subs: fc.array(fc.constantFrom(...ids), { minLength: 9, maxLength: 9 }),
    })
    fc.assert(
      fc.property(anyFacts, ({ amount, awayIds, gone, owner, raiser, subs }) => {
        const f = facts(
          Object.fromEntries(gone.map((g) => [g, { leftOn: '2026-01-01' }])),
          awayIds.map((a, i) => away(a, subs[i] === a ? null : (subs[i] ?? null))),
        )
        const p = policy([
          OWN,
          {
            steps: [
              CHAIN,
              { rank: 10, who: { by: 'group', name: 'g', mode: 'all', members: ['a', 'kaveh'] }, mustCover: false },
            ],
          },
        ])
        const route = makeRoute(subject((amount / 100).toFixed(2), { ownerId: owner, raisedById: raiser }), p, f)
        const asked = route.steps.flatMap((s) => s.seats.map((x) => x.actorId))
        expect(new Set(asked).size).toBe(asked.length)
        expect(asked).not.toContain(owner)
        expect(asked).not.toContain(raiser)
        for (const id of asked) expect(gone.includes(id) || awayIds.includes(id)).toBe(false)
        if (asked.length === 0) expect(route.held).not.toBeNull()
        let approvals: Approved[] = []
        for (let guard = 0; progressOf(route, approvals).state === 'waiting'; guard += 1) {
          expect(guard).toBeLessThan(50)
          approvals = [...approvals, ...progressOf(route, approvals).open.slice(0, 1)]
        }
        expect(progressOf(route, approvals).state).toBe(route.held === null ? 'approved' : 'held')
      }),
      { numRuns: 300 },
    )
  },
)

describe('orders', () => {
  // Owen orders up to 1,000, Ines up to 2,000, Tomas up to 20,000; what each may decide on requests plays no part.
  const orders = facts({
    owen: { orderingLimit: limit('1000') },
    ines: { orderingLimit: limit('2000'), decidingLimit: limit('1') },
    tomas: { orderingLimit: limit('20000'), decidingLimit: null },
  })
  const forOrders = (documents?: 'orders' | 'both'): Policy => ({
    id: 'p',
    rules: [
      {
        id: 'r',
        name: '',
        ...(documents === undefined ? {} : { documents }),
        conditions: [],
        steps: [CHAIN],
        sparesManagers: false,
      },
    ],
    ending: 'passes',
    fallbackId: 'maggie',
    ownLimitDays: null,
  })
  const asked = (route: Route) => route.steps.map((s) => s.seats.map((x) => x.actorId).join('+'))
  const order = (amount: string, more: Partial<Subject> = {}) => subject(amount, { document: 'order', ...more })

  test('climb by ordering limits, whose highest amount is included', () => {
    expect(asked(makeRoute(order('2000.00'), forOrders('orders'), orders))).toEqual(['ines'])
    expect(asked(makeRoute(order('2000.01'), forOrders('both'), orders))).toEqual(['ines', 'tomas'])
    expect(asked(makeRoute(order('20000.01'), forOrders('orders'), orders))).toEqual(['ines', 'tomas', 'maggie'])
  })
  test('that no rule is for never pass, whatever becomes of requests: whoever decides in the end is asked', () => {
    const route = makeRoute(order('1.00'), forOrders(), orders)
    expect([asked(route), route.steps[0]?.seats[0]?.why]).toEqual([
      ['maggie'],
      { code: 'fallback', because: 'no rule fits' },
    ])
    expect(asked(makeRoute(subject('1.00'), forOrders('orders'), orders))).toEqual([])
  })
  test('are not spared by what their buyers may ask for themselves', () => {
    const sparing = {
      ...forOrders('both'),
      rules: forOrders('both').rules.map((r) => ({ ...r, sparesManagers: true })),
    }
    expect(asked(makeRoute(subject('300.00'), sparing, orders))).toEqual([])
    expect(asked(makeRoute(order('300.00'), sparing, orders))).toEqual(['ines'])
  })
  test('are not decided by those whose need alone they serve', () => {
    expect(asked(makeRoute(order('1500.00', { ownedBy: ['ines'] }), forOrders('orders'), orders))).toEqual(['tomas'])
  })
})

// Rules are found by what they name: the same ones as when each is looked at.
test('property: of many rules those are found that fit, and no others', () => {
  const ids = fc.uniqueArray(fc.constantFrom('a', 'b', 'c'), { minLength: 1 })
  const condition: fc.Arbitrary<Condition> = fc.oneof(
    fc.record({ on: fc.constant('department' as const), ids, branch: fc.boolean() }),
    fc.record({ on: fc.constantFrom('category' as const, 'owner' as const), ids }),
    fc.record({ on: fc.constantFrom('account' as const, 'currency' as const, 'project' as const), codes: ids }),
    fc.record({ on: fc.constant('kind' as const), kinds: ids }),
    fc.record({ on: fc.constantFrom('over budget' as const, 'agreement' as const), is: fc.boolean() }),
    fc.integer({ min: 0, max: 3 }).map((n) => ({ on: 'amount' as const, from: money(`${n}.00 EUR`) })),
  )
  const rules = fc.array(
    fc.record({ conditions: fc.array(condition, { maxLength: 3 }), documents: fc.constantFrom(...RULE_DOCUMENTS) }),
    { maxLength: 12 },
  )
  const one = fc.constantFrom('a', 'b', 'c', 'd')
  const coding = fc.record({
    budgetLineId: one,
    account: one,
    category: fc.option(one, { nil: null }),
    currency: one,
    hasAgreement: fc.boolean(),
    project: fc.option(one, { nil: null }),
  })
  const about = fc.record({
    document: fc.constantFrom('requisition' as const, 'order' as const),
    kind: one,
    ownerId: one,
    departmentId: one,
    branch: fc.uniqueArray(one),
    overBudget: fc.boolean(),
    codings: fc.array(coding, { maxLength: 3 }),
  })
  fc.assert(
    fc.property(rules, about, fc.integer({ min: 0, max: 4 }), (some, of, amount) => {
      const s = subject(`${amount}.00`, {
        ...of,
        codings: of.codings.map((c) => ({ ...c, supplier: 'known' as const, holderId: null })),
      })
      const all = some.map((r, i): Rule => ({ id: `${i}`, name: '', steps: [], sparesManagers: false, ...r }))
      const policy: Policy = { id: 'p', rules: all, ending: 'passes', fallbackId: null, ownLimitDays: null }
      const fit = all.filter((r) => isFor(r, s.document) && r.conditions.every((c) => holds(c, s)))
      const { notes } = makeRoute(s, policy, facts())
      const unfit = notes.flatMap((n) => (n.code === 'rule-does-not-fit' ? [n.ruleId] : []))
      expect(unfit).toEqual(all.filter((r) => isFor(r, s.document) && !fit.includes(r)).map((r) => r.id))
      expect(rulesThatMayFit(policy, s)).toEqual(expect.arrayContaining(fit))
    }),
    { numRuns: 500 },
  )
})
