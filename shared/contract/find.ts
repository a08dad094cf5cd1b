import { z } from 'zod'
import { defineRoute } from './route'
import { text } from './values'

const hit = z.object({
  kind: z.enum(['requisition', 'order', 'job', 'item', 'supplier', 'agreement', 'person']),
  id: z.string(),
  name: z.string(),
  more: z.string(),
  /** Where it leads; null for what is only told. */
  link: z.string().nullable(),
})
export type Hit = z.infer<typeof hit>

export const findRoutes = {
  findAnything: defineRoute({
    name: 'findAnything',
    method: 'GET',
    path: '/api/find',
    summary: 'Documents, jobs, items, suppliers, agreements and people by number or words, as far as one may see them.',
    access: 'see own',
    query: z.object({ words: text(100) }),
    reply: z.object({ hits: z.array(hit) }),
  }),
} as const
