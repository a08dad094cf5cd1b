import { z } from 'zod'
import { defineRoute } from './route'
import { decimal, money } from './values'

const proposedOrder = z.object({
  /** Of this one among the others, as long as its lines are the same. */
  key: z.string(),
  supplierId: z.string(),
  supplier: z.string(),
  shipToId: z.string(),
  shipTo: z.string(),
  /** Its only department; null where it may serve several. */
  department: z.string().nullable(),
  currency: z.string(),
  /** The number of the agreement on which it draws. */
  agreement: z.string().nullable(),
  needBy: z.string(),
  goods: money,
  freight: money,
  net: money,
  /** Against one order for each request; below nothing where ordering together is dearer. */
  saved: money,
  /** The least value of goods that the supplier takes an order for, where they do not reach it. */
  belowMinimum: money.nullable(),
  /** It passes what one may order alone, and has to be decided on. */
  isAboveLimit: z.boolean(),
  /** It serves one’s own need alone, so that another buyer has to issue it. */
  isOwnNeed: z.boolean(),
  requests: z.array(z.object({ id: z.string(), number: z.string() })),
  lines: z.array(
    z.object({
      description: z.string(),
      quantity: z.string(),
      unit: z.string(),
      unitPrice: z.string(),
      priceBase: z.string(),
      net: money,
      requests: z.number(),
    }),
  ),
  /** What is to be laid on its tray. */
  parts: z.array(z.object({ lineId: z.string(), quantity: z.string() })),
})
export type ProposedOrderView = z.infer<typeof proposedOrder>

const proposalAsked = z.object({
  /** At most so many requests to an order; any number where it is absent. */
  mostRequests: z.coerce.number().int().min(1).max(500).optional(),
  /** Need-by dates lie within so many days of the earliest. */
  within: z.coerce.number().int().min(0).max(366).optional(),
  by: z.enum(['department']).optional(),
  choose: z.enum(['cheapest', 'oldest']).default('cheapest'),
  /** An order of less, in the base currency, waits for more, at most so many days from when it was sent. */
  waitFor: decimal.refine((t) => !t.startsWith('-'), 'is below nothing').optional(),
  waitDays: z.coerce.number().int().min(0).max(60).default(5),
})
export type ProposalAsked = z.output<typeof proposalAsked>

export const proposalRoutes = {
  proposeOrders: defineRoute({
    name: 'proposeOrders',
    method: 'GET',
    path: '/api/proposed-orders',
    summary: 'Orders that Rekko would make of all lines that wait, with what each saves and why a line is left.',
    access: 'order',
    query: proposalAsked,
    reply: z.object({
      currency: z.string(),
      /** How many lines it is made of; not all that wait, where `isAll` says so. */
      lines: z.number(),
      isAll: z.boolean(),
      orders: z.array(proposedOrder),
      left: z.array(
        z.object({
          reason: z.string(),
          lines: z.array(
            z.object({
              lineId: z.string(),
              requisitionId: z.string(),
              number: z.string(),
              description: z.string(),
              quantity: z.string(),
              unit: z.string(),
              supplier: z.string().nullable(),
            }),
          ),
        }),
      ),
      /** In the base currency. */
      net: money,
      saved: money,
      /** How much less it is than the same lines put together by age alone. */
      belowOldest: money,
    }),
  }),
}
