import { compare, type Money } from '#core/base/money'
import type { PeopleFacts } from '#core/people/person'
import type { Condition, Policy, Subject } from './policy'
import { makeRoute, type Route } from './route'

/** The same of what is in force and of the draft. */
export interface Sides {
  readonly now: number
  readonly draft: number
}

/** In what a request would go another way under the draft. */
export const CHANGED_HOW = [
  'passes at once',
  'is asked of somebody',
  'is held',
  'is not held',
  'others decide',
] as const
export type ChangedHow = (typeof CHANGED_HOW)[number]

/** What became of past requests under two policies, of some or of all of them: parts are added up. */
export interface Replayed {
  readonly requests: number
  /** Decisions that are needed: of a step that any one of several may decide, one. */
  readonly decisions: Sides
  readonly atOnce: Sides
  readonly held: Sides
  /** Requests that each person is asked about, by id. */
  readonly asked: Readonly<Record<string, Sides>>
  readonly changed: Readonly<Record<ChangedHow, number>>
  /** Hours that requests wait, by the measured times of whoever is asked. */
  readonly hours: Sides
}

export const NOTHING_REPLAYED: Replayed = {
  requests: 0,
  decisions: { now: 0, draft: 0 },
  atOnce: { now: 0, draft: 0 },
  held: { now: 0, draft: 0 },
  asked: {},
  changed: { 'passes at once': 0, 'is asked of somebody': 0, 'is held': 0, 'is not held': 0, 'others decide': 0 },
  hours: { now: 0, draft: 0 },
}

/** What a replay is worked out with: both policies, the people of today, and how long each takes to decide. */
export interface ReplayFacts {
  readonly now: Policy
  readonly draft: Policy
  /** Nobody is away: whoever is today was not then. */
  readonly people: PeopleFacts
  /** The hours that people take, by their id; who is not there takes as long as everybody in the middle. */
  readonly hours: Readonly<Record<string, number>>
  readonly usualHours: number | null
}

/** What is told of a route. */
interface Told {
  readonly decisions: number
  readonly atOnce: boolean
  readonly held: boolean
  readonly asked: readonly string[]
  readonly hours: number
  /** Equal where the same people decide, in the same order. */
  readonly way: string
}

/**
 * Sends past requests through what is in force and through a draft, both with the people of today. A route turns only
 * at what the policies name, and at amounts that a condition or a limit names: requests that are alike in that, with
 * amounts between the same two, go one way and are worked out once. `changed`: those that go another way, in order.
 */
export function replayPolicy(
  past: readonly { readonly id: string; readonly subject: Subject }[],
  facts: ReplayFacts,
): { readonly replayed: Replayed; readonly changed: readonly { readonly id: string; readonly how: ChangedHow }[] } {
  const bounds = boundsOf(facts)
  const looked = lookedAt([facts.now, facts.draft])
  const known = new Map<string, readonly [Told, Told]>()
  const sum = startSum()
  const changed: { id: string; how: ChangedHow }[] = []
  for (const { id, subject } of past) {
    const key = keyOf(subject, bounds, looked)
    let told = known.get(key)
    if (told === undefined) {
      told = [
        tell(makeRoute(subject, facts.now, facts.people), facts),
        tell(makeRoute(subject, facts.draft, facts.people), facts),
      ]
      known.set(key, told)
    }
    const how = sum.add(...told)
    if (how !== null) changed.push({ id, how })
  }
  return { replayed: sum.done(), changed }
}

/** Two parts of a replay together. */
export function addReplayed(a: Replayed, b: Replayed): Replayed {
  const both = (x: Sides, y: Sides): Sides => ({ now: x.now + y.now, draft: x.draft + y.draft })
  const none = { now: 0, draft: 0 }
  const people = new Set([...Object.keys(a.asked), ...Object.keys(b.asked)])
  return {
    requests: a.requests + b.requests,
    decisions: both(a.decisions, b.decisions),
    atOnce: both(a.atOnce, b.atOnce),
    held: both(a.held, b.held),
    asked: Object.fromEntries([...people].map((id) => [id, both(a.asked[id] ?? none, b.asked[id] ?? none)])),
    changed: Object.fromEntries(
      CHANGED_HOW.map((how) => [how, a.changed[how] + b.changed[how]]),
    ) as Replayed['changed'],
    hours: both(a.hours, b.hours),
  }
}

/** Adds up in place: a million requests make no million objects. */
function startSum() {
  const sides = () => ({ now: 0, draft: 0 })
  const s = { requests: 0, decisions: sides(), atOnce: sides(), held: sides(), hours: sides() }
  const changed: Record<ChangedHow, number> = { ...NOTHING_REPLAYED.changed }
  const asked = new Map<string, { now: number; draft: number }>()
  const count = (t: Told, side: 'now' | 'draft') => {
    s.decisions[side] += t.decisions
    if (t.atOnce) s.atOnce[side] += 1
    if (t.held) s.held[side] += 1
    s.hours[side] += t.hours
    for (const id of t.asked) {
      const of = asked.get(id) ?? sides()
      of[side] += 1
      asked.set(id, of)
    }
  }
  return {
    add(now: Told, draft: Told): ChangedHow | null {
      s.requests += 1
      count(now, 'now')
      count(draft, 'draft')
      const how = howChanged(now, draft)
      if (how !== null) changed[how] += 1
      return how
    },
    done: (): Replayed => ({ ...s, changed, asked: Object.fromEntries(asked) }),
  }
}

function howChanged(now: Told, draft: Told): ChangedHow | null {
  if (now.held !== draft.held) return draft.held ? 'is held' : 'is not held'
  if (now.atOnce !== draft.atOnce) return draft.atOnce ? 'passes at once' : 'is asked of somebody'
  return now.way === draft.way ? null : 'others decide'
}

function tell(route: Route, facts: ReplayFacts): Told {
  const hoursOf = (id: string) => facts.hours[id] ?? facts.usualHours ?? 0
  let hours = 0
  let decisions = 0
  // Steps of one rank and level run side by side, and what waits longest of them holds up what comes after.
  for (let i = 0; i < route.steps.length;) {
    const { rank, level } = route.steps[i] ?? { rank: 0, level: 0 }
    let longest = 0
    for (; i < route.steps.length && route.steps[i]?.rank === rank && route.steps[i]?.level === level; i += 1) {
      const { mode, seats } = route.steps[i] ?? { mode: 'any' as const, seats: [] }
      decisions += mode === 'any' ? Math.min(1, seats.length) : seats.length
      const times = seats.map((s) => hoursOf(s.actorId))
      if (times.length > 0) longest = Math.max(longest, mode === 'any' ? Math.min(...times) : Math.max(...times))
    }
    hours += longest
  }
  return {
    decisions,
    atOnce: route.held === null && route.steps.length === 0,
    held: route.held !== null,
    asked: [...new Set(route.steps.flatMap((s) => s.seats.map((x) => x.actorId)))],
    hours: route.held === null ? hours : 0,
    way: JSON.stringify(route.steps.map((s) => [s.mode, s.seats.map((x) => [x.actorId, x.forId])])),
  }
}

/** Every amount at which a route may turn, ascending. */
function boundsOf({ now, draft, people }: ReplayFacts): Money[] {
  const named = [now, draft].flatMap((p) =>
    p.rules.flatMap((r) =>
      r.conditions.flatMap((c) =>
        c.on === 'amount' ? [c.from, c.below].flatMap((m) => (m === undefined ? [] : [m])) : [],
      ),
    ),
  )
  const limits = [...people.people.values()].flatMap((p) =>
    [p.ownLimit, p.decidingLimit].flatMap((m) => (m === null ? [] : [m])),
  )
  const all = [...named, ...limits].sort(compare)
  return all.filter((m, i) => i === 0 || compare(m, all[i - 1] ?? m) !== 0)
}

/** Where an amount lies among the bounds: at one of them, or between two. */
function placeOf(amount: Money, bounds: readonly Money[]): number {
  let [low, high] = [0, bounds.length]
  while (low < high) {
    const middle = (low + high) >> 1
    const bound = bounds[middle]
    const order = bound === undefined ? -1 : compare(amount, bound)
    if (order === 0) return middle * 2 + 1
    if (order < 0) high = middle
    else low = middle + 1
  }
  return low * 2
}

/** What two policies look at in a request at all: what none of them names makes no difference. */
interface Looked {
  readonly departments: ReadonlySet<string>
  readonly accounts: ReadonlySet<string>
  readonly projects: ReadonlySet<string>
  readonly categories: ReadonlySet<string>
  readonly currencies: ReadonlySet<string>
  readonly kinds: ReadonlySet<string>
  readonly ownFields: ReadonlySet<string>
  readonly suppliers: boolean
  readonly agreements: boolean
  readonly overBudget: boolean
  readonly holders: boolean
}

function lookedAt(policies: readonly Policy[]): Looked {
  const rules = policies.flatMap((p) => p.rules)
  const conditions = rules.flatMap((r) => r.conditions)
  const named = (pick: (c: Condition) => readonly string[]) => new Set(conditions.flatMap(pick))
  return {
    departments: named((c) => (c.on === 'department' ? c.ids : [])),
    accounts: named((c) => (c.on === 'account' ? c.codes : [])),
    projects: named((c) => (c.on === 'project' ? c.codes : [])),
    categories: named((c) => (c.on === 'category' ? c.ids : [])),
    currencies: named((c) => (c.on === 'currency' ? c.codes : [])),
    kinds: named((c) => (c.on === 'kind' ? c.kinds : [])),
    ownFields: named((c) => (c.on === 'own field' ? [c.fieldId] : [])),
    suppliers: conditions.some((c) => c.on === 'supplier'),
    agreements: conditions.some((c) => c.on === 'agreement'),
    overBudget: conditions.some((c) => c.on === 'over budget'),
    holders: rules.some((r) => r.steps.some((s) => s.who.by === 'budget holders')),
  }
}

/** What a route is worked out from, as far as the policies look at it: equal keys go one way. */
function keyOf(s: Subject, bounds: readonly Money[], looked: Looked): string {
  const or = (named: ReadonlySet<string>, value: string) => (named.has(value) ? value : '')
  let key =
    `${placeOf(s.amount, bounds)} ${placeOf(s.together, bounds)} ${s.ownerId} ${s.raisedById} ${s.ownedBy.join()} ` +
    `${s.document} ${or(looked.kinds, s.kind)} ${looked.overBudget && s.overBudget} ` +
    `${or(looked.departments, s.departmentId)} ${s.branch.filter((id) => looked.departments.has(id)).join()}`
  for (const id of looked.ownFields) key += ` ${(s.own?.[id] ?? []).join(';')}`
  for (const c of s.codings)
    key +=
      `|${or(looked.accounts, c.account)} ${or(looked.projects, c.project ?? '')} ` +
      `${c.category === null ? '' : or(looked.categories, c.category)} ` +
      `${looked.suppliers ? c.supplier : ''} ${looked.agreements && c.hasAgreement === true} ` +
      `${or(looked.currencies, c.currency)} ` +
      // Of each budget line its holder decides once.
      `${looked.holders ? `${c.budgetLineId} ${c.holderId ?? ''}` : ''}`
  return key
}
