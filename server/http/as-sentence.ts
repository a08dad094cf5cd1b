import { sqlState } from '../db/client'
import { invalid } from './problem'

/** What the database says of a value: it names what is not there, or is too large for its column. */
const NAMES_NOTHING = '23503'
const TOO_LARGE = '22003'

/** Does what writes somebody's values; what the database says of them becomes a sentence. */
export async function asSentence(
  work: () => Promise<void>,
  says: { readonly namesNothing: string; readonly tooLarge?: string },
): Promise<void> {
  try {
    await work()
  } catch (error) {
    const state = sqlState(error)
    if (state === NAMES_NOTHING) throw invalid(says.namesNothing)
    if (state === TOO_LARGE && says.tooLarge !== undefined) throw invalid(says.tooLarge)
    throw error
  }
}
