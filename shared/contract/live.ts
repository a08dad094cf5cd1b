import { z } from 'zod'

/**
 * What changed, as pages that follow hear of it: a document by its kind and id; the absences of a person or their
 * session, by the person's id; `settings`. `again`, without an id, says that something may have been missed and
 * everything is to be read anew.
 */
export const liveMessage = z.object({ kind: z.string(), id: z.string() })
export type LiveMessage = z.infer<typeof liveMessage>
