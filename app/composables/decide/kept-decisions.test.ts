import { expect, test } from 'vitest'
import { drop, isAway, keep, keyOf, markTried, readKept, unwant, type KeptDecision } from './kept-decisions'

const one = (documentId: string, more: Partial<KeptDecision> = {}): KeptDecision => ({
  documentId,
  version: 3,
  outcome: 'approve',
  comment: '',
  called: documentId,
  tried: false,
  unwanted: false,
  ...more,
})

test('decisions are kept in their order, and one of the same document once', () => {
  const kept = [one('a'), one('b'), one('a', { outcome: 'reject' })].reduce(keep, [] as KeptDecision[])
  expect(kept.map(keyOf)).toEqual(['decide-a-3-approve', 'decide-b-3-approve'])
  // At its next version it may be decided again.
  expect(keep(kept, one('a', { version: 4 }))).toHaveLength(3)
})
test('what never went is dropped when it is not wanted; what may have arrived is taken back once that is known', () => {
  const kept = [one('a'), one('b')]
  expect(unwant(kept, keyOf(one('a')))).toEqual([one('b')])
  const tried = markTried(kept, keyOf(one('a')))
  expect(unwant(tried, keyOf(one('a')))).toEqual([one('a', { tried: true, unwanted: true }), one('b')])
  // Decided once more before that is known: the same is wanted after all, another follows it.
  const unwanted = unwant(tried, keyOf(one('a')))
  expect(keep(unwanted, one('a'))[0]).toEqual(one('a', { tried: true }))
  expect(
    keep(unwanted, one('a', { outcome: 'reject' }))
      .map(keyOf)
      .at(-1),
  ).toBe('decide-a-3-reject')
  expect(drop(tried, keyOf(one('a')))).toEqual([one('b')])
})
test('a server that is not reached, or wants to know who one is, keeps a decision; a refusal gives it back', () => {
  expect([0, 401, 502, 503, 504].map(isAway)).toEqual([true, true, true, true, true])
  expect([403, 404, 409, 412, 422, 500].map(isAway)).toEqual([false, false, false, false, false, false])
})
test('what was kept is read again; what cannot be read is nothing', () => {
  expect(readKept(JSON.stringify([one('a')]))).toEqual([one('a')])
  expect([null, '', '{', '"a"'].map(readKept)).toEqual([[], [], [], []])
})
