import { entryChanges, mergeEntries, saysSame } from '#core/base/entries'
import { dec, HUNDRED, isDecimalText, type DecimalText } from '#core/base/decimal'
import { compare, isNegative, type Money } from '#core/base/money'
import { ROLES, type RoleGrant } from '#core/people/rights'
import { SUPPLIER_SORTS, type Condition, type DirectOrders, type Policy, type PolicyStep, type Rule } from './policy'

/** What whoever approves a request may change of it while approving: nothing, less of it, or also who pays. */
export const MAY_CHANGE = ['nothing', 'quantities', 'quantities and payers'] as const
export type MayChange = (typeof MAY_CHANGE)[number]

/** All that an administrator writes of a policy; it is kept as a whole, one version after the other. */
export interface PolicyForm extends Omit<Policy, 'id'> {
  readonly name: string
  /** After how many business days whoever is asked is reminded, once; null: never. */
  readonly remindDays: number | null
  /** After how many business days the next manager is asked instead; null: never. */
  readonly escalateDays: number | null
  /** Whether a step that waits may be skipped: whoever decides in the end is asked in its place. */
  readonly maySkip: boolean
  /** What whoever approves a request may change of it while approving. */
  readonly mayChange: MayChange
  /** By how much an order may pass what was approved and is not decided on again; null: as the organisation says. */
  readonly orderTolerance: { readonly percent: DecimalText; readonly amount: Money } | null
  readonly directOrders: DirectOrders
  /** Which decisions may be answered by mail: those up to an amount, all (no amount), or none. */
  readonly byMail: { readonly upTo: Money | null } | null
}

/** Whether a decision of an amount may be answered by mail. Up to an amount includes it. */
export const mayAnswerByMail = ({ byMail }: Pick<PolicyForm, 'byMail'>, amount: Money): boolean =>
  byMail !== null && (byMail.upTo === null || compare(amount, byMail.upTo) <= 0)

/** Who holds a role, and for what: what steps by role are filled from. */
export interface RoleHolder extends Pick<RoleGrant, 'role' | 'departmentId' | 'placeId'> {
  readonly personId: string
}

/** Whoever may sit in a step by role: who holds it for the organisation, or for the department that the step names. */
export const holdersOfRole = (role: string, departmentId: string | null, grants: readonly RoleHolder[]): string[] => [
  ...new Set(
    grants
      .filter(
        (g) =>
          g.role === role &&
          ((g.departmentId === null && (g.placeId ?? null) === null) ||
            (departmentId !== null && g.departmentId === departmentId)),
      )
      .map((g) => g.personId),
  ),
]

/** A policy as it is judged by: with the holders of the roles that its steps name. */
export const policyOf = (id: string, form: Omit<Policy, 'id'>, grants: readonly RoleHolder[]): Policy => ({
  id,
  ending: form.ending,
  fallbackId: form.fallbackId,
  ownLimitDays: form.ownLimitDays,
  ...(form.directOrders === undefined ? {} : { directOrders: form.directOrders }),
  rules: form.rules.map((rule) => ({
    ...rule,
    steps: rule.steps.map((step) =>
      step.who.by === 'role'
        ? {
            ...step,
            who: { ...step.who, holders: holdersOfRole(step.who.role, step.who.departmentId, grants) },
          }
        : step,
    ),
  })),
})

/** A rule as it is written: whoever holds a role is not part of it. */
export const writtenRule = (rule: Rule): Rule => ({
  ...rule,
  documents: rule.documents ?? 'requests',
  steps: rule.steps.map((step) => (step.who.by === 'role' ? { ...step, who: { ...step.who, holders: [] } } : step)),
})

/** A policy in which somebody has taken the places of somebody else: in steps, groups, conditions, and at the end. */
export function withSuccessor<P extends Pick<PolicyForm, 'rules' | 'fallbackId'>>(
  form: P,
  fromId: string,
  toId: string,
): P {
  const or = (id: string) => (id === fromId ? toId : id)
  const all = (ids: readonly string[]) => [...new Set(ids.map(or))]
  const step = (s: PolicyStep): PolicyStep =>
    s.who.by === 'person'
      ? { ...s, who: { ...s.who, personId: or(s.who.personId) } }
      : s.who.by === 'group'
        ? { ...s, who: { ...s.who, members: all(s.who.members) } }
        : s
  const condition = (c: Condition): Condition => (c.on === 'owner' ? { ...c, ids: all(c.ids) } : c)
  return {
    ...form,
    fallbackId: form.fallbackId === null ? null : or(form.fallbackId),
    rules: form.rules.map((r) => ({ ...r, conditions: r.conditions.map(condition), steps: r.steps.map(step) })),
  }
}

/** What is wrong with a form; `at` is the rule (null: none of them). */
export type PolicyReason = { readonly at: number | null } & (
  | {
      readonly code:
        | 'name-missing'
        | 'amount-below-nothing'
        | 'stretch-empty'
        | 'condition-empty'
        | 'condition-twice'
        | 'condition-idle'
        | 'group-empty'
        | 'group-name-missing'
        | 'rank-unreadable'
        | 'days-unreadable'
        | 'escalates-first'
        | 'orders-spare'
        | 'tolerance-unreadable'
    }
  | { readonly code: 'amount-currency'; readonly currency: string }
  | { readonly code: 'unknown'; readonly what: Named | 'role' }
  | { readonly code: 'has-left'; readonly personId: string }
)
export type Named = 'department' | 'category' | 'account' | 'project' | 'kind' | 'person' | 'currency' | 'own field'

/** A choice of an own field, as one name. */
export const choiceOf = (fieldId: string, value: string): string => `${fieldId}: ${value}`

/** What a form is checked against: what there is to name, and who left. */
export interface PolicyFacts {
  readonly currency: string
  readonly known: Readonly<Record<Named, ReadonlySet<string>>>
  readonly left: ReadonlySet<string>
}

/** The most days that anything of a policy waits or looks back. */
export const MOST_POLICY_DAYS = 400
/** The highest rank that a step may have. */
export const MOST_RANK = 999

/** Everything that is wrong with a form, not only the first thing; nothing when it may be put in force. */
export function checkPolicyForm(form: PolicyForm, facts: PolicyFacts): PolicyReason[] {
  const days = (n: number | null) => n === null || (Number.isInteger(n) && n >= 1 && n <= MOST_POLICY_DAYS)
  return [
    ...(form.name.trim() === '' ? [{ at: null, code: 'name-missing' } as const] : []),
    ...form.rules.flatMap((rule, at) => [
      ...checkConditions(rule.conditions, at, facts),
      ...rule.steps.flatMap((step) => checkStep(step, at, facts)),
      ...(rule.documents === 'orders' && rule.sparesManagers ? [{ at, code: 'orders-spare' } as const] : []),
    ]),
    ...(form.fallbackId === null ? [] : checkPeople([form.fallbackId], null, facts)),
    ...([form.ownLimitDays, form.remindDays, form.escalateDays].every(days)
      ? []
      : [{ at: null, code: 'days-unreadable' } as const]),
    ...checkUpTo(form.byMail?.upTo ?? null, facts.currency),
    ...checkUpTo(form.directOrders?.upTo ?? null, facts.currency),
    ...checkTolerance(form.orderTolerance, facts.currency),
    ...(form.remindDays !== null && form.escalateDays !== null && form.escalateDays <= form.remindDays
      ? [{ at: null, code: 'escalates-first' } as const]
      : []),
  ]
}

function checkUpTo(upTo: Money | null, currency: string): PolicyReason[] {
  if (upTo === null) return []
  if (upTo.currency !== currency) return [{ at: null, code: 'amount-currency', currency }]
  return isNegative(upTo) ? [{ at: null, code: 'amount-below-nothing' }] : []
}

function checkTolerance(tolerance: PolicyForm['orderTolerance'], currency: string): PolicyReason[] {
  if (tolerance === null) return []
  const percent = isDecimalText(tolerance.percent) ? dec(tolerance.percent) : null
  const isSound = percent !== null && !percent.isNegative() && percent.lte(HUNDRED) && percent.places() <= 2
  return [
    ...(isSound ? [] : [{ at: null, code: 'tolerance-unreadable' } as const]),
    ...checkUpTo(tolerance.amount, currency),
  ]
}

function checkConditions(conditions: readonly Condition[], at: number, facts: PolicyFacts): PolicyReason[] {
  const reasons = conditions.flatMap((c) => checkCondition(c, at, facts))
  const sorts = conditions.map((c) => c.on)
  return new Set(sorts).size === sorts.length ? reasons : [...reasons, { at, code: 'condition-twice' }]
}

/** What each sort of condition names, and what that is. */
const namedBy = (c: Condition): { readonly what: Named; readonly ids: readonly string[] } | null => {
  switch (c.on) {
    case 'department':
    case 'category':
    case 'owner':
      return { what: c.on === 'owner' ? 'person' : c.on, ids: c.ids }
    case 'account':
    case 'project':
      return { what: c.on, ids: c.codes }
    case 'kind':
      return { what: 'kind', ids: c.kinds }
    case 'own field':
      return { what: 'own field', ids: c.values.map((v) => choiceOf(c.fieldId, v)) }
    case 'currency':
      return { what: 'currency', ids: c.codes }
    default:
      return null
  }
}

function checkCondition(c: Condition, at: number, facts: PolicyFacts): PolicyReason[] {
  if (c.on === 'amount') return checkStretch(c, at, facts.currency)
  if (c.on === 'supplier') {
    if (c.sorts.length === 0) return [{ at, code: 'condition-empty' }]
    return c.sorts.length === SUPPLIER_SORTS.length ? [{ at, code: 'condition-idle' }] : []
  }
  const named = namedBy(c)
  if (named === null) return []
  if (named.ids.length === 0) return [{ at, code: 'condition-empty' }]
  if (named.what === 'person') return checkPeople(named.ids, at, facts)
  return named.ids.every((id) => facts.known[named.what].has(id)) ? [] : [{ at, code: 'unknown', what: named.what }]
}

function checkStretch(
  c: { readonly from?: Money; readonly below?: Money },
  at: number,
  currency: string,
): PolicyReason[] {
  const ends = [c.from ?? [], c.below ?? []].flat()
  if (ends.length === 0) return [{ at, code: 'condition-empty' }]
  if (ends.some((m) => m.currency !== currency)) return [{ at, code: 'amount-currency', currency }]
  if (ends.some(isNegative)) return [{ at, code: 'amount-below-nothing' }]
  return c.from !== undefined && c.below !== undefined && compare(c.from, c.below) >= 0
    ? [{ at, code: 'stretch-empty' }]
    : []
}

function checkStep({ who, rank }: PolicyStep, at: number, facts: PolicyFacts): PolicyReason[] {
  const ranked = Number.isInteger(rank) && rank >= 1 && rank <= MOST_RANK
  const reasons: PolicyReason[] = ranked ? [] : [{ at, code: 'rank-unreadable' }]
  switch (who.by) {
    case 'person':
      return [...reasons, ...checkPeople([who.personId], at, facts)]
    case 'role':
      if (!ROLES.some((r) => r === who.role)) reasons.push({ at, code: 'unknown', what: 'role' })
      if (who.departmentId !== null && !facts.known.department.has(who.departmentId))
        reasons.push({ at, code: 'unknown', what: 'department' })
      return reasons
    case 'group':
      if (who.name.trim() === '') reasons.push({ at, code: 'group-name-missing' })
      if (who.members.length === 0) reasons.push({ at, code: 'group-empty' })
      return [...reasons, ...checkPeople(who.members, at, facts)]
    default:
      return reasons
  }
}

function checkPeople(ids: readonly string[], at: number | null, facts: PolicyFacts): PolicyReason[] {
  if (!ids.every((id) => facts.known.person.has(id))) return [{ at, code: 'unknown', what: 'person' }]
  return ids.filter((id) => facts.left.has(id)).map((personId) => ({ at, code: 'has-left', personId }))
}

/** One difference between two policies. */
export type PolicyChange =
  | { readonly what: 'rule added' | 'rule gone'; readonly rule: Rule }
  | { readonly what: 'rule changed'; readonly was: Rule; readonly rule: Rule }
  | {
      readonly what:
        | 'rules moved'
        | 'name'
        | 'ending'
        | 'own limit days'
        | 'reminders'
        | 'skipping'
        | 'changing'
        | 'tolerance'
        | 'by mail'
        | 'direct orders'
    }

/** Every difference between what holds and what is to hold. Whoever holds a role is no difference. */
export function policyChanges(before: PolicyForm, after: PolicyForm): PolicyChange[] {
  const written = (form: PolicyForm) => form.rules.map(writtenRule)
  const differs = (keys: readonly (keyof PolicyForm)[]) => keys.some((k) => !saysSame(before[k], after[k]))
  return [
    ...entryChanges(written(before), written(after), (r) => r.id).map((c): PolicyChange =>
      c.what === 'moved'
        ? { what: 'rules moved' }
        : c.what === 'changed'
          ? { what: 'rule changed', was: c.was, rule: c.entry }
          : { what: `rule ${c.what}`, rule: c.entry },
    ),
    ...(differs(['ending', 'fallbackId']) ? [{ what: 'ending' } as const] : []),
    ...(differs(['ownLimitDays']) ? [{ what: 'own limit days' } as const] : []),
    ...(differs(['remindDays', 'escalateDays']) ? [{ what: 'reminders' } as const] : []),
    ...(differs(['maySkip']) ? [{ what: 'skipping' } as const] : []),
    ...(differs(['mayChange']) ? [{ what: 'changing' } as const] : []),
    ...(differs(['orderTolerance']) ? [{ what: 'tolerance' } as const] : []),
    ...(differs(['directOrders']) ? [{ what: 'direct orders' } as const] : []),
    ...(differs(['byMail']) ? [{ what: 'by mail' } as const] : []),
    ...(differs(['name']) ? [{ what: 'name' } as const] : []),
  ]
}

/** What somebody wrote over one state of a draft, carried over to a newer one; theirs stands where both wrote. */
export function mergePolicy(base: PolicyForm, mine: PolicyForm, newest: PolicyForm): PolicyForm {
  const pick = <K extends keyof PolicyForm>(key: K): PolicyForm[K] =>
    saysSame(mine[key], base[key]) ? newest[key] : mine[key]
  return {
    name: pick('name'),
    ending: pick('ending'),
    fallbackId: pick('fallbackId'),
    ownLimitDays: pick('ownLimitDays'),
    remindDays: pick('remindDays'),
    escalateDays: pick('escalateDays'),
    maySkip: pick('maySkip'),
    mayChange: pick('mayChange'),
    orderTolerance: pick('orderTolerance'),
    directOrders: pick('directOrders'),
    byMail: pick('byMail'),
    rules: mergeEntries(base.rules, mine.rules, newest.rules, (r) => r.id),
  }
}
