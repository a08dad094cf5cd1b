import { compare, moneyOf, type Money } from '#core/base/money'
import type { Person } from '#core/people/person'

/**
 * What approval knows of a document: never the document itself. Each document makes its subject and
 * takes the outcome back.
 */
export interface Subject {
  /** A direct order above its buyer's limit is both a request and an order; one within it is judged as a request is. */
  readonly document: 'requisition' | 'order' | 'direct order'
  readonly kind: string
  /** The approval amount: the sum of the budget effects, in the base currency. */
  readonly amount: Money
  /** The amount with those of the owner's other requests that an own limit has to cover together with it. */
  readonly together: Money
  readonly ownerId: string
  readonly raisedById: string
  /** Whoever else owned it since it was last sent. */
  readonly ownedBy: readonly string[]
  readonly departmentId: string
  /** The department and all above it. */
  readonly branch: readonly string[]
  readonly codings: readonly SubjectCoding[]
  readonly overBudget: boolean
  /** What is chosen in own fields, on the request or any line of it, by the fields’ ids; of orders nothing. */
  readonly own?: Readonly<Record<string, readonly string[]>>
}

/**
 * How a supplier stands: left to the buyers, proposed and not approved yet, or one that is ordered from. Of one on hold
 * nothing is sent.
 */
export const SUPPLIER_SORTS = ['undecided', 'proposed', 'known'] as const
export type SupplierSort = (typeof SUPPLIER_SORTS)[number]

export interface SubjectCoding {
  readonly budgetLineId: string
  readonly account: string
  /** The project that the budget line is for; none of most, and of what was sent before it was looked at. */
  readonly project?: string | null
  readonly category: string | null
  readonly supplier: SupplierSort
  /** In which the line is priced. */
  readonly currency: string
  /** An agreement covers the line; absent: none does, as in what was sent before it was looked at. */
  readonly hasAgreement?: boolean
  readonly holderId: string | null
}

/**
 * What of a subject is frozen when a document is sent: what was sent, whatever the calendar or the budget say later.
 * Owner, holders and branch are those of the day on which it is judged again.
 */
export interface SentSubject extends Pick<Subject, 'document' | 'kind' | 'amount' | 'overBudget' | 'own'> {
  /** Who may not decide on it whoever owns it: of an order, those whose need alone it serves. */
  readonly barred?: readonly string[]
  /** Of an order: what each of its lines came to in the base currency. What was decided holds up to that. */
  readonly lines?: readonly Money[]
  /** What was sent before it was looked at together has none. */
  readonly together?: Money
  /** What was sent before suppliers and currencies were looked at has neither. */
  readonly codings: readonly (Pick<SubjectCoding, 'budgetLineId' | 'account' | 'project' | 'category'> &
    Partial<Pick<SubjectCoding, 'supplier' | 'currency' | 'hasAgreement'>>)[]
}

export const freezeSubject = ({
  document,
  kind,
  amount,
  together,
  overBudget,
  codings,
  own = {},
}: Subject): SentSubject => ({
  document,
  kind,
  amount,
  together,
  overBudget,
  own,
  codings: codings.map(({ holderId: _, ...coding }) => coding),
})

/** The subject that was sent, as it is judged today. `holders` are those of its budget lines. */
export function thawSubject(
  sent: SentSubject,
  today: Pick<Subject, 'ownerId' | 'raisedById' | 'ownedBy' | 'departmentId' | 'branch'>,
  holders: ReadonlyMap<string, string | null>,
): Subject {
  const amount = moneyOf(sent.amount.amount, sent.amount.currency)
  return {
    ...sent,
    ...today,
    ownedBy: [...today.ownedBy, ...(sent.barred ?? [])],
    amount,
    together: sent.together === undefined ? amount : moneyOf(sent.together.amount, sent.together.currency),
    codings: sent.codings.map((c) => ({
      supplier: 'known' as const,
      currency: amount.currency,
      ...c,
      holderId: holders.get(c.budgetLineId) ?? null,
    })),
  }
}

/** A condition of a rule; all of a rule must hold. Of codings, any one that meets it is enough. */
export type Condition =
  | { readonly on: 'amount'; readonly from?: Money; readonly below?: Money }
  | { readonly on: 'department'; readonly ids: readonly string[]; readonly branch: boolean }
  | { readonly on: 'category'; readonly ids: readonly string[] }
  | { readonly on: 'account'; readonly codes: readonly string[] }
  | { readonly on: 'project'; readonly codes: readonly string[] }
  | { readonly on: 'supplier'; readonly sorts: readonly SupplierSort[] }
  | { readonly on: 'currency'; readonly codes: readonly string[] }
  | { readonly on: 'agreement'; readonly is: boolean }
  | { readonly on: 'kind'; readonly kinds: readonly string[] }
  | { readonly on: 'over budget'; readonly is: boolean }
  | { readonly on: 'own field'; readonly fieldId: string; readonly values: readonly string[] }
  | { readonly on: 'owner'; readonly ids: readonly string[] }

/** Who decides in a step. */
export type Who =
  | { readonly by: 'person'; readonly personId: string }
  | {
      readonly by: 'role'
      readonly role: string
      readonly departmentId: string | null
      readonly holders: readonly string[]
    }
  | { readonly by: 'budget holders' }
  | { readonly by: 'group'; readonly name: string; readonly mode: 'any' | 'all'; readonly members: readonly string[] }
  | { readonly by: 'chain'; readonly until: 'covered' | 'top' }

export interface PolicyStep {
  /** Ranks are numbers over the whole policy; equal ranks run side by side. */
  readonly rank: number
  readonly who: Who
  /** In a step that must cover, whoever's limit does not cover the amount is left out. */
  readonly mustCover: boolean
}

/** Which documents a rule is for. */
export const RULE_DOCUMENTS = ['requests', 'orders', 'both'] as const
export type RuleDocuments = (typeof RULE_DOCUMENTS)[number]

export interface Rule {
  readonly id: string
  readonly name: string
  /** Absent: requests. */
  readonly documents?: RuleDocuments
  readonly conditions: readonly Condition[]
  readonly steps: readonly PolicyStep[]
  /** The owner's own limit spares the managers' steps where this rule holds. */
  readonly sparesManagers: boolean
}

/** Which orders may be made without a request: those worth up to an amount, all (no amount), or none (null). */
export type DirectOrders = { readonly upTo: Money | null } | null

export interface Policy {
  readonly id: string
  readonly rules: readonly Rule[]
  /** What becomes of a document that no rule fits. */
  readonly ending: 'fallback' | 'passes'
  readonly fallbackId: string | null
  /**
   * Over how many days, today's included, an owner's requests that name a same supplier are held against their own
   * limit together; null: each by itself.
   */
  readonly ownLimitDays: number | null
  /** Left out: all. */
  readonly directOrders?: DirectOrders
}

/** The limit that counts for a document: what somebody may order for orders, what they may decide for requests. */
export const limitFor = (
  person: Pick<Person, 'orderingLimit' | 'decidingLimit'> | undefined,
  document: Subject['document'],
): Money | null => (document === 'order' ? person?.orderingLimit : person?.decidingLimit) ?? null

/** Whether a rule is for documents of this sort. */
export const isFor = ({ documents = 'requests' }: Pick<Rule, 'documents'>, document: Subject['document']): boolean =>
  documents === 'both' || document === 'direct order' || documents === (document === 'order' ? 'orders' : 'requests')

/** True when the condition holds for the subject. "From" includes its amount, "below" does not. */
export function holds(condition: Condition, subject: Subject): boolean {
  switch (condition.on) {
    case 'amount':
      return (
        (condition.from === undefined || compare(subject.amount, condition.from) >= 0) &&
        (condition.below === undefined || compare(subject.amount, condition.below) < 0)
      )
    case 'department':
      return condition.branch
        ? subject.branch.some((id) => condition.ids.includes(id))
        : condition.ids.includes(subject.departmentId)
    case 'category':
      return subject.codings.some((c) => c.category !== null && condition.ids.includes(c.category))
    case 'account':
      return subject.codings.some((c) => condition.codes.includes(c.account))
    case 'project':
      return subject.codings.some((c) => c.project != null && condition.codes.includes(c.project))
    case 'supplier':
      return subject.codings.some((c) => condition.sorts.includes(c.supplier))
    case 'currency':
      return subject.codings.some((c) => condition.codes.includes(c.currency))
    case 'agreement':
      return subject.codings.some((c) => (c.hasAgreement ?? false) === condition.is)
    case 'kind':
      return condition.kinds.includes(subject.kind)
    case 'over budget':
      return subject.overBudget === condition.is
    case 'own field':
      return (subject.own?.[condition.fieldId] ?? []).some((v) => condition.values.includes(v))
    case 'owner':
      return condition.ids.includes(subject.ownerId)
  }
}
