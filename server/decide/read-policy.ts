import { dayOf, fiscalPeriod } from '#core/base/day'
import type { PolicyView } from '#shared/contract/policy'
import { listCategories } from '../catalogue/reads'
import type { Context } from '../context'
import { reachPeople } from '../people/person-reads'
import { inForce, readForm } from '../requisition/form-reads'
import { requireOrganisation } from '../settings/reads'
import { findPolicyName, listUpward, listCodings, listOpenTo } from './policy-reads'
import { requirePolicy } from '../approval/reads'

/** The policy in force, with all that it may be tried and checked on. */
export async function readApprovalPolicy({ tx, now }: Context): Promise<PolicyView> {
  const o = await requireOrganisation(tx)
  const today = dayOf(now, o.timeZone)
  const policy = await requirePolicy(tx, today)
  const openTo = await listOpenTo(tx)
  const { people, absences } = await reachPeople(
    tx,
    openTo.map((p) => p.personId),
    o.baseCurrency,
    today,
  )
  const said = await findPolicyName(tx, policy.id)
  return {
    name: said?.name ?? '',
    inForceFrom: said?.inForceFrom ?? today,
    policy,
    currency: o.baseCurrency,
    today,
    people: people.map((p) => ({ ...p, orderingLimit: null })),
    absences,
    departments: branchesOf(await listUpward(tx)),
    openTo,
    kinds: inForce((await readForm(tx, today)).kinds).map((k) => ({ code: k.code, name: k.name })),
    categories: await listCategories(tx),
    lines: await listCodings(tx, fiscalPeriod(today, o.fiscalStartMonth).year),
  }
}

/** Departments in use, each with all above it, itself first. */
function branchesOf(all: Awaited<ReturnType<typeof listUpward>>): PolicyView['departments'] {
  const above = new Map(all.map((d) => [d.id, d.parentId]))
  return all
    .filter((d) => !d.retired)
    .map(({ id, name }) => {
      const branch: string[] = []
      for (let at: string | null = id; at !== null && !branch.includes(at); at = above.get(at) ?? null) branch.push(at)
      return { id, name, branch }
    })
}
