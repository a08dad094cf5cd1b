import { z } from 'zod'
import { HANDED_HOW } from '#core/approval/handed'
import { MAY_CHANGE } from '#core/approval/policy-form'
import { RISK_MARKS } from '#core/approval/marks'
import { REASON_USES } from '#core/approval/reasons'
import { attachment, remark } from './document'
import { requestLine, requestView } from './request-view'
import { RESTS } from '#core/order/change'
import { directOrder } from './order'
import { defineRoute } from './route'
import { decimal, id, ids, made, money, text, versioned } from './values'
import { partsOfNet } from './order-conditions'

const document = z.enum(['requisition', 'order'])
const slip = z.object({
  id: z.string(),
  document,
  owner: z.string(),
  amount: z.string(),
  currency: z.string(),
  title: z.string(),
  needBy: z.string(),
  since: z.string(),
  forName: z.string().nullable(),
  overBudget: z.boolean(),
  newSupplier: z.boolean(),
  /** Which it is decided at. */
  version: z.number(),
  asked: z.boolean(),
})
export type Slip = z.infer<typeof slip>
const preparedReason = z.object({ text: z.string(), use: z.enum(REASON_USES) })
export type PreparedReason = z.infer<typeof preparedReason>

export const seat = z.object({
  actorId: z.string(),
  name: z.string(),
  /** Whoever reads it. */
  you: z.boolean(),
  why: z.string(),
  /** Of a route that was stopped: who stopped it, and who is no longer asked. */
  state: z.enum(['done', 'open', 'ahead', 'sent back', 'rejected', 'over']),
  at: z.string().nullable(),
  /** It was decided by answering a mail. */
  byMail: z.boolean(),
  comment: z.string(),
})
export type SeatView = z.infer<typeof seat>
const bar = z.object({
  budgetLineId: z.string(),
  name: z.string(),
  code: z.string(),
  budgeted: money,
  spent: money,
  committed: money,
  reserved: money,
  effect: money,
  before: money,
  after: money,
  /** What is left with it: of the period, up to the end of it, and of the year. */
  leftAfter: z.object({ period: money, toDate: money, year: money }),
  passed: z.boolean(),
})
export type BudgetBarView = z.infer<typeof bar>
const decisionLine = requestLine.extend({
  /** What was paid for it before, the newest first. */
  paid: z.array(z.object({ unitPrice: z.string(), currency: z.string(), day: z.string() })),
})
export type DecisionLine = z.infer<typeof decisionLine>

/** What is told of any document that is decided on. */
const decided = z.object({
  id: z.string(),
  version: z.number(),
  state: z.string(),
  title: z.string(),
  owner: z.string(),
  ownerId: z.string(),
  amount: money,
  budget: z.array(bar),
  route: z.array(seat),
  held: z.boolean(),
  remarks: z.array(remark),
  mine: z.boolean(),
  /** What the reader had others do on it, and may call back. */
  handed: z.array(z.object({ id: z.string(), how: z.enum([...HANDED_HOW, 'skip']), to: z.string() })),
  forName: z.string().nullable(),
  /** What an approval now would lead to. */
  afterApproval: z.object({ state: z.enum(['waiting', 'held', 'approved']), next: z.array(z.string()) }),
})
export type DecisionSeat = Pick<
  z.infer<typeof decided>,
  'route' | 'held' | 'remarks' | 'mine' | 'handed' | 'forName' | 'afterApproval'
>

const requestDecision = requestView.extend(decided.shape).extend({
  document: z.literal('requisition'),
  number: z.string(),
  sentAt: z.string(),
  /** What is not as it was when it was sent the time before, in words. */
  changes: z.array(z.string()),
  lines: z.array(decisionLine),
  /** What its reader may change of it while approving. */
  mayChange: z.enum(MAY_CHANGE),
  /** Where that may be who pays: the one budget line that pays for each line now, and those that could. */
  payers: z.array(
    z.object({
      lineId: z.string(),
      /** Null where several pay. */
      now: z.string().nullable(),
      may: z.array(z.object({ id: z.string(), name: z.string() })),
    }),
  ),
  /** What the same department asked for lately of the same, as far as the reader may see it; the newest first. */
  similar: z.array(
    z.object({
      id: z.string(),
      number: z.string(),
      title: z.string(),
      owner: z.string(),
      day: z.string(),
      amount: money,
    }),
  ),
  attachments: z.array(attachment),
  /** What makes whoever decides on it look twice. */
  marks: z.array(z.enum(RISK_MARKS)),
  /** Others that it makes one request with, each below what they pass together; told to whoever decides on it. */
  split: z
    .object({
      sentence: z.string(),
      others: z.array(
        z.object({
          id: z.string().nullable(),
          number: z.string().nullable(),
          title: z.string(),
          day: z.string(),
          amount: money,
        }),
      ),
      /** How many others there are besides those. */
      more: z.number(),
    })
    .nullable(),
})
export type RequestDecision = z.infer<typeof requestDecision>

/** An order, beside what was approved of the requests that it serves. */
const orderDecision = decided.extend({
  document: z.literal('order'),
  /** Null until it is issued. */
  number: z.string().nullable(),
  orderId: z.string(),
  /** Of an order that is issued: what is to be otherwise than it was sent. */
  change: z
    .object({ differences: z.array(z.string()), isCancellation: z.boolean(), reason: z.string(), rest: z.enum(RESTS) })
    .nullable(),
  /** Of a direct order, which has no request: for whom it was written, and what was written with it. */
  direct: directOrder.nullable(),
  supplier: z.string(),
  shipTo: z.string(),
  terms: z.string(),
  /** The number under which it was placed elsewhere; and whether it goes to its supplier. */
  placedAs: z.string().nullable(),
  /** Of a blanket order: its last day. */
  calledOffUntil: z.string().nullable(),
  isSent: z.boolean(),
  currency: z.string(),
  net: money,
  ...partsOfNet,
  tax: money,
  total: money,
  /** It is issued as soon as it is approved, without another press. */
  issuesItself: z.boolean(),
  /** Why its buyer may not issue it alone. */
  why: z.array(z.string()),
  lines: z.array(
    z.object({
      description: z.string(),
      quantity: z.string(),
      unit: z.string(),
      unitPrice: z.string(),
      priceBase: z.string(),
      needBy: z.string(),
      net: money,
      /** What was approved of it, in the base currency; and what it comes to there. */
      approved: money.nullable(),
      ordered: money.nullable(),
      /** For whom; the request only where the reader may see it. */
      asked: z.array(
        z.object({ id: z.string().nullable(), number: z.string(), asker: z.string(), quantity: z.string() }),
      ),
    }),
  ),
})
export type OrderDecision = z.infer<typeof orderDecision>

const decisionView = z.discriminatedUnion('document', [requestDecision, orderDecision])
export type DecisionView = z.infer<typeof decisionView>

const quantity = decimal.refine((q) => /^\d{1,15}(?:\.\d{1,6})?$/.test(q), 'is not a quantity')
const decideOutcome = z.enum(['approve', 'sendBack', 'reject'])
export type DecideOutcome = z.infer<typeof decideOutcome>
const decidedAs = z.object({ id: z.string(), decisionId: z.string(), state: z.string(), version: z.number() })
export type DecidedView = z.infer<typeof decidedAs>

export const decideRoutes = {
  readDecision: defineRoute({
    name: 'readDecision',
    method: 'GET',
    path: '/api/documents/{id}/decision',
    summary: 'Everything that one decision needs.',
    access: 'see own',
    params: ids,
    reply: decisionView,
  }),
  decideDocument: defineRoute({
    name: 'decideDocument',
    method: 'POST',
    path: '/api/documents/{id}/decisions',
    summary: 'Approve, send back or reject.',
    access: 'decide',
    params: ids,
    ifMatch: true,
    idempotent: true,
    body: z.object({
      outcome: decideOutcome,
      comment: text(4000).default(''),
      /** What whoever approves a request changes of its lines with it, as far as the policy lets them. */
      changes: z
        .array(z.object({ lineId: id, quantity: quantity.optional(), budgetLineId: id.optional() }))
        .max(500)
        .refine((of) => new Set(of.map((c) => c.lineId)).size === of.length, 'name a line twice')
        .default([]),
      /** Who made it, where it is sent later: another who signed in meanwhile does not decide by it. */
      by: id.optional(),
    }),
    reply: decidedAs,
  }),
  takeBackDecision: defineRoute({
    name: 'takeBackDecision',
    method: 'DELETE',
    path: '/api/documents/{id}/decisions/{decisionId}',
    summary: 'Take a decision back within ten seconds.',
    access: 'decide',
    params: z.object({ id, decisionId: id }),
    reply: versioned,
  }),
  askQuestion: defineRoute({
    name: 'askQuestion',
    method: 'POST',
    path: '/api/documents/{id}/questions',
    summary: 'Ask the owner something, or anybody else.',
    access: 'decide',
    params: ids,
    body: z.object({ text: text(4000), toId: id.nullable().default(null) }),
    reply: made,
    idempotent: true,
  }),
  handSeat: defineRoute({
    name: 'handSeat',
    method: 'POST',
    path: '/api/documents/{id}/handings',
    summary: 'Have somebody decide instead, first, or as well.',
    access: 'decide',
    params: ids,
    body: z.object({ how: z.enum(HANDED_HOW), toId: id, comment: text(4000).default('') }),
    reply: z.object({ id: z.string(), handingId: z.string() }),
    idempotent: true,
  }),
  callBack: defineRoute({
    name: 'callBack',
    method: 'DELETE',
    path: '/api/documents/{id}/handings/{handingId}',
    summary: 'Call back what one handed on, until it is decided.',
    access: 'decide',
    params: z.object({ id, handingId: id }),
    reply: made,
  }),
  answerQuestion: defineRoute({
    name: 'answerQuestion',
    method: 'POST',
    path: '/api/documents/{id}/answers',
    summary: 'Answer what was asked.',
    access: 'see own',
    params: ids,
    body: z.object({ text: text(4000) }),
    reply: made,
    idempotent: true,
  }),
  listWaiting: defineRoute({
    name: 'listWaiting',
    method: 'GET',
    path: '/api/waiting',
    summary: 'What waits for one’s decision, oldest first.',
    access: 'decide',
    reply: z.object({ slips: z.array(slip), reasons: z.array(preparedReason) }),
  }),
} as const
