import { describe, expect, test } from 'vitest'
import fc from 'fast-check'
import { money } from '#core/base/money'
import { SUPPLIER_SORTS, type Condition, type PolicyStep, type Rule } from './policy'
import {
  checkPolicyForm,
  holdersOfRole,
  mergePolicy,
  mayAnswerByMail,
  withSuccessor,
  policyChanges,
  policyOf,
  type PolicyFacts,
  type PolicyForm,
} from './policy-form'

const facts: PolicyFacts = {
  currency: 'EUR',
  known: {
    department: new Set(['water']),
    category: new Set(['salt']),
    account: new Set(['4000']),
    project: new Set(['J1']),
    kind: new Set(['goods']),
    person: new Set(['ines', 'tomas', 'gone']),
    currency: new Set(['EUR', 'DKK']),
    'own field': new Set(['f: urgent', 'f: in time']),
  },
  left: new Set(['gone']),
}
const step = (who: PolicyStep['who'], rank = 10): PolicyStep => ({ rank, who, mustCover: false })
const rule = (id: string, conditions: readonly Condition[] = [], steps: readonly PolicyStep[] = []): Rule => ({
  id,
  name: '',
  conditions,
  steps,
  sparesManagers: false,
})
const form = (change: Partial<PolicyForm> = {}): PolicyForm => ({
  name: 'a version',
  rules: [],
  ending: 'fallback',
  fallbackId: 'tomas',
  ownLimitDays: null,
  remindDays: null,
  escalateDays: null,
  maySkip: false,
  mayChange: 'nothing',
  orderTolerance: null,
  directOrders: { upTo: null },
  byMail: null,
  ...change,
})
const codes = (f: PolicyForm) => checkPolicyForm(f, facts).map((r) => r.code)
const ofCondition = (c: Condition) => codes(form({ rules: [rule('a', [c])] }))

describe('what may be put in force', () => {
  test('a stretch of amounts has something in it, in the base currency', () => {
    expect(ofCondition({ on: 'amount', from: money('10.00 EUR'), below: money('10.01 EUR') })).toEqual([])
    const ten = money('10.00 EUR')
    expect(ofCondition({ on: 'amount', from: ten, below: ten })).toEqual(['stretch-empty'])
    expect(ofCondition({ on: 'amount', from: money('-0.01 EUR') })).toEqual(['amount-below-nothing'])
    expect(ofCondition({ on: 'amount', from: money('10 JPY') })).toEqual(['amount-currency'])
    expect(ofCondition({ on: 'amount' })).toEqual(['condition-empty'])
  })

  test('it names what there is, and nobody who left', () => {
    expect(ofCondition({ on: 'department', ids: ['water'], branch: true })).toEqual([])
    expect(ofCondition({ on: 'department', ids: ['none'], branch: true })).toEqual(['unknown'])
    expect(ofCondition({ on: 'account', codes: [] })).toEqual(['condition-empty'])
    expect(ofCondition({ on: 'currency', codes: ['DKK'] })).toEqual([])
    expect(ofCondition({ on: 'currency', codes: ['XAU'] })).toEqual(['unknown'])
    expect(ofCondition({ on: 'supplier', sorts: [] })).toEqual(['condition-empty'])
    expect(ofCondition({ on: 'supplier', sorts: ['proposed'] })).toEqual([])
    expect(ofCondition({ on: 'supplier', sorts: [...SUPPLIER_SORTS] })).toEqual(['condition-idle'])
    expect(ofCondition({ on: 'owner', ids: ['ines', 'gone'] })).toEqual(['has-left'])
    expect(codes(form({ fallbackId: 'gone' }))).toEqual(['has-left'])
    const asks = (who: PolicyStep['who'], rank?: number) => codes(form({ rules: [rule('a', [], [step(who, rank)])] }))
    expect(asks({ by: 'person', personId: '' })).toEqual(['unknown'])
    expect(asks({ by: 'role', role: 'pirate', departmentId: null, holders: [] })).toEqual(['unknown'])
    expect(asks({ by: 'role', role: 'finance', departmentId: 'none', holders: [] })).toEqual(['unknown'])
    expect(asks({ by: 'group', name: ' ', mode: 'all', members: [] })).toEqual(['group-name-missing', 'group-empty'])
    expect(asks({ by: 'budget holders' }, 0)).toEqual(['rank-unreadable'])
    const over: Condition = { on: 'over budget', is: true }
    expect(codes(form({ rules: [rule('a', [over, over])] }))).toEqual(['condition-twice'])
  })

  test('somebody is reminded before their manager is asked', () => {
    expect(codes(form({ remindDays: 3, escalateDays: 5 }))).toEqual([])
    expect(codes(form({ remindDays: 5, escalateDays: 5 }))).toEqual(['escalates-first'])
    expect(codes(form({ escalateDays: 5 }))).toEqual([])
    expect(codes(form({ ownLimitDays: 0 }))).toEqual(['days-unreadable'])
    expect(codes(form({ name: ' ' }))).toEqual(['name-missing'])
  })
})

test('a role is held for the organisation, or for the department that the step names', () => {
  const grants = [
    { personId: 'all', role: 'buyer', departmentId: null },
    { personId: 'water', role: 'buyer', departmentId: 'water' },
    { personId: 'yard', role: 'buyer', departmentId: null, placeId: 'yard' },
    { personId: 'other', role: 'finance', departmentId: null },
  ] as const
  expect(holdersOfRole('buyer', null, grants)).toEqual(['all'])
  expect(holdersOfRole('buyer', 'water', grants)).toEqual(['all', 'water'])
  const asked = form({
    rules: [rule('a', [], [step({ by: 'role', role: 'buyer', departmentId: null, holders: ['stale'] })])],
  })
  expect(policyOf('p', asked, grants).rules[0]?.steps[0]?.who).toMatchObject({ holders: ['all'] })
})

describe('differences', () => {
  const [a, b, c] = [rule('a'), rule('b'), rule('c')]
  test('are told rule by rule; whoever holds a role is none', () => {
    const changed = { ...b, sparesManagers: true }
    const after = form({ rules: [c, changed], ending: 'passes', remindDays: 2 })
    expect(policyChanges(form({ rules: [a, b] }), after).map((x) => x.what)).toEqual([
      'rule added',
      'rule changed',
      'rule gone',
      'ending',
      'reminders',
    ])
    expect(policyChanges(form({ rules: [a, b] }), form({ rules: [b, a] })).map((x) => x.what)).toEqual(['rules moved'])
    const held = (holders: string[]) =>
      form({ rules: [rule('a', [], [step({ by: 'role', role: 'buyer', departmentId: null, holders })])] })
    expect(policyChanges(held([]), held(['ines']))).toEqual([])
  })

  test('what two wrote at once is joined, and nothing of either is lost but where both wrote the same', () => {
    const someForm = fc.record({
      name: fc.constantFrom('one', 'two', 'three'),
      ids: fc.shuffledSubarray(['a', 'b', 'c', 'd']),
      spares: fc.record({ a: fc.boolean(), b: fc.boolean(), c: fc.boolean(), d: fc.boolean() }),
      days: fc.constantFrom(null, 1, 7),
    })
    type Some = typeof someForm extends fc.Arbitrary<infer T> ? T : never
    const made = ({ name, ids, spares, days }: Some) =>
      form({
        name,
        ownLimitDays: days,
        rules: ids.map((id) => ({ ...rule(id), sparesManagers: spares[id as 'a'] })),
      })
    fc.assert(
      fc.property(someForm, someForm, someForm, (x, y, z) => {
        const [base, mine, theirs] = [made(x), made(y), made(z)]
        const joined = mergePolicy(base, mine, theirs)
        // Whoever changed nothing takes what the other wrote, whole.
        expect(mergePolicy(base, base, theirs)).toEqual(theirs)
        expect(joined.name).toBe(mine.name === base.name ? theirs.name : mine.name)
        for (const id of ['a', 'b', 'c', 'd']) {
          const [was, own, other, is] = [base, mine, theirs, joined].map((f) => f.rules.find((r) => r.id === id))
          const ownChanged = JSON.stringify(was) !== JSON.stringify(own)
          if (!ownChanged) expect(is).toEqual(other)
          else if (own !== undefined) expect(is).toEqual(own)
          else expect(is).toBeUndefined()
        }
      }),
    )
  })
})

test('somebody takes all places of somebody else, and stands once where both stood', () => {
  const group = (members: readonly string[]): PolicyStep =>
    step({ by: 'group', name: 'the trustees', mode: 'all', members })
  const before = form({
    fallbackId: 'mai',
    rules: [
      rule(
        'a',
        [{ on: 'owner', ids: ['mai', 'owen'] }],
        [step({ by: 'person', personId: 'mai' }), group(['mai', 'ines'])],
      ),
      rule('b', [], [step({ by: 'chain', until: 'top' })]),
    ],
  })
  expect(withSuccessor(before, 'mai', 'ines')).toEqual(
    form({
      fallbackId: 'ines',
      rules: [
        rule(
          'a',
          [{ on: 'owner', ids: ['ines', 'owen'] }],
          [step({ by: 'person', personId: 'ines' }), group(['ines'])],
        ),
        rule('b', [], [step({ by: 'chain', until: 'top' })]),
      ],
    }),
  )
  expect(withSuccessor(before, 'nobody', 'ines')).toEqual(before)
})

test('up to an amount holds it, and where no mail is answered none is', () => {
  const upTo = { byMail: { upTo: money('500.00 EUR') } }
  expect(['499.99', '500', '500.01'].map((a) => mayAnswerByMail(upTo, money(`${a} EUR`)))).toEqual([true, true, false])
  expect(mayAnswerByMail({ byMail: { upTo: null } }, money('1000000 EUR'))).toBe(true)
  expect(mayAnswerByMail({ byMail: null }, money('0.01 EUR'))).toBe(false)
  expect(codes(form({ byMail: { upTo: money('-1 EUR') } }))).toEqual(['amount-below-nothing'])
  expect(codes(form({ byMail: { upTo: money('10 JPY') } }))).toEqual(['amount-currency'])
})
