import { expect, test } from 'vitest'
import type { PolicyForm } from '#core/approval/policy-form'
import type { Values } from '#core/lists/list'
import { authorityOn, type WorldThen } from './authority'

const person = (name: string, more: Values = {}): [string, Values] => [
  name,
  {
    ...{ email: `${name}@x.example`, name, jobTitle: '', department: '41', manager: '', roles: '' },
    ...{ decidingLimit: '', orderingLimit: '', leftOn: '' },
    ...more,
  },
]
const rule = (name: string, who: PolicyForm['rules'][number]['steps'][number]['who']) => ({
  ...{ id: name, name, conditions: [], sparesManagers: false },
  steps: [{ rank: 1, who, mustCover: false }],
})
const WORLD: WorldThen = {
  ...{ day: '2026-05-04', fiscalYear: 2026, absences: [] },
  people: new Map([
    person('ines', { decidingLimit: '2000' }),
    person('owen', { manager: 'ines@x.example' }),
    person('tomas', { decidingLimit: '15000', roles: 'finance' }),
    person('leonie', { roles: 'buyer', orderingLimit: '3000' }),
    person('nobody', { decidingLimit: '9' }),
    person('gone', { manager: 'owen@x.example', leftOn: '2026-05-03' }),
  ]),
  limits: new Map(),
  roles: new Map(),
  departments: new Map([['d41', { costCentre: '41', name: 'Water' }]]),
  budgetLines: new Map([['b', { year: '2026', holder: 'tomas@x.example', name: 'Waste', retired: 'no' }]]),
  policy: {
    fallbackId: 'tomas',
    rules: [
      rule('all climb', { by: 'chain', until: 'covered' }),
      rule('over budget', { by: 'budget holders' }),
      rule('office', { by: 'role', role: 'finance', departmentId: null, holders: [] }),
    ],
  },
}
const on = (more: Partial<WorldThen> = {}) => authorityOn({ ...WORLD, ...more })
const reasons = (name: string, more: Partial<WorldThen> = {}) => on(more).find((a) => a.name === name)?.reasons

test('whoever a rule reaches, with each reason; whom nothing reaches, or who left the day before, is not', () => {
  expect(on().map((a) => [a.name, a.department, a.decidingLimit, a.orderingLimit])).toEqual([
    ['ines', 'Water', '2000', ''],
    ['leonie', 'Water', '', '3000'],
    ['tomas', 'Water', '15000', ''],
  ])
  expect(reasons('ines')).toEqual([{ code: 'manages', people: 1 }])
  expect(reasons('tomas')).toEqual([
    { code: 'by role', rules: ['office'] },
    { code: 'holds budgets', lines: ['Waste'] },
    { code: 'in the end' },
  ])
  // The day before somebody has left, their manager manages them.
  expect(reasons('owen', { day: '2026-05-03' })).toEqual([{ code: 'manages', people: 1 }])
})
test('limits of some days go before what is always theirs, the last begun first, both days included', () => {
  const limit = (amount: string, from: string, until: string): Values => ({
    ...{ person: 'ines@x.example', limit: 'deciding', amount, from, until },
  })
  const limits = new Map([
    ['1', limit('5000', '2026-05-01', '2026-05-04')],
    ['2', limit('6000', '2026-05-02', '2026-05-03')],
    ['3', limit('7000', '2026-05-05', '')],
  ])
  const at = (day: string) => on({ day, limits }).find((a) => a.name === 'ines')?.decidingLimit
  expect(['2026-04-30', '2026-05-01', '2026-05-02', '2026-05-04', '2026-05-05', '2027-01-01'].map(at)).toEqual([
    ...['2000', '5000', '6000', '5000', '7000', '7000'],
  ])
})
test('roles for a department hold in its steps alone, on their days; whoever stands in does so by name', () => {
  const roles = new Map([
    ['r', { person: 'owen@x.example', role: 'finance', department: '41', place: '', from: '', until: '2026-05-04' }],
  ])
  const inWater = {
    fallbackId: null,
    rules: [rule('water', { by: 'role', role: 'finance', departmentId: 'd41', holders: [] })],
  }
  expect(reasons('owen', { roles, policy: inWater })).toEqual([{ code: 'by role', rules: ['water'] }])
  expect(reasons('owen', { roles, policy: inWater, day: '2026-05-05' })).toBeUndefined()
  const absences = [
    { personId: 'ines', from: '2026-05-04', until: '2026-05-04', substituteId: 'nobody', byDepartment: [] },
  ]
  expect(reasons('nobody', { absences })).toEqual([{ code: 'stands in', for: ['ines'] }])
  expect(on({ absences }).find((a) => a.name === 'ines')?.away).toEqual({ substitutes: ['nobody'] })
  expect(reasons('nobody', { absences, day: '2026-05-05' })).toBeUndefined()
})
