import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { money, type Money } from '#core/base/money'
import type { Absence, Person } from '#core/people/person'
import { checkPolicy, findAt, type Finding } from './findings'
import {
  RULE_DOCUMENTS,
  type Condition,
  type Policy,
  type PolicyStep,
  type Rule,
  type Subject,
  type SubjectCoding,
} from './policy'
import type { PolicyWorld } from './world'

const TODAY = '2026-11-27'
const eur = (amount: number | null): Money | null => (amount === null ? null : money(`${amount.toFixed(2)} EUR`))
const person = (id: string, managerId: string | null, more: Partial<Person> = {}): Person => ({
  id,
  name: id,
  managerId,
  departmentId: 'shop',
  ownLimit: null,
  decidingLimit: null,
  orderingLimit: null,
  leftOn: null,
  ...more,
})
const world = (people: readonly Person[], more: Partial<PolicyWorld> = {}, absences: Absence[] = []): PolicyWorld => ({
  currency: 'EUR',
  people: { people: new Map(people.map((p) => [p.id, p])), absences, today: TODAY },
  departments: [
    { id: 'shop', branch: ['shop', 'house'] },
    { id: 'yard', branch: ['yard', 'house'] },
  ],
  openTo: new Map(people.map((p) => [p.id, [p.departmentId]])),
  buyers: [],
  kinds: ['goods', 'travel'],
  categories: ['tools', 'paint'],
  suppliers: ['known'],
  currencies: ['EUR'],
  lines: [
    { id: 'l1', departmentId: 'shop', account: '610', holderId: null },
    { id: 'l2', departmentId: 'shop', account: '620', holderId: people[0]?.id ?? null },
    { id: 'l3', departmentId: 'yard', account: '610', holderId: people[1]?.id ?? null },
  ],
  ...more,
})
const rule = (id: string, conditions: Condition[], steps: PolicyStep[], sparesManagers = false): Rule => ({
  id,
  name: id,
  conditions,
  steps,
  sparesManagers,
})
const policy = (rules: Rule[], more: Partial<Policy> = {}): Policy => ({
  id: 'p',
  rules,
  ending: 'fallback',
  fallbackId: null,
  ownLimitDays: null,
  ...more,
})
const CHAIN: PolicyStep = { rank: 10, who: { by: 'chain', until: 'covered' }, mustCover: false }
const said = (findings: readonly Finding[]) =>
  findings.map((f) =>
    'example' in f
      ? `${f.code} ${'ruleId' in f ? (f.ruleId ?? '-') : '-'} from ${f.example.from.amount} ` +
        `below ${f.example.below?.amount ?? '-'}, ${f.people}`
      : f.code,
  )

describe('what a policy hardly should do', () => {
  // Worked by hand: Ada reports to Bo (limit 100), Bo to nobody; Cy decides in the end.
  const people = [person('bo', null, { decidingLimit: eur(100) }), person('cy', null), person('ada', 'bo')]
  test('from the cent above the last limit a chain comes to whoever decides in the end, or is held', () => {
    const w = world(people, { openTo: new Map([['ada', ['shop']]]) })
    expect(said(checkPolicy(policy([rule('r', [], [CHAIN])], { fallbackId: 'cy' }), w).findings)).toEqual([
      'falls-to-fallback r from 100.01 below -, 1',
    ])
    expect(said(checkPolicy(policy([rule('r', [], [CHAIN])]), w).findings)).toEqual(['held r from 100.01 below -, 1'])
  })
  test('a gap between two amounts is told with both its ends', () => {
    const low: Condition = { on: 'amount', below: money('50.00 EUR') }
    const high: Condition = { on: 'amount', from: money('80.00 EUR') }
    const w = world(people, { openTo: new Map([['ada', ['shop']]]) })
    const cy: PolicyStep = { rank: 1, who: { by: 'person', personId: 'cy' }, mustCover: false }
    const both = policy([rule('low', [low], [cy]), rule('high', [high], [cy])], { ending: 'passes' })
    expect(said(checkPolicy(both, w).findings)).toEqual(['no-rule-fits - from 50.00 below 80.00, 1'])
  })
  test('a rule that asks for what contradicts itself, or of nobody who is here, is never met', () => {
    const never = rule('n', [{ on: 'amount', from: money('9.00 EUR'), below: money('9.00 EUR') }], [CHAIN])
    const elsewhere = rule('e', [{ on: 'department', ids: ['yard'], branch: false }], [CHAIN])
    const w = world(people, { openTo: new Map([['ada', ['shop']]]) })
    const all = checkPolicy(policy([rule('r', [], [CHAIN]), never, elsewhere], { fallbackId: 'cy' }), w).findings
    expect(all.filter((f) => f.code === 'never-fits')).toEqual([
      { code: 'never-fits', ruleId: 'n' },
      { code: 'never-fits', ruleId: 'e' },
    ])
  })
  test('what an agreement covers, or does not, is told apart where a rule looks at it', () => {
    const w = world(people, { openTo: new Map([['ada', ['shop']]]) })
    const cy: PolicyStep = { rank: 1, who: { by: 'person', personId: 'cy' }, mustCover: false }
    const [covered, bare] = [true, false].map((is) => rule(`${is}`, [{ on: 'agreement', is }], [cy]))
    if (covered === undefined || bare === undefined) throw new Error('two rules')
    const { findings } = checkPolicy(policy([bare], { ending: 'passes' }), w)
    expect(said(findings)).toEqual(['no-rule-fits - from 0.00 below -, 1'])
    const [gap] = findings.flatMap((f) => ('example' in f ? [f.example.subject.codings] : []))
    expect(gap?.map((c) => c.hasAgreement)).toEqual([true])
    expect(checkPolicy(policy([bare, covered], { ending: 'passes' }), w).findings).toEqual([])
  })
  test('a circle of managers, the limit of a leaver, and whoever would decide their own are named', () => {
    const gone = person('gia', null, { leftOn: '2026-11-01', decidingLimit: eur(5) })
    const round = [person('x', 'y'), person('y', 'z'), person('z', 'x')]
    const cy: PolicyStep = { rank: 1, who: { by: 'person', personId: 'ada' }, mustCover: false }
    const w = world([...people, gone, ...round], { openTo: new Map([['ada', ['shop']]]) })
    const { findings } = checkPolicy(policy([rule('r', [], [cy])], { fallbackId: 'cy' }), w)
    expect(findings).toContainEqual({ code: 'limit-of-leaver', personId: 'gia' })
    expect(findings.filter((f) => f.code === 'circle')).toEqual([{ code: 'circle', personIds: ['x', 'y', 'z'] }])
    expect(findings).toContainEqual(expect.objectContaining({ code: 'own', personId: 'ada', people: 1 }))
  })
  test('who is not looked at when its time is over is counted, and nothing is said of rules that were not met', () => {
    const never = policy([rule('n', [{ on: 'amount', below: money('0.00 EUR') }], [CHAIN])], { fallbackId: 'cy' })
    expect(checkPolicy(never, world(people), () => true)).toEqual({ findings: [], unchecked: 3 })
  })
})

/** All that may be chosen in the own fields: one choice or none on the whole, any set of them on its lines. */
function everyOwn(w: PolicyWorld, kind: string): Record<string, readonly string[]>[] {
  return (w.ownFields ?? []).reduce<Record<string, readonly string[]>[]>(
    (all, f) => {
      const sets = f.choices.reduce<string[][]>((s, c) => [...s, ...s.map((x) => [...x, c])], [[]])
      const said = sets.filter((s) => (f.on === 'line' || s.length <= 1) && (!f.required || s.length > 0))
      const isAsked = f.kinds.length === 0 || f.kinds.includes(kind)
      return isAsked ? all.flatMap((o) => said.map((s) => ({ ...o, [f.id]: s }))) : all
    },
    [{}],
  )
}

/** Every document of a small organisation: every owner, department, kind, set of codings and amount to the cent. */
function* everyDocument(w: PolicyWorld, most: number): Generator<Subject> {
  const owners = [
    ...[...w.openTo].map(([ownerId, open]) => ({ document: 'requisition' as const, ownerId, open })),
    ...w.buyers.map((id) => ({
      document: 'order' as const,
      ownerId: id,
      open: [w.people.people.get(id)?.departmentId ?? ''],
    })),
  ]
  for (const { document, ownerId, open } of owners)
    for (const departmentId of open) {
      const isOrder = document === 'order'
      const lines = w.lines.filter((l) => isOrder || l.departmentId === departmentId)
      const suppliers = isOrder ? (['known'] as const) : w.suppliers
      const traits = [null, ...w.categories].flatMap((category) =>
        w.currencies.flatMap((currency) => suppliers.map((supplier) => ({ category, currency, supplier }))),
      )
      const codings: SubjectCoding[] = lines.flatMap((l) =>
        traits.map((t) => ({
          ...{ budgetLineId: l.id, account: l.account, project: l.project ?? null, holderId: l.holderId },
          ...t,
        })),
      )
      const branch = w.departments.find((d) => d.id === departmentId)?.branch ?? []
      for (let set = 1; set < 2 ** codings.length; set += 1)
        for (const kind of isOrder ? [...w.kinds, ''] : w.kinds)
          for (const [overBudget, own] of [false, true].flatMap((is) =>
            (isOrder ? [{}] : everyOwn(w, kind)).map((o) => [is, o] as const),
          ))
            for (let cents = 0; cents <= most; cents += 1) {
              const amount = money(`${(cents / 100).toFixed(2)} EUR`)
              yield {
                document,
                kind,
                ownerId,
                raisedById: ownerId,
                ownedBy: [],
                departmentId,
                branch,
                overBudget,
                own,
                amount,
                together: amount,
                codings: codings.filter((_, i) => (set >> i) % 2 === 1),
              }
            }
    }
}

test('finds what looking at every document finds, and nothing else', () => {
  const cents = fc.integer({ min: 0, max: 5 }).map((n) => money(`0.0${n} EUR`))
  const limit = fc.option(cents, { nil: null })
  const ids = ['a', 'b', 'c'] as const
  const who = fc.constantFrom(...ids)
  const condition: fc.Arbitrary<Condition> = fc.oneof(
    fc.record({ on: fc.constant('amount' as const), from: cents }),
    fc.record({ on: fc.constant('amount' as const), below: cents }),
    fc.record({ on: fc.constant('account' as const), codes: fc.constantFrom(['610'], ['620'], ['610', '620']) }),
    fc.record({ on: fc.constant('category' as const), ids: fc.constant(['tools']) }),
    fc.record({ on: fc.constant('project' as const), codes: fc.constantFrom(['J1'], ['J2'], ['J1', 'J2']) }),
    fc.record({
      on: fc.constant('department' as const),
      ids: fc.constantFrom(['shop'], ['house']),
      branch: fc.boolean(),
    }),
    fc.record({ on: fc.constant('kind' as const), kinds: fc.constant(['travel']) }),
    fc.record({
      on: fc.constant('supplier' as const),
      sorts: fc.constantFrom(['proposed' as const], ['undecided' as const], ['proposed' as const, 'known' as const]),
    }),
    fc.record({ on: fc.constant('currency' as const), codes: fc.constantFrom(['EUR'], ['DKK'], ['EUR', 'DKK']) }),
    fc.record({ on: fc.constant('over budget' as const), is: fc.boolean() }),
    fc.record({ on: fc.constant('owner' as const), ids: who.map((w) => [w]) }),
    fc.record({
      ...{ on: fc.constant('own field' as const), fieldId: fc.constant('f') },
      values: fc.constantFrom(['soon'], ['late'], ['soon', 'late']),
    }),
  )
  const step: fc.Arbitrary<PolicyStep> = fc.record({
    rank: fc.constant(1),
    mustCover: fc.boolean(),
    who: fc.oneof(
      who.map((personId) => ({ by: 'person' as const, personId })),
      fc.constantFrom('covered' as const, 'top' as const).map((until) => ({ by: 'chain' as const, until })),
      fc.constant({ by: 'budget holders' as const }),
      fc.record({
        by: fc.constant('group' as const),
        name: fc.constant('g'),
        mode: fc.constantFrom('any' as const, 'all' as const),
        members: fc.uniqueArray(who, { minLength: 1 }),
      }),
    ),
  })
  const rules = fc
    .array(
      fc.record({
        conditions: fc.array(condition, { maxLength: 2 }),
        steps: fc.array(step, { maxLength: 2 }),
        sparesManagers: fc.boolean(),
        documents: fc.constantFrom(...RULE_DOCUMENTS),
      }),
      { minLength: 1, maxLength: 2 },
    )
    .map((some) => some.map((r, i): Rule => ({ id: `r${i}`, name: `r${i}`, ...r })))
  // Every document is looked at, so only some of what tells codings apart is there at once.
  const [known, both] = [['known' as const], ['undecided' as const, 'proposed' as const]]
  const field = {
    ...{ id: 'f', name: 'When', on: 'requisition' as const, required: false },
    ...{ kinds: [] as string[], departmentIds: [], categoryIds: [], choices: ['soon', 'late', 'whenever'] },
  }
  const varied = fc.constantFrom<Partial<PolicyWorld> & Pick<PolicyWorld, 'categories' | 'suppliers' | 'currencies'>>(
    { categories: ['tools'], suppliers: known, currencies: ['EUR'] },
    { categories: [], suppliers: both, currencies: ['EUR'] },
    { categories: [], suppliers: known, currencies: ['EUR', 'DKK'] },
    { categories: [], suppliers: both, currencies: ['EUR', 'DKK'] },
    { categories: [], suppliers: known, currencies: ['EUR'], ownFields: [field] },
    { categories: [], suppliers: known, currencies: ['EUR'], ownFields: [{ ...field, on: 'line' as const }] },
    {
      categories: [],
      suppliers: known,
      currencies: ['EUR'],
      ownFields: [{ ...field, kinds: ['travel'], required: true }],
    },
  )
  const scene = fc.record({
    rules,
    varied,
    ending: fc.constantFrom('fallback' as const, 'passes' as const),
    fallbackId: fc.option(who, { nil: null }),
    managers: fc.tuple(fc.option(who, { nil: null }), fc.option(who, { nil: null }), fc.option(who, { nil: null })),
    own: limit,
    project: fc.constantFrom(null, 'J1', 'J2'),
    limits: fc.tuple(limit, limit, limit),
    ordering: fc.tuple(limit, limit, limit),
    buyers: fc.uniqueArray(who, { maxLength: 1 }),
    away: fc.option(
      fc.record({
        personId: who,
        substituteId: fc.option(who, { nil: null }),
        byDepartment: fc.array(
          fc.record({ departmentId: fc.constantFrom('shop', 'house', 'yard'), substituteId: who }),
          { maxLength: 1 },
        ),
      }),
      { nil: null },
    ),
    holders: fc.tuple(fc.option(who, { nil: null }), fc.option(who, { nil: null })),
  })
  fc.assert(
    fc.property(scene, (s) => {
      const people = ids.map((id, i) =>
        person(id, s.managers[i] === id ? null : (s.managers[i] ?? null), {
          decidingLimit: s.limits[i] ?? null,
          orderingLimit: s.ordering[i] ?? null,
          ownLimit: id === 'a' ? s.own : null,
        }),
      )
      const absences =
        s.away === null ||
        [s.away.substituteId, ...s.away.byDepartment.map((x) => x.substituteId)].includes(s.away.personId)
          ? []
          : [{ ...s.away, from: TODAY, until: TODAY }]
      const w = world(
        people,
        {
          ...s.varied,
          lines: [
            { id: 'l1', departmentId: 'shop', account: '610', project: s.project, holderId: s.holders[0] },
            { id: 'l2', departmentId: 'shop', account: '620', holderId: s.holders[1] },
          ].slice(0, s.varied.suppliers.length * s.varied.currencies.length === 4 ? 1 : 2),
          openTo: new Map(ids.map((id) => [id, ['shop']])),
          buyers: s.buyers,
        },
        absences,
      )
      const p = policy(s.rules, { ending: s.ending, fallbackId: s.fallbackId })
      const met = new Set<string>()
      const brute = new Set<string>()
      for (const subject of everyDocument(w, 7)) {
        const { told, fits } = findAt(p, w, subject)
        for (const t of told) brute.add(JSON.stringify(t))
        for (const id of fits) met.add(id)
      }
      const { findings } = checkPolicy(p, w)
      const told = findings.flatMap((f) => {
        if (!('example' in f)) return []
        const { example, people: _, ...rest } = f
        // The example proves it.
        expect(findAt(p, w, example.subject).told).toContainEqual(rest)
        return [JSON.stringify(rest)]
      })
      expect(new Set(told)).toEqual(brute)
      expect(findings.flatMap((f) => (f.code === 'never-fits' ? [f.ruleId] : []))).toEqual(
        p.rules.filter((r) => !met.has(r.id)).map((r) => r.id),
      )
    }),
    { numRuns: 200 },
  )
}, 120_000)
