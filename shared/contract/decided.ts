import { z } from 'zod'
import { defineRoute } from './route'
import { day, text } from './values'

const asked = z.object({
  whose: z.enum(['own', 'people', 'all']).default('own'),
  outcome: z.enum(['approved', 'sent back', 'rejected']).optional(),
  words: text(200).default(''),
  from: day.optional(),
  until: day.optional(),
  after: text(100).optional(),
})
export type DecidedAsked = z.output<typeof asked>
const row = z.object({
  id: z.string(),
  documentId: z.string(),
  document: z.enum(['requisition', 'order']),
  /** The same, of a request; "" of an order. */
  requisitionId: z.string(),
  /** "" of an order that is not issued. */
  number: z.string(),
  title: z.string(),
  owner: z.string(),
  amount: z.string(),
  currency: z.string(),
  outcome: z.enum(['approved', 'sent back', 'rejected']),
  comment: z.string(),
  at: z.string(),
  by: z.string(),
  /** Whoever reads it decided. */
  isOwn: z.boolean(),
  /** For whom, where somebody was away. */
  forName: z.string().nullable(),
  takenBack: z.boolean(),
  /** The version of the policy that it followed. */
  policy: z.number().nullable(),
  /** Where it stands now. */
  state: z.string(),
})
export type DecidedRow = z.infer<typeof row>
const page = z.object({ rows: z.array(row), next: z.string().nullable() })
export type DecidedPage = z.infer<typeof page>

export const decidedRoutes = {
  readDecided: defineRoute({
    name: 'readDecided',
    method: 'GET',
    path: '/api/decisions',
    summary: 'What was decided by oneself, by people one is above, or by everybody, as far as one may see it.',
    access: 'decide',
    query: asked,
    reply: page,
  }),
  exportDecided: defineRoute({
    name: 'exportDecided',
    method: 'GET',
    path: '/api/decisions/file',
    summary: 'The same as a file.',
    access: 'decide',
    query: asked.extend({ as: z.enum(['csv', 'xlsx']) }),
    bytes: 'download',
  }),
} as const
