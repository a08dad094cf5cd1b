import { z } from 'zod'
import { liveMessage } from './live'
import { defineRoute } from './route'
import { text } from './values'

const demoPerson = z.object({
  id: z.string(),
  name: z.string(),
  email: z.string(),
  jobTitle: z.string(),
  department: z.string(),
  note: z.string(),
})
export type DemoPerson = z.infer<typeof demoPerson>

const me = z.object({
  id: z.string(),
  name: z.string(),
  locale: z.string(),
  rights: z.array(z.string()),
  organisation: z.object({
    name: z.string(),
    timeZone: z.string(),
    baseCurrency: z.string(),
    fiscalStartMonth: z.number(),
  }),
  today: z.string(),
  /** What waits for this person at each station. */
  waiting: z.object({ need: z.number(), decision: z.number(), order: z.number() }),
  /** Where one lands: where something waits, else by what one does. */
  landing: z.string(),
  unread: z.number(),
  isDemo: z.boolean(),
})
export type Me = z.infer<typeof me>

const notice = z.object({
  id: z.string(),
  at: z.string(),
  sentence: z.string(),
  /** The page of what it is about. */
  link: z.string().nullable(),
  read: z.boolean(),
})
export type Notice = z.infer<typeof notice>

export const sessionRoutes = {
  signIn: defineRoute({
    name: 'signIn',
    method: 'POST',
    path: '/api/session',
    summary: 'Sign in with e-mail and password.',
    access: 'public',
    body: z.object({ email: text(200), password: text(500) }),
    reply: me,
  }),
  signInDemo: defineRoute({
    name: 'signInDemo',
    method: 'POST',
    path: '/api/session/demo',
    summary: 'Sign in as a demo person with one press; exists in the demo only.',
    access: 'public',
    body: z.object({ personId: z.uuid() }),
    reply: me,
  }),
  readSession: defineRoute({
    name: 'readSession',
    method: 'GET',
    path: '/api/session',
    summary: 'Who is signed in, what waits, and where to begin.',
    access: 'see own',
    reply: me,
  }),
  signOut: defineRoute({
    name: 'signOut',
    method: 'DELETE',
    path: '/api/session',
    summary: 'Sign out.',
    access: 'see own',
  }),
  listDemoPeople: defineRoute({
    name: 'listDemoPeople',
    method: 'GET',
    path: '/api/demo-people',
    summary: 'The people of the demo; empty elsewhere.',
    access: 'public',
    reply: z.object({ people: z.array(demoPerson), postOffice: z.string().nullable() }),
  }),
  readHealth: defineRoute({
    name: 'readHealth',
    method: 'GET',
    path: '/api/health',
    summary: 'Whether process, database, queue and mail work.',
    access: 'public',
    reply: z.object({
      ok: z.boolean(),
      process: z.string(),
      database: z.string(),
      queue: z.string(),
      mail: z.string(),
    }),
  }),
  readOpenApi: defineRoute({
    name: 'readOpenApi',
    method: 'GET',
    path: '/api/openapi.json',
    summary: 'This description, as OpenAPI 3.1.',
    access: 'public',
    reply: z.looseObject({}),
  }),
  followChanges: defineRoute({
    name: 'followChanges',
    method: 'GET',
    path: '/api/live',
    summary: 'Server-sent events about what the person may see.',
    access: 'see own',
    bytes: 'stream',
    reply: liveMessage,
  }),
  listNotices: defineRoute({
    name: 'listNotices',
    method: 'GET',
    path: '/api/notices',
    summary: 'What the person was told.',
    access: 'see own',
    reply: z.object({ notices: z.array(notice) }),
  }),
  readNotices: defineRoute({
    name: 'readNotices',
    method: 'POST',
    path: '/api/notices/read',
    summary: 'Mark all that was told as read.',
    access: 'see own',
  }),
} as const
