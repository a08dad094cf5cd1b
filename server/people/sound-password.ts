import { judgePassword } from '#core/people/password'
import { sayPasswordReason } from '#shared/words/password'
import { invalid } from '../http/problem'
import { guessPassword } from './guess-password'

/** What nobody's password should be made of, besides the person's own words. */
const RUNS_HERE = 'Rekko'

/**
 * Refuses a new password with the sentence that says what would be taken. `before` is the one of now, where it is
 * known; `own` are the words of the person and their organisation; `field` is where it was written.
 */
export async function requireSoundPassword(
  next: string,
  before: string | null,
  own: readonly string[],
  field: string,
): Promise<void> {
  const [reason] = judgePassword(next, before, await guessPassword(next, [...own, RUNS_HERE]))
  if (reason !== undefined) throw invalid(sayPasswordReason(reason), [{ field, message: 'is not taken' }])
}
