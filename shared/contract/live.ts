import { z } from 'zod'

/**
 * What changed, as pages that follow hear of it: a document by its kind and id; the absences of a person or their
 * session, by the person's id; `settings`. `again`, without an id, says that something may have been missed and
 * everything is to be read anew.
 */
const liveMessage = z.object({ kind: z.string(), id: z.string() })
export type LiveMessage = z.infer<typeof liveMessage>

/** What waits for a person at each station, and how much they were told and have not read. */
export const waiting = z.object({
  at: z.object({ need: z.number(), decision: z.number(), order: z.number() }),
  unread: z.number(),
})
export type Waiting = z.infer<typeof waiting>

/** What a stream carries: changes of one moment, each once, and what waits for whoever hears of them since. */
export const livePush = z.object({ changes: z.array(liveMessage), waiting: waiting.optional() })
export type LivePush = z.infer<typeof livePush>
