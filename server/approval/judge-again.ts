import type { Handing } from '#core/approval/handed'
import { thawSubject, type Policy, type Subject } from '#core/approval/policy'
import { dayOf } from '#core/base/day'
import type { PeopleFacts } from '#core/people/person'
import { findHolders } from '../budget/reads'
import type { Context } from '../context'
import type { DocumentHead } from '../document/kind'
import { listBranch } from '../people/place-reads'
import { reachPeople } from '../people/person-reads'
import { requireOrganisation } from '../settings/reads'
import type { Decidable } from './decidable'
import { listHandings } from './handing-reads'
import { reachHanded } from './reach-handed'
import { peopleNamedBy, requirePolicy, type RouteRow } from './reads'

/** What a route is made from. */
export interface Judged {
  readonly subject: Subject
  readonly policy: Policy
  readonly people: PeopleFacts
}

/** What was sent, with the owner, branch, holders, people and policy of today. */
export async function judgeAgain<D extends DocumentHead>(
  { tx, now }: Pick<Context, 'tx' | 'now'>,
  kind: Pick<Decidable<D>, 'whose'>,
  document: D,
  { sent }: Pick<RouteRow, 'sent'>,
): Promise<Judged & { readonly handed: readonly Handing[] }> {
  const { baseCurrency, timeZone } = await requireOrganisation(tx)
  const today = dayOf(now, timeZone)
  const policy = await requirePolicy(tx, now, today)
  const { raisedById, departmentId, ownerId = document.ownerId } = kind.whose(document)
  const holders = await findHolders(tx, [...new Set(sent.codings.map((c) => c.budgetLineId))])
  const reached = [...holders.values()].filter((id) => id !== null)
  const { people, absences } = await reachPeople(
    tx,
    [...new Set([ownerId, raisedById, ...peopleNamedBy(policy), ...reached])],
    baseCurrency,
    today,
  )
  const handed = await listHandings(tx, document.id)
  const branch = departmentId === '' ? [] : await listBranch(tx, departmentId)
  return {
    subject: thawSubject(sent, { ownerId, raisedById, ownedBy: document.ownedBy, departmentId, branch }, holders),
    policy,
    people: await reachHanded(
      { tx },
      { people: new Map(people.map((p) => [p.id, p])), absences, today },
      handed,
      baseCurrency,
    ),
    handed,
  }
}
