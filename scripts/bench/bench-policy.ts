import { checkPolicy } from '#core/approval/findings'
import type { Condition, Policy, PolicyStep, Rule, Subject } from '#core/approval/policy'
import { replayPolicy } from '#core/approval/policy-replay'
import { makeRoute } from '#core/approval/route'
import type { PolicyWorld } from '#core/approval/world'
import { addDays } from '#core/base/day'
import { moneyOf, sum, type Money } from '#core/base/money'
import type { PeopleFacts, Person } from '#core/people/person'

type Row = [what: string, figure: string, aim: string]
const CURRENCY = 'EUR'
const euro = (amount: number): Money => moneyOf(String(amount), CURRENCY)
const TODAY = '2026-11-27'
const PAST = 1_000_000
const CALLS = 20_000

/** Numbers that are the same in every run (mulberry32). */
function numbers(seed: number): (below: number) => number {
  let state = seed
  return (below) => {
    state = (state + 0x6d2b79f5) | 0
    let t = Math.imul(state ^ (state >>> 15), 1 | state)
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t
    return Math.floor((((t ^ (t >>> 14)) >>> 0) / 4_294_967_296) * below)
  }
}

const departmentsOf = (people: number): string[] => Array.from({ length: Math.max(5, people / 25) }, (_, i) => `d${i}`)
const ACCOUNTS = Array.from({ length: 40 }, (_, i) => `${400 + i}`)
const CATEGORIES = Array.from({ length: 30 }, (_, i) => `c${i}`)

/** A tree of managers eight to each, whose limits grow upwards; one in a hundred is away. */
function organisation(count: number): PeopleFacts {
  const limit = (level: number) => euro(2000 * 4 ** level)
  const people = Array.from({ length: count }, (_, i): Person => {
    const level = i === 0 ? 5 : Math.max(0, 5 - Math.ceil(Math.log(i * 7 + 1) / Math.log(8)))
    return {
      id: `p${i}`,
      name: `Person ${i}`,
      managerId: i === 0 ? null : `p${Math.floor((i - 1) / 8)}`,
      departmentId: `d${i % departmentsOf(count).length}`,
      ownLimit: i % 3 === 0 ? euro(200) : null,
      decidingLimit: i * 8 + 1 < count ? limit(level) : null,
      orderingLimit: null,
      leftOn: null,
    }
  })
  return {
    people: new Map(people.map((p) => [p.id, p])),
    absences: people
      .filter((_, i) => i % 100 === 7)
      .map((p) => ({ personId: p.id, from: TODAY, until: addDays(TODAY, 5), substituteId: 'p0' })),
    today: TODAY,
  }
}

/** Rules as organisations write them: by department, category, account and amount; a few hold for all. */
function policyOf(rules: number, people: number): Policy {
  const next = numbers(rules)
  const departments = departmentsOf(people)
  const pick = <T>(all: readonly T[]): T => all[next(all.length)] as T
  const rule = (i: number): Rule => {
    const amount: Condition = { on: 'amount', from: euro([300, 1000, 5000, 25_000][i % 4] ?? 300) }
    const where: Condition =
      i % 3 === 0
        ? { on: 'department', ids: [pick(departments)], branch: true }
        : i % 3 === 1
          ? { on: 'category', ids: [pick(CATEGORIES)] }
          : { on: 'account', codes: [pick(ACCOUNTS)] }
    const step: PolicyStep = {
      rank: 10 + (i % 5),
      who: i % 2 === 0 ? { by: 'chain', until: 'covered' } : { by: 'person', personId: `p${next(people)}` },
      mustCover: false,
    }
    return {
      id: `r${i}`,
      name: '',
      conditions: i < 3 ? [amount] : [where, amount],
      steps: [step],
      sparesManagers: false,
    }
  }
  const all = Array.from({ length: rules }, (_, i) => rule(i))
  return { id: 'p', rules: all, ending: 'fallback', fallbackId: 'p0', ownLimitDays: null }
}

/** Requests of people who ask for much the same again: of their department, on three accounts, of four categories. */
function subjects(count: number, people: number): Subject[] {
  const next = numbers(count)
  const departments = departmentsOf(people)
  return Array.from({ length: count }, () => {
    const at = next(people)
    const owner = `p${at}`
    const amount = euro(1 + next(40_000))
    const departmentId = departments[at % departments.length] ?? 'd0'
    return {
      ...{ document: 'requisition', kind: 'goods', amount, together: amount, ownerId: owner, raisedById: owner },
      ...{ ownedBy: [], departmentId, branch: [departmentId], overBudget: next(10) === 0 },
      codings: [
        {
          budgetLineId: `l${next(200)}`,
          account: ACCOUNTS[(at + next(3)) % ACCOUNTS.length] ?? '400',
          category: CATEGORIES[(at + next(4)) % CATEGORIES.length] ?? null,
          ...{ supplier: 'known', currency: CURRENCY, holderId: `p${next(people)}` },
        },
      ],
    }
  })
}

/** Microseconds of one call, the best of three runs. */
function each(count: number, work: (i: number) => void): number {
  const times = [0, 1, 2].map(() => {
    const from = performance.now()
    for (let i = 0; i < count; i += 1) work(i)
    return ((performance.now() - from) / count) * 1000
  })
  return Math.min(...times)
}

function timeRoutes(people: number, rules: number): number {
  const facts = organisation(people)
  const policy = policyOf(rules, people)
  const some = subjects(1000, people)
  return each(CALLS, (i) => {
    const s = some[i % some.length]
    if (s !== undefined) makeRoute(s, policy, facts)
  })
}

/** Who decides in large organisations against small ones; replays against a bare loop; the check as rules double. */
export function benchPolicy(): Row[] {
  const small = timeRoutes(50, 10)
  const large = timeRoutes(5000, 300)
  return [
    [
      'a route among 5,000 people and 300 rules, against 50 and 10',
      `${(large / small).toFixed(1)} times (${large.toFixed(1)} µs and ${small.toFixed(1)} µs)`,
      'at most 3',
    ],
    ...replays(),
    ...checks(),
  ]
}

function replays(): Row[] {
  const facts = organisation(500)
  const past = subjects(PAST, 500).map((subject, i) => ({ id: String(i), subject }))
  const began = performance.now()
  const now = policyOf(12, 500)
  const draft = policyOf(13, 500)
  const { replayed } = replayPolicy(past, { now, draft, people: facts, hours: {}, usualHours: 5 })
  const seconds = (performance.now() - began) / 1000
  const from = performance.now()
  // The same data, looked at once: how many different ones there are, and what they come to.
  const owners = new Set(past.map((p) => JSON.stringify(p.subject)))
  const amount = sum(
    past.map((p) => p.subject.amount),
    CURRENCY,
  )
  const bare = (performance.now() - from) / 1000
  return [
    [
      `a replay of ${replayed.requests.toLocaleString('en')} requests under two policies of a dozen rules`,
      `${Math.round(PAST / seconds).toLocaleString('en')} a second, ${(seconds / bare).toFixed(1)} times a bare loop ` +
        `over them (${owners.size.toLocaleString('en')} different ones, ${amount.amount})`,
      '1,000,000 in a minute',
    ],
  ]
}

function checks(): Row[] {
  const world = (people: number): PolicyWorld => {
    const departments = departmentsOf(people)
    return {
      currency: CURRENCY,
      people: organisation(people),
      departments: departments.map((id) => ({ id, branch: [id] })),
      openTo: new Map(Array.from({ length: people }, (_, i) => [`p${i}`, [`d${i % departments.length}`]])),
      buyers: [],
      kinds: ['goods'],
      categories: CATEGORIES,
      suppliers: ['known'],
      currencies: [CURRENCY],
      lines: departments.flatMap((departmentId, i) =>
        ACCOUNTS.slice(0, 3).map((account) => ({ id: `l${i}${account}`, departmentId, account, holderId: `p${i}` })),
      ),
    }
  }
  const seconds = [75, 150, 300].map((rules) => {
    const from = performance.now()
    checkPolicy(policyOf(rules, 50), world(50))
    return (performance.now() - from) / 1000
  })
  const growth = seconds.slice(1).map((s, i) => (s / (seconds[i] ?? s)).toFixed(1))
  return [
    [
      'the check of a policy of 75, 150 and 300 rules, 50 people',
      `${seconds.map((s) => `${s.toFixed(2)} s`).join(', ')}; ${growth.join(' and ')} times as rules double`,
      '–',
    ],
  ]
}
