import type { AlikeReason } from '#core/supplier/alike'
import type { Warning } from '#core/supplier/warning'

const ALIKE: Record<AlikeReason, string> = {
  'same tax number': 'the same tax number',
  'same mail domain': 'the same mail domain',
  'same name': 'the same name',
  'like name': 'a name like this',
}

/** Why a supplier may be the one that is meant. */
export function sayAlike(why: readonly AlikeReason[]): string {
  return why.map((w) => ALIKE[w]).join(', ')
}

/** What is to be known of what a line names. */
export function sayWarning(w: Pick<Warning, 'text' | 'successor'>): string {
  if (w.text !== null) return w.text
  return `No longer in the catalogue${w.successor == null ? '' : `: ${w.successor} takes its place`}.`
}
