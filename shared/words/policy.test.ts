import { expect, test } from 'vitest'
import { money } from '#core/base/money'
import type { Condition, Policy, PolicyStep, Rule } from '#core/approval/policy'
import { sayEnding, sayRule } from './policy'
import { waysOf } from './ways'

const ways = waysOf('en-GB')
const plain = (id: string) => id
const names = { person: plain, department: plain, category: plain, account: plain, kind: plain, field: plain }
const said = (conditions: Condition[], steps: Omit<PolicyStep, 'rank'>[], sparesManagers = false) => {
  const rule: Rule = { id: 'r', name: '', conditions, sparesManagers, steps: steps.map((s) => ({ ...s, rank: 1 })) }
  return sayRule(rule, names, ways)
}
const chain = (until: 'covered' | 'top') => ({ who: { by: 'chain', until }, mustCover: false }) as const
const all = { who: { by: 'group', name: 'the trustees', mode: 'all', members: [] }, mustCover: true } as const

// A rule says what it does, whatever it is called.
test.each([
  [said([], [chain('top')]), 'Every request goes up the chain of managers, to the top.'],
  [
    said([{ on: 'own field', fieldId: 'Urgency', values: ['today', 'tomorrow'] }], [chain('top')]),
    'Requests whose Urgency is today or tomorrow go up the chain of managers, to the top.',
  ],
  [
    said([{ on: 'amount', from: money('300.00 EUR') }], [chain('covered')]),
    'Requests from 300.00 go up the chain of managers, to the first whose limit covers it.',
  ],
  [
    said(
      [
        { on: 'amount', from: money('5.00 EUR'), below: money('9.00 EUR') },
        { on: 'department', ids: ['Shop', 'Yard'], branch: true },
      ],
      [all, { who: { by: 'person', personId: 'Cy' }, mustCover: false }],
    ),
    'Requests from 5.00 and below 9.00 of Shop or Yard, or what is part of it, go to all of the trustees, whoever’s ' +
      'limit covers it and to Cy.',
  ],
  [
    said([{ on: 'over budget', is: false }], [], true),
    'Requests inside every budget spare the managers where the own limit of whoever raises covers it.',
  ],
  [said([{ on: 'kind', kinds: ['travel'] }], []), 'Requests for travel add nobody.'],
])('%s', (sentence, expected) => {
  expect(sentence).toBe(expected)
})

test('what becomes of what no rule fits', () => {
  const policy = (ending: Policy['ending'], fallbackId: string | null): Policy => ({
    ...{ id: 'p', rules: [], ending, fallbackId, ownLimitDays: null },
  })
  expect(
    [policy('fallback', 'Cy'), policy('fallback', null), policy('passes', 'Cy'), policy('passes', null)].map((p) =>
      sayEnding(p, names),
    ),
  ).toEqual([
    'What no rule fits goes to Cy.',
    'What no rule fits is held, since nobody decides in the end.',
    'What no rule fits passes, and nobody is asked; ' +
      'where a step comes to nobody, or no rule fits an order, Cy decides.',
    'What no rule fits passes, and nobody is asked.',
  ])
})
