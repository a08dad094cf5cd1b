import { describe, expect, test } from 'vitest'
import fc from 'fast-check'
import { addDays } from '#core/base/day'
import { compare, money, sum } from '#core/base/money'
import { boundariesFor, findSplit, SPLIT_DAYS, type Boundary, type SplitRequest } from './splits'
import type { Policy, Subject } from './policy'

const eur = (amount: string) => money(`${amount} EUR`)
const request = (id: string, amount: string, change: Partial<SplitRequest> = {}): SplitRequest => ({
  id,
  ownerId: 'owen',
  departmentId: 'water',
  supplierIds: ['corrigan'],
  categoryIds: ['seals'],
  amount: eur(amount),
  sentOn: '2026-11-25',
  ...change,
})
const limit = (amount: string): Boundary => ({ code: 'deciding-limit', amount: eur(amount), personId: 'ines' })
const rule = (amount: string): Boundary => ({ code: 'rule', amount: eur(amount), ruleId: 'r' })

describe('two that make one', () => {
  test('each within a limit, together past it; a limit covers itself, a rule from its amount on', () => {
    const [a, b] = [request('a', '600.00'), request('b', '400.00')]
    expect(findSplit(a, [b], [limit('1000.00')])).toBeNull()
    expect(findSplit(a, [b], [limit('999.99')])).toMatchObject({
      together: eur('1000.00'),
      others: [{ id: 'b' }],
      shared: { whose: 'owner', what: 'supplier', id: 'corrigan' },
    })
    expect(findSplit(a, [b], [rule('1000.00')])).not.toBeNull()
    expect(findSplit(a, [b], [rule('1000.01')])).toBeNull()
    // What passes by itself was asked of more people anyway.
    expect(findSplit(request('a', '1000.01'), [b], [limit('1000.00')])).toBeNull()
    expect(findSplit(b, [request('a', '1000.01')], [limit('1000.00')])).toBeNull()
  })
  test('the owner before the department, a supplier before a category; an own limit is its owner’s alone', () => {
    const a = request('a', '600.00')
    const other = { ownerId: 'priya' }
    const sharedWith = (change: Partial<SplitRequest>) =>
      findSplit(a, [request('b', '600.00', change)], [limit('1000.00')])?.shared
    expect(sharedWith({ supplierIds: [] })).toEqual({ whose: 'owner', what: 'category', id: 'seals' })
    expect(sharedWith(other)).toEqual({ whose: 'department', what: 'supplier', id: 'corrigan' })
    expect(sharedWith({ ...other, departmentId: 'boat' })).toBeUndefined()
    expect(sharedWith({ supplierIds: [], categoryIds: [] })).toBeUndefined()
    const own: Boundary = { code: 'own-limit', amount: eur('1000.00'), personId: 'owen' }
    expect(findSplit(a, [request('b', '600.00')], [own])).not.toBeNull()
    expect(findSplit(a, [request('b', '600.00', other)], [own])).toBeNull()
  })
  test('within seven days, the first and the last included', () => {
    const apart = (days: number) =>
      findSplit(request('a', '600'), [request('b', '600', { sentOn: addDays('2026-11-25', days) })], [limit('1000')])
    expect([-7, -6, 6, 7].map((d) => apart(d) !== null)).toEqual([false, true, true, false])
  })
})

test('it is found where any of what may be common and any boundary finds it, and nowhere else', () => {
  const amount = fc.integer({ min: 0, max: 400 }).map((n) => String(n))
  const one = fc
    .record({ amount, owner: fc.boolean(), department: fc.boolean(), supplier: fc.boolean(), category: fc.boolean() })
    .map(
      (r) => (id: string) =>
        request(id, r.amount, {
          ...(r.owner ? {} : { ownerId: 'else' }),
          ...(r.department ? {} : { departmentId: 'else' }),
          supplierIds: r.supplier ? ['corrigan'] : [],
          categoryIds: r.category ? ['seals'] : ['else'],
        }),
    )
  const boundary = fc.record({ at: amount, isRule: fc.boolean() }).map((b) => (b.isRule ? rule(b.at) : limit(b.at)))
  fc.assert(
    fc.property(amount, fc.array(one, { maxLength: 4 }), fc.array(boundary, { maxLength: 3 }), (own, made, edges) => {
      const asked = request('a', own)
      const others = made.map((m, i) => m(`o${i}`))
      const within = (edge: Boundary, of: SplitRequest['amount']) =>
        edge.code === 'rule' ? compare(of, edge.amount) < 0 : compare(of, edge.amount) <= 0
      const expected = (['ownerId', 'departmentId'] as const).some((whose) =>
        (['supplierIds', 'categoryIds'] as const).some((what) =>
          edges.some((edge) => {
            const like = others.filter(
              (o) =>
                o[whose] === asked[whose] && o[what].some((x) => asked[what].includes(x)) && within(edge, o.amount),
            )
            const all = sum(
              [asked, ...like].map((r) => r.amount),
              'EUR',
            )
            return like.length > 0 && within(edge, asked.amount) && !within(edge, all)
          }),
        ),
      )
      expect(findSplit(asked, others, edges) !== null).toBe(expected)
    }),
  )
})

test('boundaries are the limits and amounts at which this document would ask more', () => {
  const subject: Subject = {
    document: 'requisition',
    kind: 'goods',
    amount: eur('100'),
    together: eur('100'),
    ownerId: 'owen',
    raisedById: 'owen',
    ownedBy: [],
    departmentId: 'water',
    branch: ['water'],
    codings: [],
    overBudget: false,
  }
  const base = { name: '', sparesManagers: false }
  const trustees = { by: 'group', name: 't', mode: 'all', members: ['x'] } as const
  const policy: Policy = {
    id: 'p',
    ending: 'passes',
    fallbackId: null,
    ownLimitDays: null,
    rules: [
      { ...base, id: 'spares', conditions: [], steps: [], sparesManagers: true },
      {
        ...base,
        id: 'chain',
        conditions: [],
        steps: [{ rank: 1, who: { by: 'chain', until: 'covered' }, mustCover: false }],
      },
      {
        ...base,
        id: 'board',
        conditions: [{ on: 'amount', from: eur('25000') }],
        steps: [{ rank: 2, who: trustees, mustCover: false }],
      },
      {
        ...base,
        id: 'elsewhere',
        conditions: [
          { on: 'amount', from: eur('10') },
          { on: 'department', ids: ['boat'], branch: true },
        ],
        steps: [{ rank: 2, who: trustees, mustCover: false }],
      },
    ],
  }
  const person = (id: string, managerId: string | null, own: string | null, deciding: string | null) => ({
    id,
    name: id,
    managerId,
    departmentId: 'water',
    ownLimit: own === null ? null : eur(own),
    decidingLimit: deciding === null ? null : eur(deciding),
    orderingLimit: null,
    leftOn: null,
  })
  const people = [
    person('owen', 'ines', '250', null),
    person('ines', 'tomas', null, '1000'),
    person('tomas', 'owen', null, '5000'),
  ]
  const found = boundariesFor(subject, policy, {
    people: new Map(people.map((p) => [p.id, p])),
    absences: [],
    today: '2026-11-25',
  })
  expect(found.map((b) => `${b.code} ${b.amount.amount}`).sort()).toEqual([
    'deciding-limit 1000.00',
    'deciding-limit 5000.00',
    'own-limit 250.00',
    'rule 25000.00',
  ])
  expect(SPLIT_DAYS).toBe(7)
})
