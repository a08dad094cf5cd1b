import { holdersOfRole, type PolicyForm, type RoleHolder } from '#core/approval/policy-form'
import type { DecimalText } from '#core/base/decimal'
import type { Day } from '#core/base/day'
import type { Values } from '#core/lists/list'
import type { Absence, LimitName } from '#core/people/person'
import { ROLES, type Role } from '#core/people/rights'

/** The organisation as it was on a day: entries of its lists by their ids, the policy that held, and who was away. */
export interface WorldThen {
  readonly day: Day
  readonly fiscalYear: number
  readonly people: ReadonlyMap<string, Values>
  readonly limits: ReadonlyMap<string, Values>
  readonly roles: ReadonlyMap<string, Values>
  readonly departments: ReadonlyMap<string, Values>
  readonly budgetLines: ReadonlyMap<string, Values>
  readonly policy: Pick<PolicyForm, 'rules' | 'fallbackId'>
  readonly absences: readonly Absence[]
}

/** Why somebody could have been asked to decide. */
export type AuthorityReason =
  | { readonly code: 'manages'; readonly people: number }
  | { readonly code: 'named'; readonly rules: readonly string[] }
  | { readonly code: 'by role'; readonly rules: readonly string[] }
  | { readonly code: 'holds budgets'; readonly lines: readonly string[] }
  | { readonly code: 'in the end' }
  | { readonly code: 'stands in'; readonly for: readonly string[] }

/** What somebody could decide on a day, and order, up to and including; null: without a limit. */
export interface Authority {
  readonly personId: string
  readonly name: string
  readonly jobTitle: string
  readonly department: string
  /** "" where they had none. */
  readonly decidingLimit: DecimalText | ''
  readonly orderingLimit: DecimalText | ''
  readonly reasons: readonly AuthorityReason[]
  /** Whoever stood in while they were away; null while they were here. */
  readonly away: { readonly substitutes: readonly string[] } | null
}

/** Who could be asked to decide on a day, or order, with their limits and every reason why; by name. */
export function authorityOn(world: WorldThen): Authority[] {
  const { day, people } = world
  const here = new Map([...people].filter(([, v]) => (v.leftOn ?? '') === '' || (v.leftOn ?? '') >= day))
  const idOf = new Map([...people].map(([id, v]) => [(v.email ?? '').toLowerCase(), id]))
  const nameOf = (id: string) => people.get(id)?.name ?? ''
  const departments = new Map([...world.departments.values()].map((d) => [d.costCentre ?? '', d.name ?? '']))
  const grants = grantsOn(world, idOf)
  const absences = world.absences.filter((a) => a.from <= day && day <= a.until && here.has(a.personId))
  const own = new Map([...here.keys()].map((id) => [id, reasonsFor(id, world, here, grants)]))
  return [...here]
    .map(([personId, v]): Authority => {
      const away = absences.find((a) => a.personId === personId)
      const covered = absences.filter((a) => substitutesIn(a).includes(personId) && own.get(a.personId)?.length !== 0)
      const reasons: AuthorityReason[] = [
        ...(own.get(personId) ?? []),
        ...(covered.length > 0 ? [{ code: 'stands in' as const, for: covered.map((a) => nameOf(a.personId)) }] : []),
      ]
      const orders = grants.some((g) => g.personId === personId && g.role === 'buyer')
      return {
        ...{ personId, name: v.name ?? '', jobTitle: v.jobTitle ?? '', reasons },
        department: departments.get(v.department ?? '') ?? v.department ?? '',
        decidingLimit: limitOn(world, v, 'deciding'),
        orderingLimit: orders ? limitOn(world, v, 'ordering') : '',
        away: away === undefined ? null : { substitutes: substitutesIn(away).map(nameOf) },
      }
    })
    .filter((a) => a.reasons.length > 0 || a.orderingLimit !== '')
    .sort((a, b) => a.name.localeCompare(b.name) || a.personId.localeCompare(b.personId))
}

const substitutesIn = (a: Absence): string[] => [
  ...new Set([a.substituteId ?? [], (a.byDepartment ?? []).map((s) => s.substituteId)].flat()),
]

const isOn = (v: Values, day: Day): boolean =>
  ((v.from ?? '') === '' || (v.from ?? '') <= day) && ((v.until ?? '') === '' || (v.until ?? '') >= day)

/** The limit of somebody on a day: the last begun of those that held on it, else what was always theirs. */
function limitOn({ limits, day }: WorldThen, person: Values, of: LimitName): string {
  const dated = [...limits.values()]
    .filter((x) => x.person === (person.email ?? '').toLowerCase() && x.limit === of && x.amount !== '' && isOn(x, day))
    .sort((a, b) => (b.from ?? '').localeCompare(a.from ?? ''))
  return dated[0]?.amount ?? person[`${of}Limit`] ?? ''
}

/** Who held which role, for the organisation or for a department, by the departments' cost centres. */
function grantsOn({ people, roles, day }: WorldThen, idOf: ReadonlyMap<string, string>): RoleHolder[] {
  const isRole = (r: string): r is Role => (ROLES as readonly string[]).includes(r)
  return [
    ...[...people].flatMap(([personId, v]) =>
      (v.roles ?? '')
        .split(',')
        .map((r) => r.trim())
        .filter(isRole)
        .map((role) => ({ personId, role, departmentId: null, placeId: null })),
    ),
    ...[...roles.values()].flatMap((v) => {
      const personId = idOf.get(v.person ?? '')
      const role = v.role ?? ''
      return personId === undefined || !isRole(role) || !isOn(v, day)
        ? []
        : [{ personId, role, departmentId: v.department || null, placeId: v.place || null }]
    }),
  ]
}

function reasonsFor(
  id: string,
  { people, departments, budgetLines, policy, fiscalYear }: WorldThen,
  here: ReadonlyMap<string, Values>,
  grants: readonly RoleHolder[],
): AuthorityReason[] {
  const email = (people.get(id)?.email ?? '').toLowerCase()
  const rulesWith = (fits: (who: PolicyForm['rules'][number]['steps'][number]['who']) => boolean) =>
    policy.rules.filter((r) => r.steps.some((s) => fits(s.who))).map((r) => r.name)
  const costCentreOf = (departmentId: string | null) =>
    departmentId === null ? null : (departments.get(departmentId)?.costCentre ?? departmentId)
  const named = rulesWith(
    (w) => (w.by === 'person' && w.personId === id) || (w.by === 'group' && w.members.includes(id)),
  )
  const byRole = rulesWith(
    (w) => w.by === 'role' && holdersOfRole(w.role, costCentreOf(w.departmentId), grants).includes(id),
  )
  const managed = [...here.values()].filter((v) => (v.manager ?? '') === email && email !== '').length
  const held = [...budgetLines.values()].filter(
    (l) => l.holder === email && email !== '' && l.year === String(fiscalYear) && l.retired !== 'yes',
  )
  return [
    ...(managed > 0 && rulesWith((w) => w.by === 'chain').length > 0
      ? [{ code: 'manages' as const, people: managed }]
      : []),
    ...(named.length > 0 ? [{ code: 'named' as const, rules: named }] : []),
    ...(byRole.length > 0 ? [{ code: 'by role' as const, rules: byRole }] : []),
    ...(held.length > 0 && rulesWith((w) => w.by === 'budget holders').length > 0
      ? [{ code: 'holds budgets' as const, lines: held.map((l) => l.name ?? '') }]
      : []),
    ...(policy.fallbackId === id ? [{ code: 'in the end' as const }] : []),
  ]
}
