import { compare, covers, sum, type Money } from '#core/base/money'
import { daysBetween, type Day } from '#core/base/day'
import type { PeopleFacts } from '#core/people/person'
import { holds, isFor, type Policy, type Subject } from './policy'

/** A request as it is looked at for being one of several that make one: whose, for what, how much, on which day. */
export interface SplitRequest {
  readonly id: string
  readonly ownerId: string
  readonly departmentId: string
  readonly supplierIds: readonly string[]
  readonly categoryIds: readonly string[]
  /** In the base currency, as it is decided on. */
  readonly amount: Money
  readonly sentOn: Day
}

/** An amount at which more people are asked: past a limit, or from what a rule says on. */
export type Boundary =
  | { readonly code: 'own-limit' | 'deciding-limit'; readonly amount: Money; readonly personId: string }
  | { readonly code: 'rule'; readonly amount: Money; readonly ruleId: string }

/** What several requests have in common. */
export interface Shared {
  readonly whose: 'owner' | 'department'
  readonly what: 'supplier' | 'category'
  /** The supplier or category. */
  readonly id: string
}

/** Requests that each stay below a boundary and together do not. */
export interface Split {
  readonly others: readonly SplitRequest[]
  readonly together: Money
  readonly boundary: Boundary
  readonly shared: Shared
}

/** Requests lie near each other within so many days, the first and the last included. Common practice, no source. */
export const SPLIT_DAYS = 7

/** Whether an amount stays on the near side: a limit covers up to and including itself, "from X" includes X. */
const staysWithin = ({ code, amount: edge }: Boundary, amount: Money): boolean =>
  code === 'rule' ? compare(amount, edge) < 0 : covers(edge, amount)

/**
 * The amounts at which more is asked for a document than below: the owner's own limit where it spares, the deciding
 * limits of those above them where a chain goes by limits, and the amounts of rules that fit it otherwise.
 */
export function boundariesFor(subject: Subject, policy: Policy, facts: PeopleFacts): Boundary[] {
  const fits = policy.rules.filter(
    (r) => isFor(r, subject.document) && r.conditions.every((c) => c.on === 'amount' || holds(c, subject)),
  )
  const found: Boundary[] = fits.flatMap((r) =>
    r.steps.length === 0
      ? []
      : r.conditions.flatMap((c) =>
          c.on === 'amount' && c.from !== undefined ? [{ code: 'rule' as const, amount: c.from, ruleId: r.id }] : [],
        ),
  )
  const owner = facts.people.get(subject.ownerId)
  if (owner?.ownLimit != null && fits.some((r) => r.sparesManagers))
    found.push({ code: 'own-limit', amount: owner.ownLimit, personId: owner.id })
  if (fits.some((r) => r.steps.some((s) => s.who.by === 'chain' && s.who.until === 'covered'))) {
    const seen = new Set<string>([subject.ownerId])
    for (
      let at = owner?.managerId ?? null;
      at !== null && !seen.has(at);
      at = facts.people.get(at)?.managerId ?? null
    ) {
      seen.add(at)
      const limit = facts.people.get(at)?.decidingLimit ?? null
      if (limit !== null) found.push({ code: 'deciding-limit', amount: limit, personId: at })
    }
  }
  return found
}

/**
 * Whether a request is one of several that make one: they are of the same owner, else of the same department, name a
 * same supplier, else something of a same category, were sent within a few days, and each stays within a boundary that
 * they pass together. The nearest that they have in common is told, with the lowest boundary; null where there is none.
 */
export function findSplit(
  request: SplitRequest,
  others: readonly SplitRequest[],
  boundaries: readonly Boundary[],
): Split | null {
  const near = others.filter((o) => o.id !== request.id && Math.abs(daysBetween(request.sentOn, o.sentOn)) < SPLIT_DAYS)
  const lowestFirst = [...boundaries].sort((a, b) => compare(a.amount, b.amount))
  for (const shared of sharedBy(request)) {
    const like = near.filter((o) => shares(o, request, shared))
    for (const boundary of lowestFirst) {
      if (!staysWithin(boundary, request.amount)) continue
      // An own limit spares its owner alone.
      if (boundary.code === 'own-limit' && shared.whose !== 'owner') continue
      const small = like.filter((o) => staysWithin(boundary, o.amount))
      const together = sum(
        [request, ...small].map((r) => r.amount),
        request.amount.currency,
      )
      if (small.length > 0 && !staysWithin(boundary, together)) return { others: small, together, boundary, shared }
    }
  }
  return null
}

/** What others may have in common with a request, the nearest first. */
function sharedBy({ supplierIds, categoryIds }: SplitRequest): Shared[] {
  return (['owner', 'department'] as const).flatMap((whose) => [
    ...supplierIds.map((id): Shared => ({ whose, what: 'supplier', id })),
    ...categoryIds.map((id): Shared => ({ whose, what: 'category', id })),
  ])
}

const shares = (other: SplitRequest, request: SplitRequest, { whose, what, id }: Shared): boolean =>
  (whose === 'owner' ? other.ownerId === request.ownerId : other.departmentId === request.departmentId) &&
  (what === 'supplier' ? other.supplierIds : other.categoryIds).includes(id)
