import type { DraftVerdict } from '#core/requisition/compute'
import { progressOf } from '#core/approval/progress'
import { inWords, capital, listWords } from '#shared/words/format'

/** How many things stand in the way. */
export const sayMissingCount = (missing: number): string =>
  `${capital(inWords(missing))} ${missing === 1 ? 'thing' : 'things'} missing`

/** Where sending would lead, in a few words: what the main action says. */
export function sayConsequence(
  verdict: DraftVerdict,
  nameOf: (id: string) => string,
): { missing: number; words: string } {
  const missing = verdict.missing.filter((m) => m.stops).length
  const progress = progressOf(verdict.route, [])
  const names = [...new Set(progress.open.map((s) => nameOf(s.actorId)))]
  const first = names.length > 2 ? `${names.slice(0, 2).join(', ')} and ${names.length - 2} more` : listWords(names)
  if (missing > 0) {
    const counted = sayMissingCount(missing)
    // Without a line there is nothing to decide on, and saying who would mislead.
    if (verdict.lineNets.size === 0) return { missing, words: counted }
    const then =
      progress.state === 'approved'
        ? 'then it is approved at once'
        : progress.state === 'held'
          ? 'then it goes on'
          : `then to ${first}`
    return { missing, words: `${counted}, ${then}` }
  }
  return {
    missing,
    words:
      progress.state === 'approved'
        ? 'Send: approved at once, and on to the buyers'
        : `Send to ${first} for a decision`,
  }
}
