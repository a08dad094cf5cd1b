import { z } from 'zod'
import { defineRoute } from './route'
import { day, id, ids, made, text } from './values'

const absence = z.object({
  id: z.string(), personId: z.string(), name: z.string(), from: z.string(), until: z.string(), substituteId: z.string().nullable(),
  substitute: z.string().nullable(), note: z.string(), version: z.number(),
})
export type AbsenceView = z.infer<typeof absence>
const personFound = z.object({ id: z.string(), name: z.string(), jobTitle: z.string(), department: z.string() })
export type PersonFound = z.infer<typeof personFound>

export const peopleRoutes = {
  searchPeople: defineRoute({
    name: 'searchPeople', method: 'GET', path: '/api/people', summary: 'People by a part of the name.', access: 'see people',
    query: z.object({ words: text(100).default('') }), reply: z.object({ people: z.array(personFound) }),
  }),
  listAbsences: defineRoute({
    name: 'listAbsences', method: 'GET', path: '/api/absences', summary: 'One’s own absences, and for administrators those of everybody.', access: 'be away',
    reply: z.object({ mine: z.array(absence), others: z.array(absence) }),
  }),
  setAway: defineRoute({
    name: 'setAway', method: 'POST', path: '/api/absences', summary: 'Say when somebody is away and who decides meanwhile.', access: 'be away', idempotent: true,
    body: z.object({ personId: id.nullable().default(null), from: day, until: day, substituteId: id.nullable(), note: text(200).default('') }), reply: made,
  }),
  endAway: defineRoute({ name: 'endAway', method: 'DELETE', path: '/api/absences/{id}', summary: 'Take an absence back.', access: 'be away', params: ids, ifMatch: true }),
} as const
