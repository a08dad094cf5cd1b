import { z } from 'zod'
import type { Every } from '#core/base/every'
import { defineRoute } from './route'

const scheduled = z.object({
  task: z.string(),
  every: z.custom<Every>(),
  mayPause: z.boolean(),
  paused: z.object({ by: z.string(), at: z.string() }).nullable(),
  /** When it is done next; null while it is paused. */
  next: z.string().nullable(),
  /** The last few, the newest first. */
  runs: z.array(
    z.object({
      beganAt: z.string(),
      milliseconds: z.number(),
      error: z.string().nullable(),
      by: z.string().nullable(),
    }),
  ),
})
export type ScheduledView = z.infer<typeof scheduled>
const named = z.object({ task: z.string().max(60) })

export const scheduledRoutes = {
  listScheduled: defineRoute({
    name: 'listScheduled',
    method: 'GET',
    path: '/api/scheduled-work',
    summary: 'What is done by itself: how often, how it last went, and when next.',
    access: 'keep settings',
    reply: z.object({ work: z.array(scheduled) }),
  }),
  runScheduled: defineRoute({
    name: 'runScheduled',
    method: 'POST',
    path: '/api/scheduled-work/{task}/runs',
    summary: 'Have it done now.',
    access: 'keep settings',
    params: named,
    reply: named,
    idempotent: true,
  }),
  pauseScheduled: defineRoute({
    name: 'pauseScheduled',
    method: 'PUT',
    path: '/api/scheduled-work/{task}/pause',
    summary: 'Pause it, or let it go on.',
    access: 'keep settings',
    params: named,
    body: z.object({ paused: z.boolean() }),
    reply: named,
  }),
} as const
