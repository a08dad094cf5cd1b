import { describe, expect, test } from 'vitest'
import { presence, whoActs, type Absence, type PeopleFacts, type Person } from './person'
import { isInPart, may, partOf, type RoleGrant } from './rights'

const person = (id: string, change: Partial<Person> = {}): Person => ({
  id,
  name: id,
  managerId: null,
  departmentId: 'ws',
  ownLimit: null,
  decidingLimit: null,
  orderingLimit: null,
  leftOn: null,
  ...change,
})
const away = (personId: string, substituteId: string | null, from = '2026-11-24', until = '2026-11-26'): Absence => ({
  personId,
  substituteId,
  from,
  until,
})
const facts = (
  absences: readonly Absence[],
  people = ['a', 'b', 'c'].map((id) => person(id)),
  today = '2026-11-25',
): PeopleFacts => ({ people: new Map(people.map((p) => [p.id, p])), absences, today })

describe('where somebody stands on a day', () => {
  test.each([
    ['2026-11-23', { at: 'here' }],
    ['2026-11-24', { at: 'away', substituteId: 'b' }],
    ['2026-11-26', { at: 'away', substituteId: 'b' }],
    ['2026-11-27', { at: 'here' }],
  ])('away from the 24th to the 26th, both days inside: on %s', (today, expected) => {
    expect(presence(person('a'), [away('a', 'b')], today)).toEqual(expected)
  })
  test('gone from the day after the last day, whatever absence stands', () => {
    const leaver = person('a', { leftOn: '2026-11-25' })
    expect([presence(leaver, [], '2026-11-25'), presence(leaver, [away('a', 'b')], '2026-11-26')]).toEqual([
      { at: 'here' },
      { at: 'gone' },
    ])
  })
})

describe('who acts for somebody', () => {
  const acts = (absences: readonly Absence[], people?: Person[], branch: readonly string[] = []) =>
    whoActs('a', facts(absences, people), branch)?.id ?? null
  test('they themselves while they are here', () => {
    expect(acts([])).toBe('a')
  })
  test('their substitute, who hands on to theirs', () => {
    expect([acts([away('a', 'b')]), acts([away('a', 'b'), away('b', 'c')])]).toEqual(['b', 'c'])
  })
  test('somebody else for what comes from a department, by the nearest that is named; also on the way on', () => {
    const both = {
      ...away('a', 'b'),
      byDepartment: [
        { departmentId: 'above', substituteId: 'c' },
        { departmentId: 'water', substituteId: 'd' },
      ],
    }
    const people = ['a', 'b', 'c', 'd'].map((id) => person(id))
    expect(acts([both], people, ['water', 'above', 'top'])).toBe('d')
    expect(acts([both], people, ['animals', 'above', 'top'])).toBe('c')
    expect(acts([both], people, ['other', 'top'])).toBe('b')
    expect(acts([both], people)).toBe('b')
    expect(acts([{ ...both, substituteId: null }], people, ['other'])).toBeNull()
    expect(acts([away('a', 'x'), { ...both, personId: 'x' }], [...people, person('x')], ['water'])).toBe('d')
    expect(
      acts([{ ...both, byDepartment: [{ departmentId: 'water', substituteId: 'a' }] }], people, ['water']),
    ).toBeNull()
  })
  test('nobody without a substitute, in a circle, or by somebody who has left or is not known', () => {
    expect(acts([away('a', null)])).toBeNull()
    expect(acts([away('a', 'b'), away('b', 'a')])).toBeNull()
    expect(acts([away('a', 'b')], [person('a'), person('b', { leftOn: '2026-11-24' })])).toBeNull()
    expect(acts([away('a', 'stranger')])).toBeNull()
  })
  test('an absence that is over, or not yet begun, changes nothing', () => {
    expect([
      acts([away('a', 'b', '2026-11-01', '2026-11-24')]),
      acts([away('a', 'b', '2026-11-26', '2026-11-30')]),
    ]).toEqual(['a', 'a'])
  })
})

describe('rights by role', () => {
  const grant = (role: RoleGrant['role'], departmentId: string | null = null): RoleGrant => ({ role, departmentId })
  const at = (role: RoleGrant['role'], placeId: string): RoleGrant => ({ role, departmentId: null, placeId })
  test('add up, and what everybody may do needs no role', () => {
    expect([
      may([], 'raise'),
      may([], 'order'),
      may([grant('finance'), grant('buyer', 'ws')], 'order'),
      may([grant('auditor')], 'approve suppliers'),
    ]).toEqual([true, false, true, false])
  })
  test('hold for the departments they were given for, or everywhere', () => {
    expect(partOf([], 'raise')).toBe('all')
    expect(partOf([grant('buyer', 'ws'), grant('buyer', 'ac'), grant('finance')], 'order')).toEqual({
      departments: ['ws', 'ac'],
      places: [],
    })
    expect(partOf([grant('buyer', 'ws'), grant('buyer')], 'order')).toBe('all')
    expect(partOf([grant('finance')], 'order')).toEqual({ departments: [], places: [] })
  })
  test('for a place alone: what goes there, of whatever department', () => {
    const part = partOf([at('buyer', 'yard'), grant('buyer', 'ws'), at('receiver', 'hall')], 'order')
    const of = (departmentId: string | null, shipToId: string | null) => isInPart(part, { departmentId, shipToId })
    expect([of('ws', 'hall'), of('ac', 'yard'), of('ac', 'hall'), of(null, null)]).toEqual([true, true, false, false])
    expect(
      isInPart(partOf([at('buyer', 'yard'), grant('buyer')], 'order'), { departmentId: 'ac', shipToId: null }),
    ).toBe(true)
  })
})
