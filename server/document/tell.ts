import type { Told } from '#core/told/told'
import type { Context } from '../context'
import { tellPeople, type Tale, type Telling } from '../people/tell-person'
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
  await tellEach(ctx, [{ personId, about, told, ...how }])
}

/** Tells several so, each what is theirs. */
export async function tellEach(ctx: Context, tales: readonly Omit<Tale, 'waitSeconds' | 'ownDoing'>[]): Promise<void> {
  await tellPeople(
    ctx,
    tales.map((t) => ({ ...t, waitSeconds: t.decisionId === undefined ? 0 : TAKE_BACK_SECONDS })),
  )
}
