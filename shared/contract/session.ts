import { z } from 'zod'
import { THEMES } from '#core/people/person'
import { livePush, waiting } from './live'
import { defineRoute } from './route'
import { ids, text } from './values'

const demoPerson = z.object({
  id: z.string(),
  name: z.string(),
  email: z.string(),
  jobTitle: z.string(),
  department: z.string(),
  note: z.string(),
})
export type DemoPerson = z.infer<typeof demoPerson>

export const me = z.object({
  id: z.string(),
  name: z.string(),
  locale: z.string(),
  theme: z.enum(THEMES),
  /** A second factor is asked of them first. */
  lacksFactor: z.boolean(),
  rights: z.array(z.string()),
  organisation: z.object({
    name: z.string(),
    timeZone: z.string(),
    baseCurrency: z.string(),
    fiscalStartMonth: z.number(),
  }),
  today: z.string(),
  /** What waits for this person at each station. */
  waiting: waiting.shape.at,
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

const sessionView = z.object({
  id: z.string(),
  begunAt: z.string(),
  seenAt: z.string(),
  fromAddress: z.string(),
  /** Such as “Firefox on Linux”; empty where it is not known. */
  browser: z.string(),
  byDemo: z.boolean(),
  /** The one that asks. */
  isThis: z.boolean(),
})
export type SessionView = z.infer<typeof sessionView>

export const sessionRoutes = {
  signIn: defineRoute({
    name: 'signIn',
    method: 'POST',
    path: '/api/session',
    summary: 'Sign in with e-mail and password.',
    access: 'public',
    body: z.object({ email: text(200), password: text(500), code: text(20).default('') }),
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
  invitePeople: defineRoute({
    name: 'invitePeople',
    method: 'POST',
    path: '/api/invitations',
    summary: 'Mails everybody who has no password yet an address by which they choose one.',
    access: 'keep settings',
    reply: z.object({ invited: z.number() }),
    idempotent: true,
  }),
  mailForgotten: defineRoute({
    name: 'mailForgotten',
    method: 'POST',
    path: '/api/password-keys',
    summary: 'Mails a way to choose another password; nothing tells whether anybody has the address.',
    access: 'public',
    body: z.object({ email: text(254) }),
  }),
  choosePassword: defineRoute({
    name: 'choosePassword',
    method: 'PUT',
    path: '/api/password-keys',
    summary: 'Chooses a password by a key that was mailed, once; signs in.',
    access: 'public',
    body: z.object({ key: text(100), next: text(500), code: text(20).default('') }),
    reply: me,
  }),
  changePassword: defineRoute({
    name: 'changePassword',
    method: 'PUT',
    path: '/api/session/password',
    summary: 'Change one’s password; all other sessions end.',
    access: 'keep own account',
    body: z.object({ current: text(500), next: text(500) }),
  }),
  listSessions: defineRoute({
    name: 'listSessions',
    method: 'GET',
    path: '/api/sessions',
    summary: 'Where one is signed in.',
    access: 'keep own account',
    reply: z.object({ sessions: z.array(sessionView) }),
  }),
  endSession: defineRoute({
    name: 'endSession',
    method: 'DELETE',
    path: '/api/sessions/{id}',
    summary: 'End one of one’s sessions.',
    access: 'keep own account',
    params: ids,
  }),
  endOtherSessions: defineRoute({
    name: 'endOtherSessions',
    method: 'DELETE',
    path: '/api/sessions',
    summary: 'End all of one’s sessions but this one.',
    access: 'keep own account',
    reply: z.object({ ended: z.number() }),
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
    reply: livePush,
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
