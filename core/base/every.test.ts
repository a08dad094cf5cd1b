import { expect, test } from 'vitest'
import { cronOf, nextAfter } from './every'

// Worked by hand, from POSIX crontab’s order of fields.
const next = (every: Parameters<typeof nextAfter>[0], at: string) => nextAfter(every, new Date(at)).toISOString()
test('each minute', () => {
  expect(cronOf({ each: 'minute' })).toBe('* * * * *')
  expect(next({ each: 'minute' }, '2026-11-27T10:00:00.000Z')).toBe('2026-11-27T10:01:00.000Z')
  expect(next({ each: 'minute' }, '2026-11-27T10:00:59.999Z')).toBe('2026-11-27T10:01:00.000Z')
})
test('each hour, at a minute of it', () => {
  const every = { each: 'hour', minute: 31 } as const
  expect(cronOf(every)).toBe('31 * * * *')
  expect(next(every, '2026-11-27T10:30:59Z')).toBe('2026-11-27T10:31:00.000Z')
  expect(next(every, '2026-11-27T10:31:00Z')).toBe('2026-11-27T11:31:00.000Z')
  expect(next(every, '2026-12-31T23:40:00Z')).toBe('2027-01-01T00:31:00.000Z')
})
test('each day, at a time of it', () => {
  const every = { each: 'day', hour: 2, minute: 47 } as const
  expect(cronOf(every)).toBe('47 2 * * *')
  expect(next(every, '2026-11-27T02:46:59Z')).toBe('2026-11-27T02:47:00.000Z')
  expect(next(every, '2026-11-27T02:47:00Z')).toBe('2026-11-28T02:47:00.000Z')
})
