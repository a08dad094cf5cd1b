import { isFor, type Condition, type Policy, type Rule, type Subject } from './policy'

/** What a condition names that a subject has, by which rules are found; null where it is not looked for so. */
function namedIn(c: Condition): readonly string[] | null {
  switch (c.on) {
    case 'department':
    case 'category':
    case 'owner':
      return c.ids
    case 'account':
    case 'project':
    case 'currency':
      return c.codes
    case 'kind':
      return c.kinds
    default:
      return null
  }
}

/** What of these a subject has. */
function hadBy(subject: Subject): Map<Condition['on'], Iterable<string>> {
  const of = (pick: (c: Subject['codings'][number]) => string | null) =>
    new Set(subject.codings.map(pick).filter((v) => v !== null))
  return new Map<Condition['on'], Iterable<string>>([
    ['department', new Set([subject.departmentId, ...subject.branch])],
    ['owner', [subject.ownerId]],
    ['kind', [subject.kind]],
    ['category', of((c) => c.category)],
    ['account', of((c) => c.account)],
    ['project', of((c) => c.project ?? null)],
    ['currency', of((c) => c.currency)],
  ])
}

/** So few rules are looked at one by one sooner than found, and nothing of them is kept. */
export const FEW_RULES = 12

/** Of one policy and one sort of document: which rules may fit, by something that one of their conditions names. */
interface RuleIndex {
  /** Rules that name nothing to be found by: their places. */
  readonly always: readonly number[]
  readonly named: ReadonlyMap<Condition['on'], ReadonlyMap<string, readonly number[]>>
}

const indexes = new WeakMap<Policy, Map<Subject['document'], RuleIndex>>()

function indexOf(policy: Policy, document: Subject['document']): RuleIndex {
  const known = indexes.get(policy) ?? new Map<Subject['document'], RuleIndex>()
  indexes.set(policy, known)
  const found = known.get(document) ?? makeIndex(policy, document)
  known.set(document, found)
  return found
}

function makeIndex(policy: Policy, document: Subject['document']): RuleIndex {
  const always: number[] = []
  const named = new Map<Condition['on'], Map<string, number[]>>()
  policy.rules.forEach((rule, at) => {
    if (!isFor(rule, document)) return
    // Whatever meets the rule has one of the values of each of its conditions: the one with the fewest is enough.
    const [narrow] = rule.conditions
      .flatMap((c) => {
        const values = namedIn(c)
        return values === null ? [] : [{ on: c.on, values }]
      })
      .sort((a, b) => a.values.length - b.values.length)
    if (narrow === undefined) {
      always.push(at)
      return
    }
    const of = named.get(narrow.on) ?? new Map<string, number[]>()
    named.set(narrow.on, of)
    for (const value of narrow.values) of.set(value, [...(of.get(value) ?? []), at])
  })
  return { always, named }
}

/**
 * The rules of a policy that may fit a subject, in their order: all that do, and few that do not. With many rules it
 * looks only at those that name something of the subject. A policy is not changed once it was asked.
 */
export function rulesThatMayFit(policy: Policy, subject: Subject): Rule[] {
  if (policy.rules.length <= FEW_RULES) return policy.rules.filter((r) => isFor(r, subject.document))
  const { always, named } = indexOf(policy, subject.document)
  const places = new Set(always)
  if (named.size > 0)
    for (const [on, values] of hadBy(subject)) {
      const byValue = named.get(on)
      if (byValue !== undefined) for (const value of values) for (const at of byValue.get(value) ?? []) places.add(at)
    }
  return [...places].sort((a, b) => a - b).flatMap((at) => policy.rules[at] ?? [])
}
