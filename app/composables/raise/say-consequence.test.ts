import { expect, test } from 'vitest'
import type { RouteStep } from '#core/approval/route'
import type { DraftVerdict } from '#core/requisition/compute'
import { sayConsequence } from './say-consequence'

const step = (level: number, ...actors: string[]): RouteStep => ({
  rank: 1,
  level,
  ruleId: 'r',
  mode: 'all',
  seats: actors.map((actorId) => ({ actorId, forId: null, why: { code: 'named' as const } })),
})
const verdict = (steps: RouteStep[], missing: boolean[] = [], lines = 1, held: DraftVerdict['route']['held'] = null) =>
  ({
    route: { steps, held, notes: [] },
    lineNets: new Map(Array.from({ length: lines }, (_, i) => [String(i), {}])),
    missing: missing.map((stops) => ({ stops })),
  }) as unknown as DraftVerdict
const said = (v: DraftVerdict) =>
  sayConsequence(
    v,
    (id) => ({ a: 'Ines Adeyemi', b: 'Tomas Brandt', c: 'Mai Torvald', d: 'Nadia Wexcombe' })[id] ?? '?',
  ).words

test('the button says where sending leads: to whoever is asked first, or on to the buyers', () => {
  expect(said(verdict([step(0, 'a'), step(1, 'b')]))).toBe('Send to Ines Adeyemi for a decision')
  expect(said(verdict([step(0, 'a', 'b')]))).toBe('Send to Ines Adeyemi and Tomas Brandt for a decision')
  expect(said(verdict([step(0, 'a', 'b', 'c', 'd')]))).toBe(
    'Send to Ines Adeyemi, Tomas Brandt and 2 more for a decision',
  )
  expect(said(verdict([]))).toBe('Send: approved at once, and on to the buyers')
})

test('while something is missing it counts that, and what only informs does not count', () => {
  expect(said(verdict([step(0, 'a')], [true, false]))).toBe('One thing missing, then to Ines Adeyemi')
  expect(said(verdict([], [true, true]))).toBe('Two things missing, then it is approved at once')
  expect(said(verdict([], [true], 1, { code: 'no-fallback', because: 'nobody covers' }))).toBe(
    'One thing missing, then it goes on',
  )
  expect(sayConsequence(verdict([step(0, 'a')], [false]), () => 'Ines Adeyemi')).toEqual({
    missing: 0,
    words: 'Send to Ines Adeyemi for a decision',
  })
})

test('without a line that comes to anything it says nothing of who decides', () => {
  expect(said(verdict([step(0, 'a')], [true, true, true], 0))).toBe('Three things missing')
})
