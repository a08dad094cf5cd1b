import type { Told } from '#core/told/told'
import type { Context } from '../context'
import { tellPerson, type Telling } from '../people/tell-person'
import type { DocumentHead } from './kind'

/** Seconds for which a decision may be taken back, and its mail waits. */
export const TAKE_BACK_SECONDS = 10

/**
 * Tells a person something about a document; with a decision, the mail waits until that can no longer be taken back,
 * and taking it back takes notice and mail away. `path` is where it leads, if not to the document's own page.
 */
export async function tell(
  ctx: Context,
  personId: string,
  about: Pick<DocumentHead, 'id' | 'kind'>,
  told: Told,
  how: Pick<Telling, 'path' | 'decisionId' | 'mailed'>,
): Promise<void> {
  await tellPerson(ctx, personId, about, told, {
    ...how,
    waitSeconds: how.decisionId === undefined ? 0 : TAKE_BACK_SECONDS,
  })
}
