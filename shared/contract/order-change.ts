import { z } from 'zod'
import { CHANGE_STATES } from '#core/order/change-moves'
import { RESTS } from '#core/order/change'
import { defineRoute } from './route'
import { day, decimal, id, ids, money, text, versioned } from './values'
import { orderAdjustments, partsOfNet } from './order-conditions'

const notBelow = decimal.refine((t) => !t.startsWith('-'), 'is below 0')
const wishes = z.object({
  /** Lines that are to be otherwise; a quantity of 0 takes one off the order. */
  lines: z
    .array(z.object({ lineId: id, quantity: notBelow, unitPrice: notBelow, needBy: day }))
    .max(500)
    .refine((l) => new Set(l.map((x) => x.lineId)).size === l.length, 'names a line twice'),
  /** Where it is to go; null: where it goes. */
  shipToId: id.nullable().default(null),
  /** Its last day; null: as it is. */
  expiresOn: day.nullable().default(null),
  /** What is taken off the whole, or put on it; null: as it is. */
  adjustments: orderAdjustments.nullable().default(null),
  /** What becomes of what is not ordered any more: it waits to be ordered again, or it is over. */
  rest: z.enum(RESTS),
  /** Why, for colleagues. */
  reason: text(500).refine((t) => t.trim() !== '', 'is empty'),
  /** What the supplier is told with it. */
  note: text(1000).default(''),
})
const changed = versioned.extend({
  number: z.string(),
  /** The revision that was sent; null while it is decided on. */
  revision: z.number().nullable(),
  state: z.enum(CHANGE_STATES),
})

/** A change of an order that is under way, for whoever sees the order. */
export const changeUnderWay = z.object({
  id: z.string(),
  state: z.enum(CHANGE_STATES),
  expiresOn: z.string().nullable(),
  adjustments: orderAdjustments.nullable(),
  ...{ shipToId: z.string().nullable(), rest: z.enum(RESTS), reason: z.string(), note: z.string() },
  lines: z.array(z.object({ lineId: z.string(), quantity: z.string(), unitPrice: z.string(), needBy: z.string() })),
  /** Whom it waits for; nobody, where it is held. */
  waits: z.array(z.string()),
  /** What was said when it was sent back last. */
  said: z.array(z.object({ by: z.string(), text: z.string() })),
})

export const orderChangeRoutes = {
  checkOrderChange: defineRoute({
    name: 'checkOrderChange',
    method: 'POST',
    path: '/api/orders/{id}/change-checks',
    summary: 'What a change of an issued order would come to, and what stands in its way; nothing is written.',
    access: 'order',
    params: ids,
    body: wishes.extend({ reason: text(500).default('') }),
    reply: z.object({
      refusals: z.array(z.string()),
      /** Nothing but authority stands in its way: it may be sent to whoever decides. */
      needsDecision: z.boolean(),
      isCancellation: z.boolean(),
      lines: z.array(z.object({ id: z.string(), net: money })),
      ...partsOfNet,
      net: money,
      tax: money,
      total: money,
      /** What would happen, a sentence each: what was sent, what goes back, which budgets are passed. */
      consequences: z.array(z.string()),
    }),
  }),
  changeOrder: defineRoute({
    name: 'changeOrder',
    method: 'POST',
    path: '/api/orders/{id}/changes',
    summary: 'Change an issued order, or cancel it: a revision of its own, or a change that is decided on first.',
    access: 'order',
    params: ids,
    ifMatch: true,
    idempotent: true,
    body: wishes.extend({ asks: z.boolean().default(false) }),
    reply: changed,
  }),
  makeOrderChange: defineRoute({
    name: 'makeOrderChange',
    method: 'POST',
    path: '/api/order-changes/{id}/making',
    summary: 'Make a change that is approved, where it could not be made by itself.',
    access: 'order',
    params: ids,
    idempotent: true,
    reply: changed,
  }),
  throwOrderChangeAway: defineRoute({
    name: 'throwOrderChangeAway',
    method: 'DELETE',
    path: '/api/order-changes/{id}',
    summary: 'Throw a change of an order away that is not made.',
    access: 'order',
    params: ids,
    reply: versioned,
  }),
  compareRevisions: defineRoute({
    name: 'compareRevisions',
    method: 'GET',
    path: '/api/orders/{id}/differences',
    summary: 'What one sent state of an order says otherwise than another.',
    access: 'see own',
    params: ids,
    query: z.object({ was: z.coerce.number().int().min(0), is: z.coerce.number().int().min(0) }),
    reply: z.object({
      ...{ was: z.number(), is: z.number(), differences: z.array(z.string()) },
      /** Both states line by line. */
      lines: z.array(
        z.object({
          description: z.string(),
          unit: z.string(),
          was: z.object({ quantity: z.string(), unitPrice: z.string(), needBy: z.string(), net: money }).nullable(),
          is: z.object({ quantity: z.string(), unitPrice: z.string(), needBy: z.string(), net: money }),
        }),
      ),
    }),
  }),
} as const
