import { z } from 'zod'
import { ORDERING_PRICES } from '#core/order/by-itself'
import { RULE_MOVE_NAMES, RULE_STATES } from '#core/order/rule-moves'
import type { OrderState } from '#core/order/moves'
import { defineRoute } from './route'
import { decimal, id, ids as one, money, text, versioned } from './values'

const some = z.array(id).max(200)
const amount = decimal.refine((t) => !t.startsWith('-'), 'is below nothing')
const form = z.object({
  /** Kinds of requests, by code. None named: any; so it is with the others. */
  kinds: z.array(z.string().max(40)).max(100),
  departmentIds: some,
  categoryIds: some,
  supplierIds: some,
  price: z.enum(ORDERING_PRICES),
  /** The most that an order may come to, in the base currency. */
  upTo: amount.nullable(),
  time: z.discriminatedUnion('each', [
    z.object({ each: z.literal('approval') }),
    z.object({ each: z.literal('day'), hour: z.number().int().min(0).max(23) }),
  ]),
  mostRequests: z.number().int().min(1).max(500).nullable(),
  windowDays: z.number().int().min(0).max(366).nullable(),
  byDepartment: z.boolean(),
  choose: z.enum(['cheapest', 'oldest']),
  waitFor: z.object({ value: amount, days: z.number().int().min(0).max(60) }).nullable(),
})
export type OrderingFormSent = z.infer<typeof form>

const kept = z.object({ name: text(120).refine((t) => t.trim() !== '', 'says nothing'), buyerId: id, form })
export type KeptRule = z.infer<typeof kept>

const left = z.array(
  z.object({
    reason: z.string(),
    /** How many lines, with those that one may not see. */
    count: z.number(),
    lines: z.array(
      z.object({
        lineId: z.string(),
        requisitionId: z.string(),
        number: z.string(),
        description: z.string(),
        quantity: z.string(),
        unit: z.string(),
        supplier: z.string().nullable(),
        /** It still waits to be ordered. */
        isOpen: z.boolean(),
      }),
    ),
  }),
)
export type LeftView = z.infer<typeof left>[number]

const request = z.object({ id: z.string(), number: z.string() })

const run = z.object({
  id: z.string(),
  ruleId: z.string(),
  rule: z.string(),
  buyer: z.string(),
  cause: z.enum(['approval', 'time', 'asked']),
  by: z.string().nullable(),
  beganAt: z.string(),
  endedAt: z.string().nullable(),
  /** How often the same was found since it began, and when last. */
  times: z.number(),
  lastAt: z.string(),
  made: z.number(),
  left: z.number(),
  trouble: z.string().nullable(),
})
export type RunHead = z.infer<typeof run>

const rule = z.object({
  id: z.string(),
  name: z.string(),
  buyerId: z.string(),
  buyer: z.string(),
  form,
  state: z.enum(RULE_STATES),
  writtenBy: z.string(),
  confirmedBy: z.string().nullable(),
  /** What whoever looks may do with it. */
  may: z.array(z.enum(RULE_MOVE_NAMES)),
  lastRun: run.nullable(),
  version: z.number(),
})
export type RuleView = z.infer<typeof rule>

const named = z.array(z.object({ id: z.string(), name: z.string() }))
const choices = z.object({
  currency: z.string(),
  kinds: named,
  departments: named,
  categories: named,
  buyers: named,
  /** The suppliers that rules name. */
  suppliers: named,
})
export type RuleChoices = z.infer<typeof choices>

const tried = z.object({
  orders: z.array(
    z.object({
      supplier: z.string(),
      shipTo: z.string(),
      net: money,
      saved: money,
      lines: z.number(),
      /** As far as one may see them. */
      requests: z.array(request),
    }),
  ),
  left,
  /** Orders that were not tried, because there are so many. */
  untried: z.number(),
})
export type TriedRule = z.infer<typeof tried>

export const orderingRoutes = {
  listRules: defineRoute({
    name: 'listRules',
    method: 'GET',
    path: '/api/ordering-rules',
    summary: 'By which rules approved lines are ordered by themselves.',
    access: 'see ordering rules',
    reply: z.object({ rules: z.array(rule), choices }),
  }),
  addRule: defineRoute({
    name: 'addRule',
    method: 'POST',
    path: '/api/ordering-rules',
    summary: 'Write a rule. It orders nothing until somebody else puts it in force.',
    access: 'keep settings',
    body: kept,
    reply: versioned,
    idempotent: true,
  }),
  keepRule: defineRoute({
    name: 'keepRule',
    method: 'PUT',
    path: '/api/ordering-rules/{id}',
    summary: 'Change what a rule says; it orders nothing until it is put in force anew.',
    access: 'keep settings',
    params: one,
    body: kept,
    ifMatch: true,
    reply: versioned,
  }),
  moveRule: defineRoute({
    name: 'moveRule',
    method: 'PUT',
    path: '/api/ordering-rules/{id}/state',
    summary: 'Ask for it to be put in force, put it in force, send it back, pause it, let it go on, end it.',
    access: 'see ordering rules',
    params: one,
    body: z.object({ move: z.enum(RULE_MOVE_NAMES) }),
    ifMatch: true,
    reply: versioned,
  }),
  tryRule: defineRoute({
    name: 'tryRule',
    method: 'POST',
    path: '/api/ordering-rules/trial',
    summary: 'What a rule would order now and what it would leave, with why. Nothing is kept.',
    access: 'see ordering rules',
    body: kept.omit({ name: true }),
    reply: tried,
  }),
  runRule: defineRoute({
    name: 'runRule',
    method: 'POST',
    path: '/api/ordering-rules/{id}/runs',
    summary: 'Have a rule that is in force carried out now.',
    access: 'see ordering rules',
    params: one,
    reply: one,
    idempotent: true,
  }),
  listRuns: defineRoute({
    name: 'listRuns',
    method: 'GET',
    path: '/api/ordering-runs',
    summary: 'What was ordered by itself, run by run, the newest first.',
    access: 'see orders',
    query: z.object({ rule: id.optional() }),
    reply: z.object({ runs: z.array(run), isAll: z.boolean() }),
  }),
  readRun: defineRoute({
    name: 'readRun',
    method: 'GET',
    path: '/api/ordering-runs/{id}',
    summary: 'What a run made, what it left, and why.',
    access: 'see orders',
    params: one,
    reply: run.extend({
      says: z.string(),
      orders: z.array(
        z.object({
          id: z.string(),
          number: z.string(),
          supplier: z.string(),
          shipTo: z.string(),
          state: z.custom<OrderState>(),
          net: z.string(),
          currency: z.string(),
          requests: z.array(request),
        }),
      ),
      leftLines: left,
    }),
  }),
} as const
