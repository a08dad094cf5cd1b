import { SUPPLIER_SORTS } from '#core/approval/policy'
import type { PolicyWorld } from '#core/approval/world'
import type { PolicyView } from '#shared/contract/policy'
import type { PolicyNames } from '#shared/words/policy'

/** The organisation that a policy is looked at in, as the core takes it. */
export const worldOf = (v: PolicyView): PolicyWorld => ({
  currency: v.currency,
  people: { people: new Map(v.people.map((p) => [p.id, p])), absences: v.absences, today: v.today },
  departments: v.departments,
  openTo: new Map(v.openTo.map((o) => [o.personId, o.departmentIds])),
  buyers: [...new Set(v.grants.filter((g) => g.role === 'buyer').map((g) => g.personId))],
  kinds: v.kinds.length === 0 ? ['goods'] : v.kinds.map((k) => k.code),
  categories: v.categories.map((c) => c.id),
  suppliers: SUPPLIER_SORTS,
  currencies: v.currencies,
  lines: v.lines,
  ownFields: v.ownFields,
})

/** How what it names is called. */
export function policyNames(v: PolicyView): PolicyNames {
  const named = (all: readonly { id: string; name: string }[]) => {
    const names = new Map(all.map((x) => [x.id, x.name]))
    return (id: string) => names.get(id) ?? 'somebody or something that is no longer there'
  }
  return {
    person: named(v.people),
    department: named(v.departments),
    category: named(v.categories),
    account: named(v.accounts.map((a) => ({ id: a.code, name: `${a.code} ${a.name}` }))),
    field: named(v.ownFields),
    kind: named(v.kinds.map((k) => ({ id: k.code, name: k.name }))),
  }
}
