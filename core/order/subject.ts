import { covers, type Money } from '#core/base/money'
import type { Subject } from '#core/approval/policy'
import type { PayingLine } from '#core/requisition/draft-facts'

/** An order as it is sent to be decided on. */
export interface OrderForDecision {
  readonly buyer: { readonly id: string; readonly orderingLimit: Money | null }
  /** Whose it is to whoever decides: its buyer's; of a direct order, whoever it was written for. */
  readonly owner: { readonly id: string; readonly departmentId: string }
  /** That department and all above it. */
  readonly branch: readonly string[]
  readonly currency: string
  /** What an ordering limit has to cover, with freight, in the base currency. */
  readonly amount: Money
  /** It asks for what it orders itself: nobody decided on a request for it. */
  readonly isDirect: boolean
  /** The kinds of the requests that it serves. */
  readonly kinds: readonly string[]
  /** Whose need each request is that it serves. */
  readonly needs: readonly (readonly string[])[]
  readonly parts: readonly {
    readonly category: string | null
    readonly codings: readonly { readonly budgetLineId: string }[]
  }[]
  readonly budgetLines: ReadonlyMap<string, PayingLine>
  /** It draws on an agreement. */
  readonly hasAgreement: boolean
  readonly overBudget: boolean
}

/**
 * Whose need something asked for is: of a request whoever raised or owns it, or did since it was sent; of a direct
 * order, which its buyer owns, whoever it was written for.
 */
export const whoseNeed = (asked: {
  readonly isDirect: boolean
  readonly ownerId: string
  readonly raisedById: string
  readonly ownedBy: readonly string[]
}): string[] => (asked.isDirect ? [asked.raisedById] : [asked.ownerId, asked.raisedById, ...asked.ownedBy])

/** Those whose need alone an order serves: nobody orders, or decides, for themselves alone. */
export const whoseNeedAlone = (needs: readonly (readonly string[])[]): string[] =>
  [...new Set(needs[0] ?? [])].filter((id) => needs.every((people) => people.includes(id)))

/**
 * What approval knows of an order: its buyer is the owner, what pays is what pays for the requests that it serves, and
 * its amount is the one that an ordering limit is held against. One for requests of several kinds has no kind. A direct
 * order is decided on as a request for the same would be, and above its buyer's limit as an order too.
 */
export function orderSubject(o: OrderForDecision): Subject {
  const [kind, ...others] = [...new Set(o.kinds)]
  const codings = o.parts.flatMap((p) =>
    p.codings.map(({ budgetLineId }) => ({
      budgetLineId,
      account: o.budgetLines.get(budgetLineId)?.account ?? '',
      project: o.budgetLines.get(budgetLineId)?.project ?? null,
      category: p.category,
      supplier: 'known' as const,
      currency: o.currency,
      hasAgreement: o.hasAgreement,
      holderId: o.budgetLines.get(budgetLineId)?.holderId ?? null,
    })),
  )
  return {
    document: o.isDirect ? (covers(o.buyer.orderingLimit, o.amount) ? 'requisition' : 'direct order') : 'order',
    kind: others.length > 0 ? '' : (kind ?? ''),
    amount: o.amount,
    together: o.amount,
    ownerId: o.owner.id,
    raisedById: o.buyer.id,
    ownedBy: whoseNeedAlone(o.needs),
    departmentId: o.owner.departmentId,
    branch: o.branch,
    codings: [...new Map(codings.map((c) => [JSON.stringify(c), c])).values()],
    overBudget: o.overBudget,
  }
}

/** What was decided on an order: it holds up to that, with the tolerance, also when prices have changed since. */
export interface DecidedOrder {
  /** With freight, in the base currency. */
  readonly amount: Money
  /** Each line, without it. */
  readonly lines: readonly Money[]
}
