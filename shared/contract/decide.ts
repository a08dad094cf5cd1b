import { z } from 'zod'
import { attachment, remark } from './document'
import { requestLine, requestView } from './request-view'
import { defineRoute } from './route'
import { id, ids, made, money, text, versioned } from './values'

const slip = z.object({
  id: z.string(),
  owner: z.string(),
  amount: z.string(),
  currency: z.string(),
  title: z.string(),
  needBy: z.string(),
  since: z.string(),
  forName: z.string().nullable(),
  overBudget: z.boolean(),
  asked: z.boolean(),
})
export type Slip = z.infer<typeof slip>

export const seat = z.object({
  actorId: z.string(),
  name: z.string(),
  /** Whoever reads it. */
  you: z.boolean(),
  why: z.string(),
  /** Of a route that was stopped: who stopped it, and who is no longer asked. */
  state: z.enum(['done', 'open', 'ahead', 'sent back', 'rejected', 'over']),
  at: z.string().nullable(),
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
  passed: z.boolean(),
})
export type BudgetBarView = z.infer<typeof bar>
const decisionLine = requestLine.extend({
  /** What was paid for it before, the newest first. */
  paid: z.array(z.object({ unitPrice: z.string(), currency: z.string(), day: z.string() })),
})
export type DecisionLine = z.infer<typeof decisionLine>

const decisionView = requestView.extend({
  id: z.string(),
  number: z.string(),
  version: z.number(),
  state: z.string(),
  title: z.string(),
  ownerId: z.string(),
  amount: money,
  sentAt: z.string(),
  /** What is not as it was when it was sent the time before, in words. */
  changes: z.array(z.string()),
  lines: z.array(decisionLine),
  budget: z.array(bar),
  route: z.array(seat),
  held: z.boolean(),
  remarks: z.array(remark),
  attachments: z.array(attachment),
  mine: z.boolean(),
  forName: z.string().nullable(),
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
    })
    .nullable(),
  /** What an approval now would lead to. */
  afterApproval: z.object({ state: z.enum(['waiting', 'held', 'approved']), next: z.array(z.string()) }),
})
export type DecisionView = z.infer<typeof decisionView>

const decided = z.object({ id: z.string(), decisionId: z.string(), state: z.string(), version: z.number() })
export type DecidedView = z.infer<typeof decided>

export const decideRoutes = {
  readDecision: defineRoute({
    name: 'readDecision',
    method: 'GET',
    path: '/api/requisitions/{id}/decision',
    summary: 'Everything that one decision needs.',
    access: 'see own',
    params: ids,
    reply: decisionView,
  }),
  decideRequisition: defineRoute({
    name: 'decideRequisition',
    method: 'POST',
    path: '/api/requisitions/{id}/decisions',
    summary: 'Approve, send back or reject.',
    access: 'decide',
    params: ids,
    ifMatch: true,
    idempotent: true,
    body: z.object({ outcome: z.enum(['approve', 'sendBack', 'reject']), comment: text(4000).default('') }),
    reply: decided,
  }),
  takeBackDecision: defineRoute({
    name: 'takeBackDecision',
    method: 'DELETE',
    path: '/api/requisitions/{id}/decisions/{decisionId}',
    summary: 'Take a decision back within ten seconds.',
    access: 'decide',
    params: z.object({ id, decisionId: id }),
    reply: versioned,
  }),
  askQuestion: defineRoute({
    name: 'askQuestion',
    method: 'POST',
    path: '/api/requisitions/{id}/questions',
    summary: 'Ask the owner something.',
    access: 'decide',
    params: ids,
    body: z.object({ text: text(4000) }),
    reply: made,
    idempotent: true,
  }),
  answerQuestion: defineRoute({
    name: 'answerQuestion',
    method: 'POST',
    path: '/api/requisitions/{id}/answers',
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
    reply: z.object({ slips: z.array(slip) }),
  }),
} as const
