import ICAL from 'ical.js'
import { expect, test } from 'vitest'
import { writeCalendar } from './cover-calendar'

// Read back by another library (ical.js), which follows RFC 5545.
const row = (from: string, until: string, more = {}) => ({
  id: 'a1',
  personId: 'mai',
  name: 'Mai Torvald',
  from,
  until,
  substituteId: 'kaveh',
  substitute: 'Kaveh Dorani',
  byDepartment: [],
  note: '',
  version: 1,
  ...more,
})
const eventsOf = (text: string) =>
  new ICAL.Component(ICAL.parse(text) as unknown[]).getAllSubcomponents('vevent').map((c) => new ICAL.Event(c))
const now = new Date('2026-11-27T23:30:00Z')

test('both days are whole days of it, also one alone, over a change of clocks and of the year', () => {
  for (const [from, until, after] of [
    ['2026-11-30', '2026-12-04', '2026-12-05'],
    ['2026-12-24', '2026-12-24', '2026-12-25'],
    ['2026-03-28', '2026-03-29', '2026-03-30'],
    ['2026-12-28', '2027-01-01', '2027-01-02'],
  ] as const) {
    const [event] = eventsOf(writeCalendar([row(from, until)], 'Standing in', now))
    expect([event?.startDate.isDate, event?.startDate.toString(), event?.endDate.toString()]).toEqual([
      true,
      from,
      after,
    ])
  }
})
test('an absence keeps its id; names come as they are written, and why somebody is away is nobody else’s', () => {
  const note = 'in hospital'
  const name = 'Mai; Torvald, “Ice” 🧊'
  const [event] = eventsOf(
    writeCalendar([row('2026-12-01', '2026-12-02', { name, note, version: 3 })], 'Standing in', now),
  )
  expect([event?.uid, event?.summary, event?.description, event?.sequence]).toEqual([
    'a1@rekko',
    `${name} is away: you decide for them`,
    null,
    2,
  ])
})
test('a calendar without a day is one, and long lines are folded at 75 octets', () => {
  expect(eventsOf(writeCalendar([], 'Standing in', now))).toEqual([])
  const text = writeCalendar([row('2026-12-01', '2026-12-02', { name: 'ü'.repeat(300) })], 'Standing in', now)
  for (const line of text.split('\r\n')) expect(Buffer.byteLength(line)).toBeLessThanOrEqual(75)
})
