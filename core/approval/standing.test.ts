import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { standingApprovals, type Decision, type Sending } from './standing'

const by = (actorId: string, round: number, more: Partial<Decision> = {}): Decision => ({
  round,
  actorId,
  forId: null,
  outcome: 'approved',
  takenBack: false,
  ...more,
})
const sent = (...keeps: boolean[]): Sending[] => keeps.map((keepsEarlier, i) => ({ round: i + 1, keepsEarlier }))
const who = (d: Decision[], s: Sending[]) => standingApprovals(d, s).map((a) => a.actorId)

// Rules: an approval never counts for more than its giver saw (what comes back unchanged or with less keeps approvals).
describe('which approvals stand', () => {
  test('100 approved by the boss and sent back by the second does not approve 900', () => {
    const decisions = [by('boss', 1), by('second', 1, { outcome: 'sent back' }), by('second', 2)]
    expect(who(decisions, sent(false, false))).toEqual(['second'])
  })
  test('what comes back with no more keeps what stood, but for whoever sent it back', () => {
    const decisions = [by('boss', 1), by('second', 1), by('second', 1, { outcome: 'sent back' })]
    expect(who(decisions, sent(false, true))).toEqual(['boss'])
    expect(who([...decisions, by('second', 2)], sent(false, true))).toEqual(['boss', 'second'])
  })
  test('a sending that changed ends all before it, also for a later one that is less', () => {
    expect(who([by('boss', 1), by('second', 2)], sent(false, false, true))).toEqual(['second'])
    expect(who([by('boss', 1)], sent(false, true, true))).toEqual(['boss'])
  })
  test('taken back is as if it had never been', () => {
    expect(who([by('boss', 1, { takenBack: true })], sent(false))).toEqual([])
    const undone = by('boss', 1, { outcome: 'sent back', takenBack: true })
    expect(who([by('boss', 1), undone], sent(false))).toEqual(['boss'])
  })
  test('whoever was stood in for and decides later decides instead', () => {
    const decisions = [by('sub', 1, { forId: 'boss' }), by('boss', 1, { outcome: 'sent back' })]
    expect(who(decisions, sent(false, true))).toEqual([])
  })
  test('under any sequence no approval counts for more than its giver saw', () => {
    const step = fc.oneof(
      fc.record({ do: fc.constant('send' as const), amount: fc.integer({ min: 1, max: 5 }) }),
      fc.record({
        do: fc.constantFrom('approved' as const, 'sent back' as const, 'take back' as const),
        actor: fc.constantFrom('a', 'b', 'c'),
      }),
    )
    fc.assert(
      fc.property(fc.array(step, { maxLength: 40 }), (steps) => {
        const sendings: { round: number; keepsEarlier: boolean; amount: number }[] = []
        const decisions: (Decision & { amount: number })[] = []
        for (const s of steps) {
          const last = sendings.at(-1)
          if (s.do === 'send')
            sendings.push({
              round: sendings.length + 1,
              keepsEarlier: last !== undefined && s.amount <= last.amount,
              amount: s.amount,
            })
          else if (last !== undefined && s.do !== 'take back')
            decisions.push({ ...by(s.actor, last.round, { outcome: s.do }), amount: last.amount })
          else if (s.do === 'take back') {
            const at = decisions.findLastIndex((d) => d.actorId === s.actor)
            const d = decisions[at]
            if (d !== undefined) decisions[at] = { ...d, takenBack: true }
          }
        }
        const now = sendings.at(-1)
        for (const { actorId } of standingApprovals(decisions, sendings)) {
          const theirs = decisions.filter((d) => d.actorId === actorId && !d.takenBack)
          // Their last word was an approval, of an amount no smaller than what is decided now.
          expect(theirs.at(-1)?.outcome).toBe('approved')
          expect(theirs.at(-1)?.amount).toBeGreaterThanOrEqual(now?.amount ?? 0)
        }
      }),
    )
  })
})
