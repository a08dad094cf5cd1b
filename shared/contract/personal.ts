import { z } from 'zod'
import { defineRoute } from './route'
import { day, id, ids, text } from './values'

const page = z.object({
  id: z.string(),
  name: z.string(),
  email: z.string(),
  jobTitle: z.string(),
  department: z.string(),
  manager: z.string().nullable(),
  leftOn: z.string().nullable(),
  locale: z.string(),
  isErased: z.boolean(),
  /** At how many places they are signed in, and how many tokens of theirs hold. */
  sessions: z.number(),
  tokens: z.number(),
  /** What they own that is not over. */
  requests: z.number(),
  drafts: z.number(),
  orders: z.number(),
  trays: z.number(),
  /** What stands still without them. */
  waiting: z.number(),
  reports: z.array(z.string()),
  budgetLines: z.array(z.string()),
  jobs: z.array(z.string()),
  /** For whom they stand in, from today on. */
  standsIn: z.array(z.string()),
  /** Whether the policy, or its draft, names them. */
  inPolicy: z.boolean(),
})
export type PersonPage = z.infer<typeof page>

export const personalRoutes = {
  readPersonPage: defineRoute({
    name: 'readPersonPage',
    method: 'GET',
    path: '/api/people/{id}/page',
    summary: 'Who somebody is, what they own that is not over, and what stands still without them.',
    access: 'keep settings',
    params: ids,
    reply: page,
  }),
  letPersonLeave: defineRoute({
    name: 'letPersonLeave',
    method: 'POST',
    path: '/api/people/{id}/leaving',
    summary: 'Let somebody leave: their last day, and who gets what they own, decide, stand in for and manage.',
    access: 'keep settings',
    params: ids,
    idempotent: true,
    body: z.object({
      lastDay: day,
      requestsTo: id.nullable(),
      ordersTo: id.nullable(),
      decisionsTo: id.nullable(),
      reportsTo: id.nullable(),
    }),
    reply: z.object({
      requests: z.number(),
      orders: z.number(),
      decisions: z.number(),
      standIns: z.number(),
      reports: z.number(),
      kept: z.number(),
      policy: z.enum(['none', 'drafted', 'waits']),
    }),
  }),
  signOutPerson: defineRoute({
    name: 'signOutPerson',
    method: 'DELETE',
    path: '/api/people/{id}/sessions',
    summary: 'Sign somebody out everywhere, and end their tokens.',
    access: 'keep settings',
    params: ids,
    reply: z.object({ sessions: z.number(), tokens: z.number() }),
  }),
  takePersonalData: defineRoute({
    name: 'takePersonalData',
    method: 'GET',
    path: '/api/people/{id}/data',
    summary: 'All that is kept of somebody, as JSON.',
    access: 'keep settings',
    params: ids,
    bytes: 'download',
  }),
  takeOwnData: defineRoute({
    name: 'takeOwnData',
    method: 'GET',
    path: '/api/profile/data',
    summary: 'All that is kept of oneself, as JSON.',
    access: 'keep own account',
    bytes: 'download',
  }),
  erasePerson: defineRoute({
    name: 'erasePerson',
    method: 'POST',
    path: '/api/people/{id}/erasure',
    summary: 'Take away who somebody was who has left; documents and events stay. It cannot be taken back.',
    access: 'keep settings',
    params: ids,
    idempotent: true,
    body: z.object({ name: text(200) }),
  }),
} as const
