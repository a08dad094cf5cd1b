import { z } from 'zod'
import { ANSWER_OUTCOMES, ANSWER_WAYS } from '#core/order/answer'
import { CHANGE_STATES } from '#core/order/change-moves'
import { RESTS } from '#core/order/change'
import { defineRoute } from './route'
import { day, decimal, id, ids, money, text, versioned } from './values'
import { partsOfNet } from './order-conditions'

const notBelow = decimal.refine((t) => !t.startsWith('-'), 'is below 0')
const filled = (max: number) => text(max).refine((t) => t.trim() !== '', 'is empty')
const given = z.object({
  /** The sent state that is answered. */
  revision: z.number().int().min(0),
  /** Who says it. */
  by: filled(120),
  /** Lines that are not as they were ordered, and by when the others come; a quantity of 0 refuses one. */
  lines: z
    .array(z.object({ lineId: id, quantity: notBelow, unitPrice: notBelow, needBy: day }))
    .max(500)
    .refine((l) => new Set(l.map((x) => x.lineId)).size === l.length, 'names a line twice'),
  note: text(1000).default(''),
})
const taken = z.object({ outcome: z.enum(['holds', 'waits']) })
const keys = z.object({ key: text(80) })

/** An answer of a supplier, for whoever sees the order. */
export const orderAnswer = z.object({
  id: z.string(),
  revision: z.number(),
  way: z.enum(ANSWER_WAYS),
  by: z.string(),
  givenAt: z.string(),
  note: z.string(),
  outcome: z.enum(ANSWER_OUTCOMES),
  /** What its buyer said to it. */
  said: z.string(),
  /** What of it was not as ordered, a sentence each; of one that waits. */
  differences: z.array(z.string()),
  lines: z.array(z.object({ lineId: z.string(), quantity: z.string(), unitPrice: z.string(), needBy: z.string() })),
  /** What agreeing to it would change the order to. */
  wishes: z.array(z.object({ lineId: z.string(), quantity: z.string(), unitPrice: z.string(), needBy: z.string() })),
})
export type OrderAnswer = z.infer<typeof orderAnswer>

const asked = z.object({
  number: z.string(),
  revision: z.number(),
  /** Whether it may be answered: not yet, or anew; it holds; or the order is over. */
  state: z.enum(['open', 'waits', 'holds', 'over']),
  organisation: z.string(),
  buyer: z.string(),
  buyerEmail: z.string(),
  supplier: z.string(),
  shipTo: z.string(),
  terms: z.string(),
  /** The number under which it was placed elsewhere already. */
  placedAs: z.string().nullable(),
  /** Of a call-off: the number of the blanket order of which it is a part. */
  calledFrom: z.string().nullable(),
  currency: z.string(),
  net: money,
  ...partsOfNet,
  today: z.string(),
  lines: z.array(
    z.object({
      ...{ id: z.string(), description: z.string(), more: z.array(z.string()), supplierPart: z.string().nullable() },
      ...{ quantity: z.string(), unit: z.string(), unitPrice: z.string(), priceBase: z.string(), needBy: z.string() },
      net: money,
    }),
  ),
  /** The answer that was given last to this state of it. */
  answer: z
    .object({
      by: z.string(),
      note: z.string(),
      said: z.string(),
      outcome: z.enum(ANSWER_OUTCOMES),
      lines: z.array(z.object({ lineId: z.string(), quantity: z.string(), unitPrice: z.string(), needBy: z.string() })),
    })
    .nullable(),
})
export type AskedOrder = z.infer<typeof asked>

export const orderAnswerRoutes = {
  readAskedOrder: defineRoute({
    name: 'readAskedOrder',
    method: 'GET',
    path: '/api/order-answers/{key}',
    summary: 'An order as its supplier sees it; the key in its mail alone opens it. Reading it answers nothing.',
    access: 'public',
    params: keys,
    reply: asked,
  }),
  answerOrder: defineRoute({
    name: 'answerOrder',
    method: 'POST',
    path: '/api/order-answers/{key}',
    summary: 'Answer an order as its supplier: it holds at once where all is as ordered, else it waits for the buyer.',
    access: 'public',
    params: keys,
    body: given,
    reply: taken,
  }),
  typeAnswerIn: defineRoute({
    name: 'typeAnswerIn',
    method: 'POST',
    path: '/api/orders/{id}/answers',
    summary: 'Type in what a supplier answered by telephone or letter.',
    access: 'order',
    params: ids,
    ifMatch: true,
    idempotent: true,
    body: given,
    reply: taken,
  }),
  takeResponse: defineRoute({
    name: 'takeResponse',
    method: 'POST',
    path: '/api/orders/{id}/responses',
    summary: 'Take in what a supplier’s program answered: an OrderResponse of UBL 2.1.',
    access: 'order',
    params: ids,
    ifMatch: true,
    bytes: 'upload',
    reply: taken,
  }),
  agreeToAnswer: defineRoute({
    name: 'agreeToAnswer',
    method: 'POST',
    path: '/api/orders/{id}/agreements-to-answer',
    summary: 'Agree to what a supplier answered: a revision of its own, or a change that is decided on first.',
    access: 'order',
    params: ids,
    ifMatch: true,
    idempotent: true,
    body: z.object({ answerId: id, rest: z.enum(RESTS).default('returns'), asks: z.boolean().default(false) }),
    reply: versioned.extend({
      ...{ number: z.string(), revision: z.number().nullable(), state: z.enum(CHANGE_STATES) },
    }),
  }),
  declineAnswer: defineRoute({
    name: 'declineAnswer',
    method: 'POST',
    path: '/api/orders/{id}/refusals-of-answer',
    summary: 'Say no to what a supplier answered; it is told why and may answer anew.',
    access: 'order',
    params: ids,
    ifMatch: true,
    idempotent: true,
    body: z.object({ answerId: id, text: filled(1000) }),
    reply: versioned,
  }),
  remindSuppliers: defineRoute({
    name: 'remindSuppliers',
    method: 'POST',
    path: '/api/order-reminders',
    summary: 'Ask suppliers once more to answer one’s own orders; each at most once a day.',
    access: 'order',
    idempotent: true,
    body: z.object({ orderIds: z.array(id).min(1).max(200) }),
    reply: z.object({ reminded: z.number() }),
  }),
} as const
