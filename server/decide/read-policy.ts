import { policyOf } from '#core/approval/policy-form'
import { dayOf, fiscalPeriod } from '#core/base/day'
import { may } from '#core/people/rights'
import type { PolicyVersion, PolicyView } from '#shared/contract/policy'
import { findLastVersion, findVersion, requireVersion } from '../approval/reads'
import { listCategories } from '../catalogue/reads'
import type { Context } from '../context'
import { notFound } from '../http/problem'
import { reachPeople } from '../people/person-reads'
import { listUpward } from '../people/place-reads'
import { mayConfirm } from '../people/second-person'
import { inForce, readForm } from '../requisition/form-reads'
import { requireOrganisation } from '../settings/reads'
import {
  findDraft,
  listAllAccounts,
  listProjects,
  listCodings,
  listOpenTo,
  listRoleHolders,
  listCurrencies,
  listVersions,
} from './policy-reads'

/** The policy in force and the draft of the next, with all that they may be tried and checked on. */
export async function readApprovalPolicy(ctx: Context): Promise<PolicyView> {
  const { tx, now } = ctx
  const o = await requireOrganisation(tx)
  const today = dayOf(now, o.timeZone)
  const inForceNow = await requireVersion(tx, now, today)
  const last = (await findLastVersion(tx, today)) ?? inForceNow
  const versions = await listVersions(tx)
  const written = await readForm(tx, today)
  const openTo = await listOpenTo(tx)
  const { people, absences } = await reachPeople(
    tx,
    openTo.map((p) => p.personId),
    o.baseCurrency,
    today,
  )
  return {
    number: inForceNow.number,
    inForceAt: versions.find((v) => v.number === inForceNow.number)?.inForceAt ?? now.toISOString(),
    form: inForceNow.form,
    policy: policyOf(inForceNow.id, inForceNow.form, inForceNow.grants),
    last: { number: last.number, form: last.form },
    draft: await viewDraft(ctx),
    versions,
    mayWrite: may(ctx.actor.grants, 'keep settings'),
    grants: await listRoleHolders(tx, today),
    currency: o.baseCurrency,
    timeZone: o.timeZone,
    today,
    people,
    absences,
    departments: branchesOf(await listUpward(tx)),
    openTo,
    kinds: inForce(written.kinds).map((k) => ({ code: k.code, name: k.name })),
    ownFields: inForce(written.ownFields)
      .filter((f) => f.type === 'choice')
      .map(({ help: _, type: __, ...f }) => f),
    categories: await listCategories(tx),
    currencies: await listCurrencies(tx, o.baseCurrency),
    projects: await listProjects(tx),
    accounts: await listAllAccounts(tx),
    lines: await listCodings(tx, fiscalPeriod(today, o.fiscalStartMonth).year),
  }
}

async function viewDraft(ctx: Context): Promise<PolicyView['draft']> {
  const found = await findDraft(ctx.tx)
  if (found === null) return null
  const { askedById, writers, ...draft } = found
  return {
    ...draft,
    isOwn: askedById === ctx.actor.id,
    mayConfirm: draft.state === 'waiting' && (await mayConfirm(ctx, writers)),
  }
}

/** A version of the policy as it was written, whenever it held. */
export async function readPolicyVersion({ tx, now }: Context, number: number): Promise<PolicyVersion> {
  const { timeZone } = await requireOrganisation(tx)
  const found = await findVersion(tx, number, dayOf(now, timeZone))
  if (found === null) throw notFound('This version of the policy')
  return { number: found.number, form: found.form }
}

/** Every department with all above it, itself first. */
export function branchesOf(all: Awaited<ReturnType<typeof listUpward>>): PolicyView['departments'] {
  const above = new Map(all.map((d) => [d.id, d.parentId]))
  return all.map(({ id, name, retired }) => {
    const branch: string[] = []
    for (let at: string | null = id; at !== null && !branch.includes(at); at = above.get(at) ?? null) branch.push(at)
    return { id, name, branch, retired }
  })
}
