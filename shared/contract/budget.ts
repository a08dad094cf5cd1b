import { z } from 'zod'
import { YEAR_BASES } from '#core/budget/next-year'
import { PROFILE_WAYS } from '#core/budget/profile'
import { TRANSFER_STATES } from '#core/budget/transfer'
import { defineRoute } from './route'
import { decimal, id, ids, made, money, text } from './values'

const line = z.object({
  id: z.string(),
  name: z.string(),
  code: z.string(),
  departmentId: z.string(),
  department: z.string(),
  holder: z.string().nullable(),
  control: z.enum(['tells', 'asks', 'refuses']),
  mayFallBelow: money,
  given: money,
  spent: money,
  committed: money,
  reserved: money,
  available: money,
  /** What of it was moved in, or out, besides the plan. */
  moved: money,
  /** Whoever reads it holds it. */
  isHeld: z.boolean(),
  /** What it will have taken by the end of its year, and left; null where that cannot be said. */
  forecast: z
    .object({ least: money, most: money, leftLeast: money, leftMost: money, byLastYear: z.boolean() })
    .nullable(),
  requests: z.number(),
  orders: z.number(),
  byPeriod: z.array(
    z.object({
      from: z.string(),
      period: z.number(),
      budgeted: money,
      /** What of it is the plan, without what was moved. */
      planned: money,
      spent: money,
      committed: money,
      reserved: money,
    }),
  ),
})
export type BudgetLineView = z.infer<typeof line>
/** A department with all below it that is shown, summed up. */
const branch = z.object({
  ...{ id: z.string(), name: z.string(), depth: z.number(), hasBelow: z.boolean() },
  ...{ given: money, spent: money, committed: money, reserved: money, available: money },
})
const transfer = z.object({
  id: z.string(),
  /** Null where nobody gave it: an adjustment by finance. */
  fromLineId: z.string().nullable(),
  from: z.string().nullable(),
  toLineId: z.string(),
  to: z.string(),
  period: z.number(),
  amount: money,
  reason: z.string(),
  state: z.enum(TRANSFER_STATES),
  proposedBy: z.string(),
  proposedAt: z.string(),
  /** Whoever decides on it; null: any of finance. */
  decider: z.string().nullable(),
  decidedBy: z.string().nullable(),
  decidedAt: z.string().nullable(),
  comment: z.string(),
  isOwn: z.boolean(),
  /** Whoever reads it decides on it. */
  decides: z.boolean(),
})
export type TransferView = z.infer<typeof transfer>
const period = z.number().int().min(1).max(12)
const transferAsked = z.object({ fromLineId: id, toLineId: id, period, amount: decimal, reason: text(1000) })
export type TransferAsked = z.infer<typeof transferAsked>
const year = z.coerce.number().int().min(1990).max(2199).optional()

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

const yearNumber = z.coerce.number().int().min(1990).max(2200)
const yearAsked = z.object({
  /** 1 is as much as the year before. */
  factor: decimal.refine((f) => /^(?:\d{1,2}(?:\.\d{1,6})?|100)$/.test(f), 'is not between 0 and 100').default('1'),
  from: z.enum(YEAR_BASES).default('planned'),
})
const yearPlan = z.object({
  lines: z.array(z.object({ id: z.string(), name: z.string(), department: z.string(), was: money, is: money })),
  was: money,
  is: money,
})
export type YearPlan = z.infer<typeof yearPlan>

export const budgetRoutes = {
  listBudgets: defineRoute({
    name: 'listBudgets',
    method: 'GET',
    path: '/api/budgets',
    summary: 'Budget lines with their stages.',
    access: 'see budgets',
    query: z.object({ year, until: z.enum(['year', 'now']).default('year') }),
    reply: z.object({
      /** In the order of their departments. */
      lines: z.array(line),
      /** Those that have lines here, or stand above some that do, each below the one that it is part of. */
      departments: z.array(branch),
      year: z.number(),
      period: z.number(),
      currency: z.string(),
      /** Shares of the year, between 0 and 1. */
      yearGone: z.number(),
      yearLeft: z.number(),
    }),
  }),
  listTransfers: defineRoute({
    name: 'listTransfers',
    method: 'GET',
    path: '/api/budget-transfers',
    summary: 'Money that moves between budget lines: what waits, then what ended.',
    access: 'see budgets',
    query: z.object({ year }),
    reply: z.object({ transfers: z.array(transfer) }),
  }),
  proposeTransfer: defineRoute({
    name: 'proposeTransfer',
    method: 'POST',
    path: '/api/budget-transfers',
    summary: 'Propose that money moves to another budget line.',
    access: 'see budgets',
    body: transferAsked,
    reply: made,
    idempotent: true,
  }),
  decideTransfer: defineRoute({
    name: 'decideTransfer',
    method: 'POST',
    path: '/api/budget-transfers/{id}/decisions',
    summary: 'Agree that money moves, or refuse it.',
    access: 'see budgets',
    params: ids,
    body: z.object({ outcome: z.enum(['agree', 'refuse']), comment: text(1000).default('') }),
    reply: made,
    idempotent: true,
  }),
  takeBackTransfer: defineRoute({
    name: 'takeBackTransfer',
    method: 'DELETE',
    path: '/api/budget-transfers/{id}',
    summary: 'Take back what one proposed.',
    access: 'see budgets',
    params: ids,
    reply: made,
  }),
  adjustBudget: defineRoute({
    name: 'adjustBudget',
    method: 'POST',
    path: '/api/budget-adjustments',
    summary: 'Give a budget line more, or less, than its plan.',
    access: 'keep budgets',
    body: z.object({ budgetLineId: id, period, amount: decimal, reason: text(1000) }),
    reply: made,
    idempotent: true,
  }),
  planBudgetYear: defineRoute({
    name: 'planBudgetYear',
    method: 'GET',
    path: '/api/fiscal-years/{year}/budget',
    summary:
      'What a year would begin with: each budget line of the year before that it does not have yet, times a factor.',
    access: 'keep budgets',
    params: z.object({ year: yearNumber }),
    query: yearAsked,
    reply: yearPlan,
  }),
  beginBudgetYear: defineRoute({
    name: 'beginBudgetYear',
    method: 'POST',
    path: '/api/fiscal-years/{year}/budget',
    summary: 'Begin a year so; where it would come to something else than was seen, nothing is written.',
    access: 'keep budgets',
    params: z.object({ year: yearNumber }),
    body: yearAsked.extend({ seen: decimal }),
    reply: z.object({ lines: z.number() }),
    idempotent: true,
  }),
  setBudgetProfile: defineRoute({
    name: 'setBudgetProfile',
    method: 'PUT',
    path: '/api/budgets/{id}/profile',
    summary: 'Spread what a budget line was given for its year over the periods anew; the year stays as it is.',
    access: 'keep budgets',
    params: ids,
    body: z.object({
      how: z.enum(PROFILE_WAYS),
      /** By hand: what each period is given. */
      amounts: z.array(decimal).max(12).optional(),
      /** What each was given when it was looked at. */
      seen: z.array(decimal).max(12),
    }),
    reply: made,
  }),
  exportBudgets: defineRoute({
    name: 'exportBudgets',
    method: 'GET',
    path: '/api/budgets/file',
    summary: 'Budget lines with their stages, as CSV or XLSX.',
    access: 'see budgets',
    query: z.object({ year, until: z.enum(['year', 'now']).default('year'), as: z.enum(['csv', 'xlsx']) }),
    bytes: 'download',
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
