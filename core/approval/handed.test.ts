import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { covers, money } from '#core/base/money'
import type { PeopleFacts, Person } from '#core/people/person'
import { HANDED_HOW, inHandsOf, type Handing } from './handed'
import type { Policy, PolicyStep, Subject } from './policy'
import { progressOf } from './progress'
import { makeRoute, type Route } from './route'
import type { Approved } from './standing'

// Common practice, no source: whoever passes a decision on has no part in it any more, and a limit stays one's own.
const person = (
  id: string,
  managerId: string | null,
  deciding: string | null,
  leftOn: string | null = null,
): Person => ({
  id,
  name: id,
  managerId,
  departmentId: 'd',
  ownLimit: null,
  decidingLimit: deciding === null ? null : money(`${deciding} EUR`),
  orderingLimit: null,
  leftOn,
})
const CAST = [
  person('owner', 'low', null),
  person('low', 'mid', '500.00'),
  person('mid', 'top', '5000.00'),
  person('top', null, '50000.00'),
  person('clerk', 'low', null),
  person('expert', 'mid', '900.00'),
  person('last', null, null),
  person('gone', null, '9000.00', '2026-01-01'),
]
const FACTS: PeopleFacts = { people: new Map(CAST.map((p) => [p.id, p])), absences: [], today: '2026-11-25' }
const subject = (amount: string): Subject => ({
  document: 'requisition',
  kind: 'goods',
  amount: money(`${amount} EUR`),
  together: money(`${amount} EUR`),
  ownerId: 'owner',
  raisedById: 'owner',
  ownedBy: [],
  departmentId: 'd',
  branch: ['d'],
  codings: [],
  overBudget: false,
})
const CHAIN: PolicyStep = { rank: 10, who: { by: 'chain', until: 'covered' }, mustCover: false }
const named = (personId: string, mustCover = false): PolicyStep => ({
  rank: 5,
  who: { by: 'person', personId },
  mustCover,
})
const policy = (...steps: PolicyStep[]): Policy => ({
  id: 'p',
  ending: 'fallback',
  fallbackId: 'last',
  ownLimitDays: null,
  rules: [{ id: 'r', name: '', conditions: [], steps, sparesManagers: false }],
})
const on = (byId: string, toId: string): Handing => ({ how: 'on', byId, toId })
const first = (byId: string, toId: string): Handing => ({ how: 'first', byId, toId })
const asWell = (byId: string, toId: string): Handing => ({ how: 'as well', byId, toId })
const route = (amount: string, p: Policy, handed: Handing[], approvals: Approved[] = [], facts = FACTS) =>
  makeRoute(subject(amount), p, facts, approvals, { handed })
const actors = (r: Route) => r.steps.map((s) => s.seats.map((x) => x.actorId).join('+'))
const gave = (actorId: string) => ({ actorId, forId: null })
const open = (r: Route, approvals: Approved[] = []) => progressOf(r, approvals).open.map((s) => s.actorId)

describe('passing on', () => {
  test('goes from hand to hand, and back', () => {
    expect(inHandsOf('a', [on('a', 'b'), on('b', 'c')])).toEqual({ holder: 'c', isSkipped: false })
    expect(inHandsOf('a', [on('a', 'b'), on('b', 'a')]).holder).toBe('a')
    expect(inHandsOf('a', [first('a', 'b'), on('x', 'y')]).holder).toBe('a')
  })
  test('the receiver decides instead; where their limit covers, the chain ends with them', () => {
    expect(actors(route('500.00', policy(CHAIN), [on('low', 'expert')]))).toEqual(['expert'])
    expect(progressOf(route('500.00', policy(CHAIN), [on('low', 'expert')]), [gave('expert')]).state).toBe('approved')
  })
  test('where it does not, the chain goes on above whoever passed it on', () => {
    expect(actors(route('500.00', policy(CHAIN), [on('low', 'clerk')]))).toEqual(['clerk', 'mid'])
    expect(actors(route('900.00', policy(CHAIN), [on('mid', 'expert')]))).toEqual(['low', 'expert'])
    expect(actors(route('900.01', policy(CHAIN), [on('mid', 'expert')]))).toEqual(['low', 'expert', 'top'])
  })
  test('in a step that must cover, the next above who covers is asked after them, else the fallback', () => {
    expect(actors(route('4000.00', policy(named('mid', true)), [on('mid', 'clerk')]))).toEqual(['clerk', 'top'])
    expect(actors(route('50000.00', policy(named('top', true)), [on('top', 'clerk')]))).toEqual(['clerk', 'last'])
    // Without it the limit does not count.
    expect(actors(route('4000.00', policy(named('mid')), [on('mid', 'clerk')]))).toEqual(['clerk'])
  })
  test('whoever cannot decide does not have it: it stays where it was', () => {
    expect(actors(route('500.00', policy(CHAIN), [on('low', 'gone')]))).toEqual(['low'])
    expect(actors(route('500.00', policy(CHAIN), [on('low', 'owner')]))).toEqual(['low'])
    expect(actors(route('500.00', policy(CHAIN), [on('low', 'nobody')]))).toEqual(['low'])
  })
  test('whoever has it may ask its giver first, whose approval then is not for their own place', () => {
    const handed = [on('low', 'expert'), first('expert', 'low')]
    const r = route('500.00', policy(CHAIN), handed, [gave('low')])
    expect(actors(r)).toEqual(['low', 'expert'])
    expect(open(r, [gave('low')])).toEqual(['expert'])
  })
})

describe('skipping', () => {
  const skip = (byId: string): Handing => ({ how: 'skip', byId, toId: 'last' })
  test('whoever decides in the end does so in the place of whoever was skipped, and needs no limit', () => {
    expect(actors(route('900.00', policy(CHAIN), [skip('low')]))).toEqual(['last'])
    expect(actors(route('900.00', policy(named('expert'), CHAIN), [skip('low')]))).toEqual(['expert', 'last'])
    expect(actors(route('900.00', policy(named('expert', true), CHAIN), [skip('expert')]))).toEqual([
      'last',
      'low',
      'mid',
    ])
  })
  test('they may pass it on like anybody, to somebody whose limit counts again', () => {
    expect(actors(route('900.00', policy(CHAIN), [skip('low'), on('last', 'clerk')]))).toEqual(['clerk', 'mid'])
  })
})

describe('having somebody decide first, or as well', () => {
  test('whoever wished it is asked after them', () => {
    const r = route('500.00', policy(CHAIN), [first('low', 'clerk')])
    expect(open(r)).toEqual(['clerk'])
    expect(open(r, [gave('clerk')])).toEqual(['low'])
    expect(progressOf(r, [gave('clerk'), gave('low')]).state).toBe('approved')
  })
  test('others of the same place go on meanwhile', () => {
    const both: PolicyStep = {
      rank: 5,
      who: { by: 'group', name: 'g', mode: 'all', members: ['mid', 'top'] },
      mustCover: false,
    }
    const r = route('500.00', policy(both), [first('mid', 'clerk')])
    expect(open(r)).toEqual(['clerk', 'top'])
    expect(open(r, [gave('top')])).toEqual(['clerk'])
    expect(open(r, [gave('top'), gave('clerk')])).toEqual(['mid'])
  })
  test('as well: both are asked at once, and both have to approve', () => {
    const r = route('500.00', policy(CHAIN), [asWell('low', 'clerk')])
    expect(open(r).sort()).toEqual(['clerk', 'low'])
    expect(progressOf(r, [gave('low')]).state).toBe('waiting')
    expect(progressOf(r, [gave('low'), gave('clerk')]).state).toBe('approved')
  })
  test('whoever is asked anyway is asked once, and nobody waits for them', () => {
    expect(actors(route('900.00', policy(CHAIN), [first('low', 'mid')]))).toEqual(['low', 'mid'])
    expect(open(route('900.00', policy(CHAIN), [first('low', 'mid')]))).toEqual(['low'])
  })
  test('whoever cannot decide is not waited for', () => {
    expect(open(route('500.00', policy(CHAIN), [first('low', 'gone')]))).toEqual(['low'])
    expect(open(route('500.00', policy(CHAIN), [first('low', 'owner')]))).toEqual(['low'])
  })
})

/** What somebody who is asked does: approves, or hands it to somebody, as far as they may. */
const STEPS = fc.array(
  fc.record({ who: fc.nat(5), how: fc.constantFrom(...HANDED_HOW, 'approve' as const), to: fc.nat(CAST.length - 1) }),
  { minLength: 1, maxLength: 30 },
)
test('property: whoever hands it to whom, nobody decides their own or twice, and it ends in authority', () => {
  fc.assert(
    fc.property(STEPS, fc.integer({ min: 1, max: 60_000 }), fc.boolean(), (steps, euros, mustCover) => {
      const p = policy(named('expert', mustCover), CHAIN)
      const handed: Handing[] = []
      const approvals: Approved[] = []
      const now = () => route(`${euros}.00`, p, handed, approvals)
      const asks = (r: Route) => r.steps.flatMap((s) => s.seats.map((x) => x.actorId))
      const step = (
        who: number,
        how: (typeof STEPS extends fc.Arbitrary<(infer S)[]> ? S : never)['how'],
        to: number,
      ) => {
        const before = now()
        const next = open(before, approvals)
        expect(next.length).toBeGreaterThan(0)
        const actor = next[who % next.length] ?? ''
        const toId = CAST[to]?.id ?? ''
        if (how !== 'approve' && !asks(before).includes(toId)) handed.push({ how, byId: actor, toId })
        else approvals.push(gave(actor))
        const after = now()
        expect(new Set(asks(after)).size).toBe(asks(after).length)
        expect(asks(after)).not.toContain('owner')
        expect(asks(after)).not.toContain('gone')
        // An approval changes nobody's place.
        if (how === 'approve') expect(actors(after)).toEqual(actors(before))
        const has = (id: string) => covers(FACTS.people.get(id)?.decidingLimit ?? null, subject(`${euros}.00`).amount)
        expect(asks(after).some(has) || asks(after).includes('last')).toBe(true)
      }
      for (const { who, how, to } of steps) {
        if (progressOf(now(), approvals).state !== 'waiting') break
        step(who, how, to)
      }
      for (let guard = 0; progressOf(now(), approvals).state === 'waiting'; guard += 1) {
        expect(guard).toBeLessThan(40)
        step(0, 'approve', 0)
      }
      expect(progressOf(now(), approvals).state).toBe('approved')
      expect(new Set(approvals.map((a) => a.actorId)).size).toBe(approvals.length)
    }),
    { numRuns: 500 },
  )
})
