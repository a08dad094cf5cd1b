import { z } from 'zod'
import { defineRoute } from './route'
import { day, id, ids, made, text } from './values'

const absence = z.object({
  id: z.string(),
  personId: z.string(),
  name: z.string(),
  from: z.string(),
  until: z.string(),
  substituteId: z.string().nullable(),
  substitute: z.string().nullable(),
  /** Who decides instead on what comes from a department, or from one below it. */
  byDepartment: z.array(
    z.object({ departmentId: z.string(), department: z.string(), substituteId: z.string(), substitute: z.string() }),
  ),
  note: z.string(),
  version: z.number(),
})
export type AbsenceView = z.infer<typeof absence>
const personFound = z.object({ id: z.string(), name: z.string(), jobTitle: z.string(), department: z.string() })
export type PersonFound = z.infer<typeof personFound>

export const peopleRoutes = {
  searchPeople: defineRoute({
    name: 'searchPeople',
    method: 'GET',
    path: '/api/people',
    summary: 'People by a part of the name, those who left only where asked for.',
    access: 'see people',
    query: z.object({ words: text(100).default(''), gone: z.enum(['yes', 'no']).default('no') }),
    reply: z.object({ people: z.array(personFound) }),
  }),
  listAbsences: defineRoute({
    name: 'listAbsences',
    method: 'GET',
    path: '/api/absences',
    summary: 'One’s own absences, and for administrators those of everybody.',
    access: 'be away',
    reply: z.object({
      /** For which somebody may stand in by themselves. */
      departments: z.array(z.object({ id: z.string(), name: z.string() })),
      mine: z.array(absence),
      others: z.array(absence),
      /** Those in which one stands in. */
      covers: z.array(absence),
      /** Whether calendars may read those from an address. */
      hasCalendar: z.boolean(),
    }),
  }),
  makeCalendar: defineRoute({
    name: 'makeCalendar',
    method: 'POST',
    path: '/api/calendar',
    summary: 'Make an address from which calendars read the days on which one stands in; an earlier one ends.',
    access: 'be away',
    reply: z.object({ address: z.string() }),
  }),
  endCalendar: defineRoute({
    name: 'endCalendar',
    method: 'DELETE',
    path: '/api/calendar',
    summary: 'End the address from which calendars read.',
    access: 'be away',
  }),
  readCalendar: defineRoute({
    name: 'readCalendar',
    method: 'GET',
    path: '/api/calendars/{key}',
    summary: 'The days on which somebody stands in for others, as iCalendar; the address alone opens it.',
    access: 'public',
    params: z.object({ key: text(60) }),
    bytes: 'download',
  }),
  setAway: defineRoute({
    name: 'setAway',
    method: 'POST',
    path: '/api/absences',
    summary: 'Say when somebody is away and who decides meanwhile.',
    access: 'be away',
    idempotent: true,
    body: z.object({
      personId: id.nullable().default(null),
      from: day,
      until: day,
      substituteId: id.nullable(),
      /** Who decides instead on what comes from a department, or from one below it; of several the nearest. */
      byDepartment: z
        .array(z.object({ departmentId: id, substituteId: id }))
        .max(100)
        .default([]),
      note: text(200).default(''),
    }),
    reply: made,
  }),
  listViews: defineRoute({
    name: 'listViews',
    method: 'GET',
    path: '/api/views',
    summary: 'The views of a place that one keeps.',
    access: 'see own',
    query: z.object({ place: text(40) }),
    reply: z.object({ views: z.array(z.object({ id: z.string(), name: z.string(), query: z.string() })) }),
  }),
  keepView: defineRoute({
    name: 'keepView',
    method: 'POST',
    path: '/api/views',
    summary: 'Keep a view of a place under a name.',
    access: 'see own',
    body: z.object({ place: text(40), name: text(60), query: text(500) }),
    reply: made,
  }),
  removeView: defineRoute({
    name: 'removeView',
    method: 'DELETE',
    path: '/api/views/{id}',
    summary: 'Take a kept view away.',
    access: 'see own',
    params: ids,
  }),
  endAway: defineRoute({
    name: 'endAway',
    method: 'DELETE',
    path: '/api/absences/{id}',
    summary: 'Take an absence back.',
    access: 'be away',
    params: ids,
    ifMatch: true,
  }),
} as const
