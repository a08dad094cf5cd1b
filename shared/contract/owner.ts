import { z } from 'zod'
import { defineRoute } from './route'
import { id, ids } from './values'

const owned = z.object({ id: z.string(), number: z.string(), title: z.string(), state: z.string() })
const ownedView = z.object({
  name: z.string(),
  requests: z.array(owned),
  /** How many drafts: what is not sent is its author's alone. */
  drafts: z.number(),
  orders: z.array(owned),
  trays: z.number(),
})
export type OwnedView = z.infer<typeof ownedView>

export const ownerRoutes = {
  readOwned: defineRoute({
    name: 'readOwned',
    method: 'GET',
    path: '/api/people/{id}/owned',
    summary: 'All that somebody owns and that is not over.',
    access: 'change owners',
    params: ids,
    reply: ownedView,
  }),
  handOverOwned: defineRoute({
    name: 'handOverOwned',
    method: 'POST',
    path: '/api/people/{id}/owned/hand-over',
    summary: 'Give all that somebody owns to others: requests to one person, orders to a buyer.',
    access: 'change owners',
    params: ids,
    idempotent: true,
    body: z.object({ requestsTo: id.nullable(), ordersTo: id.nullable() }),
    reply: z.object({
      requests: z.number(),
      drafts: z.number(),
      orders: z.number(),
      trays: z.number(),
      /** What stays, since whoever was to get it has decided on it. */
      kept: z.number(),
    }),
  }),
} as const
