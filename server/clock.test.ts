import { describe, expect, test } from 'vitest'
import { readStartOfClock, tickFrom } from './clock'

describe('a clock of one’s own', () => {
  test('is not there where REKKO_NOW is absent or empty', () => {
    expect(readStartOfClock({})).toBeNull()
    expect(readStartOfClock({ REKKO_NOW: '', REKKO_DEMO: '1' })).toBeNull()
  })
  test('starts at the moment given, in any offset', () => {
    const at = readStartOfClock({ REKKO_NOW: '2027-04-01T01:30:00+01:00', REKKO_DEMO: '1' })
    expect(at?.toISOString()).toBe('2027-04-01T00:30:00.000Z')
  })
  test.each(['2027-04-01', 'tomorrow', '2027-13-01T00:00Z', '2027-04-01T00:30'])('%s is no moment', (text) => {
    expect(() => readStartOfClock({ REKKO_NOW: text, REKKO_DEMO: '1' })).toThrow(/no moment/)
  })
  test('is refused where the server is not the demo’s', () => {
    expect(() => readStartOfClock({ REKKO_NOW: '2027-04-01T00:30:00Z' })).toThrow(/only a demo/)
    expect(() => readStartOfClock({ REKKO_NOW: '2027-04-01T00:30:00Z', REKKO_DEMO: '0' })).toThrow(/only a demo/)
  })
  test('ticks on', async () => {
    const clock = tickFrom(new Date('2028-02-29T23:59:00Z'))
    const first = clock().getTime()
    expect(first - Date.parse('2028-02-29T23:59:00Z')).toBeLessThan(1000)
    await new Promise((r) => setTimeout(r, 20))
    expect(clock().getTime()).toBeGreaterThan(first)
  })
})
