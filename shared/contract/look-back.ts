import { z } from 'zod'
import type { IntegrityFound } from '#core/audit/integrity'
import { defineRoute } from './route'
import { day, id, text } from './values'

const query = z.object({
  personId: id.optional(),
  kind: text(40).optional(),
  type: text(80).optional(),
  /** A document's number. */
  number: text(40).optional(),
  from: day.optional(),
  until: day.optional(),
  /** The events before this one. */
  before: z.coerce.number().int().min(1).optional(),
})
export type EventsQuery = z.output<typeof query>
const event = z.object({
  seq: z.number(),
  at: z.string(),
  type: z.string(),
  subjectKind: z.string(),
  subjectId: z.string(),
  /** A document's number or title, or a person's name; "" where it has none. */
  about: z.string(),
  actor: z.string().nullable(),
  forName: z.string().nullable(),
  before: z.unknown(),
  after: z.unknown(),
  /** Its place in the chain; null until it has one. */
  number: z.number().nullable(),
})
export type EventView = z.infer<typeof event>
const page = z.object({
  events: z.array(event),
  more: z.number().nullable(),
  sorts: z.array(z.object({ kind: z.string(), type: z.string() })),
})
export type EventsPage = z.infer<typeof page>
const look = z.object({
  id: z.string(),
  at: z.string(),
  by: z.string().nullable(),
  found: z.custom<IntegrityFound>(),
})
export type LookView = z.infer<typeof look>

const authority = z.object({
  day: z.string(),
  currency: z.string(),
  /** The version of the policy that held; null before there was one. */
  policy: z.object({ number: z.number(), name: z.string() }).nullable(),
  /** Lists that a long file changed since: what it brought is not looked through. */
  notSeen: z.array(z.string()),
  people: z.array(
    z.object({
      personId: z.string(),
      name: z.string(),
      jobTitle: z.string(),
      department: z.string(),
      /** Up to and including; "" where there was none. */
      decidingLimit: z.string(),
      orderingLimit: z.string(),
      /** They could be asked to decide; each reason in words. */
      decides: z.boolean(),
      reasons: z.array(z.string()),
      /** Who stood in while they were away; null while they were here. */
      away: z.array(z.string()).nullable(),
    }),
  ),
})
export type AuthorityView = z.infer<typeof authority>

export const lookBackRoutes = {
  readAuthority: defineRoute({
    name: 'readAuthority',
    method: 'GET',
    path: '/api/authority',
    summary: 'Who could be asked to decide what at the end of a day, and why; without a day, now.',
    access: 'look back',
    query: z.object({ day: day.optional() }),
    reply: authority,
  }),
  exportAuthority: defineRoute({
    name: 'exportAuthority',
    method: 'GET',
    path: '/api/authority/file',
    summary: 'Who could be asked to decide what on a day, as CSV or XLSX.',
    access: 'look back',
    query: z.object({ day, as: z.enum(['csv', 'xlsx']) }),
    bytes: 'download',
  }),
  readEvents: defineRoute({
    name: 'readEvents',
    method: 'GET',
    path: '/api/events',
    summary: 'Everything that happened: who, for whom, to what, what was before and after; the newest first.',
    access: 'look back',
    query,
    reply: page,
  }),
  exportEvents: defineRoute({
    name: 'exportEvents',
    method: 'GET',
    path: '/api/events/file',
    summary: 'The same as JSON Lines, each with its link of the chain, the oldest first.',
    access: 'look back',
    query,
    bytes: 'download',
  }),
  readIntegrity: defineRoute({
    name: 'readIntegrity',
    method: 'GET',
    path: '/api/integrity',
    summary: 'The newest looks at whether all that is kept twice agrees, with what each found.',
    access: 'see integrity',
    reply: z.object({ looks: z.array(look) }),
  }),
  checkIntegrity: defineRoute({
    name: 'checkIntegrity',
    method: 'POST',
    path: '/api/integrity/runs',
    summary: 'Have it looked now whether all that is kept twice agrees and the chain of events is whole.',
    access: 'see integrity',
  }),
} as const
