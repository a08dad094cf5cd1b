import { minorUnits } from '#core/base/currency'
import { Decimal, dec } from '#core/base/decimal'
import { compare, moneyOf, zero, type Money } from '#core/base/money'
import { presence, type Person } from '#core/people/person'
import { holds, type Policy, type PolicyStep, type Rule, type Subject, type SubjectCoding } from './policy'
import { makeRoute, type FallbackCause, type Route } from './route'
import { namedSets, oneOfEach, ownerClasses, type PolicyWorld, type WorldLine } from './world'

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
      readonly ruleId: string
      readonly stepAt: number
      readonly cause: FallbackCause
      readonly example: Example
      readonly people: number
    }
  /** No rule fits: whoever decides in the end is asked, or it passes with nobody asked. */
  | {
      readonly code: 'no-rule-fits'
      readonly ending: Policy['ending']
      readonly example: Example
      readonly people: number
    }
  /** Somebody would decide on their own, themselves or as a substitute, and is left out. */
  | {
      readonly code: 'own'
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
  const owners = ownerClasses(policy, world)
  let unchecked = 0
  for (const { person, count } of owners) {
    if (isOver()) {
      unchecked += count
      continue
    }
    const amounts = amountsFor(policy, world, person)
    for (const base of documentsOf(policy, world, person.id)) {
      // What was found at the amount before, to be drawn on while it goes on.
      let going = new Map<string, Example>()
      amounts.forEach((amount, at) => {
        const subject = { ...base, amount, together: amount }
        const next = new Map<string, Example>()
        for (const told of findAt(policy, world, subject, met)) {
          const key = JSON.stringify(told)
          const before = going.get(key)
          const example: Example = {
            subject: before?.subject ?? subject,
            from: before?.from ?? amount,
            below: amounts[at + 1] ?? null,
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

/** What is found of one document: each step by itself, besides what spares managers. */
export function findAt(policy: Policy, world: PolicyWorld, subject: Subject, met: Set<string> = new Set()): Told[] {
  const told: Told[] = []
  const sparing = policy.rules
    .filter((r) => r.sparesManagers && r.conditions.every((c) => holds(c, subject)))
    .map((r) => ({ ...r, steps: [] }))
  let fits = 0
  for (const rule of policy.rules) {
    if (!rule.conditions.every((c) => holds(c, subject))) continue
    const alone = makeRoute(subject, { ...policy, rules: [{ ...rule, steps: [] }], ending: 'passes' }, world.people)
    if (rule.steps.length === 0 && alone.notes.some((n) => n.code === 'rule-does-not-fit')) continue
    fits += 1
    met.add(rule.id)
    rule.steps.forEach((step, stepAt) => {
      told.push(...findInStep(policy, world, subject, rule, step, stepAt, sparing))
    })
  }
  if (fits > 0) return told
  const { held } = makeRoute(subject, { ...policy, rules: [] }, world.people)
  return [
    held === null
      ? { code: 'no-rule-fits', ending: policy.ending }
      : { code: 'held', ruleId: null, stepAt: null, because: held.code },
  ]
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
  const at = { ruleId: rule.id, stepAt }
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

/** The lowest amount of each stretch in which no condition and no limit turns, for what a person raises. */
function amountsFor(policy: Policy, world: PolicyWorld, owner: Person): Money[] {
  const { currency } = world
  const { people } = world.people
  const unit = Decimal.ofUnits(1n, minorUnits(currency))
  const conditions = policy.rules.flatMap((r) =>
    r.conditions.flatMap((c) => (c.on === 'amount' ? [c.from ?? [], c.below ?? []].flat() : [])),
  )
  const seated = policy.rules.flatMap((r) =>
    r.steps.flatMap(({ who, mustCover }) =>
      !mustCover
        ? []
        : who.by === 'person'
          ? [who.personId]
          : who.by === 'role'
            ? who.holders
            : who.by === 'group'
              ? who.members
              : world.lines.flatMap((l) => l.holderId ?? []),
    ),
  )
  const above: string[] = []
  for (let id = owner.managerId; id !== null && !above.includes(id); id = people.get(id)?.managerId ?? null)
    above.push(id)
  const limits = [owner.ownLimit, ...[...seated, ...above].map((id) => people.get(id)?.decidingLimit ?? null)]
  const turns = [
    zero(currency),
    ...conditions,
    // A limit covers up to and including itself.
    ...limits.flatMap((l) => (l === null ? [] : [moneyOf(dec(l.amount).plus(unit).toFixed(), currency)])),
  ]
  return [...new Map(turns.map((m) => [m.amount, m])).values()]
    .filter((m) => compare(m, zero(currency)) >= 0)
    .sort(compare)
}

/** A document of each sort that an owner may raise, without its amount. */
function* documentsOf(
  policy: Policy,
  world: PolicyWorld,
  ownerId: string,
): Generator<Omit<Subject, 'amount' | 'together'>> {
  const kinds = oneOfEach(
    world.kinds,
    namedSets(policy.rules, (c) => (c.on === 'kind' ? c.kinds : null)),
    (k) => k,
  )
  for (const departmentId of world.openTo.get(ownerId) ?? []) {
    const branch = world.departments.find((d) => d.id === departmentId)?.branch ?? [departmentId]
    for (const codings of codingsOf(policy, world, departmentId))
      for (const kind of kinds)
        for (const overBudget of [false, true])
          yield {
            document: 'requisition',
            kind,
            ownerId,
            raisedById: ownerId,
            ownedBy: [],
            departmentId,
            branch,
            codings,
            overBudget,
          }
  }
}

/** Codings that tell documents of a department apart: each alone, and the fewest that meet a rule, with one more. */
function codingsOf(policy: Policy, world: PolicyWorld, departmentId: string): SubjectCoding[][] {
  const accounts = namedSets(policy.rules, (c) => (c.on === 'account' ? c.codes : null))
  const categories = namedSets(policy.rules, (c) => (c.on === 'category' ? c.ids : null))
  const asksHolders = policy.rules.some((r) => r.steps.some((x) => x.who.by === 'budget holders'))
  const lines = oneOfEach(
    world.lines.filter((l) => l.departmentId === departmentId),
    accounts,
    (l) => l.account,
    (l) => (asksHolders ? (l.holderId ?? '') : ''),
  )
  const kinds = [null, ...oneOfEach(world.categories, categories, (c) => c)]
  const found = new Map<string, SubjectCoding[]>()
  const put = (some: readonly (readonly [WorldLine, string | null])[]) => {
    const key = some
      .map(([l, c]) => `${l.id} ${c ?? ''}`)
      .sort()
      .join('|')
    if (!found.has(key))
      found.set(
        key,
        some.map(([l, category]) => ({ budgetLineId: l.id, account: l.account, category, holderId: l.holderId })),
      )
  }
  for (const l of lines) for (const c of kinds) put([[l, c]])
  for (const rule of policy.rules) {
    const more = rule.steps.some((x) => x.who.by === 'budget holders') ? lines : []
    const needLines = rule.conditions.flatMap((c) =>
      c.on === 'account' ? [lines.filter((l) => c.codes.includes(l.account))] : [],
    )
    const needKinds = rule.conditions.flatMap((c) =>
      c.on === 'category' ? [kinds.filter((k) => k !== null && c.ids.includes(k))] : [],
    )
    // Without conditions on codings each coding alone stands for all.
    if (needLines.length + needKinds.length === 0) continue
    for (const some of product(needLines))
      for (const named of product(needKinds)) {
        const least = Math.max(some.length, named.length, 1)
        for (const first of some.length > 0 ? [some[0]] : lines) {
          if (first === undefined) continue
          const pairs = Array.from({ length: least }, (_, i) => [some[i] ?? first, named[i] ?? null] as const)
          put(pairs)
          for (const l of more) put([...pairs, [l, null]])
        }
      }
  }
  return [...found.values()]
}

/** One of each of some lists, in every way. */
function product<T>(lists: readonly (readonly T[])[]): T[][] {
  return lists.reduce<T[][]>((ways, list) => ways.flatMap((way) => list.map((one) => [...way, one])), [[]])
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
