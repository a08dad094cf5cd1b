import { expect, test } from 'vitest'
import { setUpSteps, type SetUpCounts } from './set-up'

const ALL: SetUpCounts = {
  places: 1,
  departments: 2,
  accounts: 3,
  budgetLines: 4,
  people: 5,
  uninvited: 0,
  suppliers: 2,
  reached: 2,
  buyers: 1,
}
const open = (change: Partial<SetUpCounts>) =>
  setUpSteps({ ...ALL, ...change })
    .filter((s) => !s.done)
    .map((s) => `${s.before} ${s.code}`)

test('what is missing is told in the order in which it is needed', () => {
  expect(open({})).toEqual([])
  expect(open({ accounts: 0, suppliers: 0, reached: 0, uninvited: 3 })).toEqual([
    'request accounts',
    'order suppliers',
    'order reached',
    'use uninvited',
  ])
})

test('it takes two people, an address of every supplier, and a budget line of this year', () => {
  expect(open({ people: 1 })).toEqual(['request people'])
  expect(open({ reached: 1 })).toEqual(['order reached'])
  expect(open({ budgetLines: 0 })).toEqual(['request budgetLines'])
})
