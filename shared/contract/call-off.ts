import { z } from 'zod'
import { defineRoute } from './route'
import { day, decimal, id, ids, money, text } from './values'

const aboveNothing = decimal.refine((t) => /[1-9]/.test(t) && !t.startsWith('-'), 'is not above 0')

/** A blanket order with what was called off of it, for whoever sees it. */
export const blanketOrder = z.object({
  /** The reader may call off of it. */
  mayCall: z.boolean(),
  expiresOn: z.string(),
  lines: z.array(
    z.object({
      ...{ id: z.string(), description: z.string(), unit: z.string(), quantity: z.string() },
      ...{ unitPrice: z.string(), priceBase: z.string(), net: money },
      adjustments: z.array(
        z.object({
          kind: z.enum(['allowance', 'charge']),
          percent: z.string().optional(),
          amount: z.string().optional(),
        }),
      ),
      called: z.object({ quantity: z.string(), net: money }),
    }),
  ),
  /** The last first. */
  callOffs: z.array(
    z.object({
      ...{ id: z.string(), number: z.string(), state: z.string(), issuedAt: z.string(), shipTo: z.string() },
      ...{ needBy: z.string().nullable(), net: money },
    }),
  ),
})
export type BlanketOrder = z.infer<typeof blanketOrder>

export const callOffRoutes = {
  callOff: defineRoute({
    name: 'callOff',
    method: 'POST',
    path: '/api/orders/{id}/call-offs',
    summary: 'Call a part of a blanket order off: an order of its own, which takes of it and is sent to the supplier.',
    access: 'order',
    params: ids,
    ifMatch: true,
    idempotent: true,
    body: z.object({
      /** A quantity of each line, or of a line by amount, an amount. */
      lines: z
        .array(z.object({ lineId: id, much: aboveNothing, needBy: day }))
        .min(1)
        .max(500)
        .refine((l) => new Set(l.map((x) => x.lineId)).size === l.length, 'names a line twice'),
      shipToId: id,
      note: text(1000).default(''),
    }),
    reply: z.object({ id: z.string(), number: z.string(), net: money }),
  }),
} as const
