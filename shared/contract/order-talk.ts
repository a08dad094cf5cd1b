import { z } from 'zod'
import { LONGEST_TALK, LONGEST_TALKER, TALK_WAYS } from '#core/order/talk'
import { defineRoute } from './route'
import { ids, text } from './values'

const filled = (max: number) => text(max).refine((t) => t.trim() !== '', 'is empty')

/** What was said with a supplier about an order, for whoever sees orders. */
export const orderTalk = z.object({
  ...{ id: z.string(), by: z.string(), at: z.string(), way: z.enum(TALK_WAYS), with: z.string(), text: z.string() },
})

export const orderTalkRoutes = {
  noteTalk: defineRoute({
    name: 'noteTalk',
    method: 'POST',
    path: '/api/orders/{id}/talks',
    summary: 'Note what was said with the supplier about an issued order, by telephone, by mail or in person.',
    access: 'order',
    params: ids,
    idempotent: true,
    body: z.object({ way: z.enum(TALK_WAYS), with: filled(LONGEST_TALKER), text: filled(LONGEST_TALK) }),
  }),
} as const
