import ical, { ICalCalendarMethod, ICalEventTransparency } from 'ical-generator'
import { addDays, dayOf } from '#core/base/day'
import { appendEvent } from '../audit/store'
import type { Context } from '../context'
import { environment } from '../environment'
import { notFound } from '../http/problem'
import { requireOrganisation } from '../settings/reads'
import { listCovered, type AbsenceRow } from './absence-reads'
import { findActor } from './actor-reads'
import { endCalendarKey, findCalendarOwner, makeCalendarKey } from './calendar-store'

/** So many days back a calendar still shows what was. */
const DAYS_BACK = 60

/** Makes an address from which calendars read the days on which one stands in for others; an earlier one ends. */
export async function makeCalendar(ctx: Context): Promise<{ address: string }> {
  const key = await makeCalendarKey(ctx.tx, ctx.actor.id, ctx.now)
  await appendEvent(ctx, { type: 'calendar address made', subjectKind: 'person', subjectId: ctx.actor.id })
  return { address: `${environment().publicUrl}/api/calendars/${key}` }
}

/** Ends it: whoever reads from it reads nothing more. */
export async function endCalendar(ctx: Context): Promise<void> {
  await endCalendarKey(ctx.tx, ctx.actor.id)
  await appendEvent(ctx, { type: 'calendar address ended', subjectKind: 'person', subjectId: ctx.actor.id })
}

/** The calendar behind an address, as iCalendar (RFC 5545); the address alone opens it, as calendars cannot sign in. */
export async function readCalendar({ tx, now }: Pick<Context, 'tx' | 'now'>, key: string): Promise<Buffer> {
  const personId = await findCalendarOwner(tx, key)
  const person = personId === null ? null : await findActor(tx, personId, now)
  if (person === null) throw notFound('This calendar')
  const { name, timeZone } = await requireOrganisation(tx)
  const covered = await listCovered(tx, person.id, addDays(dayOf(now, timeZone), -DAYS_BACK))
  return Buffer.from(writeCalendar(covered, `Standing in, ${name}`, now))
}

/** Whole days, both included, by the same id as long as the absence is the same one. */
export function writeCalendar(covered: readonly AbsenceRow[], name: string, now: Date): string {
  const calendar = ical({ name, prodId: { company: 'Rekko', product: 'Away' }, method: ICalCalendarMethod.PUBLISH })
  for (const a of covered)
    calendar.createEvent({
      id: `${a.id}@rekko`,
      sequence: Math.max(0, a.version - 1),
      stamp: now,
      start: new Date(`${a.from}T00:00:00Z`),
      // A last day that is left out: the day after.
      end: new Date(`${addDays(a.until, 1)}T00:00:00Z`),
      allDay: true,
      timezone: 'UTC',
      summary: `${a.name} is away: you decide for them`,
      // It keeps nobody from being asked to meet.
      transparency: ICalEventTransparency.TRANSPARENT,
    })
  return calendar.toString()
}
