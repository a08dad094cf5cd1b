import { z } from 'zod'
import { STARTING_POLICIES } from '#core/approval/starting'
import { defineRoute } from './route'
import { me } from './session'
import { decimal, text } from './values'

const key = text(100)
const said = (max: number) =>
  text(max)
    .refine((t) => t.trim() !== '', 'is empty')
    .transform((t) => t.replace(/\s+/g, ' ').trim())
const named = z.array(z.object({ id: z.string(), name: z.string() }))
/** How an organisation begins: who it is, how it counts, who begins, and how approval begins. */
const beginning = z.object({
  key,
  name: said(120),
  street: said(200),
  postcode: text(20),
  town: said(100),
  country: z.string().length(2, 'is not chosen'),
  /** Of which region the public holidays are; the country's own where it is left out. */
  region: text(10).default(''),
  mailFrom: z.email('is no e-mail address').max(254),
  currency: z.string().regex(/^[A-Z]{3}$/, 'is not chosen'),
  timeZone: said(60),
  fiscalStartMonth: z.number().int().min(1).max(12),
  /** The rate of tax as a rule, and the reduced one; in percent, null where there is none. */
  taxRate: decimal.nullable(),
  reducedRate: decimal.nullable(),
  department: said(100),
  costCentre: said(20),
  person: said(100),
  email: z.email('is no e-mail address').max(254),
  password: text(500),
  /** Up to how much whoever begins decides and orders, in the base currency. */
  limit: decimal,
  policy: z.enum(STARTING_POLICIES),
})
export type Beginning = z.output<typeof beginning>

const state = z.object({
  /** Whether the key that was brought opens the beginning. */
  opens: z.boolean(),
  isSetUp: z.boolean(),
  countries: z.array(
    z.object({
      id: z.string(),
      name: z.string(),
      /** Those that have public holidays of their own. */
      regions: named,
      /** Rates of tax that are usual there; null where none are known. */
      rates: z.object({ standard: decimal, reduced: decimal.nullable() }).nullable(),
    }),
  ),
  currencies: named,
  timeZones: z.array(z.string()),
})
export type FirstStartView = z.infer<typeof state>

export const firstStartRoutes = {
  readFirstStart: defineRoute({
    name: 'readFirstStart',
    method: 'GET',
    path: '/api/first-start',
    summary: 'Whether an organisation is set up, and what the one-time address of the first start opens',
    access: 'public',
    query: z.object({ key: key.default('') }),
    reply: state,
  }),
  beginOrganisation: defineRoute({
    name: 'beginOrganisation',
    method: 'POST',
    path: '/api/first-start',
    summary: 'Enters the organisation with its first administrator, once, by the key that the start printed',
    access: 'public',
    body: beginning,
    reply: me,
  }),
}
