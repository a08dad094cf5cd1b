import { presence, type PeopleFacts, type Person } from '#core/people/person'
import type { Condition, Policy, Rule } from './policy'

/** A budget line as a document may be coded to it. */
export interface WorldLine {
  readonly id: string
  readonly departmentId: string
  readonly account: string
  readonly holderId: string | null
}

/** The organisation a policy is looked at in: who raises for what, and what may pay. */
export interface PolicyWorld {
  readonly currency: string
  readonly people: PeopleFacts
  /** Each department with all above it, itself first. */
  readonly departments: readonly { readonly id: string; readonly branch: readonly string[] }[]
  /** The departments that each person may raise for. */
  readonly openTo: ReadonlyMap<string, readonly string[]>
  readonly kinds: readonly string[]
  readonly categories: readonly string[]
  readonly lines: readonly WorldLine[]
}

/** People who are the same to a policy: one stands for all of them. */
export interface OwnerClass {
  readonly person: Person
  readonly count: number
}

/** Who raises, in classes: whom a policy names, a budget line, an absence or a reporting line stands alone. */
export function ownerClasses(policy: Policy, world: PolicyWorld): OwnerClass[] {
  const alone = namedAnywhere(policy, world)
  const found = new Map<string, { person: Person; count: number }>()
  for (const person of world.people.people.values()) {
    if (presence(person, world.people.absences, world.people.today).at === 'gone') continue
    const open = [...(world.openTo.get(person.id) ?? [])].sort().join(' ')
    const { managerId, ownLimit } = person
    const key = alone.has(person.id) ? person.id : `${managerId ?? ''} / ${ownLimit?.amount ?? ''} / ${open}`
    const same = found.get(key)
    if (same === undefined) found.set(key, { person, count: 1 })
    else same.count += 1
  }
  return [...found.values()]
}

function namedAnywhere(policy: Policy, world: PolicyWorld): Set<string> {
  const people = [...world.people.people.values()]
  return new Set([
    ...policy.rules.flatMap((r) => [
      ...r.conditions.flatMap((c) => (c.on === 'owner' ? c.ids : [])),
      ...r.steps.flatMap(({ who }) =>
        who.by === 'person' ? [who.personId] : who.by === 'role' ? who.holders : who.by === 'group' ? who.members : [],
      ),
    ]),
    ...world.lines.flatMap((l) => l.holderId ?? []),
    ...world.people.absences.flatMap((a) => a.substituteId ?? []),
    ...people.flatMap((p) => p.managerId ?? []),
    ...(policy.fallbackId === null ? [] : [policy.fallbackId]),
  ])
}

/** The sets of values that conditions of one sort name. */
export const namedSets = (
  rules: readonly Rule[],
  of: (c: Condition) => readonly string[] | null,
): ReadonlySet<string>[] =>
  rules.flatMap((r) =>
    r.conditions.flatMap((c) => {
      const named = of(c)
      return named === null ? [] : [new Set(named)]
    }),
  )

/** One of each class of things that the same sets hold, with whatever else tells them apart. */
export function oneOfEach<T>(
  things: readonly T[],
  sets: readonly ReadonlySet<string>[],
  textOf: (thing: T) => string,
  besides: (thing: T) => string = () => '',
): T[] {
  const found = new Map<string, T>()
  for (const t of things) {
    const key = `${sets.map((s) => (s.has(textOf(t)) ? '1' : '0')).join('')} ${besides(t)}`
    if (!found.has(key)) found.set(key, t)
  }
  return [...found.values()]
}
