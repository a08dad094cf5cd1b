import { expect, test } from 'vitest'
import { moneyOf } from '#core/base/money'
import type { Person } from '#core/people/person'
import type { Subject } from './policy'
import { makeRoute } from './route'
import { startingRules, type StartingPolicy } from './starting'

const eur = (amount: string) => moneyOf(amount, 'EUR')
const person = (id: string, managerId: string | null, own: string | null, deciding: string | null): Person => ({
  id,
  name: id,
  managerId,
  departmentId: 'd',
  ownLimit: own === null ? null : eur(own),
  decidingLimit: deciding === null ? null : eur(deciding),
  orderingLimit: null,
  leftOn: null,
})
const PEOPLE = [
  person('bo', 'eva', '100', null),
  person('eva', 'asta', null, '1000'),
  person('asta', null, null, '9000'),
]
const asked = (policy: StartingPolicy, amount: string, overBudget = false) => {
  const subject: Subject = {
    document: 'requisition',
    kind: 'goods',
    amount: eur(amount),
    together: eur(amount),
    ownerId: 'bo',
    raisedById: 'bo',
    ownedBy: [],
    departmentId: 'd',
    branch: ['d'],
    codings: [
      { budgetLineId: 'b', account: '1', category: null, supplier: 'known', currency: 'EUR', holderId: 'asta' },
    ],
    overBudget,
  }
  const rules = startingRules(policy).map((r, i) => ({
    id: String(i),
    sparesManagers: false,
    ...r,
    steps: r.steps.map((s) => ({ mustCover: false, ...s })),
  }))
  const route = makeRoute(
    subject,
    { id: 'p', ending: 'fallback', fallbackId: 'asta', ownLimitDays: null, rules },
    { people: new Map(PEOPLE.map((p) => [p.id, p])), absences: [], today: '2026-11-27' },
  )
  return route.steps.map((s) => s.seats.map((x) => x.actorId).join('+'))
}

// Common practice, no source: a limit covers up to and including itself.
test.each([
  ['managers', '100', false, []],
  ['managers', '100.01', false, ['eva']],
  ['managers', '1000.01', false, ['eva', 'asta']],
  ['managers', '100', true, ['eva', 'asta']],
  ['managers and budget holders', '100', false, ['asta']],
  ['managers and budget holders', '500', false, ['eva', 'asta']],
  ['one approver', '0.01', false, ['asta']],
] as const)('%s, %s, over budget %s: %j', (policy, amount, over, expected) => {
  expect(asked(policy, amount, over)).toEqual(expected)
})
