import { z } from 'zod'
import { UNITS } from '#core/base/unit'
import { REQUISITION_STATES } from '#core/requisition/moves'
import { defineRoute } from './route'
import { day, decimal, id, ids, money, text } from './values'

const job = z.object({
  id: z.string(),
  number: z.string(),
  name: z.string(),
  departmentId: z.string().nullable(),
  department: z.string().nullable(),
  isOpen: z.boolean(),
  /** How many parts it has. */
  parts: z.number(),
  /** The reader is at work on it. */
  isIn: z.boolean(),
})
const positive = decimal.refine((t) => Number(t) > 0, 'is not more than nothing')
const part = z.object({
  id,
  itemId: id.nullable(),
  description: text(200).refine((t) => t.trim() !== '', 'is missing'),
  quantity: positive,
  unit: z.string().refine((u) => u in UNITS, 'is not a unit'),
  /** What one is expected to cost, in the base currency. */
  estimate: decimal.refine((t) => Number(t) >= 0, 'is negative').nullable(),
})
const plan = z.object({
  startsOn: day.nullable(),
  endsOn: day.nullable(),
  shipToId: id.nullable(),
  budgetLineId: id.nullable(),
  people: z.array(id).max(50),
  parts: z.array(part).max(500),
})
export type JobPlan = z.infer<typeof plan>
const named = z.object({ id: z.string(), name: z.string() })
const view = job.extend({
  version: z.number(),
  startsOn: z.string().nullable(),
  endsOn: z.string().nullable(),
  shipToId: z.string().nullable(),
  shipTo: z.string().nullable(),
  budgetLineId: z.string().nullable(),
  budgetLine: z.string().nullable(),
  people: z.array(named.extend({ jobTitle: z.string() })),
  mayChange: z.boolean(),
  /** The kind of request as which what is added is asked for by itself; null where it waits to be raised. */
  raisesAs: z.string().nullable(),
  currency: z.string(),
  parts: z.array(
    part.extend({
      /** What tells it apart within its job. */
      number: z.string(),
      itemNumber: z.string().nullable(),
      supplier: z.string().nullable(),
      retired: z.boolean(),
      progress: z.object({ drafted: decimal, asked: decimal, ordered: decimal, open: decimal }),
      requisitions: z.array(
        z.object({ id: z.string(), number: z.string().nullable(), state: z.enum(REQUISITION_STATES) }),
      ),
    }),
  ),
  estimate: money,
  /** Net of what was ordered along lines that name the job. */
  ordered: money,
  choices: z.object({ shipTos: z.array(named), budgetLines: z.array(named) }),
})
export type JobView = z.infer<typeof view>

export const jobRoutes = {
  listJobs: defineRoute({
    name: 'listJobs',
    method: 'GET',
    path: '/api/jobs',
    summary: 'Jobs by words of their number and name: one’s own first.',
    access: 'see catalogue',
    query: z.object({ words: text(120).default('') }),
    reply: z.object({ jobs: z.array(job) }),
  }),
  readJob: defineRoute({
    name: 'readJob',
    method: 'GET',
    path: '/api/jobs/{id}',
    summary: 'A job with its parts and how far each is, for those who have to do with it.',
    access: 'see catalogue',
    params: ids,
    reply: view,
  }),
  keepJob: defineRoute({
    name: 'keepJob',
    method: 'PUT',
    path: '/api/jobs/{id}',
    summary: 'Keep what is planned for a job as a whole: people, days, place, who pays, and its parts.',
    access: 'raise',
    params: ids,
    ifMatch: true,
    body: plan,
    reply: z.object({ version: z.number() }),
  }),
  raiseParts: defineRoute({
    name: 'raiseParts',
    method: 'POST',
    path: '/api/jobs/{id}/raise',
    summary: 'Write a draft of the parts that nobody asked for yet.',
    access: 'raise',
    params: ids,
    ifMatch: true,
    idempotent: true,
    body: z.object({ partIds: z.array(id).max(500).nullable().default(null) }),
    reply: z.object({ id: z.string(), lines: z.number(), version: z.number() }),
  }),
} as const
