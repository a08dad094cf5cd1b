import { z } from 'zod'
import { defineRoute } from './route'
import { id, text } from './values'

/** Which of one's requests are listed. */
const mineQuery = {
  view: z.enum(['all', 'open', 'drafts', 'waiting']).default('all'),
  words: text(100).default(''),
  job: id.optional(),
  field: id.optional(),
  value: text(200).optional(),
}
const mineRow = z.object({
  id: z.string(),
  number: z.string().nullable(),
  state: z.string(),
  title: z.string(),
  amount: z.string().nullable(),
  since: z.string(),
  waitsFor: z.array(z.string()),
  question: z.string().nullable(),
  orderedShare: z.number(),
  decisionShare: z.number(),
  stateBy: z.string().nullable(),
  version: z.number(),
  remindedAt: z.string().nullable(),
  job: z.string().nullable(),
  own: z.record(z.string(), z.string()),
})
export type MineRow = z.infer<typeof mineRow>

export const mineRoutes = {
  readMineFilters: defineRoute({
    name: 'readMineFilters',
    method: 'GET',
    path: '/api/mine-filters',
    summary: 'Jobs and own fields by which one’s requests can be told apart.',
    access: 'see own',
    reply: z.object({
      jobs: z.array(z.object({ id: z.string(), number: z.string(), name: z.string() })),
      fields: z.array(
        z.object({ id: z.string(), name: z.string(), values: z.array(z.object({ id: z.string(), name: z.string() })) }),
      ),
    }),
  }),
  exportMine: defineRoute({
    name: 'exportMine',
    method: 'GET',
    path: '/api/requisitions/export',
    summary: 'What one started or owns, or its lines, as a CSV or XLSX file.',
    access: 'see own',
    bytes: 'download',
    query: z.object({
      ...mineQuery,
      of: z.enum(['requests', 'lines']).default('requests'),
      as: z.enum(['csv', 'xlsx']).default('csv'),
    }),
  }),
  listMine: defineRoute({
    name: 'listMine',
    method: 'GET',
    path: '/api/requisitions',
    summary: 'What one started or owns, newest first, by keyset pages.',
    access: 'see own',
    query: z.object({
      ...mineQuery,
      after: text(80).optional(),
      limit: z.coerce.number().int().min(1).max(100).default(50),
    }),
    reply: z.object({
      rows: z.array(mineRow),
      next: z.string().nullable(),
      total: z.number(),
      /** How many fit what was asked for; the sums are theirs. */
      fitting: z.number(),
      waiting: z.number(),
      currency: z.string(),
      sum: z.string(),
      openSum: z.string(),
      /** The server's moment: what was done a day ago is told by it. */
      now: z.string(),
    }),
  }),
} as const
