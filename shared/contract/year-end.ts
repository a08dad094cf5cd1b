import { z } from 'zod'
import { YEAR_END_CHOICES } from '#core/budget/year-end'
import { defineRoute } from './route'
import { decimal, id, money } from './values'

const params = z.object({ year: z.coerce.number().int().min(1990).max(2200) })
const choice = z.enum(YEAR_END_CHOICES)

const periodFigures = z.object({
  period: z.number(),
  budgeted: money,
  adjustments: money,
  reserved: money,
  committed: money,
  spent: money,
})

const openLine = z.object({
  id: z.string(),
  name: z.string(),
  department: z.string(),
  reserved: money,
  committed: money,
  /** How many requests, orders and things from before are behind it. */
  documents: z.number(),
  /** What the line that would pay a year on holds; null where there is none. */
  next: z
    .object({
      periods: z.array(periodFigures),
      span: z.enum(['year', 'to date', 'period']),
      mayFallBelow: money,
    })
    .nullable(),
})
export type OpenLineView = z.infer<typeof openLine>

const yearEnd = z.object({
  year: z.number(),
  currency: z.string(),
  /** It is over; `from` is the first day on which it may be ended. */
  mayEnd: z.boolean(),
  from: z.string(),
  lines: z.array(openLine),
  /** How it was ended before, the last first. */
  runs: z.array(
    z.object({
      id: z.string(),
      at: z.string(),
      by: z.string(),
      withMoney: z.boolean(),
      lines: z.array(
        z.object({
          id: z.string(),
          name: z.string(),
          department: z.string(),
          choice,
          reserved: money,
          committed: money,
          documents: z.number(),
        }),
      ),
    }),
  ),
})
export type YearEndView = z.infer<typeof yearEnd>

const asked = z.object({
  /** Budget lines, each with what was seen open of it; lines that are not named stay as they are. */
  lines: z
    .array(z.object({ id, choice, seen: decimal }))
    .min(1)
    .max(5000)
    .refine((of) => new Set(of.map((l) => l.id)).size === of.length, 'name a line twice'),
  /** What is carried brings its money along, as adjustments of both lines. */
  withMoney: z.boolean(),
})
export type YearEndAsked = z.infer<typeof asked>

export const yearEndRoutes = {
  readYearEnd: defineRoute({
    name: 'readYearEnd',
    method: 'GET',
    path: '/api/fiscal-years/{year}/end',
    summary: 'What is still open of a year’s budget lines, and how the year was ended before.',
    access: 'see all budgets',
    params,
    reply: yearEnd,
  }),
  endYear: defineRoute({
    name: 'endYear',
    method: 'POST',
    path: '/api/fiscal-years/{year}/end',
    summary: 'Carry what is still open to the next year, or release it, line by line in one go, as it was seen.',
    access: 'keep budgets',
    params,
    body: asked,
    reply: z.object({ id: z.string() }),
    idempotent: true,
  }),
  exportYearEnd: defineRoute({
    name: 'exportYearEnd',
    method: 'GET',
    path: '/api/fiscal-years/{year}/end/{run}/file',
    summary: 'Every entry that a run of a year’s end made, as CSV or XLSX.',
    access: 'see all budgets',
    params: params.extend({ run: id }),
    query: z.object({ as: z.enum(['csv', 'xlsx']) }),
    bytes: 'download',
  }),
} as const
