import { z } from 'zod'
import { MAIL_WAYS, THEMES } from '#core/people/person'
import { TOKEN_RIGHTS } from '#core/people/rights'
import { defineRoute } from './route'
import { ids, text } from './values'

const profile = z.object({
  /** A language of numbers and days (BCP 47). */
  locale: z.string().regex(/^[a-z]{2}-[A-Z]{2}$/, 'is no language such as en-GB'),
  theme: z.enum(THEMES),
  mailsWaiting: z.enum(MAIL_WAYS),
  mailsNews: z.enum(MAIL_WAYS),
})
export type Profile = z.infer<typeof profile>
const token = z.object({
  id: z.string(),
  name: z.string(),
  rights: z.array(z.string()),
  createdAt: z.string(),
  expiresAt: z.string(),
  usedAt: z.string().nullable(),
})
export type TokenView = z.infer<typeof token>
const codes = z.object({ codes: z.array(z.string()) })

export const accountRoutes = {
  readProfile: defineRoute({
    name: 'readProfile',
    method: 'GET',
    path: '/api/profile',
    summary: 'How one reads numbers and days, how pages look, and which mails come.',
    access: 'keep own account',
    reply: profile,
  }),
  keepProfile: defineRoute({
    name: 'keepProfile',
    method: 'PUT',
    path: '/api/profile',
    summary: 'Changes how one reads, how pages look, and which mails come.',
    access: 'keep own account',
    body: profile,
  }),
  listTokens: defineRoute({
    name: 'listTokens',
    method: 'GET',
    path: '/api/tokens',
    summary: 'One’s tokens for scripts; never what they are.',
    access: 'keep own account',
    reply: z.object({ tokens: z.array(token), rights: z.array(z.string()) }),
  }),
  makeToken: defineRoute({
    name: 'makeToken',
    method: 'POST',
    path: '/api/tokens',
    summary: 'Makes a token with some of one’s rights; what it is, is told once.',
    access: 'keep own account',
    body: z.object({
      name: text(100).refine((t) => t.trim() !== '', 'is empty'),
      rights: z.array(z.enum(TOKEN_RIGHTS)).min(1, 'has no right'),
      days: z.number().int().min(1).max(366),
    }),
    reply: z.object({ id: z.string(), token: z.string() }),
  }),
  endToken: defineRoute({
    name: 'endToken',
    method: 'DELETE',
    path: '/api/tokens/{id}',
    summary: 'Ends a token; it opens nothing any more.',
    access: 'keep own account',
    params: ids,
  }),
  readSecondFactor: defineRoute({
    name: 'readSecondFactor',
    method: 'GET',
    path: '/api/second-factor',
    summary: 'Whether signing in asks for a code, and how many recovery codes are left.',
    access: 'keep own account',
    reply: z.object({ holds: z.boolean(), asked: z.boolean(), codes: z.number() }),
  }),
  beginSecondFactor: defineRoute({
    name: 'beginSecondFactor',
    method: 'POST',
    path: '/api/second-factor',
    summary: 'Begins a second factor by time-based codes (RFC 6238); it holds once a code of it was written.',
    access: 'keep own account',
    reply: z.object({ secret: z.string(), address: z.string() }),
  }),
  confirmSecondFactor: defineRoute({
    name: 'confirmSecondFactor',
    method: 'PUT',
    path: '/api/second-factor',
    summary: 'Confirms the second factor by a code; answers with recovery codes, once.',
    access: 'keep own account',
    body: z.object({ code: text(20) }),
    reply: codes,
  }),
  renewRecoveryCodes: defineRoute({
    name: 'renewRecoveryCodes',
    method: 'POST',
    path: '/api/recovery-codes',
    summary: 'Makes recovery codes anew, by a code; those before open nothing any more.',
    access: 'keep own account',
    body: z.object({ code: text(20) }),
    reply: codes,
  }),
  endSecondFactor: defineRoute({
    name: 'endSecondFactor',
    method: 'PUT',
    path: '/api/second-factor/end',
    summary: 'Takes the second factor away, by a code of it or a recovery code.',
    access: 'keep own account',
    body: z.object({ code: text(20) }),
  }),
} as const
