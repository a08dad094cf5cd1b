import { expect, test } from 'vitest'
import { mayRemindAgain } from './remind'

const now = '2026-11-25T09:00:00Z'

test('a reminder goes out while somebody else is waited for, once in 24 hours', () => {
  expect(mayRemindAgain({ state: 'in approval', remindedAt: null, now })).toBe(true)
  expect(mayRemindAgain({ state: 'approved', remindedAt: '2026-11-24T09:00:00Z', now })).toBe(true)
  expect(mayRemindAgain({ state: 'part ordered', remindedAt: '2026-11-24T09:00:01Z', now })).toBe(false)
  for (const state of ['draft', 'sent back', 'ordered', 'closed', 'withdrawn'] as const)
    expect([state, mayRemindAgain({ state, remindedAt: null, now })]).toEqual([state, false])
})
