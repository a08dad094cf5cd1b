import type { AlikeReason } from '#core/supplier/alike'

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
