import { minorUnits } from '#core/base/currency'
import { Decimal, dec } from '#core/base/decimal'
import { compare, moneyOf, zero, type Money } from '#core/base/money'
import { presence, type Person } from '#core/people/person'
import { limitFor, type Condition, type Policy, type Rule, type Subject, type SubjectCoding } from './policy'
import type { PolicyWorld, WorldField, WorldLine } from './world'

/** People who are the same to a policy: one stands for all of them. */
export interface OwnerClass {
  readonly person: Person
  readonly count: number
}

type Sort = Subject['document']

/** Of which departments somebody may have a document of this sort. */
const departmentsFor = (world: PolicyWorld, { id, departmentId }: Person, sort: Sort): readonly string[] =>
  sort === 'order' ? (world.buyers.includes(id) ? [departmentId] : []) : (world.openTo.get(id) ?? [])

/** Who raises, or orders, in classes: whom a policy names, a line, an absence or a reporting line stands alone. */
export function ownerClasses(policy: Policy, world: PolicyWorld, sort: Sort): OwnerClass[] {
  const alone = namedAnywhere(policy, world)
  const found = new Map<string, { person: Person; count: number }>()
  for (const person of world.people.people.values()) {
    if (presence(person, world.people.absences, world.people.today).at === 'gone') continue
    if (sort === 'order' && !world.buyers.includes(person.id)) continue
    const open = [...departmentsFor(world, person, sort)].sort().join(' ')
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
    ...world.people.absences.flatMap((a) =>
      [a.substituteId ?? [], (a.byDepartment ?? []).map((s) => s.substituteId)].flat(),
    ),
    ...people.flatMap((p) => p.managerId ?? []),
    ...(policy.fallbackId === null ? [] : [policy.fallbackId]),
  ])
}

/** The sets of values that conditions of one sort name. */
const namedSets = (rules: readonly Rule[], of: (c: Condition) => readonly string[] | null): ReadonlySet<string>[] =>
  rules.flatMap((r) =>
    r.conditions.flatMap((c) => {
      const named = of(c)
      return named === null ? [] : [new Set(named)]
    }),
  )

/** One of each class of things that the same sets hold, with whatever else tells them apart. */
function oneOfEach<T>(
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

/** The lowest amount of each stretch in which no condition and no limit turns, for what a person raises, or orders. */
export function amountsFor(policy: Policy, world: PolicyWorld, owner: Person, sort: Sort): Money[] {
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
  const limits = [
    ...(sort === 'order' ? [] : [owner.ownLimit]),
    ...[...seated, ...above].map((id) => limitFor(people.get(id), sort)),
  ]
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

/** A document of each sort that an owner may raise, or order, without its amount. */
export function* documentsOf(
  policy: Policy,
  world: PolicyWorld,
  owner: Person,
  sort: Sort,
): Generator<Omit<Subject, 'amount' | 'together'>> {
  const ownerId = owner.id
  const kinds = oneOfEach(
    // An order for requests of several kinds has none.
    sort === 'order' ? [...world.kinds, ''] : world.kinds,
    [
      ...namedSets(policy.rules, (c) => (c.on === 'kind' ? c.kinds : null)),
      ...fieldsNamed(policy, world).map((f) => new Set(f.kinds)),
    ],
    (k) => k,
  )
  for (const departmentId of departmentsFor(world, owner, sort)) {
    const branch = world.departments.find((d) => d.id === departmentId)?.branch ?? [departmentId]
    for (const codings of codingsOf(policy, worldOfSort(world, sort), sort === 'order' ? null : departmentId))
      for (const kind of kinds)
        for (const own of sort === 'order' ? [{}] : ownValues(policy, world, { kind, departmentId, codings }))
          for (const overBudget of [false, true])
            yield {
              document: sort,
              kind,
              ownerId,
              raisedById: ownerId,
              ownedBy: [],
              departmentId,
              branch,
              codings,
              overBudget,
              own,
            }
  }
}

/** The own fields that some rule of a policy looks at. */
function fieldsNamed(policy: Policy, world: PolicyWorld): WorldField[] {
  const named = new Set(
    policy.rules.flatMap((r) => r.conditions.flatMap((c) => (c.on === 'own field' ? c.fieldId : []))),
  )
  return (world.ownFields ?? []).filter((f) => named.has(f.id))
}

/** What may be chosen in the own fields that a policy names, in every way that tells documents apart. */
function ownValues(
  policy: Policy,
  world: PolicyWorld,
  on: Pick<Subject, 'kind' | 'departmentId' | 'codings'>,
): Record<string, readonly string[]>[] {
  const fits = (list: readonly string[], value: string | null) =>
    list.length === 0 || (value !== null && list.includes(value))
  const fields = fieldsNamed(policy, world).filter((f) => {
    const categories = f.on === 'line' ? on.codings.map((c) => c.category) : [null]
    const asked = fits(f.kinds, on.kind) && fits(f.departmentIds, on.departmentId)
    return asked && categories.some((c) => fits(f.categoryIds, c))
  })
  return product(
    fields.map((f) => {
      const sets = namedSets(policy.rules, (c) => (c.on === 'own field' && c.fieldId === f.id ? c.values : null))
      const values = oneOfEach(f.choices, sets, (v) => v).map((v) => [f.id, [v]] as const)
      // Of several lines each may say something else.
      const all = f.on === 'line' && values.length > 1 ? [[f.id, values.flatMap(([, v]) => v)] as const] : []
      return [...values, ...all, ...(f.required ? [] : [[f.id, []] as const])]
    }),
  ).map((chosen) => Object.fromEntries(chosen))
}

/** What is ordered comes from a supplier that is ordered from. */
const worldOfSort = (world: PolicyWorld, sort: Sort): PolicyWorld =>
  sort === 'order' ? { ...world, suppliers: ['known'] } : world

/** The conditions that look at codings. */
const ON_CODINGS: readonly Condition['on'][] = ['account', 'project', 'category', 'supplier', 'agreement', 'currency']

/** What tells codings apart besides their budget line. */
type Traits = Pick<SubjectCoding, 'category' | 'supplier' | 'currency' | 'hasAgreement'>

/**
 * Codings that tell documents of a department, or of any, apart: each alone, and the fewest that meet a rule, with one
 * more.
 */
function codingsOf(policy: Policy, world: PolicyWorld, departmentId: string | null): SubjectCoding[][] {
  const sets = (of: (c: Condition) => readonly string[] | null) => namedSets(policy.rules, of)
  const asksHolders = policy.rules.some((r) => r.steps.some((x) => x.who.by === 'budget holders'))
  const projects = sets((c) => (c.on === 'project' ? c.codes : null))
  const lines = oneOfEach(
    world.lines.filter((l) => departmentId === null || l.departmentId === departmentId),
    sets((c) => (c.on === 'account' ? c.codes : null)),
    (l) => l.account,
    (l) => `${asksHolders ? (l.holderId ?? '') : ''} ${projects.map((s) => s.has(l.project ?? '')).join()}`,
  )
  const same = <T extends string>(t: T) => t
  const categories = [
    null,
    ...oneOfEach(
      world.categories,
      [
        ...sets((c) => (c.on === 'category' ? c.ids : null)),
        ...fieldsNamed(policy, world).map((f) => new Set(f.categoryIds)),
      ],
      same,
    ),
  ]
  const suppliers = oneOfEach(
    world.suppliers,
    sets((c) => (c.on === 'supplier' ? c.sorts : null)),
    same,
  )
  const currencies = oneOfEach(
    world.currencies,
    sets((c) => (c.on === 'currency' ? c.codes : null)),
    same,
  )
  const found = new Map<string, SubjectCoding[]>()
  const put = (some: readonly (readonly [WorldLine, Traits])[]) => {
    const codings = some.map(([l, traits]) => ({
      budgetLineId: l.id,
      account: l.account,
      project: l.project ?? null,
      ...traits,
      holderId: l.holderId,
    }))
    const key = codings
      .map((c) => `${c.budgetLineId} ${c.category ?? ''} ${c.supplier} ${c.currency} ${c.hasAgreement === true}`)
      .sort()
      .join('|')
    if (!found.has(key)) found.set(key, codings)
  }
  // What no condition is about is filled in, in every way.
  const covers = policy.rules.some((r) => r.conditions.some((c) => c.on === 'agreement')) ? [false, true] : [false]
  const fills = currencies.flatMap((currency) =>
    suppliers.flatMap((supplier) => covers.map((hasAgreement) => ({ supplier, currency, hasAgreement }))),
  )
  for (const l of lines) for (const category of categories) for (const fill of fills) put([[l, { category, ...fill }]])
  for (const rule of policy.rules) {
    const more = rule.steps.some((x) => x.who.by === 'budget holders') ? lines : []
    const needs = <T>(of: (c: Condition) => T[] | null) =>
      product(rule.conditions.flatMap((c) => [of(c)].flatMap((values) => (values === null ? [] : [values]))))
    const needLines = needs((c) =>
      c.on === 'account'
        ? lines.filter((l) => c.codes.includes(l.account))
        : c.on === 'project'
          ? lines.filter((l) => c.codes.includes(l.project ?? ''))
          : null,
    )
    const needCategories = needs((c) =>
      c.on === 'category' ? categories.filter((k) => k !== null && c.ids.includes(k)) : null,
    )
    const needSuppliers = needs((c) => (c.on === 'supplier' ? suppliers.filter((s) => c.sorts.includes(s)) : null))
    const needCurrencies = needs((c) => (c.on === 'currency' ? currencies.filter((x) => c.codes.includes(x)) : null))
    const needCovers = needs((c) => (c.on === 'agreement' ? [c.is] : null))
    // Without conditions on codings each coding alone stands for all.
    if (!rule.conditions.some((c) => ON_CODINGS.includes(c.on))) continue
    for (const some of needLines)
      for (const named of needCategories)
        for (const from of needSuppliers)
          for (const [priced, covered] of needCurrencies.flatMap((p) => needCovers.map((v) => [p, v] as const))) {
            const least = Math.max(some.length, named.length, from.length, priced.length, covered.length, 1)
            for (const first of some.length > 0 ? [some[0]] : lines) {
              if (first === undefined) continue
              for (const fill of fills) {
                const pairs = Array.from({ length: least }, (_, i) => {
                  const traits: Traits = {
                    category: named[i] ?? null,
                    supplier: from[i] ?? fill.supplier,
                    currency: priced[i] ?? fill.currency,
                    hasAgreement: covered[i] ?? fill.hasAgreement,
                  }
                  return [some[i] ?? first, traits] as const
                })
                put(pairs)
                for (const l of more) put([...pairs, [l, { category: null, ...fill }]])
              }
            }
          }
  }
  return [...found.values()]
}

/** One of each of some lists, in every way. */
function product<T>(lists: readonly (readonly T[])[]): T[][] {
  return lists.reduce<T[][]>((ways, list) => ways.flatMap((way) => list.map((one) => [...way, one])), [[]])
}
