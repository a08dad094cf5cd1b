import { z } from 'zod'
import { defineRoute } from './route'
import { ids, money } from './values'

const line = z.object({
  id: z.string(),
  name: z.string(),
  code: z.string(),
  department: z.string(),
  holder: z.string().nullable(),
  control: z.enum(['tells', 'asks', 'refuses']),
  mayFallBelow: money,
  given: money,
  spent: money,
  committed: money,
  reserved: money,
  available: money,
  requests: z.number(),
  orders: z.number(),
  byPeriod: z.array(
    z.object({
      from: z.string(),
      period: z.number(),
      budgeted: money,
      spent: money,
      committed: money,
      reserved: money,
    }),
  ),
})
export type BudgetLineView = z.infer<typeof line>
const entry = z.object({
  seq: z.number(),
  at: z.string(),
  period: z.number(),
  stage: z.enum(['reserved', 'committed', 'spent']),
  amount: z.string(),
  cause: z.string(),
  documentKind: z.string(),
  documentId: z.string(),
  number: z.string().nullable(),
  title: z.string(),
  person: z.string().nullable(),
  visible: z.boolean(),
})
export type BudgetEntryView = z.infer<typeof entry>

export const budgetRoutes = {
  listBudgets: defineRoute({
    name: 'listBudgets',
    method: 'GET',
    path: '/api/budgets',
    summary: 'Budget lines with their stages.',
    access: 'see budgets',
    query: z.object({ year: z.coerce.number().int().min(1990).max(2199).optional() }),
    reply: z.object({
      lines: z.array(line),
      year: z.number(),
      period: z.number(),
      currency: z.string(),
      /** Shares of the year, between 0 and 1. */
      yearGone: z.number(),
      yearLeft: z.number(),
    }),
  }),
  listBudgetEntries: defineRoute({
    name: 'listBudgetEntries',
    method: 'GET',
    path: '/api/budgets/{id}/entries',
    summary: 'Every entry behind a budget line’s figures, newest first.',
    access: 'see budgets',
    params: ids,
    query: z.object({ before: z.coerce.number().int().min(1).optional() }),
    reply: z.object({ entries: z.array(entry), next: z.number().nullable(), currency: z.string() }),
  }),
} as const
