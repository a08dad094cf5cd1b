import { z } from 'zod'
import { defineRoute } from './route'
import { id, text } from './values'

const waitingStep = z.object({
  seatId: z.string(),
  number: z.string(),
  /** Leads to it, and says what it is, where the reader may see it anyway. */
  document: z
    .object({
      id: z.string(),
      /** The page that shows it. */
      path: z.string(),
      title: z.string(),
      owner: z.string(),
      amount: z.string(),
      currency: z.string(),
    })
    .nullable(),
  name: z.string(),
  forName: z.string().nullable(),
  since: z.string(),
  /** Business days that it has waited; the one on which it came is not counted. */
  days: z.number(),
  remindedAt: z.string().nullable(),
  /** Their manager is asked too. */
  isLate: z.boolean(),
})
export type WaitingStep = z.infer<typeof waitingStep>
const heldRoute = z.object({
  number: z.string(),
  id: z.string().nullable(),
  /** The page that shows it, where the reader may see it. */
  path: z.string().nullable(),
  title: z.string().nullable(),
  /** Why nobody is found who may decide. */
  why: z.string(),
})
const waitingView = z.object({
  steps: z.array(waitingStep),
  /** How many there are; only the longest waiting are listed. */
  total: z.number(),
  held: z.array(heldRoute),
  /** Whoever is asked in the place of whoever is skipped; null where the policy skips nobody, or names nobody. */
  skipTo: z.string().nullable(),
})
export type WaitingView = z.infer<typeof waitingView>

export const waitingRoutes = {
  listWaitingSteps: defineRoute({
    name: 'listWaitingSteps',
    method: 'GET',
    path: '/api/waiting-steps',
    summary: 'Every step that waits anywhere, the longest waiting first.',
    access: 'see what waits',
    query: z.object({ words: text(200).default('') }),
    reply: waitingView,
  }),
  moveWaitingSteps: defineRoute({
    name: 'moveWaitingSteps',
    method: 'POST',
    path: '/api/waiting-steps/moves',
    summary: 'Remind whoever lets steps wait, pass them on, or skip them: all or none.',
    access: 'move what waits',
    body: z.object({
      seatIds: z.array(id).min(1).max(500),
      move: z.discriminatedUnion('does', [
        z.object({ does: z.literal('remind') }),
        z.object({ does: z.literal('pass on'), toId: id }),
        z.object({ does: z.literal('skip') }),
      ]),
      comment: text(2000).default(''),
    }),
    reply: z.object({ moved: z.number() }),
    idempotent: true,
  }),
} as const
