import { compare, type Money } from '#core/base/money'
import { presence } from '#core/people/person'
import { holds, isFor, type Policy, type PolicyStep, type Rule, type Subject } from './policy'
import { makeRoute, type FallbackCause, type Route } from './route'
import { amountsFor, documentsOf, ownerClasses } from './sorts'
import type { PolicyWorld } from './world'

/** A document that proves a finding, and over which amounts the same holds of it. */
export interface Example {
  readonly subject: Subject
  /** From this amount on, and below that; null is without end. */
  readonly from: Money
  readonly below: Money | null
}

/** What a policy does that whoever wrote it hardly meant. */
export type Finding =
  /** A step comes to nobody who may decide, and nobody decides in the end either: the document is held. */
  | {
      readonly code: 'held'
      readonly document: Subject['document']
      readonly ruleId: string | null
      readonly stepAt: number | null
      readonly because: NonNullable<Route['held']>['code']
      readonly example: Example
      /** How many people may raise such a document. */
      readonly people: number
    }
  /** Nobody asked has a limit that covers: whoever decides in the end is asked. */
  | {
      readonly code: 'falls-to-fallback'
      readonly document: Subject['document']
      readonly ruleId: string
      readonly stepAt: number
      readonly cause: FallbackCause
      readonly example: Example
      readonly people: number
    }
  /** No rule fits: whoever decides in the end is asked, or it passes with nobody asked. */
  | {
      readonly code: 'no-rule-fits'
      readonly document: Subject['document']
      readonly ending: Policy['ending']
      readonly example: Example
      readonly people: number
    }
  /** Somebody would decide on their own, themselves or as a substitute, and is left out. */
  | {
      readonly code: 'own'
      readonly document: Subject['document']
      readonly ruleId: string
      readonly stepAt: number
      readonly personId: string
      readonly example: Example
      readonly people: number
    }
  /** No document can meet all of its conditions. */
  | { readonly code: 'never-fits'; readonly ruleId: string }
  | { readonly code: 'circle'; readonly personIds: readonly string[] }
  | { readonly code: 'limit-of-leaver'; readonly personId: string }

export interface PolicyCheck {
  readonly findings: readonly Finding[]
  /** How many of the people who raise were not looked at when its time was over. */
  readonly unchecked: number
}

type Shown = Extract<Finding, { example: Example }>
type Without<T> = T extends Shown ? Omit<T, 'example' | 'people'> : never
type Told = Without<Shown>

/**
 * What a policy does in an organisation that it hardly should, exactly: a route turns only at amounts that a condition
 * or a limit names, and at what conditions name of owner, department, kind, category and account, so that one document
 * between any two of them stands for all. A rule is met by the fewest codings that its conditions need; more of them
 * only spare more managers. Findings come with the lowest example. Common practice, no source; compared with every
 * document of small organisations in its test. `isOver` ends it before the last people were looked at.
 */
export function checkPolicy(policy: Policy, world: PolicyWorld, isOver: () => boolean = () => false): PolicyCheck {
  const found = new Map<string, { told: Told; example: Example; people: Set<string>; count: number }>()
  const met = new Set<string>()
  const sorts = (['requisition', 'order'] as const).map((sort) => ({ sort, part: policyFor(policy, sort) }))
  const owners = sorts.flatMap((s) => ownerClasses(s.part, world, s.sort).map((owner) => ({ ...s, ...owner })))
  let unchecked = 0
  for (const { sort, part, person, count } of owners) {
    if (isOver()) {
      unchecked += count
      continue
    }
    const amounts = amountsFor(part, world, person, sort)
    for (const base of documentsOf(part, world, person, sort)) {
      // What was found at the amount before, to be drawn on while it goes on.
      let going = new Map<string, Example>()
      amounts.forEach((amount, i) => {
        const subject = { ...base, amount, together: amount }
        const next = new Map<string, Example>()
        const at = findIn(part, world, subject)
        for (const id of at.fits) met.add(id)
        for (const told of at.told) {
          const key = JSON.stringify(told)
          const before = going.get(key)
          const example: Example = {
            subject: before?.subject ?? subject,
            from: before?.from ?? amount,
            below: amounts[i + 1] ?? null,
          }
          next.set(key, example)
          const kept = found.get(key)
          if (kept === undefined) found.set(key, { told, example, people: new Set([person.id]), count })
          else {
            if (!kept.people.has(person.id)) kept.count += count
            kept.people.add(person.id)
            const isSame = kept.example.subject === example.subject
            if (isSame || compare(example.from, kept.example.from) < 0) kept.example = example
          }
        }
        going = next
      })
    }
  }
  const never = policy.rules.filter((r) => unchecked === 0 && !met.has(r.id))
  return {
    findings: [
      ...[...found.values()].map((f) => ({ ...f.told, example: f.example, people: f.count }) as Finding),
      ...never.map((r): Finding => ({ code: 'never-fits', ruleId: r.id })),
      ...circles(world),
      ...limitsOfLeavers(world),
    ],
    unchecked,
  }
}

/** A policy with the rules that are for documents of one sort. */
function policyFor(policy: Policy, sort: Subject['document']): Policy {
  const rules = policy.rules.filter((r) => isFor(r, sort))
  return rules.length === policy.rules.length ? policy : { ...policy, rules }
}

interface FoundAt {
  readonly told: Told[]
  readonly fits: readonly string[]
}

/** What is found of one document: each step by itself, besides what spares managers. */
export const findAt = (policy: Policy, world: PolicyWorld, subject: Subject): FoundAt =>
  findIn(policyFor(policy, subject.document), world, subject)

/** The same under a policy whose rules are all for such documents. */
function findIn(policy: Policy, world: PolicyWorld, subject: Subject): FoundAt {
  const told: Told[] = []
  const sparing = policy.rules
    .filter((r) => r.sparesManagers && r.conditions.every((c) => holds(c, subject)))
    .map((r) => ({ ...r, steps: [] }))
  const fits: string[] = []
  for (const rule of policy.rules) {
    if (!rule.conditions.every((c) => holds(c, subject))) continue
    const alone = makeRoute(subject, { ...policy, rules: [{ ...rule, steps: [] }], ending: 'passes' }, world.people)
    if (rule.steps.length === 0 && alone.notes.some((n) => n.code === 'rule-does-not-fit')) continue
    fits.push(rule.id)
    rule.steps.forEach((step, stepAt) => {
      told.push(...findInStep(policy, world, subject, rule, step, stepAt, sparing))
    })
  }
  if (fits.length > 0) return { told, fits }
  const { held } = makeRoute(subject, { ...policy, rules: [] }, world.people)
  // A policy without a rule for orders leaves all of them to whoever decides in the end.
  if (held === null && subject.document === 'order' && policy.rules.length === 0) return { told: [], fits }
  const unfit: Told =
    held === null
      ? { code: 'no-rule-fits', document: subject.document, ending: policy.ending }
      : { code: 'held', document: subject.document, ruleId: null, stepAt: null, because: held.code }
  return { told: [unfit], fits }
}

/** What is found of one step of a rule that fits: each budget holder by themselves, since codings have no order. */
function findInStep(
  policy: Policy,
  world: PolicyWorld,
  subject: Subject,
  rule: Rule,
  step: PolicyStep,
  stepAt: number,
  sparing: readonly Rule[],
): Told[] {
  const at = { document: subject.document, ruleId: rule.id, stepAt }
  const holders = new Set(subject.codings.map((c) => c.holderId))
  const subjects =
    step.who.by === 'budget holders'
      ? [...holders].map((id) => ({ ...subject, codings: subject.codings.filter((c) => c.holderId === id) }))
      : [subject]
  const others = sparing.filter((r) => r.id !== rule.id)
  const rules = [...others, { ...rule, steps: [step] }].map((r) => ({ ...r, conditions: [] }))
  const told = subjects.flatMap((one) => {
    const route = makeRoute(one, { ...policy, rules, ending: 'passes' }, world.people)
    const found: Told[] = route.held === null ? [] : [{ code: 'held', ...at, because: route.held.code }]
    for (const { why } of route.steps.flatMap((s) => s.seats))
      if (why.code === 'fallback') found.push({ code: 'falls-to-fallback', ...at, cause: why.because })
    // In a chain, and of whoever decides in the end, it is told by what comes of it.
    if (step.who.by !== 'chain')
      for (const n of route.notes)
        if (n.code === 'own-document' && n.personId !== policy.fallbackId)
          found.push({ code: 'own', ...at, personId: n.personId })
    return found
  })
  return [...new Map(told.map((t) => [JSON.stringify(t), t])).values()]
}

function circles(world: PolicyWorld): Finding[] {
  const found = new Map<string, Finding>()
  for (const start of world.people.people.keys()) {
    const seen: string[] = []
    for (
      let at: string | null = start;
      at !== null && !seen.includes(at);
      at = world.people.people.get(at)?.managerId ?? null
    ) {
      seen.push(at)
      const next = world.people.people.get(at)?.managerId ?? null
      const key = [...seen].sort().join(' ')
      if (next === start && !found.has(key)) found.set(key, { code: 'circle', personIds: [...seen] })
    }
  }
  return [...found.values()]
}

function limitsOfLeavers({ people }: PolicyWorld): Finding[] {
  return [...people.people.values()].flatMap((p): Finding[] => {
    const isGone = presence(p, people.absences, people.today).at === 'gone'
    const has = [p.ownLimit, p.decidingLimit, p.orderingLimit].some((l) => l !== null)
    return isGone && has ? [{ code: 'limit-of-leaver', personId: p.id }] : []
  })
}
