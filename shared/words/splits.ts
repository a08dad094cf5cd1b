import { SPLIT_DAYS, type Boundary, type Split } from '#core/approval/splits'
import { formatCount } from './format'
import type { Ways } from './ways'

function sayBoundary(b: Boundary, nameOf: (id: string) => string, ways: Ways): string {
  switch (b.code) {
    case 'own-limit':
      return `more than the own limit of ${ways.amount(b.amount)}, within which each passes by itself`
    case 'deciding-limit':
      return `more than ${nameOf(b.personId)} may approve, which is ${ways.amount(b.amount)}`
    case 'rule':
      return `from ${ways.amount(b.amount)} on the policy asks more people`
  }
}

/** Why several requests may be one: what they have in common, what they come to, and what each stays below. */
export function saySplit(
  split: Split,
  names: { readonly nameOf: (id: string) => string; readonly owner: string; readonly shared: string },
  ways: Ways,
): string {
  const { others, shared, together, boundary } = split
  const of = shared.whose === 'owner' ? `of ${names.owner}` : 'of the same department'
  const what = shared.what === 'supplier' ? `to ${names.shared}` : `for ${names.shared}`
  const many = formatCount(others.length, 'other request', 'other requests')
  return (
    `With ${many} ${of} ${what} within ${SPLIT_DAYS} days it comes to ${ways.money(together)}: ` +
    `${sayBoundary(boundary, names.nameOf, ways)}.`
  )
}
