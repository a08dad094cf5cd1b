import { z } from 'zod'
import { KEPT_KINDS, MOST_KEPT_DAYS, type KeptKind } from '#core/people/retention'
import { SECOND_FACTOR_FOR } from '#core/people/person'
import { defineRoute } from './route'
import { decimal, ids, text } from './values'

const said = (max: number) =>
  text(max)
    .refine((t) => t.trim() !== '', 'is empty')
    .transform((t) => t.replace(/\s+/g, ' ').trim())
const period = z.object({ period: z.number(), from: z.string(), until: z.string(), closed: z.boolean() })
const days = z.number().int().min(1).max(MOST_KEPT_DAYS).nullable()
const keptDays = z.object(Object.fromEntries(KEPT_KINDS.map((k) => [k, days])) as Record<KeptKind, typeof days>)
const kept = z.object({
  name: said(120),
  address: said(300),
  mailFrom: z.email('is no e-mail address').max(254),
  /** What else stands under the name on papers: telephone, register, tax number. */
  letterhead: text(300)
    .transform((t) => t.replace(/\s+/g, ' ').trim())
    .optional(),
  /** How far an order may exceed what was approved: within both, before it is routed again. */
  tolerancePercent: decimal,
  toleranceAmount: decimal,
  /** Of whom a second factor is asked when they sign in. */
  secondFactorFor: z.enum(SECOND_FACTOR_FOR),
  /** For how many days after their end sessions, read notices, letters and people who left are kept; null: for good. */
  kept: keptDays.optional(),
})
const view = kept.extend({
  letterhead: z.string(),
  kept: keptDays,
  version: z.number(),
  timeZone: z.string(),
  baseCurrency: z.string(),
  fiscalStartMonth: z.number(),
  years: z.array(z.object({ year: z.number(), periods: z.array(period) })),
  /** Numbers given so far: by series and fiscal year the last one, and what the next will be. */
  series: z.array(z.object({ series: z.string(), year: z.number(), next: z.string() })),
})
export type OrganisationView = z.infer<typeof view>
const year = z.coerce.number().int().min(1990).max(2200)

export const organisationRoutes = {
  readOrganisation: defineRoute({
    name: 'readOrganisation',
    method: 'GET',
    path: '/api/organisation',
    summary: 'Who we are, how we count, which periods are open, and which numbers come next',
    access: 'keep lists',
    reply: view,
  }),
  keepOrganisation: defineRoute({
    name: 'keepOrganisation',
    method: 'PUT',
    path: '/api/organisation',
    summary: 'Changes name, address, the address of letters and the tolerance of orders',
    access: 'keep settings',
    body: kept,
    reply: z.object({ version: z.number() }),
    ifMatch: true,
  }),
  setPeriod: defineRoute({
    name: 'setPeriod',
    method: 'PUT',
    path: '/api/fiscal-years/{year}/periods/{period}',
    summary: 'Closes a period for new documents and bills, or opens it again',
    access: 'keep budgets',
    params: z.object({ year, period: z.coerce.number().int().min(1).max(12) }),
    body: z.object({ closed: z.boolean() }),
  }),
  addFiscalYear: defineRoute({
    name: 'addFiscalYear',
    method: 'PUT',
    path: '/api/fiscal-years/{year}',
    summary: 'Adds the periods of the fiscal year after the last one; one that is there already stays as it is',
    access: 'keep budgets',
    params: z.object({ year }),
  }),
  dropFactorOf: defineRoute({
    name: 'dropFactorOf',
    method: 'DELETE',
    path: '/api/people/{id}/second-factor',
    summary: 'Takes the second factor of somebody else away who lost theirs; they are told by mail.',
    access: 'keep settings',
    params: ids,
  }),
  sendTestLetter: defineRoute({
    name: 'sendTestLetter',
    method: 'POST',
    path: '/api/test-letters',
    summary: 'Sends a letter to oneself at once, and says what the mail server answered where it refuses',
    access: 'keep settings',
    reply: z.object({ to: z.string() }),
  }),
}
