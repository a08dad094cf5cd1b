import type { AuthorityReason } from '#core/look-back/authority'
import { formatCount, listWords } from './format'

const quoted = (rules: readonly string[]) => listWords(rules.map((r) => `“${r}”`))

/** Why somebody could have been asked to decide. */
export function sayAuthority(r: AuthorityReason): string {
  switch (r.code) {
    case 'manages':
      return `manages ${formatCount(r.people, 'person', 'people')}`
    case 'named':
      return `named in ${quoted(r.rules)}`
    case 'by role':
      return `by role in ${quoted(r.rules)}`
    case 'holds budgets':
      return `holds ${listWords(r.lines)}`
    case 'in the end':
      return 'decides in the end'
    case 'stands in':
      return `stands in for ${listWords(r.for)}`
  }
}
