import type { Context } from '../context'
import { findStanding } from './reads'

/**
 * The answer to a repeat, under its old key, of what was done to a document: the first answer, with the state and the
 * version that hold now. Meanwhile it may have been taken back, or somebody may have gone on.
 */
export async function withWhatHoldsNow<T extends object>({ tx }: Context, id: string, first: T): Promise<T> {
  const standing = await findStanding(tx, id)
  return standing === null ? first : { ...first, ...standing }
}
